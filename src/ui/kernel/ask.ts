import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { Contract } from "@/contract";
import { type Said, term } from "@/core/messages";
import type { Problem } from "@/core/model";
import { text, worded } from "../messages";
import { askedAhead } from "./askedAhead";

export class ServerError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status: number,
    /** Its parts, where it has several. */
    readonly details: readonly Problem[] = [],
  ) {
    super(message);
  }
}

/** How many sessions were begun in this window: an answer belongs to the one in which it was asked for. */
let session = 0;
export const anotherSession = (): void => {
  session++;
};

interface Answered {
  readonly response: Response;
  /** The session in which it was asked. */
  readonly asked: number;
}

/** A question that got no answer at all: on its way there or back it was lost, so what was asked may have been done. */
const answered = async (asking: Promise<Response>): Promise<Answered> => {
  const asked = session;
  try {
    return { response: await asking, asked };
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ServerError("no-answer", text.shell.noAnswer, 0);
  }
};

/** Acts that were sent and are not answered yet. */
const underWay = createStore<{ readonly count: number }>(() => ({ count: 0 }));
const oneMore = (by: 1 | -1) => underWay.setState(({ count }) => ({ count: count + by }));

/** How many acts were sent and are not answered yet: until then they are not said to be saved. */
export const useActsUnderWay = (): number => useStore(underWay, ({ count }) => count);

/** Browsers send no more than 64 kB on behalf of pages that are gone; several acts may be under way at once. */
const mostBytesKeptAlive = 16_000;

/**
 * Asks for a use case: what is sent and what is answered is what its contract says. An act is sent to its end even if the page is left
 * meanwhile.
 */
export async function ask<Sent, Given, Output>(contract: Contract<Sent, Given, Output>, input: Sent): Promise<Output> {
  const isAct = contract.right !== "read";
  const body = JSON.stringify(input);
  const asked = session;
  if (isAct) oneMore(1);
  try {
    const path = `/api/do/${contract.name}`;
    const asking =
      askedAhead(path, body) ??
      fetch(path, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body,
        ...(isAct && body.length < mostBytesKeptAlive && { keepalive: true }),
      });
    return await readAnswer<Output>(await answered(asking));
  } catch (error) {
    // It was turned away in a session that had ended; somebody has signed in meanwhile.
    if (isTurnedAway(error) && session !== asked) return ask(contract, input);
    throw error;
  } finally {
    if (isAct) oneMore(-1);
  }
}

export async function sendBytes<Output>(
  path: string,
  bytes: Blob | ArrayBuffer,
  signal?: AbortSignal,
): Promise<Output> {
  const asking = fetch(path, {
    method: "POST",
    body: bytes,
    ...(signal && { signal }),
    headers: { "content-type": "application/octet-stream" },
  });
  return readAnswer<Output>(await answered(asking));
}

/** Asks for a file. */
export async function fileOf(path: string, input: unknown, signal?: AbortSignal): Promise<Blob> {
  const asking = fetch(path, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(input),
    ...(signal && { signal }),
  });
  const answer = await answered(asking);
  if (!answer.response.ok) await readAnswer(answer);
  return answer.response.blob();
}

/** Asks for a file, and hands it to the person. */
export const saveFile = async (path: string, input: unknown, name: string): Promise<void> =>
  giveFile(await fileOf(path, input), name);

/** Hands a file to the person. */
export function giveFile(content: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** What is answered to a question that is no use case. */
export const answerTo = async <Output>(asking: Promise<Response>): Promise<Output> =>
  readAnswer<Output>(await answered(asking));

/** Told once a session has ended (`kernel/session`). */
let onSignedOut = () => {};
export const whenSignedOut = (what: () => void): void => {
  onSignedOut = what;
};

const isTurnedAway = (error: unknown): boolean => error instanceof ServerError && error.code === "signed-out";

async function readAnswer<Output>({ response, asked }: Answered): Promise<Output> {
  const body = (await response.json().catch(() => ({}))) as {
    error?: { code: string; message: string; said?: Said; details?: readonly Problem[] };
  };
  // What is said in one sentence alone is its own code.
  const words = body.error && worded(body.error.said ?? term(body.error.message));
  if (body.error?.code === "signed-out") {
    // Of a session before this one it says nothing new.
    if (session === asked) onSignedOut();
    // As if there had been no answer: what was to be saved is kept, and sent again in the next session.
    throw new ServerError("signed-out", words ?? "", 0);
  }
  if (!response.ok)
    throw new ServerError(
      body.error?.code ?? "no-answer",
      words ?? text.shell.answeredWith(response.status),
      response.status,
      body.error?.details ?? [],
    );
  return body as Output;
}
