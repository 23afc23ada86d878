/** Kinds of files that a booklet can be given as, by their ending. */
export const bookletKinds = ["pdf", "docx", "html", "md"] as const;
export type BookletKind = (typeof bookletKinds)[number];

/** What each is to a program that is handed it. */
export const bookletTypes: { readonly [Kind in BookletKind]: string } = {
  pdf: "application/pdf",
  docx: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  html: "text/html; charset=utf-8",
  md: "text/markdown; charset=utf-8",
};
