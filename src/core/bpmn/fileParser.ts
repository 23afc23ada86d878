import { SaxesParser, type SaxesTagPlain } from "saxes";
import { type Said, say } from "../messages";
import type { ModelBuilder } from "./modelBuilder";

/** What reading a file needs to know of the events of its XML. */
export interface FileEvents {
  readonly builder: ModelBuilder;
  readonly onOpen: () => void;
  readonly onClose: () => void;
  readonly refuse: (code: string, message: Said) => never;
}

/**
 * The XML parser with its handlers on the prototype. Set one by one on each parser, more than four of them turn it into a
 * dictionary-like object for the engine, and every character then costs five times as much (measured; see the bench).
 */
/** No element of a process needs as many; what does keeps everybody waiting. */
const mostAttributes = 2_000;

class FileParser extends SaxesParser {}

// The parser calls its handlers without saying whose they are. Parsing is one synchronous call, so there is one at a time.
let current: FileEvents | undefined;

/** Parses a text, telling the events of it. `events` is made with the parser, which knows the place in the file. */
export function parseFile(
  text: string,
  eventsFor: (place: { readonly line: number; readonly column: number }) => FileEvents,
): void {
  const parser = new FileParser();
  const outer = current;
  current = eventsFor(parser);
  declares = false;
  attributes = 0;
  prefixed = [];
  try {
    parser.write(text).close();
  } finally {
    current = outer;
  }
}

const on = (name: Parameters<SaxesParser["on"]>[0], handler: (value: never) => void) =>
  SaxesParser.prototype.on.call(FileParser.prototype, name as "text", handler as never);

on("error", (error: Error) => {
  // The parser puts "line:column: " in front; the place is given on its own.
  const reason = error.message.replace(/^[^a-z]*?\d+:\d+: /i, "");
  current?.refuse("not-well-formed", say`This is not well-formed XML: ${reason}`);
});
on("doctype", () => {
  current?.refuse("doctype", say`The file brings a document type or entities, which are not read. Remove the DOCTYPE.`);
});
// Looking through all attributes of every tag would cost a fifth of the reading; few tags declare anything.
let declares = false;
let attributes = 0;
/** Names of attributes of the tag that is read that carry a prefix. */
let prefixed: string[] = [];
on("attribute", ({ name }: { name: string }) => {
  if (++attributes > mostAttributes)
    current?.refuse("too-many-attributes", say`An element has more than ${mostAttributes} attributes.`);
  if (name.startsWith("xmlns")) declares = true;
  else if (name.includes(":")) prefixed.push(name);
});
on("opentag", (tag: SaxesTagPlain) => {
  current?.onOpen();
  const [scoped, names] = [declares, prefixed];
  declares = false;
  attributes = 0;
  if (names.length > 0) prefixed = [];
  current?.builder.open(tag.name, tag.attributes, scoped, names);
});
on("closetag", () => {
  current?.onClose();
  current?.builder.close();
});
on("text", (value: string) => {
  current?.builder.text(value);
});
on("cdata", (value: string) => {
  current?.builder.text(value);
});
on("comment", (value: string) => {
  current?.builder.place({ comment: value });
});
on("processinginstruction", ({ target, body }: { target: string; body: string }) => {
  current?.builder.place({ instruction: [target, body] });
});
