import { sameJson, type XmlElement, type XmlNode } from "../model";

/** Something in the content both sides changed, differently. */
export interface Clash {
  readonly ours: string;
  readonly theirs: string;
}

export interface MergedContent<Item> {
  readonly items: readonly Item[];
  readonly clashes: readonly Clash[];
}

export type Side = "ours" | "theirs";

/** How items are told apart, and what becomes of one that both sides have and changed. */
interface Kind<Item> {
  /** The same on all sides for what is the same thing. */
  readonly keysOf: (items: readonly Item[], all: readonly (readonly Item[])[]) => readonly string[];
  readonly merge?: (base: Item | undefined, ours: Item, theirs: Item) => MergedContent<Item>;
  readonly words: (item: Item) => string;
}

/**
 * Three lists of things that have keys become one: what either side added is in, what either took out is out unless the other changed
 * it, what both changed is merged inside. The order is ours, with each of their additions behind what it stands behind there.
 * A clash is decided for one side. O(items).
 */
function mergeKeyed<Item>(
  base: readonly Item[],
  ours: readonly Item[],
  theirs: readonly Item[],
  prefer: Side,
  { keysOf, merge, words }: Kind<Item>,
): MergedContent<Item> {
  const all = [base, ours, theirs];
  const [before, mine, other] = all.map((items) => {
    const keys = keysOf(items, all);
    return new Map(items.map((item, at) => [keys[at] as string, item]));
  }) as [Map<string, Item>, Map<string, Item>, Map<string, Item>];
  const clashes: Clash[] = [];
  const found = new Map<string, Item>();
  for (const key of new Set([...before.keys(), ...mine.keys(), ...other.keys()])) {
    const [was, own, their] = [before.get(key), mine.get(key), other.get(key)];
    const decided = (): Item | undefined => {
      if (sameJson(own, their) || sameJson(their, was)) return own;
      if (sameJson(own, was)) return their;
      if (own !== undefined && their !== undefined && merge) {
        const inside = merge(was, own, their);
        clashes.push(...inside.clashes);
        return inside.items[0];
      }
      clashes.push({ ours: own === undefined ? "" : words(own), theirs: their === undefined ? "" : words(their) });
      return prefer === "ours" ? own : their;
    };
    const item = decided();
    if (item !== undefined) found.set(key, item);
  }
  const order = [...mine.keys()].filter((key) => found.has(key));
  let behind = -1;
  for (const key of other.keys()) {
    const at = order.indexOf(key);
    if (at >= 0) behind = at;
    else if (found.has(key)) order.splice(++behind, 0, key);
  }
  for (const key of found.keys()) if (!order.includes(key)) order.push(key);
  return { items: order.map((key) => found.get(key) as Item), clashes };
}

/** Attributes that tell one of several elements of a name from the others, in files of whatever origin. */
const telling = ["id", "name", "key", "system", "mark", "elementRef", "ref", "type"];

const localName = (element: XmlElement) => `${element.uri} ${element.name.slice(element.name.indexOf(":") + 1)}`;

function nodeKeys(nodes: readonly XmlNode[], all: readonly (readonly XmlNode[])[]): string[] {
  const isSingle = new Map<string, boolean>();
  for (const list of all) {
    const counts = new Map<string, number>();
    for (const node of list)
      if ("element" in node) {
        const name = localName(node.element);
        counts.set(name, (counts.get(name) ?? 0) + 1);
      }
    for (const [name, count] of counts) isSingle.set(name, (isSingle.get(name) ?? true) && count === 1);
  }
  const seen = new Map<string, number>();
  return nodes.map((node) => {
    const key = keyOfNode(node, isSingle);
    const count = seen.get(key) ?? 0;
    seen.set(key, count + 1);
    return count === 0 ? key : `${key} ${count}`;
  });
}

function keyOfNode(node: XmlNode, isSingle: ReadonlyMap<string, boolean>): string {
  if ("comment" in node) return `comment ${node.comment}`;
  if ("instruction" in node) return `instruction ${node.instruction.join(" ")}`;
  if ("text" in node) return "text";
  const name = localName(node.element);
  // What is said of an element of the model is another thing than what is said of another one, also where each stands alone.
  const about = node.element.attributes.find(([key]) => key === "elementRef")?.[1];
  if (about !== undefined) return `${name}#${about}`;
  if (isSingle.get(name)) return name;
  const own = telling.map((attribute) => node.element.attributes.find(([key]) => key === attribute)?.[1]);
  const told = own.find((value) => value !== undefined);
  return told === undefined ? name : `${name}#${told}`;
}

/** XML content, element by element, attribute by attribute. White space between elements is layout and follows ours. */
export function mergeNodes(
  base: readonly XmlNode[],
  ours: readonly XmlNode[],
  theirs: readonly XmlNode[],
  prefer: Side,
): MergedContent<XmlNode> {
  return mergeKeyed(base, ours, theirs, prefer, {
    keysOf: nodeKeys,
    words: nodeWords,
    merge: (was, own, their) => {
      if (!("element" in own) || !("element" in their)) {
        const isLayout = [own, their].every((node) => "text" in node && node.text.trim() === "");
        const clashes = isLayout ? [] : [{ ours: nodeWords(own), theirs: nodeWords(their) }];
        return { items: [prefer === "ours" || isLayout ? own : their], clashes };
      }
      const before = was && "element" in was ? was.element : undefined;
      const attributes = mergeAttributes(
        before?.attributes ?? [],
        own.element.attributes,
        their.element.attributes,
        prefer,
        own.element.name,
      );
      const children = mergeNodes(before?.children ?? [], own.element.children, their.element.children, prefer);
      const element = { ...own.element, attributes: attributes.items, children: children.items };
      return { items: [{ element }], clashes: [...attributes.clashes, ...children.clashes] };
    },
  });
}

type Attribute = readonly [name: string, value: string];

/** Attributes by their names. */
export function mergeAttributes(
  base: readonly Attribute[],
  ours: readonly Attribute[],
  theirs: readonly Attribute[],
  prefer: Side,
  of = "",
): MergedContent<Attribute> {
  return mergeKeyed(base, ours, theirs, prefer, {
    keysOf: (items) => items.map(([name]) => name),
    words: ([name, value]) => `${of && `${of} `}${name}: ${value}`,
  });
}

/** Texts by their language and format. */
export function mergeTexts<Text extends object>(
  base: readonly Text[],
  ours: readonly Text[],
  theirs: readonly Text[],
  prefer: Side,
): MergedContent<Text> {
  return mergeKeyed(base, ours, theirs, prefer, {
    keysOf: (items) => {
      const seen = new Map<string, number>();
      return items.map((item) => {
        const { text: _, ...rest } = item as { text?: string };
        const key = JSON.stringify(rest);
        seen.set(key, (seen.get(key) ?? 0) + 1);
        return `${key} ${seen.get(key)}`;
      });
    },
    words: (item) => (item as { text?: string }).text ?? "",
  });
}

function nodeWords(node: XmlNode): string {
  if ("text" in node) return node.text.trim();
  if ("comment" in node) return node.comment;
  if ("instruction" in node) return node.instruction.join(" ");
  const { name, attributes, children } = node.element;
  const inside = children.map(nodeWords).filter((words) => words !== "");
  return [name, ...attributes.map(([key, value]) => `${key}: ${value}`), ...inside].join(" ").slice(0, 400);
}
