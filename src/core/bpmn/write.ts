import {
  bpmnNamespace,
  childrenOf,
  type Documentation,
  dcNamespace,
  diNamespace,
  type Element,
  type Expression,
  type Id,
  incomingOf,
  instanceNamespace,
  interchangeNamespace,
  isAnonymous,
  isFlowNode,
  type Model,
  outgoingOf,
  ownNamespace,
  type TextContent,
  typeInfo,
  type XmlNode,
} from "../model";
import { holderIn, putFigures } from "../scenario";
import { ForeignNodes, type WriteContext } from "./writeContext";
import { writeDiagrams } from "./writeInterchange";
import { type WrittenAttribute, XmlWriter } from "./xmlWriter";

const ourPrefixes: readonly (readonly [prefix: string, uri: string])[] = [
  ["bpmn", bpmnNamespace],
  ["bpmndi", interchangeNamespace],
  ["dc", dcNamespace],
  ["di", diNamespace],
  ["xsi", instanceNamespace],
  ["lln", ownNamespace],
];

/**
 * Writes a model as a BPMN 2.0 file: elements in the order of the standard's schema, everything that came with a file where
 * it stood, references spelled as they were where they still hold. O(size of the model).
 */
export function writeBpmn(model: Model): string {
  const out = new XmlWriter();
  const { declarations, prefixes } = declare(model);
  const names = namesForAnonymous(model);
  const holder = holderIn(model);
  const context: WriteContext = {
    model,
    extensionOf: (element) =>
      element === holder ? putFigures(element.extension ?? [], model.figures) : (element.extension ?? []),
    out,
    prefixOf: (uri) => prefixes.get(uri) as string,
    fileId: (id, spelled) => (isAnonymous(id) ? (spelled ?? names.get(id)) : id),
  };
  for (const node of model.form.before) out.node(node);
  const root = model.elements.get(model.root) as Element;
  writeElement(context, root, "definitions", declarations);
  for (const node of model.form.after) out.node(node);
  return out.toString();
}

/** Declarations as the file had them, with those we need and it had not. */
function declare(model: Model): { declarations: WrittenAttribute[]; prefixes: Map<string, string> } {
  const declared = new Map(model.form.prefixes);
  const prefixes = new Map<string, string>();
  for (const [prefix, uri] of declared) if (!prefixes.has(uri)) prefixes.set(uri, prefix === "" ? "" : `${prefix}:`);
  const needsInterchange = model.diagrams.size > 0;
  for (const [wanted, uri] of ourPrefixes) {
    if (prefixes.has(uri)) continue;
    const needed =
      uri === ownNamespace
        ? usesOwnNamespace(model)
        : uri === bpmnNamespace || (uri === instanceNamespace ? usesExpressionTypes(model) : needsInterchange);
    let prefix = wanted;
    for (let counter = 1; declared.has(prefix); counter++) prefix = `${wanted}${counter}`;
    prefixes.set(uri, `${prefix}:`);
    if (needed) declared.set(prefix, uri);
  }
  const declarations = [...declared].map(
    ([prefix, uri]) => [prefix === "" ? "xmlns" : `xmlns:${prefix}`, uri] as const,
  );
  return { declarations, prefixes };
}

function usesOwnNamespace(model: Model): boolean {
  for (const element of model.elements) {
    if (element.extension?.some((node) => "element" in node && node.element.uri === ownNamespace)) return true;
  }
  return false;
}

function usesExpressionTypes(model: Model): boolean {
  for (const element of model.elements) {
    for (const [field, spec] of typeInfo(element.type).content) {
      if (spec.kind === "expression" && (element[field] as Expression | undefined)?.typeName) return true;
    }
  }
  return false;
}

/** An element without an id of its own gets one in the file where something must name it. */
function namesForAnonymous(model: Model): Map<Id, string> {
  const names = new Map<Id, string>();
  const name = (id: Id | undefined) => {
    if (id === undefined || !isAnonymous(id) || names.has(id)) return;
    let candidate = `unnamed.${id.slice(1)}`;
    while (model.elements.has(candidate)) candidate += ".2";
    names.set(id, candidate);
  };
  for (const shape of model.shapes) name(shape.element);
  for (const edge of model.edges) name(edge.element);
  for (const diagram of model.diagrams) name(diagram.element);
  for (const element of model.elements) {
    for (const { field, many } of typeInfo(element.type).references) {
      const value = element[field];
      if (value === undefined) continue;
      if (many) (value as readonly Id[]).forEach(name);
      else name(value as Id);
    }
    if (isAnonymous(element.id) && isFlowNode(element.type)) {
      // `incoming` and `outgoing` are derived, so the flows of a node are named by it.
      for (const flow of [...incomingOf(model, element.id), ...outgoingOf(model, element.id)]) name(flow.id);
    }
  }
  return names;
}

