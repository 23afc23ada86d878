/**
 * One stream of what happens on the server for all windows of a browser: browsers keep only a handful of connections to a server, and
 * a stream keeps one for good. Each window sends "here" when it comes and "gone" when it goes.
 */
const windows = new Set();
let source;

const tellAll = (message) => {
  for (const port of windows) port.postMessage(message);
};

const listen = () => {
  source = new EventSource("/api/events");
  let wasOpen = false;
  source.onopen = () => {
    tellAll(wasOpen ? "open again" : "open");
    wasOpen = true;
  };
  source.onmessage = ({ data }) => tellAll(data);
  source.onerror = () => {
    tellAll("closed");
    // One that the browser gave up for good is begun anew; others it begins anew by itself.
    if (source.readyState === EventSource.CLOSED) setTimeout(listen, 2000);
  };
};

self.onconnect = ({ ports: [port] }) => {
  port.onmessage = ({ data }) => {
    if (data === "gone") windows.delete(port);
  };
  windows.add(port);
  if (!source) listen();
  else if (source.readyState === EventSource.OPEN) port.postMessage("open");
};
