import type { Editor } from "@tiptap/react";
import { nanoid } from "nanoid";
import {
  type BriefReading,
  type MarkKind,
  readBrief,
  refusalOf,
  type Span,
  type Suggestion,
  suggestMarks,
} from "@/core/brief";
import { entriesNow } from "../../controls/entries";
import { useBrief } from "../../version/briefStore";
import { passageStarts } from "./wordMark";

/** Takes over what is selected on the page: the browser may tell of a selection only after the key that is about it. */
export function takeSelection(editor: Editor): void {
  const { view, state } = editor;
  const selected = getSelection();
  const { anchorNode, focusNode } = selected ?? {};
  if (!selected || !anchorNode || !focusNode || !view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return;
  const ends = [view.posAtDOM(anchorNode, selected.anchorOffset), view.posAtDOM(focusNode, selected.focusOffset)];
  const { from, to } = state.selection;
  if (Math.min(...ends) !== from || Math.max(...ends) !== to)
    editor.commands.setTextSelection({ from: Math.min(...ends), to: Math.max(...ends) });
}

/** What a selection stands for: itself without the blanks at its ends, or the word the cursor is in. */
function wordsAt(editor: Editor): { from: number; to: number } | null {
  const { doc, selection } = editor.state;
  let { from, to } = selection;
  if (selection.empty) {
    const block = selection.$from;
    if (!block.parent.isTextblock) return null;
    const words = block.parent.textBetween(0, block.parent.content.size, "\n", "\n");
    const offset = block.parentOffset;
    const before = /[\p{L}\p{N}'’-]*$/u.exec(words.slice(0, offset))?.[0].length ?? 0;
    const after = /^[\p{L}\p{N}'’-]*/u.exec(words.slice(offset))?.[0].length ?? 0;
    from = block.pos - before;
    to = block.pos + after;
  }
  const words = doc.textBetween(from, to, "\n", "\n");
  from += words.length - words.trimStart().length;
  to -= words.length - words.trimEnd().length;
  // A mark stands in one paragraph.
  const end = doc.resolve(from).end();
  return from < to ? { from, to: Math.min(to, end) } : null;
}

/** Marks the words chosen; the same kind on the same words again takes the mark off. */
export function markWords(editor: Editor, kind: MarkKind): void {
  const words = wordsAt(editor);
  if (!words) return;
  const type = editor.schema.marks.word;
  if (!type) return;
  const same = marksBetween(editor, words).find(
    (mark) => mark.kind === kind && mark.from === words.from && mark.to === words.to,
  );
  if (same) {
    removeMark(editor, same.id);
    return;
  }
  const id = nanoid(10);
  editor.view.dispatch(editor.state.tr.addMark(words.from, words.to, type.create({ id, kind })));
  useBrief.getState().set({ selected: id });
}

interface PlacedMark extends Span {
  readonly id: string;
  readonly kind: MarkKind;
}

function marksBetween(editor: Editor, { from, to }: Span): PlacedMark[] {
  return placesOf(editor).filter((mark) => mark.from < to && mark.to > from);
}

/** Where each mark lies on the page. */
export function placesOf(editor: Editor): PlacedMark[] {
  const places = new Map<string, PlacedMark>();
  editor.state.doc.descendants((node, at) => {
    for (const mark of node.marks) {
      if (mark.type.name !== "word") continue;
      const { id, kind } = mark.attrs as { id: string; kind: MarkKind };
      const known = places.get(id);
      places.set(id, { id, kind, from: known?.from ?? at, to: at + node.nodeSize });
    }
  });
  return [...places.values()];
}

export function removeMark(editor: Editor, id: string): void {
  const { state } = editor;
  const change = state.tr;
  state.doc.descendants((node, at) => {
    for (const mark of node.marks)
      if (mark.type.name === "word" && mark.attrs.id === id) change.removeMark(at, at + node.nodeSize, mark);
  });
  editor.view.dispatch(change);
}

/** Takes off the innermost mark at the cursor, or all marks within a selection. */
export function removeMarksHere(editor: Editor): void {
  const { selection } = editor.state;
  const here = marksBetween(editor, { from: selection.from, to: Math.max(selection.to, selection.from + 1) });
  const { selected } = useBrief.getState();
  if (selection.empty) {
    const inner = here.find((mark) => mark.id === selected) ?? here.sort((a, b) => a.to - a.from - (b.to - b.from))[0];
    if (inner) removeMark(editor, inner.id);
  } else for (const mark of here) removeMark(editor, mark.id);
}

/** Gives a mark another kind; its name, and so its links, stay. */
export function changeKind(editor: Editor, ids: readonly string[], kind: MarkKind): void {
  const { state } = editor;
  const change = state.tr;
  state.doc.descendants((node, at) => {
    for (const mark of node.marks) {
      if (mark.type.name !== "word" || !ids.includes(mark.attrs.id as string)) continue;
      change.removeMark(at, at + node.nodeSize, mark);
      change.addMark(at, at + node.nodeSize, mark.type.create({ id: mark.attrs.id, kind }));
    }
  });
  editor.view.dispatch(change);
}

/** Shows a place of the page and puts the cursor there. */
export function showPlace(editor: Editor, at: number): void {
  editor.commands.setTextSelection(at);
  const { node } = editor.view.domAtPos(at);
  const element = node instanceof Element ? node : node.parentElement;
  element?.scrollIntoView({ block: "center", behavior: "instant" });
  editor.view.focus();
}

export function showMark(editor: Editor, id: string): void {
  const place = placesOf(editor).find((mark) => mark.id === id);
  if (!place) return;
  showPlace(editor, place.from + 1);
  useBrief.getState().set({ selected: id });
}

export function showSentence(editor: Editor, reading: BriefReading, sentence: number): void {
  const found = reading.sentences[sentence];
  const start = found && passageStarts(editor.state.doc)[found.passage];
  if (found && start !== undefined) showPlace(editor, start + found.from);
}

/** Marks a whole sentence or its paragraph: as background, or as belonging elsewhere. `null` takes that back. */
export function assign(
  editor: Editor,
  span: { readonly passage: number; readonly from: number; readonly to: number },
  to: { readonly belongs: string } | "aside" | null,
): void {
  const start = passageStarts(editor.state.doc)[span.passage];
  const { belongs, aside } = editor.schema.marks;
  if (start === undefined || !belongs || !aside) return;
  const [from, until] = [start + span.from, start + span.to];
  const change = editor.state.tr.removeMark(from, until, belongs).removeMark(from, until, aside);
  if (to === "aside") change.addMark(from, until, aside.create());
  else if (to) change.addMark(from, until, belongs.create({ to: to.belongs }));
  editor.view.dispatch(change);
}

/** What the sentence says that the cursor is in; undefined where there is none. */
export function sentenceHere(editor: Editor, reading: BriefReading): string | undefined {
  const { head } = editor.state.selection;
  const starts = passageStarts(editor.state.doc);
  return reading.sentences.find(({ passage, from, to }) => {
    const start = starts[passage];
    return start !== undefined && start + from <= head && head <= start + to;
  })?.text;
}

export function startSuggesting(): number {
  // Read anew: what the page shows of the text is a moment behind the typing.
  const reading = readBrief(useBrief.getState().content.document);
  const names = entriesNow()
    .filter((entry) => entry.kind === "role" || entry.kind === "system" || entry.kind === "document")
    .map((entry) => ({ kind: entry.kind as "role" | "system" | "document", name: entry.name }));
  const suggestions = suggestMarks(reading, names, useBrief.getState().content.refused);
  useBrief.getState().set({ suggestions: suggestions.length > 0 ? suggestions : null, current: 0 });
  return suggestions.length;
}

function leave(answered: readonly Suggestion[]): void {
  const { suggestions, current, set } = useBrief.getState();
  const left = (suggestions ?? []).filter((one) => !answered.includes(one));
  set({ suggestions: left.length > 0 ? left : null, current: Math.min(current, Math.max(0, left.length - 1)) });
}

export function acceptSuggestions(editor: Editor, accepted: readonly Suggestion[]): void {
  const type = editor.schema.marks.word;
  if (!type) return;
  const starts = passageStarts(editor.state.doc);
  const change = editor.state.tr;
  for (const { passage, from, to, kind } of accepted) {
    const start = starts[passage] ?? 0;
    change.addMark(start + from, start + to, type.create({ id: nanoid(10), kind }));
  }
  editor.view.dispatch(change);
  leave(accepted);
}

/** A refused suggestion is not made again, for these words as this kind. */
export function refuseSuggestions(refused: readonly Suggestion[]): void {
  const { content, change } = useBrief.getState();
  const words = refused.map((one) => refusalOf(one.kind, one.text));
  change({ refused: [...new Set([...content.refused, ...words])].slice(-10_000) });
  leave(refused);
}
