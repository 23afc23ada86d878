/** Writes `src/core/lettering/fontOutlines.ts` from the shipped font: the shapes of its letters, for drawing many of them fast. */
import { readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import opentype from "opentype.js";

const require = createRequire(import.meta.url);
const weights = [400, 600] as const;
/** Letters of Western European languages; what has others is drawn as text. */
const codes = [
  ...Array.from({ length: 0x7e - 0x20 + 1 }, (_, at) => 0x20 + at),
  ...Array.from({ length: 0xff - 0xa0 + 1 }, (_, at) => 0xa0 + at),
  ...[0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2026, 0x20ac],
];

type Glyph = readonly [advance: number, outline: string, endX: number, endY: number];

/** One outline with all its points said from the one before, so that letters can be put in a row by one first step. */
function glyphOf(font: opentype.Font, code: number): Glyph | undefined {
  const glyph = font.charToGlyph(String.fromCharCode(code));
  if (glyph.index === 0) return undefined;
  const scale = 1000 / font.unitsPerEm;
  let [x, y, startX, startY] = [0, 0, 0, 0];
  let outline = "";
  const step = (toX: number, toY: number) => `${Math.round(toX * scale) - x} ${-Math.round(toY * scale) - y}`;
  const go = (toX: number, toY: number) => {
    [x, y] = [Math.round(toX * scale), -Math.round(toY * scale)];
  };
  for (const command of glyph.path.commands) {
    if (command.type === "M") {
      outline += `m${step(command.x, command.y)}`;
      go(command.x, command.y);
      [startX, startY] = [x, y];
    } else if (command.type === "L") {
      outline += `l${step(command.x, command.y)}`;
      go(command.x, command.y);
    } else if (command.type === "Q") {
      outline += `q${step(command.x1, command.y1)} ${step(command.x, command.y)}`;
      go(command.x, command.y);
    } else if (command.type === "C") {
      outline += `c${step(command.x1, command.y1)} ${step(command.x2, command.y2)} ${step(command.x, command.y)}`;
      go(command.x, command.y);
    } else {
      outline += "z";
      [x, y] = [startX, startY];
    }
  }
  return [Math.round((glyph.advanceWidth ?? 0) * scale), outline.replaceAll(" -", "-"), x, y];
}

const body = weights
  .map((weight) => {
    const file = require.resolve(
      `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
    );
    const bytes = readFileSync(file);
    const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
    const glyphs = Object.fromEntries(
      codes.flatMap((code) => {
        const glyph = glyphOf(font, code);
        return glyph ? [[String.fromCharCode(code), glyph]] : [];
      }),
    );
    return `  ${weight}: ${JSON.stringify(glyphs)},`;
  })
  .join("\n");
writeFileSync(
  new URL("../src/core/lettering/fontOutlines.ts", import.meta.url),
  `/**\n * Outlines of Atkinson Hyperlegible Next in thousandths of the type size, by weight and letter: how far the next letter stands,\n * the outline in steps from its origin, and where its last step ends. Made by \`npm run outlines\`; not written by hand.\n */\nexport const fontOutlines: {\n  readonly [weight: number]: { readonly [letter: string]: readonly [number, string, number, number] };\n} = {\n${body}\n};\n`,
);
