/**
 * What core says to people: a code and its data, and the English sentence they make. The code is the sentence with places for its data
 * (`{0} has no name.`), so that a rule keeps its words beside what it finds; another language is a table from codes to sentences with
 * the same places. Data that are words themselves (what an element is called, a list) are said in the same way, and so are put into the
 * other language with it.
 */
export interface Said {
  readonly code: string;
  readonly data?: readonly Datum[];
  /** The sentence in English. */
  readonly text: string;
  /** It begins a sentence, whatever it begins with. */
  readonly isCapital?: true;
}

/** A name that is set apart in the sentence, as in bold. */
export interface Name {
  readonly name: string;
}

export type Datum = string | number | Said | Name;

/** A language besides English: sentences by code, with the same places, each as often as it is needed. */
export type Sentences = ReadonlyMap<string, string>;

const textOf = (datum: Datum): string =>
  typeof datum !== "object" ? String(datum) : "name" in datum ? datum.name : datum.text;

/** Says a sentence: `say\`${name} has no end.\`` */
export function say(texts: TemplateStringsArray, ...data: readonly Datum[]): Said {
  const code = texts.map((words, at) => (at === 0 ? words : `{${at - 1}}${words}`)).join("");
  const text = texts.map((words, at) => (at === 0 ? words : textOf(data[at - 1] as Datum) + words)).join("");
  return data.length > 0 ? { code, data, text } : { code, text };
}

/** Something of many that are listed in a table of words ("user task"), by its word in English. */
export const term = (word: string): Said => ({ code: word, text: word });

const upper = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The same as the beginning of a sentence. */
export const capital = (said: Said): Said => ({ ...said, text: upper(said.text), isCapital: true });

/** Sentences one after the other. */
export const together = (sentences: readonly Said[]): Said =>
  sentences.reduce((all, next) => (all.text === "" ? next : say`${all} ${next}`), term(""));

/** "A", "A and B", "A, B and C", or with another word between the last two. */
export function listOf(items: readonly Datum[], last: "and" | "or" = "and"): Said {
  const [first = "", second, ...more] = items;
  if (second === undefined) return say`${first}`;
  if (more.length > 0) return say`${first}, ${listOf([second, ...more], last)}`;
  return last === "and" ? say`${first} and ${second}` : say`${first} or ${second}`;
}

/** The same; more than four are counted. */
export const shortListOf = (items: readonly Datum[], last: "and" | "or" = "and"): Said =>
  items.length > 4 ? say`${withCommas(items.slice(0, 3))} and ${items.length - 3} more` : listOf(items, last);

/** "A, B, C": the beginning of a longer list. */
export const withCommas = (items: readonly Datum[]): Said =>
  items.map((item) => say`${item}`).reduce((all, next) => say`${all}, ${next}`);

const english: Sentences = new Map();

/** What was said, in pieces of text and names; a sentence that the language lacks stays in English. */
export function partsOf(
  { code, data, text, isCapital }: Said,
  sentences: Sentences = english,
): readonly (string | Name)[] {
  // What stands outside the table, such as a label that somebody wrote, is what it is.
  const parts = data ? placed(sentences.get(code) ?? code, data, sentences) : [sentences.get(code) ?? text];
  const [first, ...rest] = parts;
  return isCapital && typeof first === "string" ? [upper(first), ...rest] : parts;
}

function placed(sentence: string, data: readonly Datum[], sentences: Sentences): (string | Name)[] {
  return sentence.split(/(\{\d+\})/).flatMap((piece): readonly (string | Name)[] => {
    const at = /^\{(\d+)\}$/.exec(piece)?.[1];
    const datum = at === undefined ? piece : (data[Number(at)] ?? "");
    if (typeof datum !== "object") return datum === "" ? [] : [String(datum)];
    return "name" in datum ? [datum] : partsOf(datum, sentences);
  });
}

/** What was said, in a language. */
export const inLanguage = (said: Said, sentences: Sentences): string =>
  partsOf(said, sentences)
    .map((part) => (typeof part === "string" ? part : part.name))
    .join("");
