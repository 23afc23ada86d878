import { renamedIn } from "../../feel";
import { say } from "../../messages";
import { failure, ok, type Result, type XmlElement } from "../../model";
import { namesOf } from "../names";
import { type DecisionDocument, localOf, modelOf } from "./document";
import { eachExpression } from "./expressions";
import { decisionOrder, holderOf, itemOf, kinds, logics, rootOrder } from "./item";
import { needing, withNeed, withoutNeed } from "./needs";
import { type InputColumn, sheetOf, type TableSheet, withSheet } from "./sheet";
import {
  attributeOf,
  changedById,
  elementIn,
  elementsIn,
  makeElement,
  withAttribute,
  withChild,
  withChildren,
  withWordsIn,
} from "./tree";

/** What can be done to a file of decisions. */
export type DecisionEdit =
  | { readonly type: "table"; readonly id: string; readonly sheet: TableSheet }
  | { readonly type: "expression"; readonly id: string; readonly text: string }
  | {
      readonly type: "add";
      readonly what: "table" | "expression" | "input" | "knowledge";
      readonly id: string;
      readonly name: string;
    }
  | { readonly type: "remove"; readonly id: string }
  | { readonly type: "rename"; readonly id: string; readonly name: string }
  | { readonly type: "retype"; readonly id: string; readonly to: string }
  | { readonly type: "question"; readonly id: string; readonly text: string }
  | { readonly type: "parameters"; readonly id: string; readonly names: readonly string[] }
  | { readonly type: "requires"; readonly id: string; readonly of: string; readonly isRequired: boolean }
  | { readonly type: "nameAll"; readonly name: string };

/**
 * A file of decisions after an edit. Names that a table or an expression uses make the requirement that the standard asks for; a heading
 * nobody knows becomes an input of the file; a new name is written wherever the old one was used.
 * @returns why it cannot be done, and what to do. O(length of the file).
 */
export function edited(document: DecisionDocument, edit: DecisionEdit): Result<DecisionDocument> {
  const { root } = document;
  const whole = (next: XmlElement): Result<DecisionDocument> =>
    ok(next === root ? document : { ...document, root: next });
  if (edit.type === "nameAll") return whole(withAttribute(root, "name", edit.name));
  const name = "name" in edit ? edit.name.replace(/\s+/g, " ").trim() : "";
  if ("name" in edit) {
    const refused = refusedName(root, name, edit.type === "rename" ? edit.id : undefined);
    if (refused) return refused;
  }
  if (edit.type === "add") return whole(added(root, edit.what, edit.id, name));
  const element = itemOf(root, edit.id);
  if (!element)
    return failure({
      code: "gone",
      message: say`This decision is no longer there. Open the list again.`,
      elements: [edit.id],
    });
  const change = (by: (element: XmlElement) => XmlElement) => whole(changedById(root, edit.id, by));
  switch (edit.type) {
    case "table": {
      const next = changedById(root, edit.id, (one) => {
        const holder = holderOf(one);
        const table = elementIn(holder, "decisionTable");
        if (!table) return one;
        const written = withChild(holder, table, withSheet(table, edit.sheet, idsFor(root, edit.id)));
        return withHolder(one, written);
      });
      const known = tableOf(root, edit.id)?.inputs ?? [];
      const isNew = edit.sheet.inputs.filter(({ from, expression }) => known[from ?? -1]?.expression !== expression);
      return whole(needing(withInputs(next, isNew), edit.id, root));
    }
    case "expression":
      return whole(
        needing(
          changedById(root, edit.id, (one) => {
            const holder = holderOf(one);
            const expression = elementIn(holder, "literalExpression");
            return expression
              ? withHolder(one, withChild(holder, expression, withWordsIn(expression, edit.text)))
              : one;
          }),
          edit.id,
          root,
        ),
      );
    case "remove":
      return removed(document, element);
    case "rename":
      return whole(renamed(root, element, name));
    case "retype":
      return change((one) => withVariable(one, (variable) => withAttribute(variable, "typeRef", edit.to || undefined)));
    case "question":
      return change((one) => {
        const held = elementIn(one, "question");
        if (edit.text === "") return held ? withChild(one, held, undefined) : one;
        return withChildren(
          one,
          "question",
          [{ ...(held ?? makeElement(one, "question")), children: [{ text: edit.text }] }],
          decisionOrder,
        );
      });
    case "parameters":
      return change((one) => {
        const holder = holderOf(one);
        const before = elementsIn(holder, "formalParameter");
        const next = edit.names.map(
          (parameter, at) =>
            before.find((had) => attributeOf(had, "name") === parameter) ??
            withAttribute(before[at] ?? makeElement(holder, "formalParameter"), "name", parameter),
        );
        return withHolder(
          one,
          withChildren(holder, "formalParameter", next, [
            "description",
            "extensionElements",
            "formalParameter",
            ...logics,
          ]),
        );
      });
    case "requires":
      return whole(edit.isRequired ? withNeed(root, edit.of, edit.id) : withoutNeed(root, edit.of, edit.id));
  }
}

const withHolder = (item: XmlElement, holder: XmlElement): XmlElement => {
  const before = holderOf(item);
  return before === item ? holder : withChild(item, before, holder);
};

function refusedName(root: XmlElement, name: string, own: string | undefined): Result<never> | undefined {
  if (!/^[\p{L}_]/u.test(name))
    return failure({ code: "no-name", message: say`A name begins with a letter, so that expressions can use it.` });
  const taken = kinds
    .filter((kind) => kind !== "itemDefinition")
    .flatMap((kind) => elementsIn(root, kind))
    .some((one) => attributeOf(one, "id") !== own && attributeOf(one, "name") === name);
  return taken
    ? failure({
        code: "name-taken",
        message: say`“${name}” is there already: an expression could not tell the two apart. Choose another name.`,
      })
    : undefined;
}

