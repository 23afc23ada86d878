import { escapeAttribute, escapeText } from "./escape";
import { pairsOf } from "./pairs";
import { declaredBy, type SourceAttribute, type SourceElement, type SourceNode, sourceTree, split } from "./sourceTree";
import { holdsText, meant, TreeKeys } from "./treeKeys";

/**
 * Changes in a text only what differs between two states of its content; order, prefixes, comments and white space of all the rest
 * stay as somebody wrote them.
 * @param text the text to change
 * @param before the tree of its content as our own writer writes it
 * @param after the tree of the content it shall have, written likewise
 * @returns the text with the content of `after`. O(size of all three), and n log n for what changes its order.
 */
export function reviseText(text: string, before: SourceElement, after: SourceElement): string {
  return new Revision(text, before, after).run();
}

class Revision {
  readonly #keys = new TreeKeys();
  readonly #root: SourceElement;
  /** What stands in the text, for each element of the state before. */
  readonly #sources = new Map<SourceNode, SourceNode>();
  /** Elements of the state before by their ids: what has moved is found by it. */
  readonly #byId = new Map<string, SourceElement>();
  /** Namespaces that the text does not declare yet, by the prefix they get. */
  readonly #declare = new Map<string, string>();
  readonly #newline: string;
  readonly #unit: string;

  constructor(
    readonly text: string,
    readonly before: SourceElement,
    readonly after: SourceElement,
  ) {
    this.#root = sourceTree(text);
    this.#newline = /\r\n/.test(text) ? "\r\n" : "\n";
    const [first] = this.#root.content.filter(({ kind }) => kind === "element");
    this.#unit = (first && this.#indentOf(first)?.slice((this.#indentOf(this.#root) ?? "").length)) || "  ";
    this.#find(this.#root, before);
  }

