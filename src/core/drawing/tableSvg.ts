import { escapeText } from "../xml";
import { exportPalette, type SvgOptions } from "./svg";
import { textWidth } from "./text";

const size = 13;
const padding = 10;
const rowHeight = 26;
/** From here on names of columns stand upright, so that a wide table stays one. */
const widestColumn = 150;

/** A table as a picture: a heading, names of columns and rows, and what stands in the cells. */
export interface DrawnTable {
  readonly title: string;
  readonly corner: string;
  readonly columns: readonly string[];
  readonly rows: readonly { readonly name: string; readonly cells: readonly string[] }[];
}

/**
 * A table as an SVG file that needs nothing besides itself; columns are as wide as what stands in them, and names that are longer than
 * can stand side by side are turned upright. O(cells).
 */
export function tableToSvg({ title, corner, columns, rows }: DrawnTable, options: SvgOptions = {}): string {
  const widthOf = (words: string, weight: 400 | 600 = 400) => Math.ceil(textWidth(words, size, weight)) + 2 * padding;
  const isUpright = columns.some((name) => widthOf(name, 600) > widestColumn);
  const first = Math.max(widthOf(corner, 600), ...rows.map(({ name }) => widthOf(name)));
  const widths = columns.map((name, at) =>
    Math.max(isUpright ? rowHeight : widthOf(name, 600), ...rows.map(({ cells }) => widthOf(cells[at] ?? "", 600))),
  );
  const head = isUpright ? Math.max(rowHeight, ...columns.map((name) => widthOf(name, 600))) : rowHeight;
  const margin = options.margin ?? 16;
  const [left, top] = [margin, margin + 30];
  const inner = Math.max(first + widths.reduce((sum, width) => sum + width, 0), widthOf(title, 600));
  const [width, height] = [inner + 2 * margin, top + head + rows.length * rowHeight + margin];
  const text = (words: string, x: number, y: number, more = "") =>
    `<text x="${x}" y="${y}" font-size="${size}" fill="${exportPalette.ink}"${more}>${escapeText(words)}</text>`;
  const bold = ' font-weight="600"';
  const line = (x1: number, y1: number, x2: number, y2: number, tone: string) =>
    `<path d="M${x1} ${y1}L${x2} ${y2}" stroke="${tone}" stroke-width="1"/>`;
  const starts = widths.map((_, at) => left + first + widths.slice(0, at).reduce((sum, one) => sum + one, 0));
  const right = left + first + widths.reduce((sum, one) => sum + one, 0);
  const bottom = top + head + rows.length * rowHeight;
  const parts = [
    text(title, left, margin + 12, bold),
    text(corner, left + padding, top + head - 8, bold),
    ...columns.map((name, at) => {
      const x = starts[at] as number;
      if (!isUpright) return text(name, x + padding, top + head - 8, bold);
      const middle = x + (widths[at] as number) / 2 + 4;
      return text(name, middle, top + head - 8, `${bold} transform="rotate(-90 ${middle} ${top + head - 8})"`);
    }),
    line(left, top + head, right, top + head, exportPalette.ink),
    ...starts.map((x) => line(x, top, x, bottom, exportPalette.pencil)),
    ...rows.flatMap(({ name, cells }, row) => {
      const y = top + head + row * rowHeight;
      return [
        text(name, left + padding, y + 17),
        ...cells.map((words, at) => {
          const middle = (starts[at] as number) + (widths[at] as number) / 2;
          return words === "" ? "" : text(words, middle, y + 17, `${bold} text-anchor="middle"`);
        }),
        line(left, y + rowHeight, right, y + rowHeight, exportPalette.pencil),
      ];
    }),
  ];
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="'Atkinson Hyperlegible Next', Verdana, sans-serif">
<title>${escapeText(title)}</title><rect width="${width}" height="${height}" fill="${exportPalette.paper}"/>
${parts.filter(Boolean).join("\n")}
</svg>
`;
}
