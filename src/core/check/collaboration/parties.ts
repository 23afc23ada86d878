import { flowNodesIn, type Id, type Model, processesOf, processOf } from "../../model";
import { messagesIn } from "../../tokens";

/** A process that takes part in a collaboration. */
export interface Party {
  readonly process: Id;
  /** Starts that need no message of another party; undefined for a process that begins without a start event. */
  readonly ownStarts: readonly (Id | undefined)[];
  /** Whether it has a start that a message of another party sets off. */
  readonly waitsToStart: boolean;
}

/** The processes of a model that exchange messages with each other, those that belong together in one list; lists of one are left out. */
export function partiesOf(model: Model): Party[][] {
  const { expected } = messagesIn(model);
  const open = processesOf(model).filter((process) => flowNodesIn(model, process.id).length > 0);
  const groups = new Map<Id, Set<Id>>(open.map((process) => [process.id, new Set([process.id])]));
  for (const flow of model.elements) {
    if (flow.type !== "messageFlow") continue;
    const [from, to] = [flow.sourceRef, flow.targetRef].map((end) =>
      groups.get(processOf(model, String(end))?.id ?? ""),
    );
    if (!from || !to || from === to) continue;
    for (const id of to) {
      from.add(id);
      groups.set(id, from);
    }
  }
  return [...new Set(groups.values())]
    .filter((group) => group.size > 1)
    .map((group) =>
      open
        .filter((process) => group.has(process.id))
        .map(({ id }): Party => {
          const starts = flowNodesIn(model, id).filter((node) => node.type === "startEvent");
          const own = starts.filter((start) => expected(start).length === 0).map((start) => start.id);
          return {
            process: id,
            ownStarts: starts.length === 0 ? [undefined] : own,
            waitsToStart: own.length < starts.length,
          };
        }),
    );
}
