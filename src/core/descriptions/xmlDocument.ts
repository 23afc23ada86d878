import { SaxesParser } from "saxes";
import { decodeXml } from "../bpmn";
import { type Said, say } from "../messages";
import { failure, ok, type Problem, problem, type Result } from "../model";
import { descriptionLimits } from "./description";

/** An element of a description in XML. */
export interface XmlPart {
  readonly uri: string;
  readonly local: string;
  readonly attributes: ReadonlyMap<string, string>;
  readonly children: readonly XmlPart[];
  /** The namespace and the name that a qualified name in here stands for. */
  readonly resolve: (name: string) => QualifiedName;
  readonly text: string;
}

export interface QualifiedName {
  readonly uri: string;
  readonly local: string;
}

export const keyOf = ({ uri, local }: QualifiedName) => `{${uri}}${local}`;

class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

type Open = { part: XmlPart & { children: XmlPart[]; text: string }; scope: ReadonlyMap<string, string> };

/** Reads XML without document type or entities, within our limits. O(length). */
export function parseXml(bytes: Uint8Array): Result<XmlPart> {
  if (bytes.length > descriptionLimits.bytes)
    return failure({
      code: "too-large",
      message: say`The file is ${Math.round(bytes.length / 1e6)} MB; up to ${descriptionLimits.bytes / 1024 / 1024} MB are read.`,
    });
  const text = decodeXml(bytes);
  if (!text.ok) return text;
  const parser = new SaxesParser({ xmlns: true });
  const refuse = (code: string, message: Said): never => {
    throw new Refused(problem({ code, message, line: parser.line, column: parser.column + 1 }));
  };
  const stack: Open[] = [];
  let root: XmlPart | undefined;
  let count = 0;
  parser.on("error", (error) =>
    refuse("not-well-formed", say`This is not well-formed XML: ${error.message.replace(/^[^a-z]*?\d+:\d+: /i, "")}`),
  );
  parser.on("doctype", () => refuse("doctype", say`The file brings a document type or entities, which are not read.`));
  parser.on("opentag", (tag) => {
    if (stack.length >= descriptionLimits.depth)
      refuse("too-deep", say`The file nests more than ${descriptionLimits.depth} levels deep.`);
    if (++count > descriptionLimits.elements)
      refuse("too-many", say`The file has more than ${descriptionLimits.elements} elements.`);
    const outer = stack[stack.length - 1];
    const declared = Object.entries(tag.ns ?? {});
    const before: ReadonlyMap<string, string> = outer?.scope ?? new Map();
    const scope = declared.length > 0 ? new Map([...before, ...declared]) : before;
    const attributes = new Map<string, string>();
    for (const { uri, local, value } of Object.values(tag.attributes))
      attributes.set(uri ? `{${uri}}${local}` : local, value);
    const resolve = (name: string): QualifiedName => {
      const [prefix, local] = name.includes(":") ? (name.trim().split(":", 2) as [string, string]) : ["", name.trim()];
      return { uri: scope.get(prefix) ?? "", local };
    };
    const part = { uri: tag.uri, local: tag.local, attributes, children: [] as XmlPart[], resolve, text: "" };
    if (outer) outer.part.children.push(part);
    else root ??= part;
    stack.push({ part, scope });
  });
  parser.on("text", (value) => {
    const open = stack[stack.length - 1];
    if (open && open.part.text.length < 2_000) open.part.text += value;
  });
  parser.on("closetag", () => void stack.pop());
  try {
    parser.write(text.value).close();
  } catch (error) {
    if (error instanceof Refused) return failure(error.problem);
    throw error;
  }
  return root ? ok(root) : failure({ code: "empty", message: say`The file is empty.`, line: 1, column: 1 });
}
