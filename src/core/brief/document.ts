import { z } from "zod";

/** What a mark says its words are. */
export const markKinds = [
  "trigger",
  "role",
  "party",
  "activity",
  "decision",
  "document",
  "system",
  "time",
  "result",
] as const;
export type MarkKind = (typeof markKinds)[number];

/** Text of this many characters is far beyond the one to five pages a brief has. */
const mostCharacters = 200_000;

const markName = z.string().min(1).max(100);

const textMarkSchema = z.discriminatedUnion("type", [
  z.object({ type: z.literal("word"), attrs: z.object({ id: markName, kind: z.enum(markKinds) }) }),
  /** The words belong to the process of a trigger, or to a part, whatever their position suggests. */
  z.object({ type: z.literal("belongs"), attrs: z.object({ to: markName }) }),
  /** The words are background; no model has to account for them. */
  z.object({ type: z.literal("aside") }),
  z.object({ type: z.enum(["bold", "italic", "underline"]) }),
]);

/** A node of the page, in the form the text editor keeps it; what it may hold beyond this is kept as it is. */
export interface BriefNode {
  readonly type: string;
  readonly attrs?: { readonly [name: string]: unknown } | undefined;
  readonly content?: readonly BriefNode[] | undefined;
  readonly text?: string | undefined;
  readonly marks?: readonly z.infer<typeof textMarkSchema>[] | undefined;
}
const nodeSchema: z.ZodType<BriefNode> = z.lazy(() =>
  z.object({
    type: z.string().min(1).max(40),
    attrs: z.record(z.string(), z.unknown()).optional(),
    content: z.array(nodeSchema).max(20_000).optional(),
    text: z.string().max(mostCharacters).optional(),
    marks: z.array(textMarkSchema).max(40).optional(),
  }),
);

/** A part of the text that was factored out of its process: a sub-process of it, or a process it calls. */
const partSchema = z.object({
  id: markName,
  name: z.string().trim().min(1).max(200),
  kind: z.enum(["process", "sub-process"]),
  /** The trigger whose process it was taken out of. */
  of: markName,
});
export type BriefPart = z.infer<typeof partSchema>;

/** What was settled about one process of a brief, by the id of its trigger, part or shared activity. */
const frameSettingSchema = z.object({
  key: z.string().min(1).max(300),
  name: z.string().trim().max(200).optional(),
  /** The process record it was built as. */
  process: z.string().max(200).optional(),
});
export type FrameSetting = z.infer<typeof frameSettingSchema>;

export const briefContentSchema = z.object({
  organisation: z.string().max(200),
  document: nodeSchema.refine((node) => node.type === "doc", "A brief is one document."),
  frames: z.array(frameSettingSchema).max(500),
  parts: z.array(partSchema).max(500),
  /** Activities of several processes that are factored out and called, by what they come down to. */
  shared: z.array(z.string().max(300)).max(500),
  /** Suggestions somebody said no to, as kind and words, so that they are not made again. */
  refused: z.array(z.string().max(400)).max(10_000),
  /** Marks whose element was made, by frame; what an analyst deletes is then not made again. */
  built: z.record(z.string(), z.array(markName).max(50_000)),
  /** What the elements of marks were called when they were built: who calls them otherwise since meant it. */
  named: z.record(z.string().max(120), z.string().max(2000)).optional(),
  /** How what the text leaves open was settled, by the questions' ids. */
  answers: z.record(z.string().max(300), z.string().max(300)).optional(),
});
export type BriefContent = z.infer<typeof briefContentSchema>;

export const emptyBrief: BriefContent = {
  organisation: "",
  document: { type: "doc", content: [{ type: "paragraph" }] },
  frames: [],
  parts: [],
  shared: [],
  refused: [],
  built: {},
};

export interface Span {
  readonly from: number;
  readonly to: number;
}

/** Marked words. `from` and `to` are places in their passage's text. */
export interface Mark extends Span {
  readonly id: string;
  readonly kind: MarkKind;
  readonly passage: number;
  readonly text: string;
}

/** A paragraph, heading or list item, with its text and what is marked in it. */
export interface Passage {
  readonly at: number;
  readonly kind: "heading" | "text";
  readonly level: number;
  readonly text: string;
  readonly belongs: readonly (Span & { readonly target: string })[];
  readonly asides: readonly Span[];
}

/** The passages and marks of a page, in the order of the text. Words with one mark's id in two places count once, where first. */
export function passagesOf(document: BriefNode): { passages: Passage[]; marks: Mark[] } {
  const passages: Passage[] = [];
  const marks = new Map<string, Mark>();
  const visit = (node: BriefNode): void => {
    const inline = node.content?.some((child) => child.type === "text" || child.type === "hardBreak");
    if (!inline) {
      for (const child of node.content ?? []) visit(child);
      return;
    }
    const passage = passages.length;
    const open: Mark[] = [];
    const belongs: (Span & { target: string })[] = [];
    const asides: Span[] = [];
    let text = "";
    for (const child of node.content ?? []) {
      const from = text.length;
      // Each node that is no text takes one place in the editor, and so it does here.
      text += child.type === "text" ? (child.text ?? "") : "\n";
      const span = { from, to: text.length };
      for (const mark of child.marks ?? []) {
        if (mark.type === "word") {
          const last = open.findIndex((other) => other.id === mark.attrs.id && other.to === from);
          if (last >= 0) open[last] = { ...(open[last] as Mark), to: span.to };
          else open.push({ ...mark.attrs, passage, text: "", ...span });
        } else if (mark.type === "belongs") extend(belongs, { ...span, target: mark.attrs.to });
        else if (mark.type === "aside") extend(asides, span);
      }
    }
    const isHeading = node.type === "heading";
    const level = isHeading ? Number(node.attrs?.level ?? 1) : 0;
    passages.push({ at: passage, kind: isHeading ? "heading" : "text", level, text, belongs, asides });
    open.sort((a, b) => a.from - b.from || b.to - a.to);
    for (const mark of open)
      if (!marks.has(mark.id)) marks.set(mark.id, { ...mark, text: text.slice(mark.from, mark.to) });
  };
  visit(document);
  return { passages, marks: [...marks.values()] };
}

/** Runs of formatted text that touch are one span. */
function extend<Item extends Span & { readonly target?: string }>(spans: Item[], next: Item): void {
  const last = spans.at(-1);
  if (last && last.to === next.from && last.target === next.target) spans[spans.length - 1] = { ...last, to: next.to };
  else spans.push(next);
}
