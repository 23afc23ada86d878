import PDFDocument from "pdfkit";
import { type KindGroup, kindWords, pictureOfKind } from "@/core/commands";
import {
  exportPalette,
  legendColumns,
  overlap,
  type Paper,
  type PaperPlan,
  paperFoot,
  planPaper,
  type Scene,
  sheetMargin,
} from "@/core/drawing";
import { fontWeights, openTypeFont } from "./fonts";
import { drawFigure, finished, type PdfDocument } from "./pdfFigures";

export interface PdfOptions {
  readonly paper: Paper;
  readonly spread: "fit" | "tile";
  /** The lines of the title block: what this is, of which version, as of when. */
  readonly title: string;
  readonly detail: string;
  readonly date: string;
  /** The kinds of elements to explain; empty for no legend. */
  readonly legend: KindGroup["kinds"];
}

/** A scene as a PDF, in vectors and with its letters: on one sheet or on several, with a title block on each and the legend once. */
export async function sceneToPdf(scene: Scene, options: PdfOptions): Promise<Uint8Array> {
  const { paper, spread, legend } = options;
  const plan = planPaper(scene.bounds, { paper, spread, symbols: legend.length });
  const sheets = plan.sheets.length + (plan.legend === "behind" ? 1 : 0);
  const document = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    size: [plan.width, plan.height],
    info: { Title: options.title, Creator: "Lucid Lane", CreationDate: new Date(options.date) },
  });
  const file = finished(document);
  for (const weight of fontWeights) document.registerFont(String(weight), Buffer.from(openTypeFont(weight)));
  plan.sheets.forEach(({ view, row, column }, at) => {
    document.addPage();
    const { frame } = plan;
    document.save();
    document.rect(frame.x, frame.y, frame.width, frame.height).clip();
    document.translate(frame.x - view.x * plan.scale, frame.y - view.y * plan.scale).scale(plan.scale);
    for (const figure of scene.figures) drawFigure(document, figure);
    document.restore();
    if (sheets > 1) drawSeams(document, plan, row, column);
    if (plan.legend === "under") drawLegend(document, legend, frame.y + frame.height + 6, plan.width);
    const place = sheets === 1 ? "" : `Sheet ${at + 1} of ${sheets} (row ${row + 1}, column ${column + 1})`;
    const size = `${Math.round((plan.scale / 0.75) * 100)} % of full size`;
    drawTitle(
      document,
      options,
      [place, size].filter(Boolean).join(" · "),
      plan.height - sheetMargin - paperFoot.title + 6,
      plan.width,
    );
  });
  if (plan.legend === "behind") {
    document.addPage();
    drawLegend(document, legend, plan.frame.y, plan.width);
    const place = `Sheet ${sheets} of ${sheets} · legend`;
    drawTitle(document, options, place, plan.height - sheetMargin - paperFoot.title + 6, plan.width);
  }
  document.end();
  return file;
}

/** Where a neighbour begins: up to there the sheets show the same, and are laid over each other. */
function drawSeams(document: PdfDocument, { frame, rows, columns }: PaperPlan, row: number, column: number): void {
  document.save().lineWidth(0.4).strokeColor(exportPalette.pencil).dash(2, { space: 3 });
  const upright = (x: number) =>
    document
      .moveTo(x, frame.y)
      .lineTo(x, frame.y + frame.height)
      .stroke();
  const lying = (y: number) =>
    document
      .moveTo(frame.x, y)
      .lineTo(frame.x + frame.width, y)
      .stroke();
  if (column > 0) upright(frame.x + overlap);
  if (column < columns - 1) upright(frame.x + frame.width - overlap);
  if (row > 0) lying(frame.y + overlap);
  if (row < rows - 1) lying(frame.y + frame.height - overlap);
  document.restore();
}

function drawTitle(
  document: PdfDocument,
  { title, detail, date }: PdfOptions,
  place: string,
  y: number,
  width: number,
): void {
  const x = sheetMargin;
  const right = width - sheetMargin;
  document.lineWidth(0.7).strokeColor(exportPalette.ink).undash();
  document.moveTo(x, y).lineTo(right, y).stroke();
  document.fillColor(exportPalette.ink).font("600").fontSize(11);
  document.text(title, x, y + 6, { width: (right - x) * 0.6, height: 13, ellipsis: true, lineBreak: false });
  document.font("400").fontSize(9).fillColor(exportPalette.pencil);
  document.text(detail, x, y + 20, { width: (right - x) * 0.6, height: 11, ellipsis: true, lineBreak: false });
  for (const [line, text] of [place, date.slice(0, 10)].entries())
    document.text(text, right - document.widthOfString(text), y + 7 + line * 13, { lineBreak: false });
}

function drawLegend(document: PdfDocument, legend: PdfOptions["legend"], top: number, width: number): void {
  const { legendColumn, legendRow } = paperFoot;
  const perRow = legendColumns(width);
  legend.forEach((kind, at) => {
    const figure = pictureOfKind(kind, true);
    const { bounds } = figure;
    const scale = Math.min(24 / bounds.width, 13 / bounds.height);
    const x = sheetMargin + (at % perRow) * legendColumn;
    const y = top + Math.floor(at / perRow) * legendRow;
    document.save();
    document
      .translate(x + 12 - (bounds.x + bounds.width / 2) * scale, y + 7 - (bounds.y + bounds.height / 2) * scale)
      .scale(scale);
    drawFigure(document, figure);
    document.restore();
    document.font("400").fontSize(8).fillColor(exportPalette.ink);
    document.text(kindWords(kind), x + 30, y + 3, {
      width: legendColumn - 34,
      height: 10,
      ellipsis: true,
      lineBreak: false,
    });
  });
}
