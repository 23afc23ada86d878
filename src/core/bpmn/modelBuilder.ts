import { type Said, say } from "../messages";
import {
  anonymousId,
  bpmnNamespace,
  type Element,
  type FileNote,
  type Id,
  interchangeNamespace,
  isFlowNode,
  type Model,
  Table,
  type TypeInfo,
  typeInfo,
  type XmlElement,
  type XmlNode,
} from "../model";
import { simulationHolder, takeFigures } from "../scenario";
import { readAttribute, spell, type Writable } from "./attributeValues";
import { InterchangeBuilder } from "./interchangeBuilder";
import { declaredPrefix, innerScope, outermostScope, resolveName, type Scope, uriOf } from "./namespaces";
import { type FlowLists, flowListsOf, keepOddFlowLists, resolveReferences } from "./references";
import { textOf, withoutSpace } from "./xmlContent";

type Attributes = Record<string, string>;

/** What the parser is inside of. Each frame takes the children of its XML element. */
export type Frame =
  | { readonly kind: "element"; readonly record: Writable; readonly info: TypeInfo; last: string }
  | { readonly kind: "extension"; readonly children: XmlNode[]; readonly done: (children: XmlNode[]) => void }
  | {
      readonly kind: "raw";
      readonly element: XmlElement & { children: XmlNode[] };
      readonly keepSpace: boolean;
      readonly done: (element: XmlElement) => void;
    }
  | { readonly kind: "text"; nodes: XmlNode[]; readonly done: (text: string, nodes: XmlNode[] | undefined) => void }
  | { readonly kind: "flow"; readonly into: string[]; text: string }
  | {
      readonly kind: "interchange";
      readonly open: (name: string, local: string, uri: string, attributes: Attributes) => void;
      readonly place: (node: XmlNode) => void;
      readonly done: () => void;
    };

/**
 * Builds a model from the events of an XML parser. Everything is put where the metamodel says; what the metamodel does not
 * know is kept as foreign content next to where it stood.
 */
export class ModelBuilder {
  readonly elements = new Map<Id, Writable>();
  readonly notes: FileNote[] = [];
  readonly #stack: Frame[] = [];
  /** Scopes to go back to, with the depth at which their inner one began; most elements declare nothing. */
  readonly #scopes: { readonly scope: Scope; readonly depth: number }[] = [];
  #depth = 0;
  #scope: Scope = outermostScope;
  #root: Writable | undefined;
  #usualPrefix = "";
  #prefixes: (readonly [string, string])[] = [];
  readonly #before: XmlNode[] = [];
  readonly #after: XmlNode[] = [];
  /** What files say of a node's flows, apart from the records: most of it only repeats the flows. */
  readonly #flowLists = new Map<Id, FlowLists>();
  #order = 0;
  #anonymous = 0;
  readonly #interchange: InterchangeBuilder;

  constructor(
    private readonly line: () => number,
    private readonly refuse: (code: string, message: Said) => never,
  ) {
    this.#interchange = new InterchangeBuilder(this);
  }

