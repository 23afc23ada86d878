import type { XmlElement } from "../../model";
import { documentText, openDocument } from "./document";
import { edited } from "./edit";

/** A new file of decisions (DMN 1.5), empty. */
export function emptyDocumentText(id: string, name: string): string {
  const root: XmlElement = {
    name: "definitions",
    uri: "https://www.omg.org/spec/DMN/20230324/MODEL/",
    attributes: [
      ["xmlns", "https://www.omg.org/spec/DMN/20230324/MODEL/"],
      ["id", id],
      ["name", name],
      ["namespace", `urn:lucid-lane:decisions:${id}`],
    ],
    children: [{ text: "\n" }],
  };
  return documentText({ before: '<?xml version="1.0" encoding="UTF-8"?>\n', root, after: "\n" });
}

/** A new file with a decision by table in it, "decision" by its id. */
export function tableFileText(name: string, decision: string): string {
  const empty = emptyDocumentText("file", name);
  const opened = openDocument(new TextEncoder().encode(empty));
  const made = opened.ok
    ? edited(opened.value, { type: "add", what: "table", id: "decision", name: decision })
    : opened;
  return made.ok ? documentText(made.value) : empty;
}
