import { z } from "zod";
import { eventSchema, type Happened } from "@/contract/events";
import { type Here, hereSchema } from "@/contract/presence";

/**
 * What happens elsewhere, heard over one stream for all windows of a browser (public/event-stream.js). While there is no stream, or it
 * is broken, everything is looked at again from time to time instead.
 */
export const missed: Happened = { by: "", things: [{ kind: "workspace" }] };

/** `isGuess`: nothing is known to have happened; there is no stream that would tell. */
type Listener = (happened: Happened, isGuess: boolean) => void;
const listeners = new Set<Listener>();
const tellAll = (happened: Happened, isGuess = false) => {
  for (const listener of [...listeners]) listener(happened, isGuess);
};

const hereTextSchema = z.object({ here: hereSchema });
const hereListeners = new Set<(here: Here) => void>();
/** Hears who is where from now on, while there is a stream; gives a way to end it. */
export function onHere(listener: (here: Here) => void): () => void {
  hereListeners.add(listener);
  return () => void hereListeners.delete(listener);
}

/** Milliseconds between two looks while there is no stream. */
const lookEvery = 700;

let isOpen = false;
let looking: ReturnType<typeof setInterval> | undefined;

function hear(message: unknown): void {
  if (message === "open") isOpen = true;
  else if (message === "missed") tellAll(missed);
  else if (message === "closed") isOpen = false;
  else {
    const told: unknown = JSON.parse(String(message));
    const here = hereTextSchema.safeParse(told);
    if (here.success) {
      for (const listener of [...hereListeners]) listener(here.data.here);
      return;
    }
    const happened = eventSchema.safeParse(told);
    if (happened.success) tellAll(happened.data as Happened);
  }
}

/** The last event that was known when the page was made: nothing up to it has to be looked at again. */
const madeAfter = () => document.documentElement.dataset.feedPosition ?? "";

function begin(): void {
  looking = setInterval(() => {
    if (!isOpen && document.visibilityState !== "hidden") tellAll(missed, true);
  }, lookEvery);
  if (typeof SharedWorker !== "undefined") {
    const { port } = new SharedWorker("/event-stream.js", { name: "lane-feed" });
    port.onmessage = ({ data }) => hear(data);
    port.postMessage({ position: madeAfter() });
    window.addEventListener("pagehide", () => port.postMessage("gone"));
    // A page that comes back from the browser's store has missed what happened meanwhile, and listens anew.
    window.addEventListener("pageshow", ({ persisted }) => persisted && location.reload());
  } else if (typeof EventSource !== "undefined") {
    const source = new EventSource(`/api/events?after=${encodeURIComponent(madeAfter())}`);
    source.onopen = () => hear("open");
    source.onmessage = ({ data }) => hear(data);
    source.onerror = () => hear("closed");
  }
}

/** Hears of everything that happens from now on; gives a way to end it. */
export function onHappened(listener: Listener): () => void {
  listeners.add(listener);
  if (looking === undefined) begin();
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0 && typeof SharedWorker === "undefined" && typeof EventSource === "undefined") {
      clearInterval(looking);
      looking = undefined;
    }
  };
}
