import { roleOfLane } from "../../directory";
import { emptyModel, type Id, laneOf, type Model, nameOf, participantOf, type Result } from "../../model";
import { Refusal } from "../kernel/change";
import { type Command, perform } from "../kernel/command";
import { pieceOf } from "../kernel/piece";
import { copy } from "./paste";

export interface NewProcess {
  readonly name: string;
  readonly definitions: Id;
  readonly process: Id;
  readonly page: Id;
}

const mark = "out";

/**
 * A process of its own from chosen steps: with their pool, the lanes they stand in, a start before and an end behind them, laid out
 * anew. Refused as `callInstead` refuses it, since a call takes their place.
 */
export function extractedProcess(model: Model, diagram: Id, ids: readonly Id[], made: NewProcess): Result<Model> {
  try {
    const { nodes, entry, outOf } = pieceOf(model, diagram, ids);
    const page = made.page;
    const first = nodes[0]?.id as Id;
    const pool = participantOf(model, first);
    const lanes = [...new Set(nodes.flatMap((node) => laneOf(model, node.id) ?? []))].sort((a, b) => a.order - b.order);
    const commands: Command[] = [
      {
        type: "place",
        diagram: page,
        id: "pool",
        kind: { type: "participant" },
        at: { x: 400, y: 200 },
        name: (pool && nameOf(model, pool.id)) || made.name,
      },
    ];
    let beside = "pool";
    for (const lane of lanes) {
      const id = `lane-${lanes.indexOf(lane) + 1}`;
      const role = roleOfLane(model, lane);
      commands.push({ type: "addLane", diagram: page, id, beside, name: nameOf(model, lane.id) });
      if (role?.entry) commands.push({ type: "tieLane", lane: id, role: { entry: role.entry, name: role.name } });
      beside = id;
    }
    commands.push({
      type: "paste",
      diagram: page,
      fragment: copy(
        model,
        diagram,
        nodes.map((node) => node.id),
      ),
      at: { x: 400, y: 200 },
      mark,
    });
    const pasted = (id: Id) => `${id.startsWith("~") ? `copy${id.slice(1)}` : id}.${mark}`;
    for (const [at, lane] of lanes.entries()) {
      const own = nodes.filter((node) => node.type !== "boundaryEvent" && laneOf(model, node.id)?.id === lane.id);
      if (own.length > 0)
        commands.push({
          type: "moveToLane",
          diagram: page,
          ids: own.map((node) => pasted(node.id)),
          lane: `lane-${at + 1}`,
        });
    }
    const spot = { x: 120, y: 200 };
    if (entry) {
      commands.push({
        type: "place",
        diagram: page,
        id: "start",
        kind: { type: "startEvent" },
        at: spot,
        name: `${made.name} called`,
      });
      commands.push({ type: "connect", diagram: page, id: "begins", source: "start", target: pasted(entry) });
    }
    const [exit] = outOf;
    if (exit)
      commands.push({
        type: "append",
        diagram: page,
        from: pasted(exit.sourceRef as Id),
        id: "end",
        flow: "ends",
        kind: { type: "endEvent" },
        name: `${made.name} done`,
      });
    commands.push({ type: "tidy", diagram: page });
    const start = emptyModel({ definitions: made.definitions, process: made.process, diagram: page }, made.name);
    let current = start;
    for (const command of commands) {
      const done = perform(current, command);
      if (!done.ok) return done;
      current = done.value.model;
    }
    return { ok: true, value: current };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, problems: error.problems };
    throw error;
  }
}
