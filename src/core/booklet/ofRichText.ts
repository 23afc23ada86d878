import type { RichNode } from "../model";
import type { Block, Line, Run } from "./booklet";

/** What somebody wrote with emphasis, lists and links, as blocks; a list within a list is told on its own lines. */
export function blocksOfText(text: RichNode): Block[] {
  return (text.content ?? []).flatMap((node): Block[] => {
    switch (node.type) {
      case "bulletList":
      case "orderedList": {
        const items = (node.content ?? []).flatMap(itemLines);
        return items.length === 0 ? [] : [{ kind: "list", isOrdered: node.type === "orderedList", items }];
      }
      default: {
        const says = lineOf(node);
        return says.some((run) => run.text.trim() !== "") ? [{ kind: "paragraph", says }] : [];
      }
    }
  });
}

/** The lines of an item: each paragraph, and each item of a list inside it, behind a dash. */
function itemLines(item: RichNode): Line[] {
  return (item.content ?? []).flatMap((node): Line[] => {
    if (node.type === "bulletList" || node.type === "orderedList")
      return (node.content ?? []).flatMap(itemLines).map((inner) => [{ text: "– " }, ...inner]);
    const says = lineOf(node);
    return says.length === 0 ? [] : [says];
  });
}

function lineOf(node: RichNode): Run[] {
  if (node.type === "hardBreak") return [{ text: "\n" }];
  if (node.type !== "text") return (node.content ?? []).flatMap(lineOf);
  const has = (type: string) => node.marks?.some((mark) => mark.type === type) === true;
  const link = node.marks?.find((mark) => mark.type === "link");
  return [
    {
      text: node.text ?? "",
      ...(has("bold") && { isStrong: true }),
      ...(has("italic") && { isEmphasis: true }),
      ...(link?.type === "link" && { link: link.attrs.href }),
    },
  ];
}
