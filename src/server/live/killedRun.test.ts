import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { CaseRow, OpenCase, WorkItem } from "@/contract/live";
import { writeBpmn } from "@/core/bpmn";
import { chain, end, file, modelOf, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { seededRandom } from "@/core/testing/randomProcess";
import { type Peer, startPeer } from "../testing/peers";
import { type PostgresServer, postgresMissing, startPostgres } from "../testing/postgres";
import { preparedFolder } from "../testing/workspace";

const text = writeBpmn(
  modelOf(
    file(
      processOf(
        start +
          task("first") +
          node("intermediateCatchEvent", "wait", timer("timeDuration", "PT1H")) +
          node("serviceTask", "call") +
          task("last") +
          end +
          chain("s", "first", "wait", "call", "last", "e"),
      ),
    ),
  ),
);

let acts = 0;
const at = (version: string) => ({ version, run: "r" });

async function startedRun(peer: Peer): Promise<string> {
  await peer.run("createArea", { id: "area", name: "Area", parent: null });
  const { version } = await peer.run<{ version: string }>("importFile", {
    name: "Run.bpmn",
    area: "area",
    bytes: new TextEncoder().encode(text),
  });
  await peer.run("startRun", { ...at(version), name: "Trial", pace: 0 });
  return version;
}

const work = async (peer: Peer) => (await peer.run<{ items: WorkItem[] }>("listWork", {})).items;

/** What is acknowledged: which work of which case was done. */
type Acknowledged = Set<string>;

/** Begins cases, completes work, lets time pass, until the process is gone. */
async function load(
  peer: Peer,
  version: string,
  acknowledged: Acknowledged,
  until = Number.POSITIVE_INFINITY,
): Promise<void> {
  for (let round = 0; round < until; round++) {
    const { number } = await peer.run<{ number: number }>("beginLiveCase", {
      ...at(version),
      act: `b${++acts}`,
      values: {},
    });
    acknowledged.add(`${number} began`);
    for (const item of (await work(peer)).slice(0, 2)) {
      const done = {
        ...at(version),
        number: item.number,
        wait: item.wait,
        act: `w${++acts}`,
        values: { [item.label]: true },
      };
      await peer.run("completeWork", done);
      acknowledged.add(`${item.number} ${item.label}`);
    }
    await peer.run("setClock", { ...at(version), to: "next" }).catch((error: { code?: string }) => {
      if (error.code !== "nothing-next") throw error;
    });
    await peer.run("passTime", null);
  }
}

/** Finishes everything that is open, and holds each case against what its process can do. */
async function allWhole(peer: Peer, version: string, acknowledged: Acknowledged): Promise<number> {
  for (let round = 0; round < 4_000; round++) {
    const open = await work(peer);
    for (const item of open)
      await peer.run("completeWork", {
        ...at(version),
        number: item.number,
        wait: item.wait,
        act: `w${++acts}`,
        values: {},
      });
    const moved = await peer.run("setClock", { ...at(version), to: "next" }).then(
      () => true,
      () => false,
    );
    const passed = await peer.run<number>("passTime", null);
    if (open.length === 0 && !moved && passed === 0) break;
  }
  const cases: CaseRow[] = [];
  for (;;) {
    const asking = { ...at(version), from: cases.length, count: 200 };
    const page = await peer.run<{ cases: CaseRow[]; total: number }>("listCases", asking);
    cases.push(...page.cases);
    if (page.cases.length === 0 || cases.length >= page.total) break;
  }
  for (const { number, state } of cases) {
    expect([number, state]).toEqual([number, "completed"]);
    const { audit } = await peer.run<OpenCase>("openCase", { ...at(version), number });
    // Every step once, in the one order there is: none lost, none twice, no timer forgotten.
    const left = audit.filter(({ kind }) => kind === "leave").map(({ element }) => element);
    expect(left).toEqual(["s", "first", "wait", "call", "last", "e"]);
    expect(audit.map(({ sequence }) => sequence)).toEqual(audit.map((_, place) => place));
    expect(audit.filter(({ kind }) => kind === "completed work")).toHaveLength(2);
  }
  const known = new Set(cases.map(({ number }) => number));
  for (const one of acknowledged) expect(known.has(Number(one.split(" ")[0]))).toBe(true);
  return cases.length;
}

/** How often a process is killed; `LANE_KILLS=50` for a long try. */
const kills = Number(process.env.LANE_KILLS ?? 3);
const longest = 180_000 + kills * 20_000;

/** Milliseconds until each kill: at any moment of a step, as often early as late. */
function* moments(): Iterable<number> {
  const random = seededRandom(7);
  for (let kill = 0; kill < kills; kill++) yield Math.round(50 + random() * 700);
}

/** Kills a process some time after something that it did was acknowledged, in the midst of whatever it does then. */
async function killLater(peer: Peer, acknowledged: Acknowledged, after: number): Promise<void> {
  const before = acknowledged.size;
  for (let round = 0; round < 200 && acknowledged.size === before; round++) await pause(50);
  await pause(after);
  await peer.kill();
}

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

test(
  "killed again and again while cases are worked, in a folder: no step is lost, none is done twice, no timer is forgotten",
  async () => {
    const env = { LANE_DATA: preparedFolder() };
    const acknowledged: Acknowledged = new Set();
    let peer = startPeer(env);
    await peer.ready;
    const version = await startedRun(peer);
    for (const after of moments()) {
      const working = load(peer, version, acknowledged).catch(() => undefined);
      await killLater(peer, acknowledged, after);
      await working;
      peer = startPeer(env);
      await peer.ready;
    }
    try {
      await load(peer, version, acknowledged, 2);
      expect(await allWhole(peer, version, acknowledged)).toBeGreaterThan(kills);
    } finally {
      await peer.kill();
    }
  },
  longest,
);

describe.skipIf(postgresMissing !== undefined)("several processes on PostgreSQL", () => {
  let server: PostgresServer;
  beforeAll(async () => {
    server = await startPostgres();
  });
  afterAll(async () => {
    await server?.stop();
  });

  test(
    "that share the work, some of them killed: each step is done by one of them, once",
    async () => {
      const env = { DATABASE_URL: server.url };
      const acknowledged: Acknowledged = new Set();
      const [one, other] = [startPeer(env), startPeer(env)];
      await one.ready;
      await other.ready;
      const version = await startedRun(one);
      // Where two want the same work, one is told that it is gone: it looks again.
      let isDying = true;
      const keeping = async (peer: Peer) => {
        for (let round = 0; isDying || round < 12; round++)
          await load(peer, version, acknowledged, 1).catch(() => undefined);
      };
      const both = Promise.all([keeping(one), keeping(other)]);
      for (const after of moments()) {
        const dying = startPeer(env);
        await dying.ready;
        const doomed = load(dying, version, acknowledged).catch(() => undefined);
        await pause(after);
        await dying.kill();
        await doomed;
      }
      isDying = false;
      await both;
      try {
        expect(await allWhole(one, version, acknowledged)).toBeGreaterThan(15);
      } finally {
        await one.kill();
        await other.kill();
      }
    },
    longest,
  );
});
