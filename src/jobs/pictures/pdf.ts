import PDFDocument from "pdfkit";
import { type KindGroup, kindWords, pictureOfKind } from "@/core/commands";
import {
  exportPalette,
  type Figure,
  type Paper,
  type Primitive,
  planSheets,
  type Scene,
  sheetMargin,
  type Tone,
} from "@/core/drawing";
import { fontWeights, openTypeFont } from "./fonts";

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

type Document = InstanceType<typeof PDFDocument>;

const titleHeight = 34;
const legendRow = 17;
const legendColumn = 172;

/** A scene as a PDF, in vectors and with its letters: on one sheet or on several, with a title block and a legend on each. */
export async function sceneToPdf(scene: Scene, options: PdfOptions): Promise<Uint8Array> {
  const perRow = Math.floor((papersWidth(options.paper) - 2 * sheetMargin) / legendColumn);
  const legendHeight = options.legend.length > 0 ? Math.ceil(options.legend.length / perRow) * legendRow + 10 : 0;
  const plan = planSheets(scene.bounds, {
    paper: options.paper,
    spread: options.spread,
    foot: titleHeight + legendHeight,
  });
  const document = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    size: [plan.width, plan.height],
    info: { Title: options.title, Creator: "Lucid Lane", CreationDate: new Date(options.date) },
  });
  const chunks: Uint8Array[] = [];
  const finished = new Promise<void>((resolve, reject) => {
    document.on("data", (chunk: Uint8Array) => chunks.push(chunk));
    document.on("end", resolve);
    document.on("error", reject);
  });
  for (const weight of fontWeights) document.registerFont(String(weight), Buffer.from(openTypeFont(weight)));
  plan.sheets.forEach(({ view, row, column }, at) => {
    document.addPage();
    const { frame } = plan;
    document.save();
    document.rect(frame.x, frame.y, frame.width, frame.height).clip();
    document.translate(frame.x - view.x * plan.scale, frame.y - view.y * plan.scale).scale(plan.scale);
    for (const figure of scene.figures) drawFigure(document, figure);
    document.restore();
    const foot = frame.y + frame.height + 6;
    drawLegend(document, options.legend, foot, plan.width);
    const place =
      plan.sheets.length === 1 ? "" : `Sheet ${at + 1} of ${plan.sheets.length} (row ${row + 1}, column ${column + 1})`;
    const size = `${Math.round((plan.scale / 0.75) * 100)} % of full size`;
    drawTitle(
      document,
      options,
      [place, size].filter(Boolean).join(" · "),
      plan.height - sheetMargin - titleHeight + 6,
      plan.width,
    );
  });
  document.end();
  await finished;
  return Buffer.concat(chunks);
}

const papersWidth = (paper: Paper) => (paper === "A4" ? 595 : 841);

function drawTitle(
  document: Document,
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

function drawLegend(document: Document, legend: PdfOptions["legend"], top: number, width: number): void {
  const perRow = Math.floor((width - 2 * sheetMargin) / legendColumn);
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

const colour = (tone: Exclude<Tone, "none">) => exportPalette[tone];

function drawFigure(document: Document, figure: Figure): void {
  for (const primitive of figure.primitives) drawPrimitive(document, primitive);
}

function drawPrimitive(document: Document, primitive: Primitive): void {
  switch (primitive.kind) {
    case "path": {
      const { fill, stroke, width, dash } = primitive;
      if (fill === "none" && stroke === "none") return;
      document.path(primitive.d).lineJoin("round").lineWidth(width);
      if (dash) {
        const [on = 1, off = on] = dash.split(" ").map(Number);
        document.dash(on, { space: off });
      } else document.undash();
      if (fill !== "none" && stroke !== "none") document.fillAndStroke(colour(fill), colour(stroke));
      else if (fill !== "none") document.fill(colour(fill));
      else if (stroke !== "none") document.stroke(colour(stroke));
      return;
    }
    case "ribbon": {
      const { x, y, width, height } = primitive.bounds;
      document.rect(x, y, width, height).fill(primitive.hue);
      return;
    }
    case "text": {
      const { text, x, y, size, weight, anchor, tone, upright } = primitive;
      document.save();
      if (upright) document.rotate(-90, { origin: [x, y] });
      document.font(String(weight)).fontSize(size);
      document.fillColor(tone === "none" ? exportPalette.ink : colour(tone));
      const width = document.widthOfString(text);
      const left = anchor === "middle" ? x - width / 2 : anchor === "end" ? x - width : x;
      document.text(text, left, y, { lineBreak: false, baseline: "alphabetic" });
      document.restore();
    }
  }
}
