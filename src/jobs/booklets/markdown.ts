import type { Block, Booklet, Fact, Line, Run } from "@/core/booklet";
import { sceneToSvg } from "@/core/drawing";

/** A booklet as Markdown (CommonMark, with the tables of its common extension). Pictures stand at its end, as addresses that hold them. */
export function bookletMarkdown({ title, subtitle, facts, blocks, logo }: Booklet): string {
  const pictures: string[] = [];
  const parts = [
    ...(logo ? [`![](data:image/png;base64,${Buffer.from(logo).toString("base64")})`] : []),
    `# ${inLine(title)}`,
    ...(subtitle ? [asLine(inLine(subtitle))] : []),
    ...(facts.length > 0 ? [factsText(facts)] : []),
    ...blocks.map((block) => blockText(block, pictures)),
    ...pictures.map((data, at) => `[picture-${at + 1}]: data:image/svg+xml;base64,${data}`),
  ];
  return `${parts.join("\n\n")}\n`;
}

/** Only what would be read as a sign is marked, so that names stay as they are written. */
const inLine = (text: string) =>
  text
    .replace(/[\\`*[\]<|~]/g, "\\$&")
    .replace(/(^|[^\p{L}\p{N}])_|_(?=[^\p{L}\p{N}]|$)/gu, (found) => found.replace("_", "\\_"))
    .replace(/&(?=#?\w+;)/g, "\\&")
    .replace(/\s*\n\s*/g, " ")
    .trim();

/** At the beginning of a line a sign or a number would begin a heading or a list. */
const asLine = (text: string) => text.replace(/^([#>+-])/, "\\$1").replace(/^(\d+)([.)])/, "$1\\$2");

function runText({ text, isStrong, isEmphasis, link }: Run): string {
  const before = /^\s*/.exec(text)?.[0] ?? "";
  const behind = text.trim() === "" ? "" : (/\s*$/.exec(text)?.[0] ?? "");
  let words = inLine(text);
  if (words === "") return text.replace(/\n/g, " ");
  if (isStrong) words = `**${words}**`;
  if (isEmphasis) words = `*${words}*`;
  if (link !== undefined)
    words = `[${words}](${link.replace(/[()\\ ]/g, (sign) => encodeURIComponent(sign).replace("(", "%28").replace(")", "%29"))})`;
  return before.replace(/\n/g, " ") + words + behind.replace(/\n/g, " ");
}
const lineText = (says: Line) => says.map(runText).join("").trim();

const factsText = (facts: readonly Fact[]) =>
  facts.map(({ name, says }) => `- **${inLine(name)}:** ${lineText(says)}`).join("\n");

function blockText(block: Block, pictures: string[]): string {
  switch (block.kind) {
    case "heading":
      return `<a id="${block.anchor}"></a>\n\n${"#".repeat(block.level + 1)} ${inLine(block.text)}`;
    case "paragraph":
      return asLine(lineText(block.says));
    case "list":
      return block.items
        .map((item, at) => `${block.isOrdered ? `${at + 1}.` : "-"} ${asLine(lineText(item))}`)
        .join("\n");
    case "facts":
      return factsText(block.facts);
    case "table": {
      const row = (cells: readonly string[]) => `| ${cells.join(" | ")} |`;
      return [
        `**${inLine(block.caption)}**`,
        "",
        row(block.columns.map(({ name }) => inLine(name))),
        row(block.columns.map(() => "---")),
        ...block.rows.map((cells) => row(cells.map(lineText))),
      ].join("\n");
    }
    case "picture": {
      pictures.push(base64(sceneToSvg(block.scene, { title: block.shows })));
      return `![${inLine(block.shows)}][picture-${pictures.length}]\n\n*${inLine(block.caption)}*`;
    }
  }
}

const base64 = (text: string) => Buffer.from(text, "utf8").toString("base64");
