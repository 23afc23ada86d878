import { existsSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { emptyBrief, markedText } from "../../src/core/brief";
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

/** Killed while a description is built as two processes: afterwards both are there whole, or nothing of either; built again, all is there. */
export async function killedWhileBuilding(kills = 10): Promise<Tries> {
  const failures: string[] = [];
  const random = numbers(3);
  const text =
    "When [trigger: a household applies], the [role: front desk] [activity: registers the application]. The front desk [activity: files the application].\n\nEvery [trigger: month], the [role: billing] [activity: writes the invoices]. Billing [activity: sends the invoices].";
  const content = { ...emptyBrief, document: markedText(text) };
  for (let round = 0; round < kills; round++) {
    const env = { LANE_DATA: folder() };
    const first = startPeer(env);
    await first.ready;
    await first.run("createArea", { id: "area", name: "Area", parent: null });
    await first.run("createProcess", { name: "P", area: "area", processId: "p", versionId: "v" });
    await first.run("saveBrief", { process: "p", brief: "b", base: 0, content });
    const building = first.run("buildProcesses", { version: "v" }).then(
      () => true,
      () => false,
    );
    await pause(random() * 250);
    await first.kill();
    const wasTold = await building;
    const next = startPeer(env);
    try {
      await next.ready;
      const steps = async () => {
        const { processes, brief } = await next.run<{ processes: { version: string }[]; brief: unknown }>("openBrief", {
          process: "p",
        });
        if (!brief) failures.push("the description was lost");
        const counts = [];
        for (const { version } of processes) {
          const { model } = await next.run<{ model: { elements: { type: string }[] } }>("openVersion", { version });
          counts.push(model.elements.filter(({ type }) => /task$/i.test(type)).length);
        }
        return counts.join(" ");
      };
      const after = await steps();
      if (after !== "2 2" && (wasTold || !/^0?$/.test(after))) failures.push(`steps after the kill: ${after}`);
      await next.run("buildProcesses", { version: "v" });
      const again = await steps();
      if (again !== "2 2") failures.push(`steps when built again: ${again}`);
    } catch (error) {
      failures.push(`the next start: ${(error as Error).message}`);
    }
    await next.kill();
  }
  return { what: "kills while a description is built", tries: kills, failures };
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