/** Ids that are free in a file, made from the id of what they stand in. */
function idsFor(root: XmlElement, of: string): () => string {
  const taken = new Set<string>();
  const visit = (element: XmlElement) => {
    const id = attributeOf(element, "id");
    if (id) taken.add(id);
    for (const node of element.children) if ("element" in node) visit(node.element);
  };
  visit(root);
  let count = 0;
  return () => {
    do count++;
    while (taken.has(`${of}.${count}`));
    return `${of}.${count}`;
  };
}

function added(
  root: XmlElement,
  what: "table" | "expression" | "input" | "knowledge",
  id: string,
  name: string,
): XmlElement {
  const local = what === "input" ? "inputData" : what === "knowledge" ? "businessKnowledgeModel" : "decision";
  const make = (
    one: string,
    attributes: readonly (readonly [string, string | undefined])[] = [],
    children: readonly XmlElement[] = [],
  ) =>
    makeElement(
      root,
      one,
      attributes,
      children.map((element) => ({ element })),
    );
  const variable = make("variable", [
    ["id", `${id}.variable`],
    ["name", name],
  ]);
  const words = (text: string) =>
    make("literalExpression", [["id", `${id}.expression`]], [{ ...make("text"), children: text ? [{ text }] : [] }]);
  const table = () =>
    make(
      "decisionTable",
      [
        ["id", `${id}.table`],
        ["hitPolicy", "UNIQUE"],
      ],
      [make("output", [["id", `${id}.output`]])],
    );
  const logic =
    what === "table"
      ? [table()]
      : what === "expression"
        ? [words("")]
        : what === "knowledge"
          ? [make("encapsulatedLogic", [], [make("formalParameter", [["name", "value"]]), words("value")])]
          : [];
  const element = make(
    local,
    [
      ["id", id],
      ["name", name],
    ],
    [variable, ...logic],
  );
  return withChildren(root, local, [...elementsIn(root, local), element], rootOrder);
}

function removed(document: DecisionDocument, element: XmlElement): Result<DecisionDocument> {
  const id = attributeOf(element, "id") ?? "";
  const model = modelOf(document);
  const needs = [
    ...[...model.decisions.values()].filter((one) => [...one.knowledge, ...one.decisions, ...one.inputs].includes(id)),
    ...[...model.knowledge.values()].filter((one) => one.knowledge.includes(id)),
  ];
  if (needs.length > 0)
    return failure({
      code: "needed",
      message: say`“${attributeOf(element, "name") ?? id}” is needed by ${needs.map(({ name }) => `“${name}”`).join(", ")}. Change ${needs.length === 1 ? "that" : "those"} first.`,
    });
  return ok({ ...document, root: withoutShapes(withChild(document.root, element, undefined), id) });
}

/** A drawing that a file brought loses what is drawn of an item that went; all else of it stays. */
function withoutShapes(root: XmlElement, id: string): XmlElement {
  const clean = (element: XmlElement): XmlElement => {
    let next = element;
    for (const node of element.children) {
      if (!("element" in node)) continue;
      if (attributeOf(node.element, "dmnElementRef") === id) next = withChild(next, node.element, undefined);
      else next = withChild(next, node.element, clean(node.element));
    }
    return next;
  };
  const drawing = root.children.flatMap((node) =>
    "element" in node && localOf(node.element) === "DMNDI" ? [node.element] : [],
  );
  return drawing.reduce((whole, one) => withChild(whole, one, clean(one)), root);
}

function withVariable(item: XmlElement, change: (variable: XmlElement) => XmlElement): XmlElement {
  const before = elementIn(item, "variable") ?? makeElement(item, "variable", [["name", attributeOf(item, "name")]]);
  return withChildren(item, "variable", [change(before)], decisionOrder);
}

/** Headings that name nothing of the file become its inputs. */
function withInputs(root: XmlElement, columns: readonly InputColumn[]): XmlElement {
  const known = new Set(kinds.flatMap((kind) => elementsIn(root, kind)).map((one) => attributeOf(one, "name")));
  const ids = idsFor(root, "input");
  let next = root;
  for (const { expression, type, label } of columns) {
    const name = expression.trim();
    if (known.has(name) || name === "" || !/^[\p{L}_][\p{L}\p{N}\p{M}_' ]*$/u.test(name) || label === name) continue;
    known.add(name);
    const id = ids();
    next = added(next, "input", id, name);
    if (type !== "")
      next = changedById(next, id, (one) => withVariable(one, (variable) => withAttribute(variable, "typeRef", type)));
  }
  return next;
}

/** A new name for an item, in its variable and in all that uses it. */
function renamed(root: XmlElement, item: XmlElement, name: string): XmlElement {
  const [id, old] = [attributeOf(item, "id") ?? "", attributeOf(item, "name") ?? ""];
  const names = namesOf(root);
  const next = eachExpression(root, (text, what) => renamedIn(text, names, [old], name, what));
  return changedById(next, id, (one) =>
    withVariable(withAttribute(one, "name", name), (variable) => withAttribute(variable, "name", name)),
  );
}

/** The table of an item, as a sheet. */
export function tableOf(root: XmlElement, id: string): TableSheet | undefined {
  const item = itemOf(root, id);
  const table = item && elementIn(holderOf(item), "decisionTable");
  return table && remembered(table);
}
const sheets = new WeakMap<XmlElement, TableSheet>();
function remembered(table: XmlElement): TableSheet {
  const sheet = sheets.get(table) ?? sheetOf(table);
  sheets.set(table, sheet);
  return sheet;
}
