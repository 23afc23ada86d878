import { Decimal, type FeelValue, readTemporal, textOf } from "../feel/language";

/** A number, a day, a point in time or a length of time as one writes it, as a literal of FEEL; undefined for anything else. */
export function literalOf(words: string): string | undefined {
  if (/^-?\d+(\.\d+)?$/.test(words)) return words;
  const named = /^(\d+(?:\.\d+)?) (second|minute|hour|day|week|month|year)s?$/i.exec(words);
  if (named) {
    const [, count = "", unit = ""] = named;
    const short = unit.toLowerCase();
    if (short === "week") return `@"P${Number(count) * 7}D"`;
    if (count.includes(".") && short !== "second") return undefined;
    const sign = short[0]?.toUpperCase() as string;
    return `@"P${/^(second|minute|hour)$/.test(short) ? "T" : ""}${count}${sign}"`;
  }
  return readTemporal(words) === undefined || !/^(-?P|\d{4}-|\d\d:\d\d)/.test(words) ? undefined : `@"${words}"`;
}

/** A value as a literal of FEEL. */
export const literalFor = (value: FeelValue): string =>
  typeof value === "string" || typeof value === "boolean" || value === null || value instanceof Decimal
    ? (textOf(value, true) ?? "null")
    : `@"${textOf(value)}"`;
