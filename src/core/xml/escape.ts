const escapes: { readonly [character: string]: string } = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "\t": "&#9;",
  "\n": "&#10;",
  "\r": "&#13;",
};

/** Line ends and tabs in attributes are written as references, since a reader would turn them into spaces. */
export function escapeAttribute(value: string): string {
  return value.replace(/[&<>"\t\n\r]/g, (character) => escapes[character] as string);
}

export function escapeText(value: string): string {
  return value.replace(/[&<>\r]/g, (character) => escapes[character] as string);
}
