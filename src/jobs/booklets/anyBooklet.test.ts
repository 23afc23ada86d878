import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Block, type Booklet, bookletKinds, type Line, wordsOfLine } from "@/core/booklet";
import { bookletFile } from ".";
import { squeezed, wordsOf } from "./testing/readers";

/** Words that people write: letters of the shipped font, signs that mean something to one file or another. */
const letters = [..."abcdefghijklmnopqrstuvwxyzABCXYZäöüßéñ0123456789"];
const signs = [..."<>&\"'`*_[](){}|\\#+-.!~:;,?/%$@=^§€"];
const word = fc
  .array(
    fc.oneof(
      { weight: 6, arbitrary: fc.constantFrom(...letters) },
      { weight: 1, arbitrary: fc.constantFrom(...signs) },
    ),
    {
      minLength: 1,
      maxLength: 12,
    },
  )
  .map((all) => all.join(""));
const words = fc.array(word, { minLength: 1, maxLength: 6 }).map((all) => all.join(" "));
const run = fc.record(
  {
    text: words,
    isStrong: fc.boolean(),
    isEmphasis: fc.boolean(),
    link: fc.constantFrom("#part", "https://example.org/a(b)?c=d&e"),
  },
  { requiredKeys: ["text"] },
);
/** Pieces with a blank between, as a sentence has them. */
const line: fc.Arbitrary<Line> = fc
  .array(run, { maxLength: 3 })
  .map((runs) => runs.flatMap((one, at) => (at === 0 ? [one] : [{ text: " " }, one])));
const block: fc.Arbitrary<Block> = fc.oneof(
  words.map((text): Block => ({ kind: "heading", level: 2, text, anchor: "part" })),
  line.map((says): Block => ({ kind: "paragraph", says })),
  fc
    .record({ isOrdered: fc.boolean(), items: fc.array(line, { maxLength: 4 }) })
    .map((list): Block => ({ kind: "list", ...list })),
  fc.array(fc.record({ name: words, says: line }), { maxLength: 4 }).map((facts): Block => ({ kind: "facts", facts })),
  fc.integer({ min: 1, max: 4 }).chain((columns) =>
    fc
      .record({
        caption: words,
        names: fc.array(words, { minLength: columns, maxLength: columns }),
        rows: fc.array(fc.array(line, { minLength: columns, maxLength: columns }), { maxLength: 4 }),
      })
      .map(
        ({ caption, names, rows }): Block => ({
          kind: "table",
          caption,
          columns: names.map((name, at) => ({ name, share: 1 + at })),
          rows,
        }),
      ),
  ),
);
const booklet: fc.Arbitrary<Booklet> = fc
  .record({ title: words, subtitle: words, blocks: fc.array(block, { minLength: 1, maxLength: 6 }) })
  .map((own) => ({ ...own, language: "en", facts: [], contents: "Contents" }));

/** All that a booklet says, piece by piece. */
function saidIn({ title, subtitle, blocks }: Booklet): string[] {
  return [title, subtitle, ...blocks.flatMap(saidInBlock)].filter((said) => said.trim() !== "");
}

function saidInBlock(one: Block): string[] {
  switch (one.kind) {
    case "heading":
      return [one.text];
    case "paragraph":
      return [wordsOfLine(one.says)];
    case "list":
      return one.items.map(wordsOfLine);
    case "facts":
      return one.facts.flatMap(({ name, says }) => [name, wordsOfLine(says)]);
    case "table":
      return [one.caption, ...one.columns.map(({ name }) => name), ...one.rows.flat().map(wordsOfLine)];
    case "picture":
      return [one.caption];
  }
}

describe.each(bookletKinds)("whatever is said, as %s", (kind) => {
  test("stands in the file as it was said, read by another program", async () => {
    await fc.assert(
      fc.asyncProperty(booklet, async (own) => {
        const read = squeezed(await wordsOf(await bookletFile(own, kind), kind));
        // On paper a cell that goes on on the next page is read with what stands beside it between: word by word.
        const pieces = kind === "pdf" ? saidIn(own).flatMap((said) => said.split(" ")) : saidIn(own);
        for (const said of pieces) expect(read).toContain(squeezed(said));
      }),
      { numRuns: kind === "pdf" || kind === "docx" ? 12 : 60, endOnFailure: true },
    );
  });
});
