import { escapeAttribute } from "@/core/xml";

const words: { readonly [language: string]: string } & { readonly en: string } = { en: "Comment", de: "Kommentieren" };

/**
 * The web page of a booklet with a way to say something of each thing it tells of, and of the whole. The page itself may do nothing but be
 * read, so what leads there is a plain link.
 */
export function withCommentLinks(html: string, address: string): string {
  const language = /<html lang="([^"]*)"/.exec(html)?.[1] ?? "";
  const word = words[language] ?? words.en;
  const link = (of: string) => `<p><a href="${escapeAttribute(address)}?of=${encodeURIComponent(of)}">${word}</a></p>`;
  return html
    .replace("</header>", `${link("")}</header>`)
    .replace(
      /(<section [^>]*?data-of="([^"]*)"[^>]*>)(<h\d>[^<]*<\/h\d>)/g,
      (_, section: string, of: string, head: string) => `${section}${head}${link(plain(of))}`,
    );
}

const plain = (attribute: string) =>
  attribute
    .replaceAll("&quot;", '"')
    .replaceAll("&#39;", "'")
    .replaceAll("&lt;", "<")
    .replaceAll("&gt;", ">")
    .replaceAll("&amp;", "&");