function writeElement(
  context: WriteContext,
  element: Element,
  tag: string,
  declarations: readonly WrittenAttribute[] = [],
): void {
  const { model, out } = context;
  const info = typeInfo(element.type);
  const name = `${element.prefix === undefined ? context.prefixOf(bpmnNamespace) : element.prefix === "" ? "" : `${element.prefix}:`}${tag}`;
  const attributes: WrittenAttribute[] = [...declarations];
  const id = context.fileId(element.id, element.spelling?.id);
  if (id !== undefined) attributes.push(["id", id]);
  for (const [field, spec] of info.attributes) {
    const value = element[field];
    const spelled = element.spelling?.[field];
    const attribute = field === "typeRef" ? "type" : field;
    if (value === undefined) {
      // A value that could not be read goes back as it was; one that was taken away does not.
      if (spelled !== undefined && !isReadable(spec.kind, spelled)) attributes.push([attribute, spelled]);
      continue;
    }
    const written = spec.kind === "reference" ? (context.fileId(value as Id) ?? String(value)) : String(value);
    attributes.push([
      attribute,
      spelled !== undefined && meansTheSame(spec.kind, spelled, written) ? spelled : written,
    ]);
  }
  for (const attribute of element.foreignAttributes ?? []) attributes.push(attribute);

  if (info.content.has("body")) {
    const body = (element.body as TextContent | undefined) ?? { text: "" };
    out.textElement(name, attributes, body.nodes ?? body.text);
    return;
  }
  out.start(name, attributes);
  const foreign = new ForeignNodes(out, element.foreign);
  foreign.after("");
  for (const documentation of element.documentation ?? []) writeDocumentation(context, documentation);
  if (element.documentation) foreign.after("documentation");
  if (element.extension) {
    out.start(`${context.prefixOf(bpmnNamespace)}extensionElements`, element.extensionAttributes ?? []);
    for (const node of context.extensionOf(element)) out.node(withDeclaredPrefix(context, node));
    out.end();
    foreign.after("extensionElements");
  }
  const children = childrenOf(model, element.id);
  let at = 0;
  for (const [field, spec] of info.content) {
    const prefixed = `${context.prefixOf(bpmnNamespace)}${spec.kind === "children" ? "" : field}`;
    switch (spec.kind) {
      case "children":
        for (; at < children.length && (children[at] as Element).slot === field; at++) {
          const child = children[at] as Element;
          writeElement(context, child, spec.tag ?? child.type);
          foreign.after(child.id);
        }
        break;
      case "references":
        writeReferences(context, element, field, spec.many, prefixed);
        foreign.after(field);
        break;
      case "expression": {
        const expression = element[field] as Expression | undefined;
        if (expression) writeExpression(context, prefixed, expression);
        foreign.after(field);
        break;
      }
      case "text": {
        const content = element[field] as TextContent | undefined;
        if (content) out.textElement(prefixed, [], content.nodes ?? content.text);
        foreign.after(field);
        break;
      }
    }
    // Diagrams stand behind the root elements and before the relationships.
    if (element.type === "definitions" && field === "rootElements") writeDiagrams(context, (id) => foreign.after(id));
  }
  foreign.rest();
  out.end();
}

function writeReferences(context: WriteContext, element: Element, field: string, many: boolean, tag: string): void {
  let targets: readonly Id[];
  const value = element[field] as Id | readonly Id[] | undefined;
  if (value !== undefined) targets = many ? (value as readonly Id[]) : [value as Id];
  else if (field === "incoming") targets = incomingOf(context.model, element.id).map((flow) => flow.id);
  else if (field === "outgoing") targets = outgoingOf(context.model, element.id).map((flow) => flow.id);
  else return;
  targets.forEach((target, at) => {
    const spelled = element.spelling?.[many ? `${field}.${at}` : field];
    const written = context.fileId(target) ?? target;
    context.out.textElement(
      tag,
      [],
      spelled !== undefined && meansTheSame("reference", spelled, written) ? spelled : written,
    );
  });
}

function writeDocumentation({ out, prefixOf }: WriteContext, documentation: Documentation): void {
  const attributes: WrittenAttribute[] = [];
  if (documentation.id !== undefined) attributes.push(["id", documentation.id]);
  if (documentation.textFormat !== undefined) attributes.push(["textFormat", documentation.textFormat]);
  attributes.push(...(documentation.attributes ?? []));
  out.textElement(`${prefixOf(bpmnNamespace)}documentation`, attributes, documentation.nodes ?? documentation.text);
}

function writeExpression({ out, prefixOf }: WriteContext, tag: string, expression: Expression): void {
  const attributes: WrittenAttribute[] = [];
  if (expression.typeName !== undefined) {
    const typeName = expression.typeName.includes(":")
      ? expression.typeName
      : `${prefixOf(bpmnNamespace)}${expression.typeName}`;
    attributes.push([`${prefixOf(instanceNamespace)}type`, typeName]);
  }
  for (const field of ["id", "language", "evaluatesToTypeRef"] as const) {
    const value = expression[field];
    if (value !== undefined) attributes.push([field, value]);
  }
  attributes.push(...(expression.attributes ?? []));
  out.textElement(tag, attributes, expression.nodes ?? expression.text);
}

/** Our own extension elements are made with our prefix; a file may use that prefix for something else. */
function withDeclaredPrefix(context: WriteContext, node: XmlNode): XmlNode {
  if (!("element" in node) || node.element.uri !== ownNamespace) return node;
  const local = node.element.name.slice(node.element.name.indexOf(":") + 1);
  const name = `${context.prefixOf(ownNamespace)}${local}`;
  if (name === node.element.name && node.element.children.length === 0) return node;
  const children = node.element.children.map((child) => withDeclaredPrefix(context, child));
  return { element: { ...node.element, name, children } };
}

function isReadable(kind: string, raw: string): boolean {
  const text = raw.trim();
  if (kind === "boolean") return ["true", "false", "1", "0"].includes(text);
  if (kind === "integer") return text !== "" && Number.isInteger(Number(text));
  return kind !== "enum";
}

/** Whether a spelling from the file still says what the model says now. */
function meansTheSame(kind: string, spelled: string, written: string): boolean {
  const text = spelled.trim();
  switch (kind) {
    case "boolean":
      return (text === "true" || text === "1") === (written === "true");
    case "integer":
      return Number(text) === Number(written);
    case "reference":
      return text === written || text.slice(text.indexOf(":") + 1) === written;
    default:
      return text === written;
  }
}
