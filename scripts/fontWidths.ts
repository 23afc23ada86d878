/** Writes `src/core/drawing/fontWidths.ts` from the shipped font, so that core measures text with the letters people see. */
import { readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import opentype from "opentype.js";

const require = createRequire(import.meta.url);
const weights = [400, 600] as const;
const subsets = ["latin", "latin-ext"] as const;
const tables = weights.map((weight) => {
  const widths = new Map<number, number>();
  for (const subset of subsets) {
    const file = require.resolve(
      `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${subset}-${weight}-normal.woff`,
    );
    const bytes = readFileSync(file);
    const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
    for (let code = 0x20; code <= 0x24f; code++) {
      const glyph = font.charToGlyph(String.fromCharCode(code));
      if (glyph.index === 0 || widths.has(code)) continue;
      widths.set(code, Math.round(((glyph.advanceWidth ?? 0) * 1000) / font.unitsPerEm));
    }
    for (const code of [0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2026, 0x2192, 0x20ac]) {
      const glyph = font.charToGlyph(String.fromCharCode(code));
      if (glyph.index !== 0 && !widths.has(code))
        widths.set(code, Math.round(((glyph.advanceWidth ?? 0) * 1000) / font.unitsPerEm));
    }
  }
  return [weight, widths] as const;
});
const body = tables
  .map(
    ([weight, widths]) =>
      `  ${weight}: "${[...widths].map(([code, width]) => `${code.toString(36)}:${width.toString(36)}`).join(" ")}",`,
  )
  .join("\n");
writeFileSync(
  new URL("../src/core/drawing/fontWidths.ts", import.meta.url),
  `/**\n * Advance widths of Atkinson Hyperlegible Next in thousandths of the type size, as "code:width" in base 36, by weight.\n * Made by \`npm run widths\` from the font files that ship; not written by hand.\n */\nexport const fontWidths: { readonly [weight: number]: string } = {\n${body}\n};\n`,
);
