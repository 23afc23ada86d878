import { buildAll } from "../buildAll";
import { type BriefNode, emptyBrief, type Mark, type MarkKind, markKinds } from "../document";
import { markAll } from "../markAll";
import { markedText } from "../markedText";
import { type BriefReading, readBrief } from "../sentences";
import { suggestMarks } from "../suggest/suggest";
import { thingKey } from "../wording";
import { type Fact, type FactKind, factKinds, factsHeld } from "./facts";

/** Right, missing and too many marks of a kind. */
export interface MarkScore {
  readonly right: number;
  readonly missing: readonly string[];
  readonly tooMany: readonly string[];
}

export interface TextScore {
  readonly marks: { readonly [kind in MarkKind]: MarkScore };
  /** With the marks made by hand, and with those suggested for the same words. */
  readonly marked: readonly Fact[];
  readonly unmarked: readonly Fact[];
}

const bracketed = new RegExp(`\\[(?:${markKinds.join("|")})(?:#[^:\\s]+)?:\\s*`, "g");

/** A text without the marks made in it by hand. */
export const withoutMarks = (text: string): string => text.replace(bracketed, "").replaceAll("]", "");

/** Measures how well a text of the corpus is read. Behind the words, below a line "--- facts", stands what is to be built. */
export function measure(file: string): TextScore {
  const [words = "", facts = ""] = file.split(/^--- facts$/m);
  const byHand = markedText(words);
  const plain = markedText(withoutMarks(words));
  const suggested = markAll(plain, suggestMarks(readBrief(plain), [], []));
  return {
    marks: marksCompared(readBrief(byHand), readBrief(suggested)),
    marked: factsHeld(builtFrom(byHand), facts),
    unmarked: factsHeld(builtFrom(suggested), facts),
  };
}

function builtFrom(document: BriefNode) {
  const built = buildAll({ ...emptyBrief, document }, false);
  // What cannot be built holds no fact.
  if (!built.ok) return [];
  return built.value.map(({ model }) => model);
}

/** People, systems and documents are compared by name, other marks by place: they speak of the same where they overlap. */
function marksCompared(wanted: BriefReading, found: BriefReading): TextScore["marks"] {
  const score = (kind: MarkKind): MarkScore => {
    const isThing = kind === "role" || kind === "party" || kind === "system" || kind === "document";
    const own = (reading: BriefReading) => {
      const marks = reading.marks.filter((mark) => mark.kind === kind);
      return isThing ? [...new Map(marks.map((mark) => [thingKey(mark.text), mark])).values()] : marks;
    };
    const isSame = (one: Mark, other: Mark) =>
      isThing
        ? thingKey(one.text) === thingKey(other.text)
        : one.passage === other.passage && one.from < other.to && other.from < one.to;
    const left = [...own(found)];
    const missing: string[] = [];
    let right = 0;
    for (const mark of own(wanted)) {
      const at = left.findIndex((other) => isSame(mark, other));
      if (at < 0) missing.push(mark.text);
      else {
        left.splice(at, 1);
        right++;
      }
    }
    return { right, missing, tooMany: left.map((mark) => mark.text) };
  };
  return Object.fromEntries(markKinds.map((kind) => [kind, score(kind)])) as TextScore["marks"];
}

export interface Share {
  readonly right: number;
  readonly of: number;
  readonly share: number;
}

/** Several texts together: marks (twice the right ones of all wanted and found, the F1 measure), facts, and both by kind. */
export function totalOf(scores: readonly TextScore[]) {
  const part = (right: number, of: number): Share => ({ right, of, share: of === 0 ? 1 : right / of });
  const marksOf = (kinds: readonly MarkKind[]) => {
    const all = scores.flatMap((score) => kinds.map((kind) => score.marks[kind]));
    const right = all.reduce((sum, one) => sum + one.right, 0);
    const wrong = all.reduce((sum, one) => sum + one.missing.length + one.tooMany.length, 0);
    return part(2 * right, 2 * right + wrong);
  };
  const factsOf = (which: "marked" | "unmarked", kinds: readonly FactKind[]) => {
    const all = scores.flatMap((score) => score[which]).filter((fact) => kinds.includes(fact.kind));
    return part(all.filter((fact) => fact.holds).length, all.length);
  };
  return {
    marks: marksOf(markKinds),
    marked: factsOf("marked", factKinds),
    unmarked: factsOf("unmarked", factKinds),
    byMark: markKinds.map((kind) => [kind, marksOf([kind])] as const),
    byFact: factKinds.map((kind) => [kind, factsOf("marked", [kind]), factsOf("unmarked", [kind])] as const),
  };
}
