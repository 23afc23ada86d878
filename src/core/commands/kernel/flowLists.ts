import type { Id } from "../../model";
import type { Change } from "./change";

/** Files may repeat a node's flows; once they change, the repetition is left to the writer. */
export function forgetRecordedFlows(change: Change, nodes: readonly Id[]): void {
  for (const node of nodes) {
    if (!change.model.elements.has(node)) continue;
    change.set("elements", node, "incoming", undefined);
    change.set("elements", node, "outgoing", undefined);
  }
}
