import { say } from "../../messages";
import { flowNodesIn, type Id, incomingOf, isScope, type Model, outgoingOf, type Shape, shapeOn } from "../../model";
import type { Rule } from "../finding";

/** Flows that close a loop, which may lead back: those to a node that is passed before, in a search from what nothing leads to. */
function loopFlows(model: Model, scope: Id): Set<Id> {
  const nodes = flowNodesIn(model, scope);
  const state = new Map<Id, "open" | "done">();
  const back = new Set<Id>();
  const starts = [...nodes.filter((node) => incomingOf(model, node.id).length === 0), ...nodes];
  for (const start of starts) {
    if (state.has(start.id)) continue;
    const stack: { id: Id; next: number }[] = [{ id: start.id, next: 0 }];
    state.set(start.id, "open");
    while (stack.length > 0) {
      const top = stack[stack.length - 1] as { id: Id; next: number };
      const flow = outgoingOf(model, top.id)[top.next++];
      if (!flow) {
        state.set(top.id, "done");
        stack.pop();
        continue;
      }
      const target = flow.targetRef as Id;
      if (state.get(target) === "open") back.add(flow.id);
      else if (!state.has(target) && model.elements.has(target)) {
        state.set(target, "open");
        stack.push({ id: target, next: 0 });
      }
    }
  }
  return back;
}

/** Common practice: a process is read from left to right; only loops lead back. */
export const flowBackwards: Rule = {
  id: "flow-backwards",
  group: "layout",
  severity: "advice",
  wants: say`Flows lead from left to right, loops aside.`,
  find: (model) => {
    const loops = new Set(
      [...model.elements].flatMap((one) => (isScope(one.type) ? [...loopFlows(model, one.id)] : [])),
    );
    return [...model.edges].flatMap((edge) => {
      const flow = model.elements.get(edge.element);
      if (flow?.type !== "sequenceFlow" || loops.has(flow.id)) return [];
      const from: Shape | undefined = shapeOn(model, edge.diagram, String(flow.sourceRef));
      const to: Shape | undefined = shapeOn(model, edge.diagram, String(flow.targetRef));
      if (!from || !to || to.bounds.x + to.bounds.width > from.bounds.x) return [];
      return [
        {
          elements: [flow.id],
          message: say`A flow leads from right to left though it closes no loop, so readers take it for one. Move what it leads to, or let the page be tidied.`,
          repairs: [{ label: say`Tidy the page`, commands: [{ type: "tidy" as const, diagram: edge.diagram }] }],
        },
      ];
    });
  },
};
