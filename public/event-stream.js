/**
 * One stream of what happens on the server for all windows of a browser: browsers keep only a handful of connections to a server, and
 * a stream keeps one for good. Each window says, when it comes, the last event that its page knows of, and "gone" when it goes.
 */
const windows = new Set();
/** Events by their names, for a window that comes later: all there were since the first, and as many as a page may miss while it loads. */
let first;
let recent = [];
const mostRecent = 500;
let source;

const tellAll = (message) => {
  for (const port of windows) port.postMessage(message);
};

/** An event is named by the process that told it, and by its number there. */
const parted = (id) => {
  const at = id.lastIndexOf("-");
  return { process: id.slice(0, at), number: Number(id.slice(at + 1)) };
};

const hear = ({ data, lastEventId: id }) => {
  if (parted(id).process !== parted(first).process) {
    // Another process tells from here on, and it has said that everything has to be looked at.
    first = id;
    recent = [];
  }
  recent.push({ id, data });
  if (recent.length > mostRecent) first = recent.shift().id;
  tellAll(data);
};

const listen = (after) => {
  source = new EventSource(`/api/events?after=${encodeURIComponent(after)}`);
  source.onopen = () => tellAll("open");
  source.onmessage = hear;
  source.onerror = () => {
    tellAll("closed");
    // One that the browser gave up for good is begun anew; others it begins anew by itself, where they were.
    if (source.readyState === EventSource.CLOSED) setTimeout(() => listen(recent.at(-1)?.id ?? after), 2000);
  };
};

/** Tells a window what was done since its page was made, as far as the stream has come. */
const catchUp = (port, position) => {
  const [its, begin] = [parted(position), parted(first)];
  if (its.process !== begin.process || its.number < begin.number) port.postMessage("missed");
  else for (const { id, data } of recent) if (parted(id).number > its.number) port.postMessage(data);
};

self.onconnect = ({ ports: [port] }) => {
  port.onmessage = ({ data }) => {
    if (data === "gone") return void windows.delete(port);
    windows.add(port);
    if (!source) {
      first = data.position;
      listen(first);
    } else {
      catchUp(port, data.position);
      if (source.readyState === EventSource.OPEN) port.postMessage("open");
    }
  };
};
