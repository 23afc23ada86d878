import type { Mark } from "./document";
import type { Thing } from "./frames";
import type { BriefReading, Sentence } from "./sentences";
import { placeOf } from "./suggest/suggest";
import { thingKey, thingName } from "./wording";

/** A thing that is marked somewhere, standing in a sentence. */
export interface Mention extends Thing {
  readonly kind: "role" | "party" | "system" | "document";
  readonly from: number;
  readonly to: number;
}

const thingKinds = ["role", "party", "system", "document"] as const;

/** Who and what the sentences speak of: things count wherever their name stands, also where only one place of it is marked. */
export class Subjects {
  readonly #things = new Map<string, { kind: Mention["kind"]; name: string; marks: string[]; words: string[] }>();
  readonly #sentences: readonly Sentence[];
  readonly #known = new Map<number, readonly Mention[]>();

  constructor(reading: BriefReading) {
    this.#sentences = reading.sentences;
    for (const mark of reading.marks) {
      const kind = thingKinds.find((one) => one === mark.kind);
      if (!kind) continue;
      const key = `${kind}\n${thingKey(mark.text)}`;
      const known = this.#things.get(key);
      if (!known) this.#things.set(key, { kind, name: thingName(mark.text), marks: [mark.id], words: [mark.text] });
      else {
        known.marks.push(mark.id);
        if (!known.words.includes(mark.text)) known.words.push(mark.text);
      }
    }
    // "The engineer" is the network engineer, where there is only one.
    const all = [...this.#things.values()];
    const doers = all.filter((thing) => thing.kind !== "document");
    for (const thing of doers) {
      const short = shortName(thing.name);
      if (short && doers.filter((other) => thingKey(other.name).endsWith(short)).length === 1) thing.words.push(short);
    }
  }

  named(kind: Mention["kind"]): Thing[] {
    return [...this.#things.values()].filter((thing) => thing.kind === kind);
  }

  /** What a sentence names, from left to right; of names within names the longest. */
  mentionsIn(sentence: Sentence): readonly Mention[] {
    const found = this.#known.get(sentence.at) ?? this.#find(sentence.text);
    this.#known.set(sentence.at, found);
    return found;
  }

  #find(text: string): Mention[] {
    const lower = text.toLowerCase();
    const all: Mention[] = [];
    for (const { kind, name, marks, words } of this.#things.values()) {
      for (const word of new Set([name, ...words.map((one) => one.toLowerCase())])) {
        for (let from = 0; ; ) {
          const place = placeOf(lower.slice(from), word);
          if (!place) break;
          all.push({ kind, name, marks, from: from + place.from, to: from + place.to });
          from += place.to;
        }
      }
    }
    all.sort((a, b) => a.from - b.from || b.to - a.to);
    return all.filter(
      (one, at) =>
        !all.some(
          (other, before) =>
            before !== at &&
            other.from <= one.from &&
            other.to >= one.to &&
            (other.to - other.from > one.to - one.from || before < at),
        ),
    );
  }

  partiesIn(sentences: readonly Sentence[]): Thing[] {
    return distinct(
      sentences.flatMap((sentence) => this.mentionsIn(sentence).filter((mention) => mention.kind === "party")),
    );
  }

  partiesInWords(words: string): Thing[] {
    return distinct(this.#find(words).filter((mention) => mention.kind === "party"));
  }

  /** Who does what an activity's words say: who is named before it in its sentence, or behind "by", or last where it says "she". */
  of(sentence: Sentence, activity: Mark): Mention | undefined {
    const at = activity.from - sentence.from;
    const end = activity.to - sentence.from;
    const mentions = this.mentionsIn(sentence);
    const before = mentions.filter((mention) => mention.to <= at);
    // What is done by somebody, whoever was spoken of before.
    const by = mentions.find(
      (mention) =>
        mention.from >= at &&
        mention.from < end + 24 &&
        /\bby\s+(?:the\s+|an?\s+|our\s+)?$/i.test(sentence.text.slice(at, mention.from)),
    );
    if (by && by.kind !== "document") return by;
    const right = before.at(-1);
    if (
      right?.kind === "system" &&
      /^\s*(?:then\s+|also\s+|automatically\s+)*$/i.test(sentence.text.slice(right.to, at))
    )
      return right;
    const person = before.findLast(
      (mention) => (mention.kind === "role" || mention.kind === "party") && !this.#isObject(sentence, mention),
    );
    const pronoun = /(?:^|[,;]\s*|\b(?:and|then|afterwards|so|if\s+\p{L}+,)\s+)(?:he|she|they|it)\b[^,;]*$/iu.test(
      sentence.text.slice(0, at),
    );
    if (person && !(pronoun && person.kind === "party")) return person;
    return pronoun || !person ? (pronoun ? this.#spokenOfBefore(sentence) : undefined) : person;
  }

  /** "asks the household": who is named right behind a verb or "to" has something done to them. */
  #isObject(sentence: Sentence, mention: Mention): boolean {
    const before = sentence.text.slice(0, mention.from);
    return (
      /\b(?:to|with|for|from|of|at|by|in)\s+(?:the\s+|an?\s+|its\s+|our\s+)?$/i.test(before) ||
      sentence.marks.some(
        (mark) =>
          mark.kind === "activity" && mark.from - sentence.from < mention.from && mark.to - sentence.from >= mention.to,
      )
    );
  }

  #spokenOfBefore(sentence: Sentence): Mention | undefined {
    for (let at = sentence.at - 1; at >= 0; at--) {
      const earlier = this.#sentences[at];
      if (earlier?.passage !== sentence.passage) return undefined;
      const person = this.mentionsIn(earlier).find(
        (mention) => mention.kind === "role" && !this.#isObject(earlier, mention),
      );
      if (person) return person;
    }
    return undefined;
  }
}

/** The last word of a longer name. */
export const shortName = (name: string): string | undefined =>
  name.includes(" ") ? thingKey(name).slice(thingKey(name).lastIndexOf(" ") + 1) : undefined;

function distinct(mentions: readonly Mention[]): Thing[] {
  return [...new Map(mentions.map((mention) => [mention.name, mention])).values()];
}
