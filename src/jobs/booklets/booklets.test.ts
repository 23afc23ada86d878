import fc from "fast-check";
import { unzipSync } from "fflate";
import mammoth from "mammoth";
import { describe, expect, test } from "vitest";
import { type Block, type Booklet, bookletKinds, line, linkTo } from "@/core/booklet";
import { sceneOf } from "@/core/drawing";
import { randomProcess } from "@/core/testing/randomProcess";
import { bookletFile } from ".";
import { setInLines } from "./lines";
import { pdfOf, squeezed, text, wordsOf } from "./testing/readers";

const booklet = (blocks: readonly Block[], more: Partial<Booklet> = {}): Booklet => ({
  title: "Plant connection",
  subtitle: "Quillmere Power",
  language: "en",
  facts: [{ name: "Revision", says: line("7") }],
  contents: "Contents",
  blocks,
  ...more,
});

const drawn = (nodes: number) => {
  const model = randomProcess({ seed: 7, nodes, lanes: 2, wild: false });
  const [page] = model.diagrams;
  if (!page) throw new Error("no page");
  return sceneOf(model, page);
};

const heading = (text: string, level: 1 | 2 | 3 = 2, anchor = text.toLowerCase().replace(/\W/g, "-")): Block => ({
  kind: "heading",
  level,
  text,
  anchor,
});

const whole = booklet([
  heading("Plant connection", 1, "chapter"),
  {
    kind: "paragraph",
    says: [
      { text: "From " },
      { text: "paper", isStrong: true },
      { text: " to switch, see " },
      linkTo("Steps", "steps"),
      { text: "." },
    ],
  },
  heading("Diagram"),
  { kind: "picture", caption: "Plant connection, drawn", shows: "The process as a diagram", scene: drawn(9) },
  heading("Steps"),
  heading("1 Check <papers> & sign", 3, "step-1"),
  {
    kind: "facts",
    facts: [
      { name: "Who", says: line("Front desk") },
      { name: "Law", says: [{ text: "§ 12", link: "https://example.org/(rule)" }] },
    ],
  },
  { kind: "list", isOrdered: true, items: [line("Read it_twice"), line("# Sign *here*")] },
  { kind: "list", isOrdered: false, items: [line("a | b"), line("")] },
  {
    kind: "table",
    caption: "Who does what",
    columns: [
      { name: "Step", share: 2 },
      { name: "Front desk", share: 1 },
    ],
    rows: [
      [line("Check"), line("R")],
      [line(""), line("multi\nline")],
    ],
  },
]);

describe.each(bookletKinds)("a booklet as %s", (kind) => {
  test("holds every word, read by another program", async () => {
    const words = squeezed(await wordsOf(await bookletFile(whole, kind), kind));
    for (const wanted of [
      "Plant connection",
      "Quillmere Power",
      "Revision",
      "7",
      "From paper to switch, see Steps.",
      "1 Check <papers> & sign",
      "Who",
      "Front desk",
      "§ 12",
      "Read it_twice",
      "# Sign *here*",
      "a | b",
      "Who does what",
      "Step",
      "Check",
      "multi",
      "Plant connection, drawn",
    ])
      expect(words).toContain(squeezed(wanted));
  });

  test("names that would be signs elsewhere stay what they are", async () => {
    const hostile = [
      "<script>alert(1)</script>",
      "]]> & &amp; &#65;",
      "1. no list",
      "- no item",
      "_a_ **b** `c` [d](e)",
      "a\u0001b",
      "\\n {} $& %s",
      "Übergröße, naïve façade",
    ];
    const blocks = hostile.flatMap((name, at): Block[] => [
      heading(name, 3, `h${at}`),
      { kind: "paragraph", says: line(name) },
    ]);
    const bytes = await bookletFile(booklet(blocks, { title: hostile[0] as string }), kind);
    const words = squeezed(await wordsOf(bytes, kind));
    for (const name of hostile) {
      const kept = squeezed(name.replaceAll("\u0001", ""));
      if (!name.includes("\u0001")) expect(words.split(kept).length).toBeGreaterThan(2);
    }
    if (kind === "html") expect(text(bytes)).not.toContain("<script>alert");
  });

  test("is written for nothing in it, and for much", async () => {
    await expect(bookletFile(booklet([], { subtitle: "", facts: [] }), kind)).resolves.toBeInstanceOf(Uint8Array);
    const many = Array.from({ length: 400 }, (_, at): Block[] => [
      heading(`Step ${at}`, 3, `s${at}`),
      { kind: "facts", facts: [{ name: "Who", says: line(`Role ${at}`) }] },
    ]).flat();
    const words = squeezed(await wordsOf(await bookletFile(booklet(many), kind), kind));
    expect(words).toContain("Step399");
    expect(words).toContain("Role0");
  });

  test("the same booklet says the same", async () => {
    const [one, other] = [await bookletFile(whole, kind), await bookletFile(whole, kind)];
    expect(await wordsOf(one, kind)).toBe(await wordsOf(other, kind));
    if (kind !== "docx") expect(Buffer.from(one).equals(Buffer.from(other))).toBe(true);
  });
});

