import { escapeAttribute } from "../../xml";
import type { ProcessTree } from "./processTree";

/** A process of blocks as a BPMN file without a drawing. */
export function treeFile(tree: ProcessTree, name: string, wanted = "discovered"): string {
  // No id of the process is taken for that of one of its nodes.
  const process = /^[A-Za-z]+-\d+$/.test(wanted) || wanted === "definitions" ? "discovered" : wanted;
  const nodes: string[] = [];
  const flows: string[] = [];
  let count = 0;
  const node = (type: string, called = ""): string => {
    const id = `${type}-${++count}`;
    nodes.push(`<${type} id="${id}"${called === "" ? "" : ` name="${escapeAttribute(called)}"`}/>`);
    return id;
  };
  const flow = (from: string, to: string): void => {
    flows.push(`<sequenceFlow id="flow-${flows.length + 1}" sourceRef="${from}" targetRef="${to}"/>`);
  };
  /** Draws a part behind a node; gives the node that it ends with. */
  const draw = (part: ProcessTree, from: string): string => {
    switch (part.kind) {
      case "nothing":
        return from;
      case "step": {
        const id = node("task", part.name);
        flow(from, id);
        return id;
      }
      case "sequence":
        return part.parts.reduce((last, one) => draw(one, last), from);
      case "choice":
      case "parallel": {
        const type = part.kind === "choice" ? "exclusiveGateway" : "parallelGateway";
        const split = node(type);
        flow(from, split);
        const ends = part.parts.map((one) => draw(one, split));
        const join = node(type);
        for (const end of ends) flow(end, join);
        return join;
      }
      case "loop": {
        const [body, ...redo] = part.parts;
        const join = node("exclusiveGateway");
        flow(from, join);
        const done = body ? draw(body, join) : join;
        const split = node("exclusiveGateway");
        flow(done, split);
        for (const one of redo) flow(draw(one, split), join);
        return split;
      }
    }
  };
  const start = node("startEvent");
  const last = draw(tree, start);
  flow(last, node("endEvent"));
  return `<?xml version="1.0" encoding="UTF-8"?>
<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="urn:discovered"><process id="${escapeAttribute(process)}" name="${escapeAttribute(name)}">${nodes.join("")}${flows.join("")}</process></definitions>
`;
}
