import { fieldKinds, type Lens, type LensCondition, type LensField } from "@/core/lens";
import { isoSeconds, readDuration } from "@/core/model";
import { timeWords } from "../../controls/units";
import { text } from "../../messages";

const words = text.lenses;

/** What was typed as a value, in the unit a lens compares in; undefined for what cannot be read. */
export function readValue(field: LensField, typed: string): string | number | undefined {
  const plain = typed.trim().replace(",", ".");
  const kind = fieldKinds[field];
  if (kind === "words" || kind === "choice") return plain === "" ? undefined : typed.trim();
  if (kind === "time") {
    const iso = readDuration(plain);
    return iso === undefined ? undefined : isoSeconds(iso);
  }
  const [, number, sign] = /^(\d+(?:\.\d+)?)\s*(%?)$/.exec(plain) ?? [];
  if (number === undefined) return undefined;
  return kind === "share" && (sign === "%" || Number(number) > 1) ? Number(number) / 100 : Number(number);
}

/** A value as one would type it. */
export function valueWords(field: LensField, value: string | number | undefined): string {
  if (value === undefined) return "";
  switch (fieldKinds[field]) {
    case "time":
      return timeWords(Number(value));
    case "share":
      return `${Math.round(Number(value) * 1000) / 10} %`;
    default:
      return String(value);
  }
}

/** A condition as it reads: "waiting time is more than 2 h". */
export function conditionWords({ field, name, test, value }: LensCondition): string {
  const subject = field === "own" ? (name ?? "") : words.fields[field];
  const object =
    test === "isThere" || test === "isMissing"
      ? ""
      : field === "kind"
        ? words.kinds[value as keyof typeof words.kinds]
        : valueWords(field, value);
  const reads = field === "kind" ? [words.tests[test], object] : [subject, words.tests[test], object];
  return reads.filter((part) => part !== "").join(" ");
}

/** A lens as it reads. */
export const sentenceOf = ({ conditions, which, feel }: Pick<Lens, "conditions" | "which" | "feel">): string =>
  words.sentence(conditions.map(conditionWords), which, feel.trim());
