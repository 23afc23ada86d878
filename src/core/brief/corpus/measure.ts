import { buildAll } from "../buildAll";
import { type BriefNode, emptyBrief, type Mark, type MarkKind, markKinds } from "../document";
import { markAll } from "../markAll";
import { markedText } from "../markedText";
import { type BriefReading, readBrief } from "../sentences";
import { suggestMarks } from "../suggest";
import { thingKey } from "../wording";
import { type Fact, factsHeld } from "./facts";

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

/** Of what was wanted or found, the share that was both. */
export const shareOf = ({ right, missing, tooMany }: MarkScore): number =>
  right + missing.length + tooMany.length === 0 ? 1 : (2 * right) / (2 * right + missing.length + tooMany.length);
