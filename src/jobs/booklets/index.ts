import type { Booklet, BookletKind } from "@/core/booklet";
import { bookletHtml } from "./html";
import { bookletMarkdown } from "./markdown";

/** A booklet as a file. */
export async function bookletFile(booklet: Booklet, kind: BookletKind): Promise<Uint8Array> {
  const text = (words: string) => new TextEncoder().encode(words);
  switch (kind) {
    case "html":
      return text(bookletHtml(booklet));
    case "md":
      return text(bookletMarkdown(booklet));
    // The printers are large; whoever asks for a text does not wait for them.
    case "pdf":
      return (await import("./pdf")).bookletPdf(booklet);
    case "docx":
      return (await import("./word")).bookletWord(booklet);
  }
}
