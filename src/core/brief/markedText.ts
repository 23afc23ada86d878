import { type BriefNode, type MarkKind, markKinds } from "./document";

/**
 * A page from plain text with marks in brackets: "When [trigger: [party: a household] applies], the [role: front desk] …". Blank
 * lines part paragraphs, "# " begins a heading, "- " or "1. " a sentence of a list, "{aside: …}" is background. Marks are called m1, m2, … in the order in
 * which they open, or by what stands behind a "#": "[role#desk: the front desk]".
 * @throws RangeError for a bracket that is not closed
 */
export function markedText(text: string): BriefNode {
  const counter = { last: 0 };
  const content = text
    .trim()
    .split(/\n\s*\n/)
    .map((block): BriefNode => {
      const heading = /^(#+)\s+/.exec(block);
      const words = sentencesOfLists(block.slice(heading?.[0].length ?? 0)).replace(/\s*\n\s*/g, " ");
      const inline = inlineOf(words, counter);
      return heading
        ? { type: "heading", attrs: { level: (heading[1] as string).length }, content: inline }
        : { type: "paragraph", content: inline };
    });
  return { type: "doc", content };
}

const bullet = /^\s*(?:[-*•–]|\d{1,3}[.)])\s+/;

/** Items of a list as sentences, one after the other: "- Sign the form" is what is done, and ends where the next begins. */
function sentencesOfLists(block: string): string {
  const lines = block.split("\n");
  if (!lines.some((line) => bullet.test(line))) return block;
  return lines
    .map((line, at) => {
      const isEnd = at + 1 < lines.length && bullet.test(lines[at + 1] ?? "");
      const words = line.replace(bullet, "").trimEnd();
      return isEnd && !/[.!?:;,]$/.test(words) ? `${words}.` : words;
    })
    .join("\n");
}

const opening = new RegExp(`^(?:\\[(${markKinds.join("|")})(?:#([^:\\s]+))?|\\{(aside)):\\s*`);

function inlineOf(text: string, counter: { last: number }): BriefNode[] {
  const nodes: BriefNode[] = [];
  const open: NonNullable<BriefNode["marks"]>[number][] = [];
  let plain = "";
  const flush = () => {
    if (plain) nodes.push({ type: "text", text: plain, ...(open.length > 0 && { marks: [...open] }) });
    plain = "";
  };
  for (let at = 0; at < text.length; ) {
    const begins = opening.exec(text.slice(at));
    if (begins) {
      flush();
      open.push(
        begins[3]
          ? { type: "aside" }
          : { type: "word", attrs: { id: begins[2] ?? `m${++counter.last}`, kind: begins[1] as MarkKind } },
      );
      at += begins[0].length;
    } else if (open.length > 0 && (text[at] === "]" || text[at] === "}")) {
      flush();
      open.pop();
      at++;
    } else plain += text[at++];
  }
  flush();
  if (open.length > 0) throw new RangeError(`A mark is not closed in "${text.slice(0, 60)}".`);
  return nodes;
}