  /** `declares` tells whether some attribute declares a namespace; `prefixed` are the names of attributes that carry a prefix. */
  open(name: string, attributes: Attributes, declares: boolean, prefixed: readonly string[]): void {
    this.#depth++;
    if (declares) this.#enterScope(attributes);
    const { local, uri, prefix } = resolveName(this.#scope, name);
    if (prefix !== "" && uri === "") this.#refusePrefix(prefix);
    for (const attribute of prefixed) {
      const own = resolveName(this.#scope, attribute);
      if (own.uri === "") this.#refusePrefix(own.prefix);
    }
    const top = this.#stack[this.#stack.length - 1];
    if (!top) return this.#openRoot(name, local, uri, prefix, attributes);
    switch (top.kind) {
      case "element":
        return this.#openInElement(top, name, local, uri, prefix, attributes);
      case "interchange":
        return top.open(name, local, uri, attributes);
      case "extension":
        return this.openRaw(name, uri, attributes, false, (element) => top.children.push({ element }));
      case "raw":
        return this.openRaw(name, uri, attributes, top.keepSpace, (element) => top.element.children.push({ element }));
      case "text":
        return this.openRaw(name, uri, attributes, true, (element) => top.nodes.push({ element }));
      case "flow":
        return this.openRaw(name, uri, attributes, true, () => {});
    }
  }

  close(): void {
    const frame = this.#stack.pop() as Frame;
    switch (frame.kind) {
      case "extension":
        frame.done(withoutSpace(frame.children));
        break;
      case "raw":
        frame.done(
          frame.keepSpace ? frame.element : { ...frame.element, children: withoutSpace(frame.element.children) },
        );
        break;
      case "text": {
        const plain = frame.nodes.every((node) => "text" in node);
        frame.done(textOf(frame.nodes), plain ? undefined : frame.nodes);
        break;
      }
      case "interchange":
        frame.done();
        break;
      case "flow":
        frame.into.push(frame.text);
        break;
    }
    const outer = this.#scopes[this.#scopes.length - 1];
    if (outer?.depth === this.#depth) {
      this.#scope = outer.scope;
      this.#scopes.pop();
    }
    this.#depth--;
  }

  text(value: string): void {
    const top = this.#stack[this.#stack.length - 1];
    if (!top) return;
    if (top.kind === "text") top.nodes.push({ text: value });
    else if (top.kind === "flow") top.text += value;
    else if (top.kind === "raw") top.element.children.push({ text: value });
    else if (top.kind === "extension") top.children.push({ text: value });
    else if (value.trim() !== "") this.place({ text: value.trim() });
  }

  /** Keeps a comment, an instruction or stray text where it stands. */
  place(node: XmlNode): void {
    const top = this.#stack[this.#stack.length - 1];
    if (!top) (this.#root ? this.#after : this.#before).push(node);
    else if (top.kind === "element") placeForeign(top.record, top.last, node);
    else if (top.kind === "interchange") top.place(node);
    else if (top.kind === "text") top.nodes.push(node);
    // A comment inside a flow's name; the name is all that is kept of it.
    else if (top.kind === "flow") return;
    else if (top.kind === "raw") top.element.children.push(node);
    else top.children.push(node);
  }

  finish(): Model {
    const root = this.#root as Writable;
    const targetOf = (raw: string) => this.targetOf(raw);
    for (const record of this.elements.values()) resolveReferences(record, targetOf);
    keepOddFlowLists(this.elements, this.#flowLists, targetOf);
    const elements = Table.from<Element>(this.elements as ReadonlyMap<Id, Element>);
    return {
      root: root.id,
      ...figuresApart(root.id, elements),
      ...this.#interchange.finish(),
      form: { prefixes: this.#prefixes, before: this.#before, after: this.#after },
      notes: this.notes,
    };
  }

  // What the builder of the diagram interchange shares.

  push(frame: Frame): void {
    this.#stack.push(frame);
  }
  nextOrder(): number {
    return ++this.#order;
  }
  nextAnonymous(): Id {
    return anonymousId(++this.#anonymous);
  }
  readonly note = (code: FileNote["code"], element: Id, detail: string): void => {
    this.notes.push({ code, element, detail, line: this.line() });
  };
  /** The id a reference means: without its prefix where that stands for the file's own namespace. */
  targetOf(raw: string): string {
    const trimmed = raw.trim();
    const colon = trimmed.indexOf(":");
    if (colon < 0) return trimmed;
    const uri = uriOf(this.#scope, trimmed.slice(0, colon));
    const own = (this.#root?.targetNamespace as string | undefined) ?? "";
    return uri === own || uri === "" ? trimmed.slice(colon + 1) : trimmed;
  }
  openRaw(
    name: string,
    uri: string,
    attributes: Attributes,
    keepSpace: boolean,
    done: (element: XmlElement) => void,
  ): void {
    const element = { name, uri, attributes: Object.entries(attributes), children: [] as XmlNode[] };
    this.push({ kind: "raw", element, keepSpace, done });
  }

  /** Source: Namespaces in XML 1.0, section 5 (a prefix must have been declared); such a file is not namespace-well-formed. */
  #refusePrefix(prefix: string): never {
    this.refuse("undeclared-prefix", say`The prefix "${prefix}" is not declared (xmlns:${prefix} is missing).`);
  }

  #enterScope(attributes: Attributes): void {
    const declared = new Map<string, string>();
    for (const name in attributes) {
      const prefix = declaredPrefix(name);
      if (prefix !== undefined) declared.set(prefix, attributes[name] as string);
    }
    this.#scopes.push({ scope: this.#scope, depth: this.#depth });
    this.#scope = innerScope(this.#scope, declared);
  }

  #openRoot(name: string, local: string, uri: string, prefix: string, attributes: Attributes): void {
    if (local !== "definitions" || uri !== bpmnNamespace) {
      const reason =
        local === "definitions"
          ? `its namespace is "${uri}", not BPMN 2.0's`
          : `it begins with <${name}>, not with BPMN's <definitions>`;
      this.refuse("not-bpmn", say`This is not a BPMN 2.0 file: ${reason}.`);
    }
    this.#usualPrefix = prefix;
    this.#prefixes = [...this.#scope.prefixes];
    const own: Attributes = {};
    for (const key of Object.keys(attributes))
      if (declaredPrefix(key) === undefined) own[key] = attributes[key] as string;
    this.#root = this.#openElement("definitions", null, "", prefix, own);
  }

  #openInElement(
    top: Frame & { kind: "element" },
    name: string,
    local: string,
    uri: string,
    prefix: string,
    attributes: Attributes,
  ): void {
    const { record, info } = top;
    const keepForeign = () =>
      this.openRaw(name, uri, attributes, false, (element) => placeForeign(record, top.last, { element }));
    if (uri === interchangeNamespace && local === "BPMNDiagram" && record.type === "definitions") {
      top.last = this.#interchange.openDiagram(attributes, prefix);
      return;
    }
    if (uri !== bpmnNamespace) return keepForeign();
    if (local === "documentation") return this.#openDocumentation(top, attributes);
    if (local === "extensionElements") {
      if (record.extension) return keepForeign();
      if (Object.keys(attributes).length > 0) record.extensionAttributes = Object.entries(attributes);
      this.push({
        kind: "extension",
        children: [],
        done: (children) => {
          record.extension = children;
          top.last = "extensionElements";
        },
      });
      return;
    }
    const child = info.childByTag.get(local);
    if (child) {
      top.last = this.#openElement(child.type, record.id, child.slot, prefix, attributes).id;
      return;
    }
    const content = info.content.get(local);
    if (content?.kind === "references") return this.#openReference(top, local, content.many);
    if (content?.kind === "expression") return this.#openExpression(top, local, attributes);
    if (content?.kind === "text") {
      this.push({
        kind: "text",
        nodes: [],
        done: (value, nodes) => {
          record[local] = nodes ? { text: value, nodes } : { text: value };
          top.last = local;
        },
      });
      return;
    }
    this.note("misplaced-element", record.id, local);
    keepForeign();
  }

  #openElement(
    type: Element["type"],
    parent: Id | null,
    slot: string,
    prefix: string,
    attributes: Attributes,
  ): Writable {
    const info = typeInfo(type);
    const given = attributes.id?.trim();
    const isDuplicate = given !== undefined && this.elements.has(given);
    const id = given && !isDuplicate ? given : this.nextAnonymous();
    const record = { id, type, parent, slot, order: this.nextOrder() } as Writable;
    if (isDuplicate) {
      this.note("duplicate-id", id, given);
      spell(record, "id", given);
    }
    if (prefix !== this.#usualPrefix) record.prefix = prefix;
    for (const name in attributes) {
      if (name === "id") continue;
      const field = name === "type" ? "typeRef" : name;
      const spec = info.attributes.get(field);
      const value = attributes[name] as string;
      if (spec) readAttribute(record, field, spec, value, this.note);
      else record.foreignAttributes = [...(record.foreignAttributes ?? []), [name, value]];
    }
    this.elements.set(id, record);
    // An expression that is an element of its own has its text directly inside.
    if (info.content.has("body")) {
      this.push({
        kind: "text",
        nodes: [],
        done: (value, nodes) => {
          record.body = nodes ? { text: value, nodes } : { text: value };
        },
      });
    } else this.push({ kind: "element", record, info, last: "" });
    return record;
  }

  #openDocumentation(top: Frame & { kind: "element" }, attributes: Attributes): void {
    const { id, textFormat, ...others } = attributes;
    const rest = Object.entries(others);
    this.push({
      kind: "text",
      nodes: [],
      done: (text, nodes) => {
        const documentation = {
          text,
          ...(id !== undefined && { id }),
          ...(textFormat !== undefined && { textFormat }),
          ...(nodes && { nodes }),
          ...(rest.length > 0 && { attributes: rest }),
        };
        top.record.documentation = [...(top.record.documentation ?? []), documentation];
        top.last = "documentation";
      },
    });
  }

  #openExpression(top: Frame & { kind: "element" }, field: string, attributes: Attributes): void {
    const rest: [string, string][] = [];
    const known: { [name: string]: string } = {};
    for (const [name, value] of Object.entries(attributes)) {
      if (name === "id" || name === "language" || name === "evaluatesToTypeRef") known[name] = value;
      else if (name.endsWith(":type") && resolveName(this.#scope, name).uri.endsWith("XMLSchema-instance"))
        known.typeName = value;
      else rest.push([name, value]);
    }
    this.push({
      kind: "text",
      nodes: [],
      done: (text, nodes) => {
        top.record[field] = { text, ...known, ...(nodes && { nodes }), ...(rest.length > 0 && { attributes: rest }) };
        top.last = field;
      },
    });
  }

  #openReference(top: Frame & { kind: "element" }, field: string, many: boolean): void {
    const { record } = top;
    if ((field === "incoming" || field === "outgoing") && isFlowNode(record.type)) {
      top.last = field;
      this.push({ kind: "flow", into: flowListsOf(this.#flowLists, record.id)[field], text: "" });
      return;
    }
    this.push({
      kind: "text",
      nodes: [],
      done: (raw) => {
        if (many) record[field] = [...((record[field] as string[] | undefined) ?? []), raw];
        else record[field] = raw;
        top.last = field;
      },
    });
  }
}

function placeForeign(record: Writable, after: string, node: XmlNode): void {
  record.foreign = [...(record.foreign ?? []), { after, node }];
}

/** The figures of the file's simulation data, and the elements without them. */
function figuresApart(root: Id, elements: Table<Element>): Pick<Model, "elements" | "figures"> {
  const holder = simulationHolder([...elements], root);
  if (!holder) return { elements, figures: Table.empty() };
  const { extension, figures } = takeFigures(holder.extension ?? []);
  return {
    elements: elements.with(new Map([[holder.id, { ...holder, extension }]])),
    figures: Table.from(figures.map((figure) => [figure.id, figure])),
  };
}
