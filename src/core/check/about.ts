import {
  childrenOf,
  type Element,
  edgesOf,
  type Id,
  incomingOf,
  isFlowNode,
  type Model,
  outgoingOf,
  shapesOf,
} from "../model";
import type { RuleGroup } from "./finding";

/**
 * What a finding was about, as a short text: it stays the same as long as nothing changes that the finding could depend on. A waiver
 * holds while it does. Names are not what a wrong connection is about, nor is a place on the page what a missing role is.
 */
export function aboutOf(model: Model, group: RuleGroup, elements: readonly Id[]): string {
  const facts = [...elements].sort().map((id) => {
    const element = model.elements.get(id);
    return element ? factsOf(model, group, element) : null;
  });
  return fingerprint(JSON.stringify(facts));
}

function factsOf(model: Model, group: RuleGroup, element: Element): unknown {
  const { id, type, name, order: _, extension: __, documentation: ___, ...fields } = element;
  switch (group) {
    case "names":
      return [id, type, name];
    case "layout":
      return [id, shapesOf(model, id).map((shape) => shape.bounds), edgesOf(model, id).map((edge) => edge.waypoints)];
    case "guidelines":
      return [id, type, incomingOf(model, id).length, outgoingOf(model, id).length];
    case "behaviour":
    case "connections": {
      const ends = (flows: readonly Element[]) => flows.map((flow) => [flow.id, flow.sourceRef, flow.targetRef]).sort();
      return [id, fields, ends(incomingOf(model, id)), ends(outgoingOf(model, id))];
    }
    case "completeness":
    case "automation": {
      const own = childrenOf(model, id).filter((child) => !isFlowNode(child.type) && !child.type.endsWith("Flow"));
      return [id, fields, own.map(({ id: child, type: kind }) => [child, kind])];
    }
  }
}

/** 64 bits in hexadecimal, as two runs of FNV-1a (Fowler, Noll, Vo; public domain, from memory). Not against malice. */
function fingerprint(text: string): string {
  const run = (start: number) => {
    let hash = start;
    for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193) >>> 0;
    return hash.toString(16).padStart(8, "0");
  };
  return run(0x811c9dc5) + run(0x9747b28c);
}