describe("the page of the web", () => {
  test("asks for nothing outside itself, and runs only its own script", async () => {
    const page = text(await bookletFile(whole, "html"));
    expect(page).toContain("default-src 'none'");
    expect(page.match(/\s(?:src|srcset|data|poster)=/g)).toBeNull();
    expect(page.match(/<link|@import|url\((?!data:)/g)).toBeNull();
    expect([...page.matchAll(/href="([^"]*)"/g)].map(([, to]) => to).filter((to) => !to?.startsWith("#"))).toEqual([
      "https://example.org/(rule)",
    ]);
  });

  test("each heading is a section that its address leads to, those below it inside", async () => {
    const page = text(await bookletFile(whole, "html"));
    expect(page.match(/<section /g)).toHaveLength(4);
    expect(page.match(/<\/section>/g)).toHaveLength(4);
    expect(page).toMatch(/<section id="steps"[^>]*><h3>Steps<\/h3>\s*<section id="step-1"/);
  });
});

describe("the PDF", () => {
  test("has bookmarks, links that lead within, a language, a title, and a tagged structure", async () => {
    const document = await pdfOf(await bookletFile(whole, "pdf"));
    const outline = await document.getOutline();
    expect(outline.map(({ title, items }) => [title, items.map((one) => one.title)])).toEqual([
      ["Plant connection", ["Diagram", "Steps"]],
    ]);
    const { info } = await document.getMetadata();
    expect(info).toMatchObject({ Title: "Plant connection", Language: "en" });
    expect(await document.getMarkInfo()).toMatchObject({ Marked: true });
    const roles = new Set<string>();
    const gather = (node: { role?: string; children?: unknown[] }) => {
      if (node.role) roles.add(node.role);
      for (const child of node.children ?? []) gather(child as { role?: string });
    };
    for (let at = 1; at <= document.numPages; at++) gather((await (await document.getPage(at)).getStructTree()) ?? {});
    for (const role of ["H1", "H2", "H4", "P", "L", "LI", "Table", "TR", "TH", "TD", "Figure", "TOC", "TOCI"])
      expect(roles).toContain(role);
    const annotations = await (await document.getPage(3)).getAnnotations();
    expect(annotations.some(({ subtype, dest }) => subtype === "Link" && dest === "steps")).toBe(true);
  });

  test("the contents name the page that each heading is on", async () => {
    const many = Array.from({ length: 120 }, (_, at): Block[] => [
      heading(`Part ${at} begins`, 2, `p${at}`),
      { kind: "paragraph", says: line("Words that fill lines. ".repeat(20)) },
    ]).flat();
    const document = await pdfOf(await bookletFile(booklet(many), "pdf"));
    const page = async (at: number) => {
      const { items } = await (await document.getPage(at)).getTextContent();
      return items.map((item) => ("str" in item ? item.str : "")).filter((words) => words.trim() !== "");
    };
    const contents = [...(await page(2)), ...(await page(3)), ...(await page(4))];
    for (const part of [0, 40, 119]) {
      const at = contents.indexOf(`Part ${part} begins`);
      expect(at).toBeGreaterThan(0);
      expect(await page(Number(contents[at + 1]))).toContain(`Part ${part} begins`);
    }
  });

  test("a large drawing comes once as a whole, and again over pages where it can be read", async () => {
    const one = await pdfOf(
      await bookletFile(booklet([{ kind: "picture", caption: "S", shows: "S", scene: drawn(4) }]), "pdf"),
    );
    const large = await pdfOf(
      await bookletFile(booklet([{ kind: "picture", caption: "L", shows: "L", scene: drawn(60) }]), "pdf"),
    );
    expect(one.numPages).toBe(2);
    expect(large.numPages).toBeGreaterThan(3);
  });

  test("a row that is higher than a page goes on on the next, under the heads of the columns", async () => {
    const cell = Array.from({ length: 150 }, (_, at) => `line ${at}`).join("\n");
    const bytes = await bookletFile(
      booklet([
        {
          kind: "table",
          caption: "T",
          columns: [
            { name: "Head", share: 1 },
            { name: "More", share: 1 },
          ],
          rows: [[line(cell), line("x")]],
        },
      ]),
      "pdf",
    );
    const words = await wordsOf(bytes, "pdf");
    for (let at = 0; at < 150; at++) expect(words).toContain(`line ${at}`);
    expect(words.split("Head").length - 1).toBeGreaterThan(1);
  });
});

