import {
  childrenOf,
  type Element,
  flowNodesIn,
  type Id,
  isSubProcess,
  laneOf,
  lanesOf,
  type Model,
  nameOf,
  participantsOf,
  processesOf,
} from "@/core/model";
import { typeWord } from "../messages";

export interface OutlineRow {
  readonly id: Id;
  readonly level: number;
  readonly label: string;
  readonly type: string;
  readonly isLane: boolean;
}

/** Pools, lanes and elements as rows of a tree, in the order of the flow. */
export function outlineOf(model: Model): OutlineRow[] {
  const rows: OutlineRow[] = [];
  const push = (element: Element, level: number) =>
    rows.push({
      id: element.id,
      level,
      label: nameOf(model, element.id),
      type: typeWord(element.type),
      isLane: element.type === "lane",
    });
  const scope = (id: Id, level: number) => {
    const nodes = flowNodesIn(model, id);
    const lane = (owner: Element, at: number) => {
      push(owner, at);
      for (const inner of lanesOf(model, owner.id)) lane(inner, at + 1);
      for (const one of nodes) if (laneOf(model, one.id)?.id === owner.id) node(one, at + 1);
    };
    const node = (element: Element, at: number) => {
      push(element, at);
      if (isSubProcess(element.type)) scope(element.id, at + 1);
    };
    const lanes = lanesOf(model, id);
    for (const one of lanes) lane(one, level);
    for (const one of nodes) if (lanes.length === 0 || !laneOf(model, one.id)) node(one, level);
    for (const data of childrenOf(model, id)) {
      if (["dataObjectReference", "dataStoreReference", "textAnnotation"].includes(data.type)) push(data, level);
    }
  };
  const pools = participantsOf(model);
  for (const pool of pools) {
    push(pool, 1);
    if (pool.processRef) scope(pool.processRef, 2);
  }
  const shown = new Set(pools.map((pool) => pool.processRef));
  for (const process of processesOf(model)) {
    if (shown.has(process.id)) continue;
    push(process, 1);
    scope(process.id, 2);
  }
  return rows;
}
