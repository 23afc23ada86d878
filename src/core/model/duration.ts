const units: readonly (readonly [pattern: RegExp, letter: string, inTime: boolean])[] = [
  [/^(?:weeks?|wk?s?|wochen?)$/i, "W", false],
  [/^(?:days?|d|tage?n?)$/i, "D", false],
  [/^(?:hours?|hrs?|h|stunden?|std)$/i, "H", true],
  [/^(?:minutes?|mins?|m|'|minuten)$/i, "M", true],
  [/^(?:seconds?|secs?|s|sekunden?|sek)$/i, "S", true],
];
const words: { readonly [letter: string]: readonly [one: string, more: string] } = {
  W: ["week", "weeks"],
  D: ["day", "days"],
  H: ["h", "h"],
  M: ["min", "min"],
  S: ["s", "s"],
};

const amountAndUnit = /(\d+(?:\.\d+)?)\s*([a-z']+)/gi;

/**
 * A duration as people write it, in English or German, as ISO 8601: "30 min", "1 h 30 min", "1.5 h", "2 days", "2 Tage", "90" (minutes), or
 * ISO 8601 itself.
 * @returns undefined for words that are no duration
 */
export function readDuration(text: string): string | undefined {
  const typed = text.trim().replaceAll(",", ".");
  const iso = typed.toUpperCase();
  if (isoSeconds(iso) !== undefined) return iso;
  if (/^\d+(?:\.\d+)?$/.test(typed)) return written(new Map([["M", Number(typed)]]));
  const parts = [...typed.matchAll(amountAndUnit)];
  const rest = typed.replace(amountAndUnit, "").replace(/\b(?:and|und)\b|[.\s]/g, "");
  if (parts.length === 0 || rest !== "") return undefined;
  const amounts = new Map<string, number>();
  for (const [, count, unit] of parts) {
    const known = units.find(([pattern]) => pattern.test(unit as string));
    if (!known) return undefined;
    const [, letter, inTime] = known;
    const amount = Number(count);
    // A part of a day or week is told in hours, which every reader of ISO 8601 takes.
    const inHours = !inTime && !Number.isInteger(amount);
    const [said, of] = inHours ? [amount * (letter === "W" ? 168 : 24), "H"] : [amount, letter];
    amounts.set(of, (amounts.get(of) ?? 0) + said);
  }
  return written(amounts);
}

/** Amounts by their unit as ISO 8601, the larger units first as it wants them, whatever the order they were said in. */
function written(amounts: ReadonlyMap<string, number>): string | undefined {
  // Beyond that a number is not written out in digits, and nobody waits as long.
  if ([...amounts.values()].some((amount) => amount > 1e12)) return undefined;
  const part = (isTime: boolean) =>
    units
      .filter(([, letter, inTime]) => inTime === isTime && amounts.has(letter))
      .map(([, letter]) => `${(amounts.get(letter) as number).toFixed(9).replace(/\.?0+$/, "")}${letter}`)
      .join("");
  const time = part(true);
  return `P${part(false)}${time && `T${time}`}`;
}

/** A duration in words: "PT1H30M" is "1 h 30 min". What is no plain duration stays as it is written. */
export function durationWords(iso: string): string {
  const match = /^P((?:\d+(?:\.\d+)?[WD])*)(?:T((?:\d+(?:\.\d+)?[HMS])*))?$/.exec(iso);
  if (!match) return iso;
  return [...`${match[1] ?? ""}${match[2] ?? ""}`.matchAll(/(\d+(?:\.\d+)?)([WDHMS])/g)]
    .map(([, count, letter]) => `${count} ${words[letter as string]?.[count === "1" ? 0 : 1]}`)
    .join(" ");
}

/**
 * An ISO 8601 duration in seconds; years count 365 days and months 30, since no date is at hand to count them from.
 * @returns undefined for what is none
 */
export function isoSeconds(iso: string): number | undefined {
  const found =
    /^P(?=.)(?:(\d+(?:\.\d+)?)Y)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)W)?(?:(\d+(?:\.\d+)?)D)?(?:T(?=.)(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)S)?)?$/.exec(
      iso.trim(),
    );
  if (!found) return undefined;
  const each = [365 * 86_400, 30 * 86_400, 7 * 86_400, 86_400, 3600, 60, 1];
  return found.slice(1).reduce((sum, count, at) => sum + Number(count ?? 0) * (each[at] as number), 0);
}

/** A length of time that was measured, in the unit one would say it in: "12 min", "2.5 h", "1.4 days" of 24 hours. */
export function spanWords(seconds: number): string {
  const decimal = (value: number) => String(Number(value.toPrecision(3)));
  const size = Math.abs(seconds);
  if (size >= 1.5 * 86_400) return `${decimal(seconds / 86_400)} days`;
  if (size >= 1.5 * 3600) return `${decimal(seconds / 3600)} h`;
  return `${decimal(seconds / 60)} min`;
}
