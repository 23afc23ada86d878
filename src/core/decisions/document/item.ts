import type { XmlElement } from "../../model";
import { localOf, textIn } from "./document";
import { attributeOf, elementIn, elementsIn, wordsIn } from "./tree";

/** What stands in a file of decisions, in the order of the standard's schema. */
export const kinds = ["itemDefinition", "inputData", "decision", "businessKnowledgeModel"] as const;
export const rootOrder = ["description", "extensionElements", "import", ...kinds, "knowledgeSource", "DMNDI"];
export const decisionOrder = [
  "description",
  "extensionElements",
  "question",
  "allowedAnswers",
  "variable",
  "informationRequirement",
  "knowledgeRequirement",
  "authorityRequirement",
  "decisionTable",
  "literalExpression",
];
export const logics = [
  "decisionTable",
  "literalExpression",
  "context",
  "invocation",
  "relation",
  "list",
  "functionDefinition",
  "conditional",
  "filter",
  "for",
  "some",
  "every",
];

/** Decisions, inputs and knowledge models of a file, by id. */
export const itemOf = (root: XmlElement, id: string): XmlElement | undefined =>
  kinds.flatMap((kind) => elementsIn(root, kind)).find((one) => attributeOf(one, "id") === id);

/** Where the logic of a decision stands: in itself; that of a knowledge model in its function. */
export const holderOf = (item: XmlElement): XmlElement =>
  localOf(item) === "businessKnowledgeModel" ? (elementIn(item, "encapsulatedLogic") ?? item) : item;
/** The element of an item's logic. */
export const logicOf = (item: XmlElement): XmlElement | undefined =>
  logics.map((local) => elementIn(holderOf(item), local)).find((one) => one !== undefined);

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