describe("the Word file", () => {
  const parts = async () => {
    const files = unzipSync(await bookletFile(whole, "docx"));
    return (name: string) => text(files[name] ?? new Uint8Array());
  };

  test("headings are its styles, contents its own, every link within has its bookmark, the picture its words", async () => {
    const document = (await parts())("word/document.xml");
    for (const style of ["Heading1", "Heading2", "Heading3", "Caption"]) expect(document).toContain(`w:val="${style}"`);
    expect(document).toContain("TOC");
    const marks = new Set([...document.matchAll(/<w:bookmarkStart [^>]*w:name="([^"]*)"/g)].map(([, name]) => name));
    const links = [...document.matchAll(/<w:hyperlink [^>]*w:anchor="([^"]*)"/g)].map(([, name]) => name);
    expect(links.length).toBeGreaterThan(0);
    for (const link of links) expect(marks).toContain(link);
    expect(document).toContain('descr="The process as a diagram"');
    expect(document).toContain("<w:tblHeader/>");
  });

  test("tables, lists and headings are what they are to another program", async () => {
    const { value } = await mammoth.convertToHtml({ buffer: Buffer.from(await bookletFile(whole, "docx")) });
    expect(value).toMatch(/<h3>.*1 Check &lt;papers&gt; &amp; sign<\/h3>/);
    expect(value).toMatch(/<ol><li>Read it_twice<\/li><li># Sign \*here\*<\/li><\/ol>/);
    expect(value).toContain("<thead>");
  });
});

test("lines hold all words in their order, and none is wider than there is room but a single letter", () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ text: fc.string({ maxLength: 40 }), isStrong: fc.boolean() }), { maxLength: 6 }),
      fc.integer({ min: 1, max: 30 }),
      (says, room) => {
        const lines = setInLines(says, room, (words) => words.length);
        const all = lines
          .flat()
          .map(({ text }) => text)
          .join("");
        expect(squeezed(all)).toBe(squeezed(says.map(({ text }) => text).join("")));
        for (const pieces of lines) {
          const last = pieces.at(-1);
          const wide = last ? last.x + last.text.trimEnd().length : 0;
          expect(wide).toBeLessThanOrEqual(room);
        }
      },
    ),
  );
});
