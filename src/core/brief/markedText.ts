import { type BriefNode, type MarkKind, markKinds } from "./document";

/**
 * A page from plain text with marks in brackets: "When [trigger: [party: a household] applies], the [role: front desk] …". Blank
 * lines part paragraphs, "# " begins a heading, "- " a list item, "{aside: …}" is background. Marks are called m1, m2, … in the order in
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
      const words = block.slice(heading?.[0].length ?? 0).replace(/\s*\n\s*/g, " ");
      const inline = inlineOf(words, counter);
      return heading
        ? { type: "heading", attrs: { level: (heading[1] as string).length }, content: inline }
        : { type: "paragraph", content: inline };
    });
  return { type: "doc", content };
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
