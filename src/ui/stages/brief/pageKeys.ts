import type { Editor } from "@tiptap/react";
import { useBrief } from "../../version/briefStore";
import { kindOfLetter } from "./markKeys";
import { acceptSuggestions, markWords, refuseSuggestions, removeMarksHere, takeSelection } from "./pageActions";

interface PageGestures {
  readonly suggest: () => void;
  readonly nextOpen: () => void;
  readonly nextQuestion: () => void;
  readonly comment: () => void;
}

const moving = [
  "ArrowLeft",
  "ArrowRight",
  "ArrowUp",
  "ArrowDown",
  "Home",
  "End",
  "PageUp",
  "PageDown",
  "Shift",
  "Control",
  "Alt",
  "Meta",
];

/**
 * Keys on the page. While one marks, a letter marks and nothing is typed; while one writes, the same letters with Alt. F2 changes
 * between the two. With suggestions open, Enter accepts, Backspace refuses, Tab goes on. Tells whether the key is used up.
 */
export function onPageKey(event: KeyboardEvent, editor: Editor, gestures: PageGestures): boolean {
  const { mode, suggestions, current, set } = useBrief.getState();
  if (event.key === "F2") {
    set({ mode: mode === "write" ? "mark" : "write" });
    return true;
  }
  const one = suggestions?.[current];
  if (suggestions && one && !event.ctrlKey && !event.metaKey && !event.altKey) {
    if (event.key === "Enter") acceptSuggestions(editor, event.shiftKey ? suggestions : [one]);
    else if (event.key === "Backspace" || event.key === "Delete") refuseSuggestions([one]);
    else if (event.key === "Tab")
      set({ current: (current + (event.shiftKey ? suggestions.length - 1 : 1)) % suggestions.length });
    else if (event.key === "Escape") set({ suggestions: null });
    else if (!moving.includes(event.key)) return mode === "mark";
    else return false;
    event.preventDefault();
    return true;
  }
  if (event.key === "Escape" && mode === "write") {
    set({ mode: "mark", selected: null });
    return true;
  }
  if (event.ctrlKey || event.metaKey) return false;
  if (mode === "mark" || event.altKey) {
    const letter = event.altKey ? event.code.replace(/^Key/, "") : event.key;
    const kind = kindOfLetter(letter);
    if (!moving.includes(event.key)) takeSelection(editor);
    if (kind) markWords(editor, kind);
    else if (letter.toUpperCase() === "G") gestures.suggest();
    else if (letter.toUpperCase() === "U") gestures.nextOpen();
    else if (letter.toUpperCase() === "Q") gestures.nextQuestion();
    else if (letter.toUpperCase() === "K") gestures.comment();
    else if (mode === "mark" && (event.key === "Backspace" || event.key === "Delete" || letter.toUpperCase() === "X"))
      removeMarksHere(editor);
    else if (event.altKey) return false;
    else return !moving.includes(event.key) && event.key !== "Tab";
    event.preventDefault();
    return true;
  }
  return false;
}
