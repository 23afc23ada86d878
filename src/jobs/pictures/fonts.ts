import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { BookletFont } from "@/core/booklet";
import { unpackWoff } from "./woff";

export const fontWeights = [400, 600] as const;
export type FontWeight = (typeof fontWeights)[number];

const packages: { readonly [font in BookletFont]: string } = {
  plain: "atkinson-hyperlegible-next",
  serif: "source-serif-4",
};
function fileOf(font: BookletFont, weight: FontWeight, ending: "woff" | "woff2"): string {
  const name = packages[font];
  const root = process.env.LANE_ROOT ?? process.cwd();
  return join(root, `node_modules/@fontsource/${name}/files/${name}-latin-${weight}-normal.${ending}`);
}

const embedded = new Map<BookletFont, { readonly [weight: number]: string }>();

/** A shipped font's files as Base64, for what carries its letters with it. */
export function embeddedFonts(font: BookletFont = "plain"): { readonly [weight: number]: string } {
  let files = embedded.get(font);
  if (!files) {
    const read = (weight: FontWeight) => readFileSync(fileOf(font, weight, "woff2")).toString("base64");
    files = Object.fromEntries(fontWeights.map((weight) => [weight, read(weight)]));
    embedded.set(font, files);
  }
  return files;
}

const unpacked = new Map<string, Uint8Array>();

/** A shipped font as an OpenType file, as printers of pages and pictures want it. */
export function openTypeFont(weight: FontWeight, font: BookletFont = "plain"): Uint8Array {
  const key = `${font} ${weight}`;
  let file = unpacked.get(key);
  if (!file) {
    file = unpackWoff(readFileSync(fileOf(font, weight, "woff")));
    unpacked.set(key, file);
  }
  return file;
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
