import { Extension, Mark, mergeAttributes } from "@tiptap/core";
import type { Node as PageNode } from "@tiptap/pm/model";
import { Plugin, PluginKey } from "@tiptap/pm/state";
import { type Decoration, DecorationSet } from "@tiptap/pm/view";
import { nanoid } from "nanoid";

/** Words said to be a role, an activity … Several may lie over each other: an activity that names a document. */
export const WordMark = Mark.create({
  name: "word",
  excludes: "",
  inclusive: false,
  addAttributes() {
    return {
      id: { default: null, parseHTML: (element) => element.getAttribute("data-mark") },
      kind: { default: "activity", parseHTML: (element) => element.getAttribute("data-kind") },
    };
  },
  parseHTML() {
    return [{ tag: "span[data-mark][data-kind]" }];
  },
  renderHTML({ mark, HTMLAttributes }) {
    const { id, kind } = mark.attrs as { id: string; kind: string };
    return [
      "span",
      mergeAttributes(HTMLAttributes, { class: `word word-${kind}`, "data-mark": id, "data-kind": kind }),
      0,
    ];
  },
  addProseMirrorPlugins() {
    return [
      new Plugin({
        key: new PluginKey("oneMarkOneName"),
        // Copied words get a name of their own; moved ones keep theirs, and with it their links.
        appendTransaction: (transactions, _, state) => {
          if (!transactions.some((transaction) => transaction.docChanged)) return null;
          const seen = new Map<string, { end: number; block: PageNode }>();
          const again = new Map<string, string>();
          const change = state.tr;
          state.doc.descendants((block, blockAt) => {
            if (!block.isTextblock) return;
            const here = new Set<string>();
            block.forEach((node, offset) => {
              const at = blockAt + 1 + offset;
              for (const mark of node.marks) {
                if (mark.type.name !== "word") continue;
                const { id, kind } = mark.attrs as { id: string; kind: string };
                const last = seen.get(id);
                if (!last || (last.block === block && (last.end === at || here.has(id)))) {
                  seen.set(id, { end: at + node.nodeSize, block });
                  here.add(id);
                  continue;
                }
                const name = again.get(`${id}/${blockAt}`) ?? nanoid(10);
                again.set(`${id}/${blockAt}`, name);
                change.removeMark(at, at + node.nodeSize, mark);
                change.addMark(at, at + node.nodeSize, mark.type.create({ id: name, kind }));
              }
            });
          });
          return change.docChanged ? change : null;
        },
      }),
    ];
  },
});

/** Words said to belong to another process, or to a part, than their place suggests. */
export const BelongsMark = Mark.create({
  name: "belongs",
  inclusive: true,
  addAttributes() {
    return { to: { default: null, parseHTML: (element) => element.getAttribute("data-belongs") } };
  },
  parseHTML() {
    return [{ tag: "span[data-belongs]" }];
  },
  renderHTML({ mark }) {
    return ["span", { "data-belongs": mark.attrs.to as string }, 0];
  },
});

/** Background, which no model has to account for. */
export const AsideMark = Mark.create({
  name: "aside",
  inclusive: true,
  parseHTML() {
    return [{ tag: "span[data-aside]" }];
  },
  renderHTML() {
    return ["span", { class: "aside", "data-aside": "" }, 0];
  },
});

/** Signs on the page that are no part of it: letters before marks, numbers of processes, open sentences, suggestions. */
export const signsKey = new PluginKey<DecorationSet>("signs");
export const Signs = Extension.create({
  name: "signs",
  addProseMirrorPlugins() {
    return [
      new Plugin<DecorationSet>({
        key: signsKey,
        state: {
          init: () => DecorationSet.empty,
          apply: (transaction, old) => {
            const next = transaction.getMeta(signsKey) as Decoration[] | undefined;
            return next ? DecorationSet.create(transaction.doc, next) : old.map(transaction.mapping, transaction.doc);
          },
        },
        props: { decorations: (state) => signsKey.getState(state) },
      }),
    ];
  },
});

/** Where the text of each passage begins on the page: the same passages in the same order as the core reads them. */
export function passageStarts(doc: PageNode): number[] {
  const starts: number[] = [];
  doc.descendants((node, at) => {
    if (node.isTextblock && node.childCount > 0) starts.push(at + 1);
    return !node.isTextblock;
  });
  return starts;
}
