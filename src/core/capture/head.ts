import { type Element, flowNodesIn, type Id, incomingOf, type Model, nameOf, participantOf } from "../model";

/** The head of a process, as one sentence: when what happens, who runs what until what is reached. */
export interface SheetHead {
  readonly starts: readonly Id[];
  readonly trigger: string;
  readonly pool: Id | undefined;
  readonly organisation: string;
  readonly process: Id;
  readonly name: string;
  readonly ends: readonly Id[];
  readonly result: string;
}

export function headOf(model: Model, process: Id): SheetHead {
  const nodes = flowNodesIn(model, process);
  const starts = nodes.filter((node) => node.type === "startEvent");
  // An end that nothing leads to says nothing of the process.
  const ends = nodes.filter((node) => node.type === "endEvent" && incomingOf(model, node.id).length > 0);
  const pool = participantOf(model, process);
  const named = (events: readonly Element[]) => [...new Set(events.flatMap((event) => nameOf(model, event.id) || []))];
  return {
    starts: starts.map((event) => event.id),
    trigger: named(starts).join(", or "),
    pool: pool?.id,
    organisation: pool ? nameOf(model, pool.id) : "",
    process,
    name: nameOf(model, process),
    ends: ends.map((event) => event.id),
    result: named(ends).join(", or "),
  };
}
