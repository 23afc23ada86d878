import { Decoration } from "@tiptap/pm/view";
import type { BriefReading, Frame, Suggestion } from "@/core/brief";
import { text } from "../../messages";
import { aboutOf, commentOn } from "../../version/comments/store";
import { kindLetters, kindWords } from "./markKeys";

interface SignsOf {
  readonly reading: BriefReading;
  readonly starts: readonly number[];
  /** The number of the process each sentence belongs to; undefined for background. */
  readonly numbers: readonly (number | undefined)[];
  readonly frames: readonly Frame[];
  /** What each sentence leaves open: the question's id and words. */
  readonly questions: ReadonlyMap<number, { readonly id: string; readonly words: string }>;
  readonly openSentences: ReadonlySet<number>;
  /** How many threads are open about a sentence, by what it says. */
  readonly talkedOf: ReadonlyMap<string, number>;
  readonly linked: ReadonlySet<string>;
  readonly suggestions: readonly Suggestion[] | null;
  readonly current: number;
  readonly selected: string | null;
}

/** Everything that is shown on the page beside its text. */
export function pageSigns(from: SignsOf): Decoration[] {
  const { reading, starts, numbers } = from;
  const signs: Decoration[] = [];
  const at = (passage: number, offset: number) => (starts[passage] ?? 0) + offset;
  let last: number | undefined;
  let lastPassage = -1;
  for (const sentence of reading.sentences) {
    const number = numbers[sentence.at];
    const [start, end] = [at(sentence.passage, sentence.from), at(sentence.passage, sentence.to)];
    if (from.openSentences.has(sentence.at))
      signs.push(Decoration.inline(start, end, { class: "open-sentence", title: text.brief.openSentence }));
    if (number !== undefined && (number !== last || sentence.passage !== lastPassage))
      signs.push(
        Decoration.widget(start, () => badge(number, sentence.at, from.frames[number - 1]?.name ?? ""), {
          side: -2,
          key: `process-${number}-${sentence.at}-${sentence.passage !== lastPassage}`,
          ignoreSelection: true,
        }),
      );
    const threads = from.talkedOf.get(sentence.text.slice(0, 2_000)) ?? 0;
    if (threads > 0)
      signs.push(
        Decoration.widget(end, () => commentSign(sentence.text, threads), {
          side: 2,
          key: `comments-${sentence.at}-${threads}`,
          ignoreSelection: true,
        }),
      );
    const asked = from.questions.get(sentence.at);
    if (asked) {
      signs.push(Decoration.inline(start, end, { class: "asked-sentence" }));
      signs.push(
        Decoration.widget(end, () => questionSign(asked), { side: 1, key: `asked-${asked.id}`, ignoreSelection: true }),
      );
    }
    last = number;
    lastPassage = sentence.passage;
  }
  for (const mark of reading.marks) {
    const [start, end] = [at(mark.passage, mark.from), at(mark.passage, mark.to)];
    signs.push(
      Decoration.widget(start, () => letter(mark.kind), {
        side: -1,
        key: `letter-${mark.id}-${mark.kind}`,
        ignoreSelection: true,
      }),
    );
    if (mark.id === from.selected) signs.push(Decoration.inline(start, end, { class: "word-selected" }));
    if (from.linked.has(mark.id)) signs.push(Decoration.inline(start, end, { class: "word-linked" }));
  }
  from.suggestions?.forEach((suggestion, index) => {
    const [start, end] = [at(suggestion.passage, suggestion.from), at(suggestion.passage, suggestion.to)];
    const current = index === from.current ? " suggested-current" : "";
    signs.push(
      Decoration.inline(start, end, {
        class: `suggested${current}`,
        title: `${kindWords(suggestion.kind)}: ${suggestion.reason}`,
      }),
    );
  });
  return signs;
}

function badge(number: number, sentence: number, name: string): HTMLElement {
  const element = document.createElement("button");
  element.type = "button";
  element.className = "process-badge";
  element.textContent = String(number);
  element.dataset.sentence = String(sentence);
  element.setAttribute("aria-label", text.brief.belongsTo(name));
  element.title = text.brief.belongsTo(name);
  element.contentEditable = "false";
  return element;
}

function questionSign({ id, words }: { readonly id: string; readonly words: string }): HTMLElement {
  const element = document.createElement("button");
  element.type = "button";
  element.className = "question-sign";
  element.textContent = "?";
  element.dataset.asked = id;
  element.setAttribute("aria-label", words);
  element.title = words;
  element.contentEditable = "false";
  return element;
}

function commentSign(sentence: string, threads: number): HTMLElement {
  const element = document.createElement("button");
  element.type = "button";
  element.className = "comment-sign";
  element.textContent = String(threads);
  element.title = text.comments.onOpen(sentence, threads);
  element.setAttribute("aria-label", element.title);
  element.contentEditable = "false";
  element.addEventListener("click", () => commentOn(aboutOf("sentence", sentence, sentence)));
  return element;
}

function letter(kind: keyof typeof kindLetters): HTMLElement {
  const element = document.createElement("span");
  element.className = "word-letter";
  element.textContent = kindLetters[kind];
  element.title = kindWords(kind);
  element.contentEditable = "false";
  return element;
}
