import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { WorkItem } from "@/contract/live";
import { writeBpmn } from "@/core/bpmn";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { seededRandom } from "@/core/testing/randomProcess";
import { type Peer, startPeer } from "../testing/peers";
import { type PostgresServer, postgresMissing, startPostgres } from "../testing/postgres";

/** How many pieces of work two processes share; `LANE_STEPS=100000` for a long try. */
const steps = Number(process.env.LANE_STEPS ?? 300);
const names = ["a", "b", "c", "d", "e", "f", "g", "h", "i", "j"];
const text = writeBpmn(
  modelOf(
    file(
      processOf(start + names.map((name) => task(name)).join("") + end + chain("s", ...names, "e1")).replace(
        end,
        end.replace(/"e"/g, '"e1"'),
      ),
    ),
  ),
);

describe.skipIf(postgresMissing !== undefined)("two processes on one PostgreSQL", () => {
  let server: PostgresServer;
  beforeAll(async () => {
    server = await startPostgres();
  });
  afterAll(async () => {
    await server?.stop();
  });

  test(
    `do not do a step twice over ${steps} steps, though both want the same work`,
    async () => {
      const peers = [startPeer({ DATABASE_URL: server.url }), startPeer({ DATABASE_URL: server.url })] as const;
      await Promise.all(peers.map(({ ready }) => ready));
      const [first] = peers;
      await first.run("createArea", { id: "area", name: "Area", parent: null });
      const bytes = new TextEncoder().encode(text);
      const { version } = await first.run<{ version: string }>("importFile", { name: "Run.bpmn", area: "area", bytes });
      const at = { version, run: "r" };
      await first.run("startRun", { ...at, name: "Trial", pace: 0 });
      const wanted = Math.ceil(steps / names.length);
      let [begun, done, refused] = [0, 0, 0];
      let acts = 0;
      const working = async (peer: Peer, seed: number) => {
        const random = seededRandom(seed);
        for (let idle = 0; idle < 3; ) {
          while (begun < wanted && begun * names.length < done + 200) {
            begun++;
            await peer.run("beginLiveCase", { ...at, act: `b${++acts}`, values: {} });
          }
          const { items } = await peer.run<{ items: WorkItem[] }>("listWork", { count: 40 });
          idle = items.length === 0 && begun === wanted ? idle + 1 : 0;
          // Each takes them in an order of its own, so that they meet now and then.
          for (const item of [...items].sort(() => random() - 0.5)) {
            const work = { ...at, number: item.number, wait: item.wait, act: `w${++acts}`, values: {} };
            await peer.run("completeWork", work).then(
              () => done++,
              (error: { code?: string }) => {
                if (error.code !== "gone") throw error;
                refused++;
              },
            );
          }
        }
      };
      try {
        await Promise.all(peers.map((peer, at) => working(peer, at + 1)));
        expect(done).toBe(wanted * names.length);
        expect(refused).toBeGreaterThan(0);
        const { text: log } = await first.run<{ text: string }>("downloadLog", { ...at, as: "csv" });
        const completed = new Map<string, string[]>();
        for (const line of log.split("\r\n").slice(1)) {
          const [number = "", activity = "", , lifecycle] = line.split(",");
          if (lifecycle === "complete") completed.set(number, [...(completed.get(number) ?? []), activity]);
        }
        expect(completed.size).toBe(wanted);
        for (const [, activities] of completed) expect(activities).toEqual(names);
      } finally {
        await Promise.all(peers.map((peer) => peer.kill()));
      }
    },
    120_000 + steps * 60,
  );
});
