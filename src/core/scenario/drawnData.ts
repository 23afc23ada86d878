import { type Said, say } from "../messages";
import { type Chance, type Distribution, draw, faultOf } from "./distributions";
import { readSaid, saidOf } from "./said";

export type DrawnValue = string | number | boolean;

/** How a piece of data is spread over cases: values with their shares, or a number that is spread. */
export type Spread =
  | { readonly kind: "values"; readonly points: readonly { readonly share: number; readonly value: DrawnValue }[] }
  | Distribution;

/** A piece of data that is drawn for each case, by its path: "Connection application.rated power". */
export interface DrawnData {
  readonly path: string;
  readonly spread: Spread;
}

/** What kind of value is drawn, where that is known; what else there is, is drawn as its words. */
export type DrawnKind = "number" | "yesNo" | "text" | undefined;

/** Why a spread is none; undefined where it is one. */
export function faultOfSpread(spread: Spread): Said | undefined {
  if (spread.kind !== "values") return faultOf(spread);
  if (spread.points.length === 0) return say`it has no values`;
  if (spread.points.some(({ share }) => !(share >= 0 && Number.isFinite(share)))) return say`a share is below 0`;
  return spread.points.some(({ share }) => share > 0) ? undefined : say`all its shares are 0`;
}

/** One value by chance; shares are taken in proportion. O(values). */
export function drawValue(spread: Spread, from: Chance): DrawnValue {
  if (spread.kind !== "values") return draw(spread, from);
  let left = from.next() * spread.points.reduce((sum, { share }) => sum + share, 0);
  for (const { share, value } of spread.points) {
    if (left < share) return value;
    left -= share;
  }
  return (spread.points.findLast(({ share }) => share > 0) ?? { value: "" }).value;
}

const yes = /^(?:yes|true)$/i;
const no = /^(?:no|false)$/i;

function typedValue(typed: string, kind: DrawnKind): DrawnValue | undefined {
  const words = typed.trim().replace(/^"(.*)"$/, "$1");
  if (words === "") return undefined;
  const isNumber = /^-?\d+(?:[.,]\d+)?$/.test(words);
  if (kind === "number") return isNumber ? Number(words.replace(",", ".")) : undefined;
  if (kind === "yesNo" || kind === undefined) {
    if (yes.test(words)) return true;
    if (no.test(words)) return false;
    if (kind === "yesNo") return undefined;
  }
  return kind === undefined && isNumber ? Number(words.replace(",", ".")) : words;
}

/**
 * Shares as people say them: "60 % pitched, 30 % flat, 10 % ground", "20 % yes" (the others no), "yes"; a number also in the words of
 * every other figure: "5 to 30", "12 ± 4", "70 % 5, 30 % 12". A value in quotes may hold a comma.
 * @returns undefined for words that are none of these, whose values are not of the kind, or whose shares do not sum to 100 %
 */
export function readSpread(typed: string, kind: DrawnKind): Spread | undefined {
  const text = typed.trim().replace(/\s+/g, " ");
  if (text === "") return undefined;
  const parts = text.split(/, ?(?=\d+(?:[.,]\d+)? ?%)/).map((part) => /^(\d+(?:[.,]\d+)?) ?% ?(.+)$/.exec(part));
  const points = parts.map((part) => {
    const value = part ? typedValue(part[2] ?? "", kind) : undefined;
    return value === undefined ? undefined : { share: Number(part?.[1]?.replace(",", ".")) / 100, value };
  });
  if (points.every((point) => point !== undefined)) {
    const whole = points.reduce((sum, { share }) => sum + share, 0);
    const [first] = points;
    if (points.length === 1 && typeof first?.value === "boolean" && first.share <= 1)
      return {
        kind: "values",
        points: [first, { share: Number((1 - first.share).toPrecision(12)), value: !first.value }],
      };
    return Math.abs(whole - 1) < 0.001 ? { kind: "values", points } : undefined;
  }
  const spread = kind === "number" || kind === undefined ? readSaid(text, "number") : undefined;
  if (spread && spread.kind !== "constant") return spread;
  if (text.includes("%")) return undefined;
  const value = typedValue(text, kind);
  return value === undefined ? undefined : { kind: "values", points: [{ share: 1, value }] };
}

const sharePercent = (share: number) => String(Number((share * 100).toPrecision(6)));
function valueWords(value: DrawnValue): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return String(value);
  // Words that would be read as something else stand in quotes.
  return /^[\w][^",%]*$/.test(value) && typeof typedValue(value, undefined) === "string" ? value : `"${value}"`;
}

/** A spread in the words that `readSpread` reads. */
export function spreadWords(spread: Spread): string {
  if (spread.kind !== "values") return saidOf(spread, "number");
  const [first, second] = spread.points;
  if (spread.points.length === 1 && first) return valueWords(first.value);
  if (spread.points.length === 2 && first && second?.value === false && first.value === true)
    return `${sharePercent(first.share)} % yes`;
  return spread.points.map(({ share, value }) => `${sharePercent(share)} % ${valueWords(value)}`).join(", ");
}
