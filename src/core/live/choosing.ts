import { type CaseData, holds } from "../feel";
import { type Element, type Id, type Model, outgoingOf } from "../model";
import { type Act, actTaking } from "../tokens";
import { type Instances, instancesByData } from "./collections";

/** How a case goes on where it could go several ways. */
export interface Choosing {
  /** One of the alternatives of a node; undefined where none may be taken, which keeps the case there. */
  readonly way: (model: Model, node: Element, acts: readonly Act[], data: CaseData) => Act | undefined;
  /** Whether a loop goes round once more; the first time, where it is asked before. */
  readonly again: (model: Model, activity: Element, loop: Element, data: CaseData, isFirst: boolean) => boolean;
  readonly instances: (model: Model, activity: Element, loop: Element, data: CaseData) => Instances | undefined;
  /** Whether an event at the edge of a step goes off as that would be done. */
  readonly edge: (model: Model, event: Element) => boolean;
}

const conditionOf = (flow: Element | undefined): string =>
  (flow?.conditionExpression as { readonly text?: string } | undefined)?.text?.trim() ?? "";

/**
 * By the data of the case: only what is true takes a way; at an exclusive gateway the first one in the order of the file, elsewhere all
 * of them, and the default where none does (BPMN 2.0, 13.3.2, 13.3.3, 13.2).
 */
export const byData: Choosing = {
  way: (model, node, acts, data) => {
    const [first] = acts;
    if (acts.length < 2) {
      // One way on: a gateway that joins, or a single condition that has to hold.
      const flow = first?.flows.length === 1 ? model.elements.get(first.flows[0] as Id) : undefined;
      const asks = isSplit(model, node) && conditionOf(flow) !== "" && flow?.id !== node.default;
      return asks && holds(conditionOf(flow), data) !== true ? undefined : first;
    }
    const isChoice = node.type.endsWith("Gateway");
    const outs = outgoingOf(model, node.id);
    const taken: Id[] = [];
    for (const flow of outs) {
      if (flow.id === node.default) continue;
      const condition = conditionOf(flow);
      if (condition === "") continue;
      if (holds(condition, data) === true) taken.push(flow.id);
      if (node.type === "exclusiveGateway" && taken.length > 0) break;
    }
    const flows = taken.length > 0 ? taken : typeof node.default === "string" ? [node.default] : undefined;
    const act = flows && actTaking(model, node, acts, flows);
    if (act) return act;
    // Behind a step, ways without a condition are always taken.
    return isChoice ? undefined : actTaking(model, node, acts, []);
  },
  again: (_model, _activity, loop, data) => holds(textOf(loop.loopCondition), data) === true,
  instances: (model, _activity, loop, data) => instancesByData(model, loop, data),
  edge: () => false,
};

const textOf = (held: unknown): string => (held as { readonly text?: string } | undefined)?.text ?? "";
const isSplit = (model: Model, node: Element) => outgoingOf(model, node.id).length > 0;
