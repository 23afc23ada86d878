import {
  builtInNames,
  builtIns,
  type Expression,
  evaluateExpression,
  FeelFailure,
  FeelRange,
  FeelSyntaxError,
  type FeelValue,
  namesUsed,
  parseExpression,
  parseUnaryTests,
  Scope,
  textOf,
  type UnaryTest,
} from "../feel/language";
import { type Said, say } from "../messages";
import { literalOf } from "./literal";

const scope = new Scope(builtIns());

/** The tests of a cell in plain words: "from 18 to under 65", "not high"; the tests themselves where words would not be plainer. */
export function wordsOfTests(text: string): string {
  if (text === "" || text === "-") return "any";
  try {
    const tests = parseUnaryTests(text, builtInNames);
    if (tests.kind === "any") return "any";
    const words = tests.tests.map(wordsOfTest);
    if (words.includes(undefined)) return text;
    const said = words.join(" or ");
    return tests.kind === "none" ? `not ${said}` : said;
  } catch (error) {
    if (error instanceof FeelSyntaxError) return text;
    throw error;
  }
}

function wordsOfTest(test: UnaryTest): string | undefined {
  const value = constantOf(test.kind === "compare" ? test.to : test.value);
  if (value === undefined) return undefined;
  if (test.kind === "compare") {
    const word = { "<": "under", "<=": "up to", ">": "over", ">=": "from", "=": "", "!=": "not" }[test.operator];
    return `${word} ${plain(value)}`.trim();
  }
  if (!(value instanceof FeelRange)) return plain(value);
  if (value.start === null) return `${value.hasEnd ? "up to" : "under"} ${plain(value.end)}`;
  if (value.end === null) return `${value.hasStart ? "from" : "over"} ${plain(value.start)}`;
  return `${value.hasStart ? "from" : "over"} ${plain(value.start)} to ${value.hasEnd ? "" : "under "}${plain(value.end)}`;
}

/** The cell of an output in plain words: a text without its marks, yes and no; the expression itself where it is worked out. */
export function wordsOfValue(text: string): string {
  try {
    const value = constantOf(parseExpression(text, builtInNames));
    return value === undefined || value === null ? text : plain(value);
  } catch (error) {
    if (error instanceof FeelSyntaxError) return text;
    throw error;
  }
}

function constantOf(expression: Expression): FeelValue | undefined {
  try {
    const value = evaluateExpression(expression, scope);
    return Array.isArray(value) ? undefined : value;
  } catch (error) {
    if (error instanceof FeelFailure) return undefined;
    throw error;
  }
}

