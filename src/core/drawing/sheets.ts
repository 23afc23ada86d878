import type { Bounds } from "../model";
import type { Scene } from "./scene";

/** Paper in points, upright. Source: ISO 216 (A4 210 × 297 mm, A3 297 × 420 mm), 72 points to the inch. */
export const papers = {
  A4: { width: 595.28, height: 841.89 },
  A3: { width: 841.89, height: 1190.55 },
} as const;
export type Paper = keyof typeof papers;

export interface SheetOptions {
  readonly paper: Paper;
  /** All on one sheet, as large as it will go; or at full size on as many as it takes. */
  readonly spread: "fit" | "tile";
  /** Height kept free at the foot of each sheet, in points. */
  readonly foot: number;
}

export interface Sheet {
  readonly row: number;
  readonly column: number;
  /** The part of the page that the sheet shows, in diagram units. */
  readonly view: Bounds;
}

export interface SheetPlan {
  readonly width: number;
  readonly height: number;
  /** Where the drawing goes on each sheet, in points. */
  readonly frame: Bounds;
  /** Points to a diagram unit. */
  readonly scale: number;
  readonly rows: number;
  readonly columns: number;
  readonly sheets: readonly Sheet[];
}

export const sheetMargin = 28;
/** A unit is a pixel of the screen, of which there are 96 to the inch. */
const fullSize = 0.75;
const millimetre = 72 / 25.4;
/** What neighbouring sheets both show, in points, so that they can be glued together. */
export const overlap = 10 * millimetre;
/** Half of the widest line, in units: what lies at the edge of a drawing is drawn whole. */
const lineRoom = 2;

/**
 * How a drawing is put on paper: turned the way that shows it larger (one sheet) or needs fewer sheets (several).
 * O(sheets).
 */
export function planSheets(drawing: Bounds, { paper, spread, foot }: SheetOptions): SheetPlan {
  const { width, height } = papers[paper];
  const plans = [
    [height, width],
    [width, height],
  ].map(([wide, high]) => planOn(drawing, wide as number, high as number, spread, foot)) as [SheetPlan, SheetPlan];
  const [lying, upright] = plans;
  if (spread === "fit") return upright.scale > lying.scale ? upright : lying;
  return upright.sheets.length < lying.sheets.length ? upright : lying;
}

function planOn(drawing: Bounds, width: number, height: number, spread: "fit" | "tile", foot: number): SheetPlan {
  const frame = {
    x: sheetMargin,
    y: sheetMargin,
    width: width - 2 * sheetMargin,
    height: height - 2 * sheetMargin - foot,
  };
  const wide = Math.max(1, drawing.width);
  const high = Math.max(1, drawing.height);
  if (spread === "fit") {
    const scale = Math.min(frame.width / wide, frame.height / high, fullSize);
    const view = {
      x: drawing.x - (frame.width / scale - wide) / 2,
      y: drawing.y,
      width: frame.width / scale,
      height: frame.height / scale,
    };
    return { width, height, frame, scale, rows: 1, columns: 1, sheets: [{ row: 0, column: 0, view }] };
  }
  const along = (size: number, room: number) =>
    size * fullSize <= room ? 1 : Math.ceil((size * fullSize - overlap) / (room - overlap));
  const columns = along(wide, frame.width);
  const rows = along(high, frame.height);
  const sheets = Array.from({ length: rows * columns }, (_, at): Sheet => {
    const [row, column] = [Math.floor(at / columns), at % columns];
    return {
      row,
      column,
      view: {
        x: drawing.x + (column * (frame.width - overlap)) / fullSize,
        y: drawing.y + (row * (frame.height - overlap)) / fullSize,
        width: frame.width / fullSize,
        height: frame.height / fullSize,
      },
    };
  });
  return { width, height, frame, scale: fullSize, rows, columns, sheets };
}

/** The foot of a sheet: its title block, and the legend where it stands on the same sheet. In points. */
export const paperFoot = { title: 34, legendRow: 17, legendColumn: 172 } as const;

export interface PaperPlan extends SheetPlan {
  /** Where the symbols are explained: under the drawing, on a sheet of their own behind the others, or nowhere. */
  readonly legend: "under" | "behind" | "none";
}

/** Columns of a legend on paper of some width. */
export const legendColumns = (width: number): number =>
  Math.max(1, Math.floor((width - 2 * sheetMargin) / paperFoot.legendColumn));

/**
 * How a drawing is put on paper with its title block and its legend: on one sheet the legend stands under the drawing; of several
 * sheets each is as full as it can be, and the legend comes once, behind them.
 * @param symbols how many symbols the legend explains; none: there is no legend
 */
export function planPaper(
  drawing: Bounds,
  wanted: { readonly paper: Paper; readonly spread: "fit" | "tile"; readonly symbols: number },
): PaperPlan {
  const { paper, spread, symbols } = wanted;
  const whole = {
    x: drawing.x - lineRoom,
    y: drawing.y - lineRoom,
    width: drawing.width + 2 * lineRoom,
    height: drawing.height + 2 * lineRoom,
  };
  const rows = Math.ceil(symbols / legendColumns(papers[paper].width));
  const legendHeight = symbols > 0 ? rows * paperFoot.legendRow + 10 : 0;
  const under = planSheets(whole, { paper, spread, foot: paperFoot.title + legendHeight });
  if (under.sheets.length === 1) return { ...under, legend: symbols > 0 ? "under" : "none" };
  return { ...planSheets(whole, { paper, spread, foot: paperFoot.title }), legend: symbols > 0 ? "behind" : "none" };
}

/** Smaller print than this is hardly read: in points (common practice for printed matter). */
export const leastPrint = 6;

/** The smallest type of a drawing on paper, in points; undefined where nothing is written. O(figures). */
export function smallestPrint({ figures }: Scene, { scale }: Pick<SheetPlan, "scale">): number | undefined {
  let least: number | undefined;
  for (const { primitives } of figures)
    for (const primitive of primitives)
      if (
        primitive.kind === "text" &&
        primitive.text.trim() !== "" &&
        primitive.size < (least ?? Number.POSITIVE_INFINITY)
      )
        least = primitive.size;
  return least === undefined ? undefined : least * scale;
}
