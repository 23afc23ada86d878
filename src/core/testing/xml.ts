import { readFileSync } from "node:fs";
import { SaxesParser } from "saxes";
import { validateXML } from "xmllint-wasm";

/**
 * The information in an XML text as nested lists: names with namespaces, attributes sorted, white space between elements left
 * out. Written apart from the reader under test.
 */
export function xmlInformation(text: string): unknown {
  const parser = new SaxesParser({ xmlns: true });
  const root: unknown[] = [];
  const stack: unknown[][] = [root];
  const top = () => stack[stack.length - 1] as unknown[];
  parser.on("opentag", (tag) => {
    const attributes = Object.values(tag.attributes)
      .filter((attribute) => attribute.prefix !== "xmlns" && attribute.name !== "xmlns")
      .map((attribute) => `${attribute.uri} ${attribute.local}=${attribute.value}`)
      .sort();
    const element: unknown[] = [`${tag.uri} ${tag.local}`, attributes];
    top().push(element);
    stack.push(element);
  });
  parser.on("closetag", () => stack.pop());
  const text_ = (value: string) => {
    if (value.trim() !== "") top().push(value);
  };
  parser.on("text", text_);
  parser.on("cdata", text_);
  parser.on("comment", (value) => top().push(`comment ${value}`));
  parser.write(text).close();
  return root;
}

const grammar = readFileSync(new URL("../bpmn/fixtures/bpmn20.rng", import.meta.url), "utf8");

/** What libxml2 finds wrong with a text against the grammar of the standard's schema; nothing where it conforms. */
export const schemaErrors = (text: string): Promise<string[]> => schemaErrorsOf({ "model.bpmn": text });

/** The same for several texts, which takes little longer than one: each error begins with the name of its text. */
export async function schemaErrorsOf(texts: { readonly [name: string]: string }): Promise<string[]> {
  const result = await validateXML({
    xml: Object.entries(texts).map(([fileName, contents]) => ({ fileName, contents })),
    extension: "relaxng",
    schema: [{ fileName: "bpmn20.rng", contents: grammar }],
  } as Parameters<typeof validateXML>[0]);
  return result.valid ? [] : result.errors.map((error) => error.rawMessage);
}
