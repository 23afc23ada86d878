import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { expectOk, smallModel } from "../testing/models";
import {
  documentationIn,
  documentedIn,
  type Element,
  isPlainText,
  type Model,
  plainOf,
  type RichNode,
  richTextSchema,
  textOfPlain,
  withDocumentation,
} from ".";

const words = (text: string, ...marks: RichNode["marks"] & {}): RichNode => ({
  type: "text",
  text,
  ...(marks.length > 0 && { marks }),
});
const paragraph = (...content: RichNode[]): RichNode => ({ type: "paragraph", ...(content.length > 0 && { content }) });
const doc = (...content: RichNode[]): RichNode => ({ type: "doc", content });
const item = (...content: RichNode[]): RichNode => ({ type: "listItem", content });

/** A step's documentation written, kept in a file, and read from it. */
function throughFile(texts: readonly (readonly [language: string | undefined, text: RichNode])[]): Element {
  const model = smallModel();
  let step = model.elements.get("check") as Element;
  for (const [language, text] of texts)
    step = { ...step, documentation: withDocumentation(step, language, text) ?? [] };
  const kept: Model = { ...model, elements: model.elements.with(new Map([["check", step]])) };
  return expectOk(readBpmn(writeBpmn(kept))).elements.get("check") as Element;
}

describe("a description through a file", () => {
  test.each<[string, RichNode]>([
    ["plain words", doc(paragraph(words("Look at the roof.")))],
    ["several paragraphs, an empty one among them", doc(paragraph(words("One")), paragraph(), paragraph(words("two")))],
    ["emphasis", doc(paragraph(words("Never ", { type: "bold" }), words("alone", { type: "italic" })))],
    ["a link", doc(paragraph(words("the rules", { type: "link", attrs: { href: "https://rules.quillmere/roof" } })))],
    ["a line that ends", doc(paragraph(words("One"), { type: "hardBreak" }, words("two", { type: "bold" })))],
    [
      "lists, one in another",
      doc({
        type: "bulletList",
        content: [
          item(paragraph(words("Ladder"))),
          item(paragraph(words("Rope")), { type: "orderedList", content: [item(paragraph(words("first a knot")))] }),
        ],
      }),
    ],
    ["signs that markup is made of", doc(paragraph(words("a < b & c > d \"e\" 'f' ]]>", { type: "bold" })))],
    ["letters of any script", doc(paragraph(words("Dach prüfen · 屋根 · سقف", { type: "italic" })))],
  ])("%s", (_, text) => {
    expect(documentationIn(throughFile([[undefined, text]]))).toEqual(text);
    expect(documentationIn(throughFile([["de", text]]), "de")).toEqual(text);
  });

  test("the model's own stays plain text where that is all it is, so that every other program reads it", () => {
    const own = throughFile([[undefined, doc(paragraph(words("One")), paragraph(words("two")))]]);
    expect(own.documentation).toMatchObject([{ text: "One\ntwo" }]);
    expect(own.documentation?.[0]).not.toHaveProperty("textFormat");
    const marked = throughFile([[undefined, doc(paragraph(words("One", { type: "bold" })))]]);
    expect(marked.documentation).toMatchObject([{ textFormat: "application/xhtml+xml" }]);
  });

  test("languages stand beside each other, the model's own first; nothing written takes one away", () => {
    const [own, german, other] = ["own", "deutsch", "ganz"].map((text) => textOfPlain(text)) as [
      RichNode,
      RichNode,
      RichNode,
    ];
    const both = throughFile([
      ["de", german],
      [undefined, own],
    ]);
    expect(documentedIn(both)).toEqual(["de"]);
    expect(plainOf(documentationIn(both))).toBe("own");
    expect(both.documentation?.[0]?.text).toBe("own");
    const changed = withDocumentation(both, "de", other);
    expect(plainOf(documentationIn({ ...both, documentation: changed ?? [] }, "de"))).toBe("ganz");
    const gone = withDocumentation(both, "de", textOfPlain(" \n"));
    expect(gone).toHaveLength(1);
    expect(withDocumentation({ ...both, documentation: gone ?? [] }, undefined, textOfPlain(""))).toBeUndefined();
  });

  test("markup of others gives its words: loose ones as paragraphs, what may not be followed without its link", () => {
    const text = writeBpmn(smallModel());
    const foreign = `<documentation textFormat="text/html"><h:div xmlns:h="http://www.w3.org/1999/xhtml">
      loose <h:b>bold</h:b><h:p>one<h:br/>two</h:p>
      <h:ul>between<h:li>three</h:li><h:li><h:p>four</h:p></h:li></h:ul>
      <h:table><h:tr><h:td><h:i>five</h:i></h:td></h:tr></h:table>
      <h:a href="javascript:alert(1)">six</h:a><h:script>seven()</h:script></h:div></documentation>`;
    const with_ = text.replace(/(<userTask id="check"[^>]*?)(\/>|>)/, (_, start, end) =>
      end === "/>" ? `${start}>${foreign}</userTask>` : `${start}>${foreign}`,
    );
    const read = documentationIn(expectOk(readBpmn(with_)).elements.get("check") as Element);
    expect(richTextSchema.safeParse(read).success).toBe(true);
    expect(JSON.stringify(read)).not.toContain("javascript");
    const said = plainOf(read).replace(/\s+/g, " ");
    for (const word of ["loose", "bold", "one", "two", "three", "four", "five", "six"]) expect(said).toContain(word);
  });
});

describe("plain words", () => {
  test("are a paragraph a line, there and back", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 60 }), (text) => {
        expect(isPlainText(textOfPlain(text))).toBe(true);
        expect(plainOf(textOfPlain(text))).toBe(text);
      }),
    );
  });

  test.each<[string, RichNode]>([
    ["a list", doc({ type: "bulletList", content: [item(paragraph(words("one")))] })],
    ["emphasis", doc(paragraph(words("one", { type: "bold" })))],
    ["a link", doc(paragraph(words("one", { type: "link", attrs: { href: "mailto:desk@quillmere" } })))],
  ])("are not all there is to %s", (_, text) => {
    expect(isPlainText(text)).toBe(false);
    expect(plainOf(text)).toBe("one");
  });
});

test.each([
  ["javascript:alert(1)"],
  ["data:text/html,hello"],
  ["//elsewhere"],
  ["https://a b"],
  ['https://a"onclick="b'],
  ["file:///etc/hosts"],
  [""],
])("an address that leads where a description may not is refused: “%s”", (href) => {
  const text = doc(paragraph(words("here", { type: "link", attrs: { href } })));
  expect(richTextSchema.safeParse(text).success).toBe(false);
});
