import { escapeAttribute, escapeText } from "../xml";
import type { Figure, Primitive, Tone } from "./primitives";
import type { Scene } from "./scene";

/** Colours of the tones in an exported picture: the light theme, which also prints well in grey. */
export const exportPalette: { readonly [tone in Exclude<Tone, "none">]: string } = {
  ink: "#1E2430",
  paper: "#FFFFFF",
  soft: "#F7F4EC",
  pencil: "#64748B",
  accent: "#5B2A6E",
};

export interface SvgOptions {
  /** Base64 of the shipped font's WOFF2 files by weight, embedded so that the picture looks the same anywhere. */
  readonly fonts?: { readonly [weight: number]: string };
  readonly title?: string;
  readonly margin?: number;
  /** What a painter calls the semi-bold cut, where it knows families by their names and not by their weights. */
  readonly semiBoldFamily?: string;
}

/** A scene as an SVG file that needs nothing besides itself. Text is escaped; nothing in it can run. */
export function sceneToSvg(scene: Scene, options: SvgOptions = {}): string {
  const margin = options.margin ?? 16;
  const x = Math.floor(scene.bounds.x - margin);
  const y = Math.floor(scene.bounds.y - margin);
  const width = Math.ceil(scene.bounds.width + 2 * margin);
  const height = Math.ceil(scene.bounds.height + 2 * margin);
  const fonts = Object.entries(options.fonts ?? {})
    .map(
      ([weight, data]) =>
        `@font-face{font-family:"Atkinson Hyperlegible Next";font-weight:${weight};src:url(data:font/woff2;base64,${data}) format("woff2")}`,
    )
    .join("");
  const style = fonts ? `<style>${fonts}</style>` : "";
  const title = options.title ? `<title>${escapeText(options.title)}</title>` : "";
  const body = scene.figures.map((figure) => figureToSvg(figure, options.semiBoldFamily)).join("\n");
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width}" height="${height}" text-rendering="geometricPrecision" font-family="'Atkinson Hyperlegible Next', Verdana, sans-serif">
${title}${style}<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="#FFFFFF"/>
${body}
</svg>
`;
}

function figureToSvg(figure: Figure, semiBold: string | undefined): string {
  return `<g data-element="${escapeAttribute(figure.id)}"><title>${escapeText(figure.title.text)}</title>${figure.primitives.map((primitive) => primitiveToSvg(primitive, semiBold)).join("")}</g>`;
}

const colour = (tone: Tone, hue?: string) =>
  tone === "none" ? "none" : tone === "ink" && hue ? escapeAttribute(hue) : exportPalette[tone];

function primitiveToSvg(primitive: Primitive, semiBold: string | undefined): string {
  switch (primitive.kind) {
    case "path": {
      const line =
        primitive.stroke === "none"
          ? ""
          : ` stroke="${colour(primitive.stroke, primitive.hue)}" stroke-width="${primitive.width}" stroke-linejoin="round"${primitive.dash ? ` stroke-dasharray="${primitive.dash}"` : ""}`;
      return `<path d="${primitive.d}" fill="${colour(primitive.fill, primitive.hue)}"${line}/>`;
    }
    case "text": {
      const turn = primitive.upright ? ` transform="rotate(-90 ${primitive.x} ${primitive.y})"` : "";
      const cut =
        primitive.weight !== 600 ? "" : semiBold ? ` font-family="${escapeAttribute(semiBold)}"` : ' font-weight="600"';
      return `<text x="${primitive.x}" y="${primitive.y}" font-size="${primitive.size}"${cut} text-anchor="${primitive.anchor}" fill="${colour(primitive.tone)}"${turn}>${escapeText(primitive.text)}</text>`;
    }
    case "ribbon": {
      const { x, y, width, height } = primitive.bounds;
      return `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${escapeAttribute(primitive.hue)}"/>`;
    }
  }
}
