import type { Editor } from "@tiptap/react";
import type { BriefReading, OpenQuestion } from "@/core/brief";
import { showSentence } from "./pageActions";

/** Where the answers to a question stand in the panel. */
export const questionPlace = (id: string): string => `question-${id}`;

/** Puts the keyboard on the first answer of a question. */
export function focusQuestion(id: string): void {
  const place = document.getElementById(questionPlace(id));
  place?.scrollIntoView({ block: "nearest" });
  place?.querySelector<HTMLElement>("[data-answer]")?.focus();
}

/** Shows the sentence that leaves something open, and puts the keyboard on the answers. */
export function showQuestion(editor: Editor, reading: BriefReading, question: OpenQuestion): void {
  showSentence(editor, reading, question.sentence);
  requestAnimationFrame(() => focusQuestion(question.id));
}
