import type { BookletFont } from "@/core/booklet";
import type { FontWeight } from "./fonts";
import { type Face, inFaces } from "./letters";
import type { PdfDocument } from "./pdfFigures";

/** How words are set in a PDF. */
export interface Setting {
  readonly font: BookletFont;
  readonly weight: FontWeight;
  readonly size: number;
}

/** Which faces each document has been given: a file holds only those it needs. */
const given = new WeakMap<PdfDocument, Set<string>>();

function set(document: PdfDocument, face: Face, { weight, size }: Setting): void {
  const faces = given.get(document) ?? new Set<string>();
  given.set(document, faces);
  const name = `${face.key} ${weight}`;
  if (!faces.has(name)) document.registerFont(name, Buffer.from(face.file(weight)));
  faces.add(name);
  document.font(name).fontSize(size);
}

/** How wide words are, in points. */
export const widthOfWords = (document: PdfDocument, text: string, setting: Setting): number =>
  inFaces(text, setting.font).reduce((sum, piece) => {
    set(document, piece.face, setting);
    return sum + document.widthOfString(piece.text);
  }, 0);

/** Draws words on a line from a place on; letters of other scripts stand on the same line, in a face that has them. */
export function drawWords(
  document: PdfDocument,
  text: string,
  at: { readonly x: number; readonly baseline: number },
  setting: Setting & { readonly isOblique?: boolean | undefined },
): void {
  const oblique = setting.isOblique ? { oblique: 10 } : {};
  let { x } = at;
  for (const piece of inFaces(text, setting.font)) {
    set(document, piece.face, setting);
    document.text(piece.text, x, at.baseline, { lineBreak: false, baseline: "alphabetic", ...oblique });
    x += document.widthOfString(piece.text);
  }
}
