import { z } from "zod";
import type { Documentation, Element } from "./element";
import type { XmlElement, XmlNode } from "./xmlNode";

/** Text with emphasis, lists and links: what people write into a documentation. */
export interface RichNode {
  readonly type: "doc" | "paragraph" | "bulletList" | "orderedList" | "listItem" | "text" | "hardBreak";
  readonly content?: readonly RichNode[] | undefined;
  readonly text?: string | undefined;
  readonly marks?: readonly RichMark[] | undefined;
}
export type RichMark =
  | { readonly type: "bold" | "italic" }
  | { readonly type: "link"; readonly attrs: { readonly href: string } };

/** Where a link may lead; whatever else an address may do is nothing a description needs. */
export const safeAddress = /^(?:https?:\/\/|mailto:)[^\s"<>]+$/i;

const markSchema: z.ZodType<RichMark> = z.union([
  z.object({ type: z.enum(["bold", "italic"]) }),
  z.object({
    type: z.literal("link"),
    attrs: z.object({
      href: z.string().max(2000).regex(safeAddress, "A link starts with https://, http:// or mailto:."),
    }),
  }),
]);
export const richTextSchema: z.ZodType<RichNode> = z.lazy(() =>
  z.object({
    type: z.enum(["doc", "paragraph", "bulletList", "orderedList", "listItem", "text", "hardBreak"]),
    content: z.array(richTextSchema).max(5_000).optional(),
    text: z.string().max(100_000).optional(),
    marks: z.array(markSchema).max(3).optional(),
  }),
);

const xhtml = "http://www.w3.org/1999/xhtml";
const xhtmlFormat = "application/xhtml+xml";
const tags = {
  paragraph: "p",
  bulletList: "ul",
  orderedList: "ol",
  listItem: "li",
  bold: "strong",
  italic: "em",
} as const;

const tag = (name: string, children: readonly XmlNode[], attributes: XmlElement["attributes"] = []): XmlNode => ({
  element: { name, uri: xhtml, attributes, children },
});

function toXml(node: RichNode): XmlNode[] {
  const inside = () => (node.content ?? []).flatMap(toXml);
  switch (node.type) {
    case "doc":
      return inside();
    case "hardBreak":
      return [tag("br", [])];
    case "text": {
      let inner: XmlNode = { text: node.text ?? "" };
      for (const mark of node.marks ?? [])
        inner = mark.type === "link" ? tag("a", [inner], [["href", mark.attrs.href]]) : tag(tags[mark.type], [inner]);
      return [inner];
    }
    default:
      return [tag(tags[node.type], inside())];
  }
}

const localName = (name: string) => name.slice(name.indexOf(":") + 1).toLowerCase();
const blockOf: { readonly [tag: string]: RichNode["type"] } = {
  p: "paragraph",
  ul: "bulletList",
  ol: "orderedList",
  li: "listItem",
};

/** Markup as rich text; what is none of ours gives its words. */
function fromXml(nodes: readonly XmlNode[], marks: readonly RichMark[] = []): RichNode[] {
  return nodes.flatMap((node): RichNode[] => {
    if ("text" in node)
      return node.text === "" ? [] : [{ type: "text", text: node.text, ...(marks.length > 0 && { marks }) }];
    if (!("element" in node)) return [];
    const { name, attributes, children } = node.element;
    const block = blockOf[localName(name)];
    if (block === "listItem") return [{ type: block, content: inBlocks(fromXml(children, marks)) }];
    if (block === "bulletList" || block === "orderedList")
      return [{ type: block, content: fromXml(children, marks).filter((item) => item.type === "listItem") }];
    if (block) {
      const content = fromXml(children, marks).filter(isInline);
      return [{ type: block, ...(content.length > 0 && { content }) }];
    }
    switch (localName(name)) {
      case "br":
        return [{ type: "hardBreak" }];
      case "b":
      case "strong":
        return fromXml(children, [...marks, { type: "bold" }]);
      case "i":
      case "em":
        return fromXml(children, [...marks, { type: "italic" }]);
      case "a": {
        const href = attributes.find(([key]) => key === "href")?.[1] ?? "";
        return fromXml(children, safeAddress.test(href) ? [...marks, { type: "link", attrs: { href } }] : marks);
      }
      default:
        return fromXml(children, marks);
    }
  });
}

const isInline = (node: RichNode) => node.type === "text" || node.type === "hardBreak";

/** Loose words beside blocks become paragraphs of their own; white space between blocks is nothing. */
function inBlocks(nodes: readonly RichNode[]): RichNode[] {
  const blocks: RichNode[] = [];
  let loose: RichNode[] = [];
  const close = () => {
    if (loose.some((node) => node.type === "text" && node.text?.trim()))
      blocks.push({ type: "paragraph", content: loose });
    loose = [];
  };
  for (const node of nodes) {
    if (isInline(node)) loose.push(node);
    else {
      close();
      blocks.push(node);
    }
  }
  close();
  return blocks.length > 0 ? blocks : [{ type: "paragraph" }];
}

/** The words alone, a line for each paragraph and list item. */
export function plainOf(node: RichNode): string {
  if (node.type === "text") return node.text ?? "";
  if (node.type === "hardBreak") return "\n";
  const inline = node.type === "paragraph";
  return (node.content ?? []).map(plainOf).join(inline ? "" : "\n");
}

/** Whether a text is paragraphs alone, with nothing in them that plain words could not say. */
export const isPlainText = (node: RichNode): boolean =>
  node.type === "doc" &&
  (node.content ?? []).every(
    (block) =>
      block.type === "paragraph" && (block.content ?? []).every((inline) => isInline(inline) && !inline.marks?.length),
  );

/** Plain words as a text, a paragraph for each line. */
export const textOfPlain = (text: string): RichNode => ({
  type: "doc",
  content: text
    .split("\n")
    .map((line) =>
      line === "" ? { type: "paragraph" } : { type: "paragraph", content: [{ type: "text", text: line }] },
    ),
});

/** The language a documentation is in; undefined for the one that says none, which is the model's own. */
export function languageOf(documentation: Documentation): string | undefined {
  const holder = documentation.nodes?.find((node) => "element" in node);
  const attributes = [
    ...(documentation.attributes ?? []),
    ...(holder && "element" in holder ? holder.element.attributes : []),
  ];
  return attributes.find(([name]) => name === "xml:lang")?.[1];
}

/** Languages an element is documented in besides the model's own. */
export const documentedIn = (element: Element): string[] =>
  (element.documentation ?? []).flatMap((one) => languageOf(one) ?? []);

/** What an element's documentation says in a language, or in the model's own. */
export function documentationIn(element: Element, language?: string): RichNode {
  const found = (element.documentation ?? []).find((one) => languageOf(one) === language);
  if (!found) return { type: "doc", content: [{ type: "paragraph" }] };
  return found.nodes ? { type: "doc", content: inBlocks(fromXml(found.nodes)) } : textOfPlain(found.text);
}

/**
 * An element's documentations with one language's put in place of what was there. The model's own stays plain text where it is no
 * more than that; all else is XHTML, for which the standard's documentation has room (BPMN 2.0, 8.2.1 "Documentation": textFormat
 * is a MIME type), and which says its language by `xml:lang`.
 */
export function withDocumentation(
  element: Element,
  language: string | undefined,
  text: RichNode,
): readonly Documentation[] | undefined {
  const known = element.documentation ?? [];
  const at = known.findIndex((one) => languageOf(one) === language);
  const plain = plainOf(text);
  const id = known[at]?.id;
  const written: Documentation[] =
    plain.trim() === ""
      ? []
      : language === undefined && isPlainText(text)
        ? [{ ...(id && { id }), text: plain }]
        : [
            {
              ...(id && { id }),
              text: plain,
              textFormat: xhtmlFormat,
              nodes: [
                tag("div", toXml(text), [["xmlns", xhtml], ...(language ? [["xml:lang", language] as const] : [])]),
              ],
            },
          ];
  // The model's own comes first: it is the one others read.
  const rest = known.filter((_, index) => index !== at);
  const place = language === undefined ? 0 : at < 0 ? rest.length : at;
  const next = [...rest.slice(0, place), ...written, ...rest.slice(place)];
  return next.length > 0 ? next : undefined;
}
