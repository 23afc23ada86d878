import { execFileSync } from "node:child_process";
import { afterAll, expect, test } from "vitest";
import type { OpenCase, WorkItem } from "@/contract/live";
import { writeBpmn } from "@/core/bpmn";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { type Peer, startPeer } from "../testing/peers";
import { preparedFolder } from "../testing/workspace";

const text = writeBpmn(
  modelOf(file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e")))),
);

let peer: Peer;
afterAll(() => peer?.kill());

/**
 * No room for anything more, as on a full disk: the system's limit on the size of files, which it keeps for the process and which every
 * file that a database writes to has passed.
 */
const room = (limit: "4096" | "unlimited") => execFileSync("prlimit", ["--pid", String(peer.pid), `--fsize=${limit}:`]);

test("a step for which the disk has no room is refused, and with room again the case stands where it stood and goes on", async () => {
  peer = startPeer({ LANE_DATA: preparedFolder() });
  await peer.ready;
  await peer.run("createArea", { id: "area", name: "Area", parent: null });
  const { version } = await peer.run<{ version: string }>("importFile", {
    name: "Run.bpmn",
    area: "area",
    bytes: new TextEncoder().encode(text),
  });
  const at = { version, run: "r" };
  await peer.run("startRun", { ...at, name: "Trial", pace: 0 });
  for (const act of ["a", "b"]) await peer.run("beginLiveCase", { ...at, act, values: {} });
  const work = async () => (await peer.run<{ items: WorkItem[] }>("listWork", {})).items;
  const done = (item: WorkItem, act: string, values: object = {}) =>
    peer.run("completeWork", { ...at, number: item.number, wait: item.wait, act, values });
  const [one, other] = (await work()) as [WorkItem, WorkItem];
  await done(one, "c");

  room("4096");
  // Whatever is asked for is refused in words, and none of it is taken for done.
  const refused: (string | undefined)[] = [];
  const note = ({ code }: { code?: string }) => refused.push(code);
  for (const act of ["d", "e", "f"]) await done(other, act, { note: "x".repeat(20_000) }).catch(note);
  await peer.run("beginLiveCase", { ...at, act: "g", values: {} }).catch(note);
  room("unlimited");
  expect(refused).toEqual(Array(4).fill("disk-full"));

  const open = async (number: number) => peer.run<OpenCase>("openCase", { ...at, number });
  expect((await work()).map(({ number, label }) => [number, label]).sort()).toEqual([
    [one.number, "second"],
    [other.number, "first"],
  ]);
  // The act that was refused is asked for again, as a window does: it is done now, and once.
  await done(other, "d");
  await done(other, "d").catch(() => undefined);
  const { audit } = await open(other.number);
  expect(audit.filter(({ kind }) => kind === "completed work")).toHaveLength(1);
  for (const item of await work()) await done(item, `last ${item.number}`);
  expect(await work()).toEqual([]);
}, 120_000);
