// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { home } from "@/contract";
import { ask, whenSignedOut } from "./ask";
import { sessionBegun } from "./session";

/** Questions that were sent, each to be answered when the test says so. */
const sent: { readonly path: string; readonly answer: (status: number, body: unknown) => void }[] = [];
const turnedAway = { error: { code: "signed-out", message: "Your session has ended." } };
const doorOpened = vi.fn();
const answerWhenSent = async (at: number, status: number, body: unknown) => {
  await vi.waitFor(() => expect(sent).toHaveLength(at + 1));
  sent[at]?.answer(status, body);
};

beforeEach(() => {
  sent.length = 0;
  doorOpened.mockClear();
  whenSignedOut(doorOpened);
  vi.stubGlobal("fetch", (path: string) => {
    return new Promise<Response>((resolve) =>
      sent.push({ path, answer: (status, body) => resolve(new Response(JSON.stringify(body), { status })) }),
    );
  });
});
afterEach(() => {
  whenSignedOut(() => {});
  vi.unstubAllGlobals();
});

test("an answer that the session has ended opens the door, and what was asked counts as not answered", async () => {
  const asking = ask(home.renameArea, { id: "a", name: "Grid" });
  await answerWhenSent(0, 401, turnedAway);
  await expect(asking).rejects.toMatchObject({ code: "signed-out", status: 0 });
  expect(doorOpened).toHaveBeenCalledTimes(1);
});

test("an answer of the session before does not open it again: what was turned away is asked once more", async () => {
  const asking = ask(home.renameArea, { id: "a", name: "Grid" });
  sessionBegun();
  await answerWhenSent(0, 401, turnedAway);
  await answerWhenSent(1, 200, { done: true });
  await expect(asking).resolves.toEqual({ done: true });
  expect(doorOpened).not.toHaveBeenCalled();
  expect(sent.map(({ path }) => path)).toEqual(["/api/do/renameArea", "/api/do/renameArea"]);
});

test("turned away in the new session as well, it opens the door", async () => {
  const asking = ask(home.renameArea, { id: "a", name: "Grid" });
  sessionBegun();
  await answerWhenSent(0, 401, turnedAway);
  await answerWhenSent(1, 401, turnedAway);
  await expect(asking).rejects.toMatchObject({ code: "signed-out" });
  expect(doorOpened).toHaveBeenCalledTimes(1);
});
