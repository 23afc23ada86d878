import mammoth from "mammoth";
import { marked } from "marked";
import type { BookletKind } from "@/core/booklet";

export const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
/** Words without what is between them: where lines break is no business of a test. */
export const squeezed = (words: string) => words.replace(/\s+/g, "");

export async function pdfOf(bytes: Uint8Array) {
  const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  return getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
}

/** The words of a file, read by a program that is not ours. */
export async function wordsOf(bytes: Uint8Array, kind: BookletKind): Promise<string> {
  switch (kind) {
    case "md":
      return plain(await marked.parse(text(bytes)));
    case "html":
      return plain(text(bytes).replace(/<(style|script)>[\s\S]*?<\/\1>/g, ""));
    case "docx":
      return (await mammoth.extractRawText({ buffer: Buffer.from(bytes) })).value;
    case "pdf": {
      const document = await pdfOf(bytes);
      const pages: string[] = [];
      for (let at = 1; at <= document.numPages; at++) {
        const { items } = await (await document.getPage(at)).getTextContent();
        pages.push(items.map((item) => ("str" in item ? item.str + (item.hasEOL ? "\n" : " ") : "")).join(""));
      }
      return pages.join("\n");
    }
  }
}
const entities: { readonly [name: string]: string } = { amp: "&", lt: "<", gt: ">", quot: '"', "#39": "'" };
const plain = (html: string) =>
  html.replace(/<[^>]*>/g, " ").replace(/&(#?\w+);/g, (all, name: string) => entities[name] ?? all);
