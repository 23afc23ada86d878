import { existsSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPeer } from "../../src/server/testing/peers";
import { numbers, pause, type Tries } from "./tries";

const folder = () => mkdtempSync(join(tmpdir(), "lane-attack-"));

/** Killed while it edits: every edit that was acknowledged is there afterwards, on one workspace through all kills. */
export async function killedWhileEditing(kills = 12): Promise<Tries> {
  const failures: string[] = [];
  const random = numbers(1);
  const env = { LANE_DATA: folder() };
  const acknowledged = new Map<string, string>();
  let count = 0;
  for (let round = 0; round <= kills; round++) {
    const peer = startPeer(env);
    await peer.ready;
    if (round === 0) {
      await peer.run("createArea", { id: "area", name: "Area", parent: null });
      await peer.run("createProcess", { name: "P", area: "area", processId: "p", versionId: "v" });
    }
    const opened = await peer.run<{
      sequence: number;
      model: { diagrams: { id: string }[]; elements: { id: string; name?: string }[] };
    }>("openVersion", { version: "v" });
    for (const [id, name] of acknowledged)
      if (opened.model.elements.find((element) => element.id === id)?.name !== name) failures.push(`${id} was lost`);
    const diagram = opened.model.diagrams[0]?.id;
    let { sequence } = opened;
    const end = Date.now() + 400 + random() * 1_200;
    let isAlive = round < kills;
    const editing = (async () => {
      while (isAlive) {
        const id = `step-${count++}`;
        const commands = [
          {
            type: "place",
            diagram,
            id,
            kind: { type: "task" },
            at: { x: 100 + (count % 40) * 120, y: 100 + Math.floor(count / 40) * 100 },
            name: id,
          },
        ];
        const done = await peer
          .run<{ sequence: number }>("applyCommands", { version: "v", batch: id, base: sequence, commands })
          .catch(() => undefined);
        if (!done) return;
        sequence = done.sequence;
        acknowledged.set(id, id);
      }
    })();
    await pause(Math.max(0, end - Date.now()));
    isAlive = false;
    await peer.kill();
    await editing;
  }
  return { what: `kills while editing (${acknowledged.size} acknowledged edits)`, tries: kills, failures };
}

/** Killed while the demo is made: the next start has it, whole. */
export async function killedAtFirstStart(kills = 10): Promise<Tries> {
  const failures: string[] = [];
  const random = numbers(2);
  for (let round = 0; round < kills; round++) {
    const env = { LANE_DATA: folder(), LANE_DEMO: "yes" };
    const first = startPeer(env);
    first.ready.catch(() => undefined);
    for (let waited = 0; !existsSync(join(env.LANE_DATA, "lane.lock")) && waited < 400; waited++) await pause(25);
    await pause(random() * 4_000);
    await first.kill();
    const next = startPeer(env);
    try {
      await next.ready;
      const { processes } = await next.run<{ processes: unknown[] }>("openHome", {});
      if (processes.length !== 5) failures.push(`${processes.length} processes after the next start`);
    } catch (error) {
      failures.push(`the next start: ${(error as Error).message}`);
    }
    await next.kill();
  }
  return { what: "kills at first start", tries: kills, failures };
}
