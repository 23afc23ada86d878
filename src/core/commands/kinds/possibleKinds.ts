import type { Element, Id, Model } from "../../model";
import { perform } from "../kernel/command";
import { type KindGroup, kindsToBecome } from "./everyKind";

/**
 * The kinds an element can be made into as it stands: those that are tried and not refused. One trial a kind, each with its flows
 * drawn straight: what is refused does not depend on the way they take.
 */
export function possibleKinds(
  model: Model,
  diagram: Id,
  element: Element,
  scope: Element | undefined,
): readonly KindGroup[] {
  return kindsToBecome(model, element, scope)
    .map(({ title, kinds }) => ({
      title,
      kinds: kinds.filter((kind) => {
        const become = { type: "replace", diagram, id: element.id, kind } as const;
        return perform(model, become, { isRough: true }).ok;
      }),
    }))
    .filter(({ kinds }) => kinds.length > 0);
}
