import { describe, expect, test } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { largeModel } from "@/core/testing/largeModel";
import { type Peer, startPeer } from "../testing/peers";
import { preparedFolder } from "../testing/workspace";

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A process that is killed after a while of work, or once so much is done, and another one on what it leaves behind. */
async function killed(
  work: (peer: Peer) => Promise<unknown>,
  after: number | (() => boolean),
  look: (peer: Peer) => Promise<void>,
) {
  const folder = preparedFolder();
  const first = startPeer({ LANE_DATA: folder });
  await first.ready;
  await first.run("createArea", { id: "area", name: "Area", parent: null });
  const working = work(first).catch(() => undefined);
  if (typeof after === "number") await pause(after);
  else while (!after()) await pause(10);
  await first.kill();
  await working;
  const next = startPeer({ LANE_DATA: folder });
  await next.ready;
  try {
    await look(next);
  } finally {
    await next.kill();
  }
}

const home = (peer: Peer) =>
  peer.run<{ processes: { id: string }[]; versions: { id: string; summary: unknown; damaged: unknown }[] }>(
    "openHome",
    {},
  );

/** Every version opens, is counted in the end, and none is damaged. */
async function allSound(peer: Peer): Promise<number> {
  for (let attempt = 0; attempt < 60; attempt++) {
    const { versions } = await home(peer);
    expect(versions.filter(({ damaged }) => damaged !== null)).toEqual([]);
    if (versions.every(({ summary }) => summary !== null)) {
      for (const { id } of versions) await peer.run("openVersion", { version: id });
      return versions.length;
    }
    await pause(500);
  }
  throw new Error("what Home shows was not counted");
}

describe("killed in the middle", () => {
  test.each([200, 900, 2_000])(
    "%i ms into reading large files in threads: each that was acknowledged is there whole, no other in part",
    async (after) => {
      const bytes = new TextEncoder().encode(writeBpmn(largeModel(400)));
      const acknowledged: string[] = [];
      await killed(
        (peer) =>
          Promise.all(
            Array.from({ length: 4 }, async (_, at) => {
              const { version } = await peer.run<{ version: string }>("importFile", {
                name: `Large ${at}.bpmn`,
                area: "area",
                bytes,
              });
              acknowledged.push(version);
            }),
          ),
        after,
        async (next) => {
          const { versions } = await home(next);
          for (const version of acknowledged) expect(versions.map(({ id }) => id)).toContain(version);
          await allSound(next);
          for (const { id } of versions) {
            const { model } = await next.run<{ model: { elements: unknown[] } }>("openVersion", { version: id });
            expect(model.elements.length).toBeGreaterThan(400);
          }
        },
      );
    },
    120_000,
  );

  test("while Home counts: what was made stays, and is counted by the next process", async () => {
    const bytes = new TextEncoder().encode(writeBpmn(largeModel(200)));
    let made = 0;
    await killed(
      async (peer) => {
        for (let at = 0; at < 6; at++) {
          await peer.run("importFile", { name: `Counted ${at}.bpmn`, area: "area", bytes });
          made++;
          void home(peer).catch(() => undefined);
        }
      },
      2_500,
      async (next) => {
        expect(await allSound(next)).toBeGreaterThanOrEqual(made);
      },
    );
  }, 120_000);

  test("while kept states give their models up: each opens as it was", async () => {
    const kept: number[] = [];
    await killed(
      async (peer) => {
        await peer.run("createProcess", { name: "Edited", area: "area", processId: "edited", versionId: "v" });
        const { model } = await peer.run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v" });
        for (let at = 0; ; at++) {
          const place = {
            type: "place",
            diagram: model.diagrams[0]?.id,
            id: `s${at}`,
            kind: { type: "task" },
            at: { x: 100, y: 90 * at },
          };
          await peer.run("applyCommands", { version: "v", batch: `b${at}`, base: at, commands: [place] });
          const { number } = await peer.run<{ number: number }>("nameRevision", {
            version: "v",
            reason: `state ${at}`,
          });
          kept.push(number);
        }
      },
      () => kept.length > 11,
      async (next) => {
        for (const number of kept) {
          const { model } = await next.run<{ model: { elements: { id: string }[] } }>("openRevision", {
            version: "v",
            number,
          });
          expect(model.elements.filter(({ id }) => /^s\d+$/.test(id))).toHaveLength(number);
        }
      },
    );
  }, 120_000);
});
