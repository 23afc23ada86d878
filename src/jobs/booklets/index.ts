import type { Booklet } from "@/core/booklet";
import { bookletHtml } from "./html";
import { bookletMarkdown } from "./markdown";

/** Kinds of files a booklet can be, by their ending. */
export const bookletKinds = ["pdf", "docx", "html", "md"] as const;
export type BookletKind = (typeof bookletKinds)[number];

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
