import { say } from "../../messages";
import { type Element, isConnection, type Model, referencesOf, termFor } from "../../model";
import { type Rule, saidOf } from "../finding";

const words: { readonly [field: string]: string } = {
  sourceRef: "source",
  targetRef: "target",
  default: "default flow",
  attachedToRef: "host",
  flowNodeRef: "step",
  processRef: "process",
  messageRef: "message",
};

/** Names with a prefix stand in another file, and so does a called process. */
function missing(model: Model, element: Element): [string, string][] {
  return referencesOf(element).filter(
    ([target, field]) => field !== "calledElement" && !target.includes(":") && !model.elements.has(target),
  );
}

export const danglingReference: Rule = {
  id: "dangling-reference",
  group: "connections",
  severity: "error",
  wants: say`What an element names is in the file.`,
  find: (model) =>
    [...model.elements].flatMap((element) =>
      missing(model, element).map(([target, field]) => ({
        elements: [element.id],
        message: say`${saidOf(model, element)} names “${target}” as its ${words[field] ?? field}, but there is no such element in the model. Whoever takes the file over will stumble over it. ${isConnection(element.type) ? say`Draw that end again, or delete the connection.` : say`Choose another one, or take the reference out.`}`,
        ...(isConnection(element.type) && {
          repairs: [
            {
              label: say`Delete this ${termFor(element.type)}`,
              commands: [{ type: "delete" as const, ids: [element.id] }],
            },
          ],
        }),
      })),
    ),
};