/** A value as one would say it; null for what words could be mistaken for something else. */
function plain(value: FeelValue): string {
  if (value === true) return "yes";
  if (value === false) return "no";
  if (value === null) return "nothing";
  if (typeof value === "string")
    return needsMarks.test(value) || !bareText.test(value) || value.trim() !== value ? JSON.stringify(value) : value;
  return String(textOf(value));
}
const needsMarks =
  /^$|["\\\n,()[\]]|\b(?:or|to|and)\b|^(?:not|any|anything|under|over|from|up|at|below|above|less|more|before|after|between|yes|no|true|false|nothing|null)\b|^-?\d|^-?PT?\d|^-$/i;

/** Words that are a text without marks: no sign of the language is in them, which would show that an expression was meant. */
const bareText = /^[\p{L}\p{N}_][^"<>=()[\]{}+*/;:@?,]*$/u;

/** What somebody typed into a cell, as tests; or why it cannot be. */
export type Typed = { readonly text: string } | { readonly problem: Said };

/**
 * Reads what was typed into the cell of an input: tests in FEEL, or plain words ("from 18 to under 65", "high or low", "not high").
 * @param known names that expressions of the file may use
 */
export function typedTests(typed: string, type: string, known: readonly string[]): Typed {
  const words = typed.trim();
  if (words === "" || words === "-") return { text: "-" };
  if (/^(any|anything)$/i.test(words)) return { text: "-" };
  const asTests = readAs(words, known, "tests");
  if (asTests === undefined && !isMeantAsWords(words, type)) return { text: words };
  const reason = asTests ?? "it is no test of one value";
  const negated = /^not\s+(?!\()(.*)$/is.exec(words)?.[1];
  const parts = splitOr(negated ?? words).map((part) => testOf(part.trim(), type, known));
  if (parts.every((part) => part !== undefined)) {
    if (parts.includes("-")) return { text: "-" };
    return { text: negated === undefined ? parts.join(", ") : `not(${parts.join(", ")})` };
  }
  return {
    problem: say`“${words}” is not understood: ${reason}. Write it in FEEL, such as “[1..5]”, or in words, such as “from 1 to under 5”.`,
  };
}

/** What was typed into the cell of an output, or as a default: an expression in FEEL, or a bare word for a text. */
export function typedValue(typed: string, type: string, known: readonly string[]): Typed {
  const words = typed.trim();
  if (words === "" || words === "-") return { text: words };
  const reason = readAs(words, known, "expression");
  if (reason === undefined) return { text: words };
  const value = singleValue(words, type);
  if (value !== undefined) return { text: value };
  return { problem: say`“${words}” is not understood: ${reason}. A text stands in quotation marks.` };
}

/** Why what stands in the cell of an input, or in a list of allowed values, cannot be decided by; undefined where it can. */
export function cellProblem(text: string, known: readonly string[]): Said | undefined {
  const reason = text === "" || text === "-" ? undefined : readAs(text, [...known, "?"], "tests");
  return reason === undefined ? undefined : say`“${text}” is not understood: ${reason}.`;
}
/** Why an expression cannot be worked out; undefined where it can be read. */
export function expressionProblem(text: string, known: readonly string[]): Said | undefined {
  const reason = text === "" || text === "-" ? undefined : readAs(text, known, "expression");
  return reason === undefined ? undefined : say`“${text}” is not understood: ${reason}.`;
}

/** What is FEEL by its grammar, but cannot be meant: a number among texts, or "or" between values, which are no conditions. */
function isMeantAsWords(words: string, type: string): boolean {
  if (type === "string" && /^-?[\d.]+$/.test(words)) return true;
  const parts = splitOr(words.replace(/^not\s+(?!\()/i, ""));
  return (
    /\sor\s/i.test(words) &&
    parts.every((part) => literalOf(part.trim()) !== undefined || /^\s*"(?:[^"\\]|\\.)*"\s*$/.test(part))
  );
}

/** Why words are no FEEL over known names; undefined where they are. */
function readAs(words: string, known: readonly string[], what: "tests" | "expression"): string | undefined {
  try {
    const strange = namesUsed(words, known, what).find(
      (one) => !one.isOwn && !one.isPart && one.name !== "?" && !known.includes(one.name),
    );
    if (strange) return `nothing is known of “${strange.name}”`;
    if (what === "tests") parseUnaryTests(words, known);
    else parseExpression(words, known);
    return undefined;
  } catch (error) {
    if (error instanceof FeelSyntaxError) return error.message;
    throw error;
  }
}

/** Words cut at "or" and at commas, but not inside of quotation marks. */
function splitOr(words: string): string[] {
  const parts: string[] = [""];
  for (const [piece] of words.matchAll(/"(?:[^"\\]|\\.)*"|\s+or\s+|,|[\s\S]/gi))
    if (piece === "," || /^\s+or\s+$/i.test(piece)) parts.push("");
    else parts[parts.length - 1] += piece;
  return parts;
}

const forms: readonly (readonly [RegExp, (values: readonly string[]) => string])[] = [
  [/^(?:from|at least) (.+?) to (?:under|less than|below|before) (.+)$/i, ([a, b]) => `[${a}..${b})`],
  [/^(?:over|more than|above|after) (.+?) to (?:under|less than|below|before) (.+)$/i, ([a, b]) => `(${a}..${b})`],
  [/^(?:over|more than|above|after) (.+?) (?:up )?to (.+)$/i, ([a, b]) => `(${a}..${b}]`],
  [/^(?:from |at least )(.+?) (?:up )?to (.+)$/i, ([a, b]) => `[${a}..${b}]`],
  [/^(\S+) to (?:under|less than|below|before) (.+)$/i, ([a, b]) => `[${a}..${b})`],
  [/^between (.+?) and (.+)$/i, ([a, b]) => `[${a}..${b}]`],
  [/^(?:under|less than|below|before) (.+)$/i, ([a]) => `< ${a}`],
  [/^(?:up to|at most|no more than) (.+)$/i, ([a]) => `<= ${a}`],
  [/^(?:over|more than|above|after) (.+)$/i, ([a]) => `> ${a}`],
  [/^(?:from|at least) (.+)$/i, ([a]) => `>= ${a}`],
];

function testOf(words: string, type: string, known: readonly string[]): string | undefined {
  for (const [form, make] of forms) {
    const found = form.exec(words);
    if (!found) continue;
    const values = found.slice(1).map((one) => orderedValue(one.trim(), known));
    return values.includes(undefined) ? undefined : make(values as string[]);
  }
  // A range by its two ends alone, where they are numbers or days.
  const ends = /^(.+?) to (.+)$/i
    .exec(words)
    ?.slice(1)
    .map((one) => orderedValue(one.trim(), known));
  if (ends && !ends.includes(undefined)) return `[${ends.join("..")}]`;
  const isText = type === "string" && /^-?[\d.]+$/.test(words);
  return !isText && readAs(words, known, "tests") === undefined ? words : singleValue(words, type);
}

/** A value that has an order: a number, a day, a length of time, or data. */
function orderedValue(words: string, known: readonly string[]): string | undefined {
  const literal = literalOf(words);
  if (literal !== undefined) return literal;
  return readAs(words, known, "expression") === undefined ? words : undefined;
}

/** A single value as FEEL has it. */
function singleValue(words: string, type: string): string | undefined {
  if (type === "boolean" || type === "") {
    if (/^(yes|true)$/i.test(words)) return "true";
    if (/^(no|false)$/i.test(words)) return "false";
  }
  if (/^nothing$/i.test(words)) return "null";
  const literal = type === "string" ? undefined : literalOf(words);
  if (literal !== undefined) return literal;
  if (type !== "string" && type !== "" && /^(number|boolean|date|time|date and time|dateTime|.*duration)$/i.test(type))
    return undefined;
  return bareText.test(words) ? JSON.stringify(words) : undefined;
}
