import type { XmlElement } from "../../model";
import { textIn } from "./document";
import { holderOf } from "./edit";
import { attributeOf, elementIn, elementsIn, wordsIn } from "./tree";

/** What a decision, an input or a knowledge model of a file is called. */
export const nameIn = (item: XmlElement): string => attributeOf(item, "name") ?? "";

/** What is asked, as its author put it; "" for nothing. */
export function questionOf(item: XmlElement): string {
  const held = elementIn(item, "question");
  return held ? textIn(held).trim() : "";
}

/** The type of what it gives; "" for any. */
export function typeOfItem(item: XmlElement): string {
  const variable = elementIn(item, "variable");
  return (variable && attributeOf(variable, "typeRef")) ?? "";
}

/** The expression it is decided by; undefined where it is decided by something else. */
export function expressionOf(item: XmlElement): string | undefined {
  const expression = elementIn(holderOf(item), "literalExpression");
  return expression && wordsIn(expression);
}

/** The parameters of a knowledge model. */
export const parametersOf = (item: XmlElement): string[] =>
  elementsIn(holderOf(item), "formalParameter").map((one) => attributeOf(one, "name") ?? "");
