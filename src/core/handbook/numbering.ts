import type { Block } from "../booklet";

/**
 * The headings of a handbook with numbers before them: of its chapters, where there are several, and of their parts. What is below has
 * numbers of its own (those of the steps). O(blocks).
 */
export function withNumbers(blocks: readonly Block[]): Block[] {
  const chapters = blocks.filter((block) => block.kind === "heading" && block.level === 1).length;
  let [chapter, part] = [0, 0];
  return blocks.map((block): Block => {
    if (block.kind !== "heading" || block.level > 2) return block;
    if (block.level === 1) {
      chapter++;
      part = 0;
      return chapters > 1 ? { ...block, text: `${chapter} ${block.text}` } : block;
    }
    part++;
    return { ...block, text: `${chapters > 1 ? `${chapter}.` : ""}${part} ${block.text}` };
  });
}
