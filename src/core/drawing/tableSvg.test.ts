import fc from "fast-check";
import { SaxesParser } from "saxes";
import { describe, expect, test } from "vitest";
import { tableToSvg } from ".";

const numbers = (svg: string, attribute: string) =>
  [...svg.matchAll(new RegExp(` ${attribute}="(-?[\\d.]+)"`, "g"))].map(([, value]) => Number(value));

describe("a table as a picture", () => {
  const table = {
    title: "Steps × roles",
    corner: "Step",
    columns: ["Front desk", "Network engineer"],
    rows: [
      { name: "Check application", cells: ["R", ""] },
      { name: "Approve design", cells: ["I", "R"] },
    ],
  };

  test("says all that stands in it, and leaves empty cells empty", () => {
    const svg = tableToSvg(table);
    const words = [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map(([, said]) => said);
    expect(words.sort()).toEqual(
      [
        "Steps × roles",
        "Step",
        "Front desk",
        "Network engineer",
        "Check application",
        "Approve design",
        "R",
        "I",
        "R",
      ].sort(),
    );
  });

  test("turns long names of columns upright, and stays as narrow as it can", () => {
    const long = { ...table, columns: ["Front desk", "Engineer who answers for the network of the valley"] };
    expect(tableToSvg(table)).not.toContain("rotate(");
    expect(tableToSvg(long).match(/rotate\(-90/g)).toHaveLength(2);
    const width = (svg: string) => numbers(svg, "width")[0] as number;
    expect(width(tableToSvg(long))).toBeLessThan(width(tableToSvg(table)) + 40);
  });

  test("is well-formed whatever is written in it, and nothing lies outside of it", () => {
    const words = fc.string({ maxLength: 30 });
    fc.assert(
      fc.property(
        fc.array(words, { maxLength: 6 }),
        fc.array(words, { maxLength: 8 }),
        words,
        (columns, names, title) => {
          const rows = names.map((name) => ({ name, cells: columns.map((column) => column.slice(0, 3)) }));
          const svg = tableToSvg({ title, corner: "Step", columns, rows });
          expect(() => new SaxesParser().write(svg).close()).not.toThrow();
          const [width, height] = [numbers(svg, "width")[0] as number, numbers(svg, "height")[0] as number];
          for (const x of numbers(svg, "x")) expect(x).toBeLessThanOrEqual(width);
          for (const y of numbers(svg, "y")) expect(y).toBeLessThanOrEqual(height);
        },
      ),
      { numRuns: 60 },
    );
  });
});
