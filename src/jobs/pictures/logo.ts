import { Resvg } from "@resvg/resvg-js";

/** A small picture of a house on the cover of what it files, and how large it is. */
export interface Logo {
  readonly png: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** Pixels: fine enough for print at the size it stands in. */
const box = { width: 480, height: 160 } as const;

/**
 * A picture (as the address that holds it) painted anew, so that whatever was sent comes out as a plain PNG of a known size; one that
 * cannot be read comes out empty. O(pixels).
 */
export function paintedLogo(address: string): Logo {
  const picture = `<image width="${box.width}" height="${box.height}" preserveAspectRatio="xMinYMid meet" href="${address}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${box.width} ${box.height}" width="${box.width}" height="${box.height}">${picture}</svg>`;
  const painted = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return { png: painted.asPng(), width: painted.width, height: painted.height };
}
