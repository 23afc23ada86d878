import fc from "fast-check";
import { SaxesParser } from "saxes";
import { describe, expect, test } from "vitest";
import { escapeAttribute, escapeText, type SourceElement, sourceTree } from ".";
import type { SourceNode } from "./sourceTree";

/** What a parser that is not ours reads, as nested lists. */
function read(text: string): unknown {
  const parser = new SaxesParser({ xmlns: true });
  const root: unknown[] = [];
  const stack: unknown[][] = [root];
  const top = () => stack[stack.length - 1] as unknown[];
  parser.on("opentag", (tag) => {
    const attributes = Object.values(tag.attributes).map(({ uri, local, value, prefix, name }) =>
      prefix === "xmlns" || name === "xmlns" ? [name, value] : [uri, local, value],
    );
    const element: unknown[] = [tag.uri, tag.local, attributes];
    top().push(element);
    stack.push(element);
  });
  parser.on("closetag", () => stack.pop());
  const put = (value: string) => {
    const list = top();
    if (stack.length < 2) return;
    if (typeof list[list.length - 1] === "string" && list.length > 3) list[list.length - 1] += value;
    else list.push(value);
  };
  parser.on("text", put);
  parser.on("cdata", put);
  parser.write(text).close();
  return root[0];
}

function told(element: SourceElement): unknown[] {
  const attributes = element.attributes.map(({ name, uri, local, value }) =>
    name === "xmlns" || name.startsWith("xmlns:") ? [name, value] : [uri, local, value],
  );
  const list: unknown[] = [element.uri, element.local, attributes];
  for (const node of element.content) {
    if (node.kind === "element") list.push(told(node));
    else if (node.kind === "text") {
      if (typeof list[list.length - 1] === "string" && list.length > 3) list[list.length - 1] += node.value;
      else list.push(node.value);
    }
  }
  return list;
}

describe("the tree of a text", () => {
  test.each([
    [
      "prefixes, near and far",
      '<a:b xmlns:a="urn:1" xmlns="urn:2"><c a:d="1" d="2"/><c xmlns="urn:3" xmlns:a="urn:4"><a:e/></c></a:b>',
    ],
    ["references and CDATA", '<a b="&lt;&#65;&#x1F600;&quot;&amp;amp;">x &gt; y<![CDATA[<not> &amp; read]]>&apos;</a>'],
    ["line ends", '<a b="one\r\ntwo\tthree">\r\nfour\rfive\n</a>'],
    ["quotes, blanks, no content", '<a b = \'say "no"\'\n  c="it\'s" ><b /><c></c ></a>'],
    ["comments and instructions", '<?xml version="1.0"?><!-- <a> --><a><!-- </a> --><?do <b/>?><b/></a><!-- end -->'],
  ])("is what another parser reads: %s", (_, text) => {
    expect(told(sourceTree(text))).toEqual(read(text));
  });

  test("whatever it holds, and every part is where it says", () => {
    const name = fc.constantFrom("a", "b", "p:c", "p:d");
    const value = fc.string({ unit: fc.constantFrom("x", "<", "&", '"', "'", "\n", "ä", "]", ">") });
    const { element } = fc.letrec<{ element: string; node: string }>((tie) => ({
      node: fc.oneof({ depthSize: "small" }, value.map(escapeText), fc.constant("<!-- < -->"), tie("element")),
      element: fc
        .tuple(
          name,
          fc.dictionary(fc.constantFrom("k", "p:k", "l"), value, { maxKeys: 3 }),
          fc.array(tie("node"), { maxLength: 4 }),
        )
        .map(([tag, attributes, inside]) => {
          const said = Object.entries(attributes).map(([key, content]) => ` ${key}="${escapeAttribute(content)}"`);
          return inside.length > 0
            ? `<${tag}${said.join("")}>${inside.join("")}</${tag}>`
            : `<${tag}${said.join("")}/>`;
        }),
    }));
    fc.assert(
      fc.property(element, (inside) => {
        const text = `<root xmlns:p="urn:p">${inside}</root>`;
        const tree = sourceTree(text);
        expect(told(tree)).toEqual(read(text));
        // Side by side, the parts of an element are all that is in it.
        const check = (one: SourceElement) => {
          const parts = one.content.map((node: SourceNode) => text.slice(node.start, node.end));
          expect(parts.join("")).toBe(text.slice(one.opened, one.closing));
          for (const node of one.content) if (node.kind === "element") check(node);
        };
        check(tree);
      }),
      { numRuns: 300 },
    );
  });
});
