import { decodeReferences } from "./escape";

/** Namespaces in force at an element: prefix to namespace, "" for the default one. */
export type Declared = ReadonlyMap<string, string>;

export interface SourceAttribute {
  readonly name: string;
  readonly uri: string;
  readonly local: string;
  readonly value: string;
  /** Where the attribute begins, with the white space before it, and where it ends. */
  readonly start: number;
  readonly end: number;
  /** Where its value stands between the quotes. */
  readonly valueStart: number;
}

export interface SourceElement {
  readonly kind: "element";
  readonly name: string;
  readonly uri: string;
  readonly local: string;
  readonly attributes: readonly SourceAttribute[];
  readonly content: SourceNode[];
  readonly parent: SourceElement | null;
  readonly declared: Declared;
  readonly start: number;
  /** Behind the start tag. */
  readonly opened: number;
  /** Whether it is written as one tag. */
  readonly isEmptyTag: boolean;
  /** Where the end tag begins, and where it ends. */
  closing: number;
  end: number;
}

export type SourceNode =
  | SourceElement
  /** Text; "other" is a comment or an instruction, as it is written. */
  | { readonly kind: "text"; readonly start: number; readonly end: number; readonly value: string }
  | { readonly kind: "other"; readonly start: number; readonly end: number; readonly value: string };

const attributePattern = /\s+([^\s=/>]+)\s*=\s*(?:"([^"]*)"|'([^']*)')/y;

const tagName = /[^\s/>]+/y;
const needsDecoding = /[&\t\r\n]/;
const isSpace = (code: number) => code === 32 || (code >= 9 && code <= 13);
type Read = { -readonly [Field in keyof SourceAttribute]: SourceAttribute[Field] };

/** A prefix an attribute declares, "" for the default namespace; undefined for any other attribute. */
export const declaredBy = (name: string): string | undefined =>
  name === "xmlns" ? "" : name.startsWith("xmlns:") ? name.slice(6) : undefined;

/**
 * The elements of an XML text with the places where they stand in it, so that a part can be changed and all else left as it is.
 * @param text a namespace-well-formed document without a document type, as the reader of files has found it to be
 * @returns its root element. O(length of the text).
 */
export function sourceTree(text: string): SourceElement {
  const outermost: Declared = new Map([["xml", "http://www.w3.org/XML/1998/namespace"]]);
  let root: SourceElement | undefined;
  let open: SourceElement | null = null;
  let at = 0;
  const put = (node: SourceNode) => void open?.content.push(node);
  while (at < text.length) {
    if (text.charCodeAt(at) !== 60) {
      const end = endOf(text, "<", at, 0);
      put({ kind: "text", start: at, end, value: decodeReferences(text.slice(at, end)) });
      at = end;
    } else if (text.startsWith("<!--", at)) {
      const end = endOf(text, "-->", at + 4, 3);
      put({ kind: "other", start: at, end, value: text.slice(at, end) });
      at = end;
    } else if (text.startsWith("<![CDATA[", at)) {
      const end = endOf(text, "]]>", at + 9, 3);
      put({ kind: "text", start: at, end, value: text.slice(at + 9, end - 3).replace(/\r\n?/g, "\n") });
      at = end;
    } else if (text.startsWith("<?", at)) {
      const end = endOf(text, "?>", at + 2, 2);
      put({ kind: "other", start: at, end, value: text.slice(at, end) });
      at = end;
    } else if (text.startsWith("</", at)) {
      const end = endOf(text, ">", at, 1);
      const closed = open as SourceElement | null;
      if (closed) [closed.closing, closed.end] = [at, end];
      open = closed?.parent ?? null;
      at = end;
    } else {
      const element: SourceElement = startTag(text, at, open, open?.declared ?? outermost);
      put(element);
      root ??= element;
      if (!element.isEmptyTag) open = element;
      at = element.opened;
    }
  }
  if (!root) throw new Error("An XML text without an element was taken for a document.");
  return root;
}

function endOf(text: string, mark: string, from: number, length: number): number {
  const found = text.indexOf(mark, from);
  return found < 0 ? text.length : found + length;
}

function startTag(text: string, start: number, parent: SourceElement | null, outer: Declared): SourceElement {
  tagName.lastIndex = start + 1;
  const name = tagName.exec(text)?.[0] ?? "";
  let at = start + 1 + name.length;
  const attributes: Read[] = [];
  let declared: Map<string, string> | undefined;
  for (;;) {
    attributePattern.lastIndex = at;
    const found = attributePattern.exec(text);
    if (!found) break;
    const [whole, key = "", double, single] = found;
    const raw = double ?? single ?? "";
    const value = needsDecoding.test(raw) ? decodeReferences(raw.replace(/\r\n|[\t\r\n]/g, " ")) : raw;
    const end = at + whole.length;
    const colon = key.indexOf(":");
    attributes.push({
      name: key,
      local: key.slice(colon + 1),
      uri: "",
      value,
      start: at,
      end,
      valueStart: end - 1 - raw.length,
    });
    const prefix = declaredBy(key);
    if (prefix !== undefined) {
      declared ??= new Map(outer);
      declared.set(prefix, value);
    }
    at = end;
  }
  while (isSpace(text.charCodeAt(at))) at++;
  const isEmptyTag = text[at] === "/";
  const opened = at + (isEmptyTag ? 2 : 1);
  const scope = declared ?? outer;
  for (const attribute of attributes)
    if (attribute.local.length < attribute.name.length)
      attribute.uri = scope.get(attribute.name.slice(0, -attribute.local.length - 1)) ?? "";
  const [prefix, local] = split(name);
  const uri = scope.get(prefix) ?? "";
  const closing = { closing: opened, end: opened };
  return {
    kind: "element",
    name,
    uri,
    local,
    attributes,
    content: [],
    parent,
    declared: scope,
    start,
    opened,
    isEmptyTag,
    ...closing,
  };
}

/** A name's prefix ("" without one) and what follows it. */
export function split(name: string): readonly [prefix: string, local: string] {
  const colon = name.indexOf(":");
  return colon < 0 ? ["", name] : [name.slice(0, colon), name.slice(colon + 1)];
}
