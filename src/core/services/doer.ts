import { roleOfLane } from "../directory";
import { type Id, laneOf, type Model, nameOf, participantOf, processOf, wordFor } from "../model";

/** Who does something of a model. */
export interface Doer {
  /** The same for all that one does, wherever it stands in the model. */
  readonly key: string;
  readonly name: string;
  readonly isOutside: boolean;
}

/** Who does an element: a closed pool itself, else the role of its lane, else the pool or process it is in. */
export function doerOf(model: Model, id: Id): Doer {
  const element = model.elements.get(id);
  if (element?.type === "participant" && typeof element.processRef !== "string")
    return { key: id, name: nameOf(model, id) || wordFor("participant"), isOutside: true };
  const lane = laneOf(model, id);
  const role = lane && (roleOfLane(model, lane)?.name || nameOf(model, lane.id));
  if (role) return { key: role, name: role, isOutside: false };
  const process = String((element?.type === "participant" ? element.processRef : processOf(model, id)?.id) ?? "");
  const pool = participantOf(model, process);
  const name = (pool && nameOf(model, pool.id)) || nameOf(model, process) || wordFor("process");
  return { key: process, name, isOutside: false };
}
