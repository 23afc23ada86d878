import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unpackWoff } from "./woff";

export const fontWeights = [400, 600] as const;
type Weight = (typeof fontWeights)[number];

const folder = "node_modules/@fontsource/atkinson-hyperlegible-next/files";
const fileOf = (weight: Weight, ending: "woff" | "woff2") =>
  join(process.env.LANE_ROOT ?? process.cwd(), folder, `atkinson-hyperlegible-next-latin-${weight}-normal.${ending}`);

let embedded: { readonly [weight: number]: string } | undefined;

/** The shipped font's files as Base64, for pictures that carry their letters with them. */
export function embeddedFonts(): { readonly [weight: number]: string } {
  embedded ??= Object.fromEntries(
    fontWeights.map((weight) => [weight, readFileSync(fileOf(weight, "woff2")).toString("base64")]),
  );
  return embedded;
}

const unpacked = new Map<Weight, Uint8Array>();

/** The shipped font as an OpenType file, as printers of pages and pictures want it. */
export function openTypeFont(weight: Weight): Uint8Array {
  let font = unpacked.get(weight);
  if (!font) {
    font = unpackWoff(readFileSync(fileOf(weight, "woff")));
    unpacked.set(weight, font);
  }
  return font;
}

/** The same as files, for what reads fonts from the disk alone; written once to the system's temporary folder. */
export function openTypeFiles(): string[] {
  const place = join(tmpdir(), "lucid-lane-fonts");
  mkdirSync(place, { recursive: true });
  return fontWeights.map((weight) => {
    const path = join(place, `atkinson-hyperlegible-next-${weight}.ttf`);
    const font = openTypeFont(weight);
    if (!existsSync(path) || readFileSync(path).length !== font.length) {
      // Written aside and moved, so that another process never reads half a file.
      const aside = `${path}.${process.pid}`;
      writeFileSync(aside, font);
      renameSync(aside, path);
    }
    return path;
  });
}
