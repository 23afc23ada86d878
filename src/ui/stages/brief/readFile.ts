import { unzipSync } from "fflate";
import { text } from "../../messages";

const mostBytes = 10 * 1024 * 1024;
/** A packed file may not unfold to more than this. */
const mostUnpacked = 80 * 1024 * 1024;

/** A description from a file, as markup for the page, which takes only what it knows. Plain text, Markdown and .docx. */
export async function htmlOfFile(file: File): Promise<string> {
  if (file.size > mostBytes) throw new Error(text.brief.fileTooLarge(file.name));
  const ending = file.name.slice(file.name.lastIndexOf(".") + 1).toLowerCase();
  switch (ending) {
    case "docx":
      return docxToHtml(file.name, await file.arrayBuffer());
    case "md":
    case "markdown": {
      const { marked } = await import("marked");
      return marked.parse(await file.text(), { async: true });
    }
    case "txt":
    case "text":
      return plainToHtml(await file.text());
    default:
      throw new Error(text.brief.fileUnknown(file.name));
  }
}

async function docxToHtml(name: string, bytes: ArrayBuffer): Promise<string> {
  let unpacked = 0;
  try {
    // Looks at the list of contents only: nothing is unpacked here.
    unzipSync(new Uint8Array(bytes), {
      filter: (entry) => {
        unpacked += entry.originalSize;
        return false;
      },
    });
  } catch {
    throw new Error(text.brief.fileDamaged(name));
  }
  if (unpacked > mostUnpacked) throw new Error(text.brief.fileTooLarge(name));
  const { default: mammoth } = await import("mammoth");
  try {
    const { value } = await mammoth.convertToHtml(
      { arrayBuffer: bytes },
      { convertImage: mammoth.images.imgElement(async () => ({ src: "" })) },
    );
    return value;
  } catch {
    throw new Error(text.brief.fileDamaged(name));
  }
}

/** Blank lines part paragraphs, as people write; single line breaks stay. */
export function plainToHtml(plain: string): string {
  const escaped = plain.replace(/\r\n?/g, "\n").replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
  return escaped
    .split(/\n\s*\n/)
    .filter((block) => block.trim() !== "")
    .map((block) => `<p>${block.trim().replace(/\n/g, "<br>")}</p>`)
    .join("");
}
