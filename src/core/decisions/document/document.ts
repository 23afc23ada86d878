import { decodeXml } from "../../bpmn";
import { parseXml, type XmlPart } from "../../descriptions";
import { say } from "../../messages";
import { failure, ok, type Result, type XmlElement, type XmlNode } from "../../model";
import { escapeAttribute, escapeText, type SourceElement, sourceTree } from "../../xml";
import type { DecisionModel } from "../model";
import { decisionsIn, isDecisionRoot } from "../read";

/**
 * A file of decisions as a person edits it: its XML whole, with all that we do not read, so that nothing of it is lost. A value that never
 * changes: an edit gives another one, which shares what stayed.
 */
export interface DecisionDocument {
  /** What stands before the first element, and behind it, as written. */
  readonly before: string;
  readonly root: XmlElement;
  readonly after: string;
}

/** Opens a DMN 1.3 to 1.5 file. O(length). */
export function openDocument(bytes: Uint8Array): Result<DecisionDocument> {
  const checked = parseXml(bytes);
  if (!checked.ok) return checked;
  if (!isDecisionRoot(checked.value))
    return failure({
      code: "no-decisions",
      message: say`This is no file of decisions: DMN 1.3, 1.4 and 1.5 are read, and its first element is "${checked.value.local}" of "${checked.value.uri}".`,
    });
  const text = decodeXml(bytes);
  if (!text.ok) return text;
  const tree = sourceTree(text.value);
  // What is written is UTF-8, whatever the file was.
  const before = text.value
    .slice(0, tree.start)
    .replace(/(<\?xml[^>]*?)\s+encoding\s*=\s*(?:"[^"]*"|'[^']*')/, '$1 encoding="UTF-8"');
  return ok({ before, root: elementOf(tree), after: text.value.slice(tree.end) });
}

function elementOf(source: SourceElement): XmlElement {
  return {
    name: source.name,
    uri: source.uri,
    attributes: source.attributes.map(({ name, value }) => [name, value] as const),
    children: source.content.map((node): XmlNode => {
      if (node.kind === "element") return { element: elementOf(node) };
      if (node.kind === "text") return { text: node.value };
      return node.value.startsWith("<!--")
        ? { comment: node.value.slice(4, -3) }
        : { instruction: splitInstruction(node.value.slice(2, -2)) };
    }),
  };
}
function splitInstruction(inside: string): readonly [string, string] {
  const blank = inside.search(/\s/);
  return blank < 0 ? [inside, ""] : [inside.slice(0, blank), inside.slice(blank + 1)];
}

/** The file's text. Reading it again gives the same document. O(length). */
export function documentText({ before, root, after }: DecisionDocument): string {
  const out: string[] = [before];
  const write = ({ name, attributes, children }: XmlElement) => {
    out.push("<", name);
    for (const [key, value] of attributes) out.push(" ", key, '="', escapeAttribute(value), '"');
    if (children.length === 0) {
      out.push("/>");
      return;
    }
    out.push(">");
    for (const node of children) {
      if ("element" in node) write(node.element);
      else if ("text" in node) out.push(escapeText(node.text));
      else if ("comment" in node) out.push("<!--", node.comment, "-->");
      else out.push("<?", node.instruction.join(" ").trim(), "?>");
    }
    out.push("</", name, ">");
  };
  write(root);
  out.push(after);
  return out.join("");
}

const read = new WeakMap<XmlElement, DecisionModel>();

/** What a document says, as it is decided by. */
export function modelOf({ root }: DecisionDocument): DecisionModel {
  const known = read.get(root);
  if (known) return known;
  const model = decisionsIn(partOf(root));
  read.set(root, model);
  return model;
}

const parts = new WeakMap<XmlElement, XmlPart>();
function partOf(element: XmlElement): XmlPart {
  const known = parts.get(element);
  if (known) return known;
  const part: XmlPart = {
    uri: element.uri,
    local: localOf(element),
    attributes: new Map(element.attributes),
    children: element.children.flatMap((node) => ("element" in node ? [partOf(node.element)] : [])),
    resolve: (name) => ({ uri: "", local: name }),
    text: textIn(element),
  };
  parts.set(element, part);
  return part;
}

export const localOf = ({ name }: XmlElement): string => name.slice(name.indexOf(":") + 1);

export const textIn = (element: XmlElement): string =>
  element.children.map((node) => ("text" in node ? node.text : "")).join("");
