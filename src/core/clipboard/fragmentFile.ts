import { readBpmn, writeBpmn } from "../bpmn";
import { copy, type Fragment, perform } from "../commands";
import { say } from "../messages";
import { emptyModel, failure, isFlowNode, type Model, ok, type Result } from "../model";

/** What was copied as a BPMN file of its own: the form in which it crosses the system's clipboard. */
export function fragmentToFile(fragment: Fragment): string {
  const start = emptyModel({ definitions: "definitions", process: "copied", diagram: "copied-page" }, "Copied");
  const done = perform(start, {
    type: "paste",
    diagram: "copied-page",
    fragment,
    at: { x: 400, y: 300 },
    mark: "copy",
  });
  if (!done.ok) throw new Error(`What was copied cannot be written: ${done.problems[0]?.message}`);
  return writeBpmn(done.value.model);
}

/** What a BPMN file on the clipboard holds, ready to be pasted: everything on the page that has most on it. */
export function fragmentOfFile(text: string): Result<Fragment> {
  const read = readBpmn(text);
  if (!read.ok) return read;
  const model = read.value;
  const ids = nodesOfFullestPage(model);
  if (!ids)
    return failure({
      code: "nothing-drawn",
      message: say`The BPMN text on the clipboard holds no drawn steps. Import it as a file on Home; it is laid out there.`,
    });
  return ok(copy(model, ids.diagram, ids.nodes));
}

function nodesOfFullestPage(model: Model): { diagram: string; nodes: string[] } | undefined {
  const byPage = new Map<string, string[]>();
  for (const shape of model.shapes) {
    const type = model.elements.get(shape.element)?.type;
    if (!type || !(isFlowNode(type) || type.startsWith("data") || type === "textAnnotation" || type === "group"))
      continue;
    const nodes = byPage.get(shape.diagram);
    if (nodes) nodes.push(shape.element);
    else byPage.set(shape.diagram, [shape.element]);
  }
  const [fullest] = [...byPage].sort(([, a], [, b]) => b.length - a.length);
  return fullest && { diagram: fullest[0], nodes: fullest[1] };
}

/** Whether a text on the clipboard is meant as BPMN. */
export const looksLikeBpmn = (text: string): boolean =>
  text.trimStart().startsWith("<") && /<([\w.-]+:)?definitions[\s>]/.test(text.slice(0, 4000));
