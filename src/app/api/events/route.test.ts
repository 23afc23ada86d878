import { afterAll, beforeAll, expect, test } from "vitest";
import { feedPosition } from "@/server/kernel/events";
import { leaveWorkspace, makeProcess, openWorkspace, run } from "@/server/testing/workspace";
import { GET } from "./route";

beforeAll(async () => {
  await openWorkspace();
  await makeProcess();
});
afterAll(leaveWorkspace);

/** What the stream says first, as far as so many events. */
async function heard(query: string, headers: HeadersInit, events: number): Promise<string[]> {
  const calledOff = new AbortController();
  const asked = { headers: { host: "localhost", ...headers }, signal: calledOff.signal };
  const { body } = await GET(new Request(`http://localhost/api/events${query}`, asked));
  const reader = (body as ReadableStream<Uint8Array>).getReader();
  const decoder = new TextDecoder();
  let said = "";
  while (said.split("data: ").length <= events) said += decoder.decode((await reader.read()).value, { stream: true });
  calledOff.abort();
  return [...said.matchAll(/^data: (.*)$/gm)].map(([, text]) => (JSON.parse(text as string) as { by: string }).by);
}

test("a stream begins where its page was made, and one that broke where it was", async () => {
  const made = feedPosition() as string;
  await run("renameArea", { id: "area", name: "Meanwhile" });
  const later = feedPosition() as string;
  await run("chooseProfile", { version: "v", profile: "draft" });
  const from = `?after=${encodeURIComponent(made)}`;
  expect(await heard(from, {}, 2)).toEqual(["renameArea", "chooseProfile"]);
  // A browser that begins it anew asks by the same address, and says what it heard last.
  expect(await heard(from, { "last-event-id": later }, 1)).toEqual(["chooseProfile"]);
  // Of what another process, or a former life of this one, called by a name: everything may have been missed.
  expect(await heard("?after=elsewhere-7", {}, 1)).toEqual([""]);
});
