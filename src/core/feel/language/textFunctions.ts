import { type Answer, type Entry, givenList, letters, none, of, text, whole } from "./answers";
import type { FeelValue } from "./values";

/** A repeated group that is itself repeated: matching it can take time without bound, and cannot be called off. */
const nestedRepetition = /\([^()]*[+*}][^()]*\)[+*{]|\\\d/;

/** An expression of XPath as the platform reads it: the flags s, m, i and x. */
function pattern(source: string, flags = "", more = ""): RegExp | undefined {
  if (!/^[smix]*$/.test(flags) || nestedRepetition.test(source)) return undefined;
  const plain = flags.includes("x") ? source.replace(/\s+/g, "") : source;
  try {
    return new RegExp(plain, `${flags.replace("x", "")}${more}u`);
  } catch {
    return undefined;
  }
}

function textTest(value: FeelValue, match: FeelValue, test: (a: string, b: string) => boolean): Answer {
  const [a, b] = [text(value), text(match)];
  return a === undefined || b === undefined ? none : test(a, b);
}

/** Functions of texts (DMN 1.5, 10.3.4.3; from memory). */
export const textFunctions: readonly Entry[] = [
  [
    "substring",
    "string, start position, length",
    (value, start, length) => {
      const [words, from] = [text(value), whole(start)];
      if (words === undefined || from === undefined || from === 0) return none;
      const all = letters(words);
      const at = from < 0 ? all.length + from : from - 1;
      const count = length === undefined || length === null ? undefined : whole(length);
      return all.slice(at, count === undefined ? undefined : at + count).join("");
    },
  ],
  ["string length", "string", (value) => (text(value) === undefined ? none : of(letters(value as string).length))],
  ["upper case", "string", (value) => text(value)?.toUpperCase() ?? none],
  ["lower case", "string", (value) => text(value)?.toLowerCase() ?? none],
  [
    "substring before",
    "string, match",
    (value, match) => {
      const [words, part] = [text(value), text(match)];
      if (words === undefined || part === undefined) return none;
      return words.includes(part) ? words.slice(0, words.indexOf(part)) : "";
    },
  ],
  [
    "substring after",
    "string, match",
    (value, match) => {
      const [words, part] = [text(value), text(match)];
      if (words === undefined || part === undefined) return none;
      return words.includes(part) ? words.slice(words.indexOf(part) + part.length) : "";
    },
  ],
  [
    "replace",
    "input, pattern, replacement, flags",
    (input, source, by, flags) => {
      const [words, replacement] = [text(input), text(by)];
      const found = pattern(text(source) ?? "(", text(flags ?? null) ?? "", "g");
      return words === undefined || replacement === undefined || !found
        ? none
        : words.replace(found, replacement.replace(/\$0/g, "$$&"));
    },
  ],
  ["contains", "string, match", (value, match) => textTest(value, match, (a, b) => a.includes(b))],
  ["starts with", "string, match", (value, match) => textTest(value, match, (a, b) => a.startsWith(b))],
  ["ends with", "string, match", (value, match) => textTest(value, match, (a, b) => a.endsWith(b))],
  [
    "matches",
    "input, pattern, flags",
    (input, source, flags) => {
      const found = pattern(text(source) ?? "(", text(flags ?? null) ?? "");
      return text(input) === undefined || !found ? none : found.test(input as string);
    },
  ],
  [
    "split",
    "string, delimiter",
    (value, delimiter) => {
      const found = pattern(text(delimiter) ?? "(");
      return text(value) === undefined || !found ? none : (value as string).split(found);
    },
  ],
  [
    "string join",
    "list, delimiter",
    (list, delimiter) => {
      const items = givenList(list)?.filter((one) => one !== null);
      return items?.every((one) => typeof one === "string") ? items.join(text(delimiter ?? null) ?? "") : none;
    },
  ],
];
