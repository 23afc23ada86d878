import { readFileSync } from "node:fs";
import { join } from "node:path";

let fonts: { readonly [weight: number]: string } | undefined;

/** The shipped font's files as Base64, for pictures that carry their letters with them. */
export function embeddedFonts(): { readonly [weight: number]: string } {
  fonts ??= Object.fromEntries(
    [400, 600].map((weight) => [
      weight,
      readFileSync(
        join(
          process.cwd(),
          `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff2`,
        ),
      ).toString("base64"),
    ]),
  );
  return fonts;
}
