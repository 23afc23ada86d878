const escapes: { readonly [character: string]: string } = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "\t": "&#9;",
  "\n": "&#10;",
  "\r": "&#13;",
  // What word processors put for a line end within a paragraph, and for a new page.
  "\v": " ",
  "\f": " ",
};

// XML 1.0, production 2 (Char): what is outside of these ranges can stand in no file, not even escaped.
const inAttribute = /[&<>"\t\n\r]|[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;
const inText = /[&<>\r]|[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;
const escaped = (character: string) => escapes[character] ?? "";

/**
 * A value as an attribute holds it. Line ends and tabs are written as references, since a reader would turn them into spaces; what
 * XML cannot hold is left out.
 */
export const escapeAttribute = (value: string): string => value.replace(inAttribute, escaped);

/** A text as an element holds it; what XML cannot hold is left out. */
export const escapeText = (value: string): string => value.replace(inText, escaped);

const named: { readonly [name: string]: string } = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };

/** A text of a file as it is meant: references resolved, line ends as XML 1.0 (section 2.11) has them read. */
export function decodeReferences(raw: string): string {
  const text = raw.includes("\r") ? raw.replace(/\r\n?/g, "\n") : raw;
  if (!text.includes("&")) return text;
  return text.replace(/&(#x[0-9a-f]+|#[0-9]+|\w+);/gi, (whole, name: string) => {
    if (name.startsWith("#")) {
      const code = name[1] === "x" || name[1] === "X" ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1));
      return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    }
    return named[name] ?? whole;
  });
}
