import type { Element, Id, Model } from "../../model";
import { perform } from "../kernel/command";
import { type KindGroup, kindsToBecome } from "./everyKind";

/** The kinds an element can be made into as it stands: those that are tried and not refused. One trial a kind. */
export function possibleKinds(
  model: Model,
  diagram: Id,
  element: Element,
  scope: Element | undefined,
): readonly KindGroup[] {
  return kindsToBecome(model, element, scope)
    .map(({ title, kinds }) => ({
      title,
      kinds: kinds.filter((kind) => perform(model, { type: "replace", diagram, id: element.id, kind }).ok),
    }))
    .filter(({ kinds }) => kinds.length > 0);
}