  run(): string {
    const { text } = this;
    const root = this.#root;
    if (this.#keys.of(this.before) === this.#keys.of(this.after)) return text;
    const inside = this.#element(root, this.before, this.after, "");
    const declarations = [...this.#declare].map(([prefix, uri]) => ` xmlns:${prefix}="${escapeAttribute(uri)}"`);
    const at = 1 + root.name.length;
    return `${text.slice(0, root.start)}${inside.slice(0, at)}${declarations.join("")}${inside.slice(at)}${text.slice(root.end)}`;
  }

  #find(source: SourceElement, before: SourceElement): void {
    this.#sources.set(before, source);
    const id = idOf(before);
    if (id !== undefined && !this.#byId.has(id)) this.#byId.set(id, before);
    for (const [one, other] of pairsOf(this.#keys, meant(before), meant(source))) {
      if (one.kind === "element" && other.kind === "element") this.#find(other, one);
      else this.#sources.set(one, other);
    }
  }

  /** An element of the text, with what differs; where it moves, `indent` is what its line begins with from now on. */
  #element(source: SourceElement, before: SourceElement, after: SourceElement, indent: string | undefined): string {
    const slice = this.text.slice(source.start, source.end);
    const own = this.#indentOf(source) ?? "";
    const isMoved = indent !== undefined && indent !== own && source !== this.#root;
    if (this.#keys.of(before) === this.#keys.of(after) && (!isMoved || !slice.includes("\n"))) return slice;
    const to = isMoved ? indent : own;
    const name = before.local === after.local && before.uri === after.uri ? source.name : this.#name(source, after);
    const start = this.#startTag(source, before, after, name);
    const content = this.#content(source, before, after, to, isMoved);
    if (content === "") return source.isEmptyTag ? `${start}/>` : `${start}></${name}>`;
    return `${start}>${content}</${name}>`;
  }

  /** The start tag without its end, with the attributes that differ. */
  #startTag(source: SourceElement, before: SourceElement, after: SourceElement, name: string): string {
    const was = byName(before);
    const is = byName(after);
    let tag = `<${name}`;
    let space = " ";
    for (const attribute of source.attributes) {
      const lead = this.text.slice(attribute.start).match(/^\s+/)?.[0] ?? " ";
      space = lead;
      const key = keyOf(attribute);
      const wanted = is.get(key);
      const isKept = declaredBy(attribute.name) !== undefined || !was.has(key) || was.get(key) === wanted;
      if (isKept) tag += this.text.slice(attribute.start, attribute.end);
      else if (wanted !== undefined) {
        const quote = this.text[attribute.valueStart - 1] ?? '"';
        const value = escapeAttribute(wanted);
        tag += `${this.text.slice(attribute.start, attribute.valueStart)}${quote === "'" ? value.replaceAll("'", "&apos;") : value}${quote}`;
      }
    }
    const had = byName(source);
    for (const attribute of after.attributes) {
      const key = keyOf(attribute);
      if (declaredBy(attribute.name) !== undefined || had.has(key) || was.get(key) === attribute.value) continue;
      tag += `${space}${this.#attributeName(source, attribute)}="${escapeAttribute(attribute.value)}"`;
    }
    const last = source.attributes[source.attributes.length - 1]?.end ?? source.start + 1 + source.name.length;
    return tag + this.text.slice(last, source.opened - (source.isEmptyTag ? 2 : 1));
  }

  #content(
    source: SourceElement,
    before: SourceElement,
    after: SourceElement,
    indent: string,
    isMoved: boolean,
  ): string {
    const isSame = this.#keys.contentOf(before) === this.#keys.contentOf(after);
    if (isSame && (!isMoved || holdsText(source))) return this.text.slice(source.opened, source.closing);
    if (holdsText(after) || holdsText(before)) {
      const parts = meant(after).map((node) => this.#fresh(source, node, undefined));
      return parts.join("");
    }
    return this.#children(source, before, after, indent, isMoved);
  }

  #children(
    source: SourceElement,
    before: SourceElement,
    after: SourceElement,
    indent: string,
    isMoved: boolean,
  ): string {
    const olds = meant(before);
    const news = meant(after);
    const partner = new Map(pairsOf(this.#keys, news, olds));
    const kept = inOrder(
      news.filter((node) => partner.has(node)),
      olds,
      partner,
    );
    /** What stays where it is in the text, and what it becomes. */
    const stays = new Map<SourceNode, SourceNode>();
    const gone = new Set<SourceNode>();
    for (const old of olds) {
      const place = this.#sources.get(old);
      if (place) gone.add(place);
    }
    for (const node of kept) {
      const place = this.#sources.get(partner.get(node) as SourceNode);
      if (!place) continue;
      stays.set(place, node);
      gone.delete(place);
    }
    const here = new Set(stays.values());
    const behind = new Map<SourceNode | undefined, SourceNode[]>();
    const placeOf = new Map([...stays].map(([place, node]) => [node, place]));
    let anchor: SourceNode | undefined;
    for (const node of news) {
      if (here.has(node)) anchor = placeOf.get(node);
      else behind.set(anchor, [...(behind.get(anchor) ?? []), node]);
    }
    return this.#laidOut({ source, indent, isMoved, stays, gone, behind, partner });
  }

  #laidOut(of: {
    readonly source: SourceElement;
    readonly indent: string;
    readonly isMoved: boolean;
    readonly stays: ReadonlyMap<SourceNode, SourceNode>;
    readonly gone: ReadonlySet<SourceNode>;
    readonly behind: ReadonlyMap<SourceNode | undefined, readonly SourceNode[]>;
    readonly partner: ReadonlyMap<SourceNode, SourceNode>;
  }): string {
    const { source, stays, gone, behind, partner } = of;
    const laid = source.content.find((node) => node.kind === "element" && this.#indentOf(node) !== undefined);
    const isOneLine = !laid && source.content.some(({ kind }) => kind === "element");
    const own = this.#indentOf(source) ?? "";
    const usual = laid && !of.isMoved ? (this.#indentOf(laid) as string) : of.indent + this.#unit;
    const lead = isOneLine ? "" : this.#newline + usual;
    let out = "";
    let space = "";
    const insert = (anchor: SourceNode | undefined) => {
      for (const node of behind.get(anchor) ?? [])
        out += lead + this.#placed(source, node, isOneLine ? undefined : usual, partner);
    };
    const shifted = (text: string) =>
      of.isMoved ? text.replace(/\n([ \t]*)/g, (_, was: string) => `\n${deeper(was, own, of.indent)}`) : text;
    insert(undefined);
    for (const node of source.content) {
      if (node.kind === "text") {
        space += this.text.slice(node.start, node.end);
        continue;
      }
      const becomes = stays.get(node);
      if (gone.has(node)) {
        // Its line goes with it.
        space = space.replace(/\r?\n?[ \t]*$/, "");
        continue;
      }
      out += shifted(space);
      space = "";
      if (node.kind !== "element" || becomes?.kind !== "element") out += this.text.slice(node.start, node.end);
      else {
        const old = partner.get(becomes);
        const line = this.#indentOf(node);
        const to = of.isMoved && line !== undefined ? deeper(line, own, of.indent) : undefined;
        out += this.#element(node, old as SourceElement, becomes, to);
      }
      insert(node);
    }
    if (source.isEmptyTag || source.content.length === 0) return out === "" ? "" : out + this.#newline + of.indent;
    if (space === "" && out !== "" && !isOneLine && behind.size > 0 && !laid) return out + this.#newline + of.indent;
    return out + shifted(space);
  }

  /** What comes to a place in the text: from elsewhere in it, or new. */
  #placed(
    into: SourceElement,
    node: SourceNode,
    indent: string | undefined,
    partner: ReadonlyMap<SourceNode, SourceNode>,
  ): string {
    if (node.kind !== "element") return this.#fresh(into, node, indent);
    const id = idOf(node);
    const old = partner.get(node) ?? (id === undefined ? undefined : this.#byId.get(id));
    const source = old && this.#sources.get(old);
    const sameScope = source?.kind === "element" && source.parent?.declared === into.declared;
    if (old?.kind !== "element" || source?.kind !== "element" || !sameScope) return this.#fresh(into, node, indent);
    return this.#element(source, old, node, indent);
  }

  /** New content, spelled with the prefixes that hold where it comes to; without an indentation on one line. */
  #fresh(into: SourceElement, node: SourceNode, indent: string | undefined): string {
    if (node.kind === "text") return escapeText(node.value);
    if (node.kind === "other") return node.value;
    const name = this.#name(into, node);
    let tag = `<${name}`;
    for (const attribute of node.attributes) {
      const isDeclaration = declaredBy(attribute.name) !== undefined;
      const key = isDeclaration ? attribute.name : this.#attributeName(into, attribute);
      tag += ` ${key}="${escapeAttribute(attribute.value)}"`;
    }
    const content = meant(node);
    if (content.length === 0) return `${tag}/>`;
    const isInline = indent === undefined || holdsText(node);
    const inner = isInline ? undefined : indent + this.#unit;
    const lead = isInline ? "" : this.#newline + inner;
    const inside = content.map((child) => lead + this.#placed(into, child, inner, new Map()));
    return `${tag}>${inside.join("")}${isInline ? "" : this.#newline + indent}</${name}>`;
  }

  #name(into: SourceElement, { name, uri, local }: SourceElement): string {
    if (uri === "" && (into.declared.get("") ?? "") === "") return local;
    for (const [prefix, declared] of into.declared) if (declared === uri) return prefix ? `${prefix}:${local}` : local;
    return `${this.#newPrefix(uri, split(name)[0])}:${local}`;
  }

  #attributeName(into: SourceElement, { name, uri, local }: SourceAttribute): string {
    if (uri === "") return local;
    for (const [prefix, declared] of into.declared) if (declared === uri && prefix !== "") return `${prefix}:${local}`;
    return `${this.#newPrefix(uri, split(name)[0])}:${local}`;
  }

  /** A prefix declared at the root for a namespace the text has not used so far; one that is declared nowhere in the text. */
  #newPrefix(uri: string, wish: string): string {
    for (const [prefix, declared] of this.#declare) if (declared === uri) return prefix;
    const stem = wish === "" ? "ns" : wish;
    let prefix = wish === "" ? "ns1" : wish;
    for (let at = 2; this.#declare.has(prefix) || this.text.includes(`xmlns:${prefix}`); at++) prefix = `${stem}${at}`;
    this.#declare.set(prefix, uri);
    return prefix;
  }

  /** The white space an element's line begins with; undefined where other things stand before it on its line. */
  #indentOf(element: SourceElement | SourceNode): string | undefined {
    const line = this.text.lastIndexOf("\n", element.start - 1) + 1;
    const before = this.text.slice(line, element.start);
    return line > 0 && /^[ \t]*$/.test(before) ? before : undefined;
  }
}

const keyOf = ({ uri, local }: SourceAttribute) => `${uri} ${local}`;
const byName = (element: SourceElement) =>
  new Map(
    element.attributes.filter(({ name }) => declaredBy(name) === undefined).map((one) => [keyOf(one), one.value]),
  );

/** The id that an element is known by throughout the file. */
const idOf = (element: SourceElement) =>
  element.attributes.find(({ uri, local }) => uri === "" && local === "id")?.value;

/** An indentation inside something that moves from one indentation to another. */
const deeper = (line: string, from: string, to: string) =>
  line.startsWith(from) ? to + line.slice(from.length) : line;

/** The longest run of nodes whose partners stand in the same order: all but those that changed their place. */
function inOrder(
  nodes: readonly SourceNode[],
  olds: readonly SourceNode[],
  partner: ReadonlyMap<SourceNode, SourceNode>,
): readonly SourceNode[] {
  const rank = new Map(olds.map((node, at) => [node, at]));
  const rankOf = (node: SourceNode) => rank.get(partner.get(node) as SourceNode) as number;
  // Patience sorting: for each length, the run of that length that ends lowest.
  const ends: SourceNode[] = [];
  const previous = new Map<SourceNode, SourceNode | undefined>();
  for (const node of nodes) {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (rankOf(ends[middle] as SourceNode) < rankOf(node)) low = middle + 1;
      else high = middle;
    }
    previous.set(node, ends[low - 1]);
    ends[low] = node;
  }
  const run: SourceNode[] = [];
  for (let at = ends[ends.length - 1]; at; at = previous.get(at)) run.push(at);
  return run.reverse();
}
