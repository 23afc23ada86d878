import type PDFDocument from "pdfkit";
import { exportPalette, type Figure, type Primitive, type Tone } from "@/core/drawing";
import { drawWords, widthOfWords } from "./pdfWords";

export type PdfDocument = InstanceType<typeof PDFDocument>;

/** The bytes of a document, once it has ended. */
export function finished(document: PdfDocument): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  return new Promise((resolve, reject) => {
    document.on("data", (chunk: Uint8Array) => chunks.push(chunk));
    document.on("end", () => resolve(Buffer.concat(chunks)));
    document.on("error", reject);
  });
}

const colour = (tone: Exclude<Tone, "none">) => exportPalette[tone];

/** Draws a figure where the document's coordinates stand; its fonts are known to it by their weights. */
export function drawFigure(document: PdfDocument, figure: Figure): void {
  for (const primitive of figure.primitives) drawPrimitive(document, primitive);
}

function drawPrimitive(document: PdfDocument, primitive: Primitive): void {
  switch (primitive.kind) {
    case "path": {
      const { fill, stroke, width, dash, hue } = primitive;
      const inHue = (tone: Exclude<typeof fill, "none">) => (tone === "ink" && hue ? hue : colour(tone));
      if (fill === "none" && stroke === "none") return;
      document.path(primitive.d).lineJoin("round").lineWidth(width);
      if (dash) {
        const [on = 1, off = on] = dash.split(" ").map(Number);
        document.dash(on, { space: off });
      } else document.undash();
      if (fill !== "none" && stroke !== "none") document.fillAndStroke(inHue(fill), inHue(stroke));
      else if (fill !== "none") document.fill(inHue(fill));
      else if (stroke !== "none") document.stroke(inHue(stroke));
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
      document.fillColor(tone === "none" ? exportPalette.ink : colour(tone));
      const setting = { font: "plain", weight, size } as const;
      const width = widthOfWords(document, text, setting);
      const left = anchor === "middle" ? x - width / 2 : anchor === "end" ? x - width : x;
      drawWords(document, text, { x: left, baseline: y }, setting);
      document.restore();
    }
  }
}
