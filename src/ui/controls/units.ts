import { locale, text } from "../messages";

/** Units of time, in seconds: the one in which a time is told reads as a number a person can picture. */
const units = [
  [86_400, "days"],
  [3600, "h"],
  [60, "min"],
  [1, "s"],
] as const;

export interface Unit {
  readonly seconds: number;
  readonly word: string;
}

/** The unit in which times about so long are told. */
export function unitFor(seconds: number): Unit {
  const [size, word] =
    units.find(([one]) => Math.abs(seconds) >= one * 1.5) ?? (units.at(-1) as (typeof units)[number]);
  return { seconds: size, word: word === "days" ? text.units.days : word };
}

const digits = (value: number) => {
  const size = Math.abs(value);
  return { maximumFractionDigits: size >= 100 ? 0 : size >= 1 ? 1 : 2 };
};

export const decimals = (value: number): string => value.toLocaleString(locale(), digits(value));

/** The same as it is typed: what is read back is written in one way, whatever the language. */
export const typedDecimals = (value: number): string => value.toLocaleString("en", digits(value));

export const inUnit = (seconds: number, unit: Unit): string => decimals(seconds / unit.seconds);

export function timeWords(seconds: number): string {
  if (Math.abs(seconds) < 0.5) return "0 min";
  const unit = unitFor(seconds);
  const count = inUnit(seconds, unit);
  return `${count} ${unit.seconds === 86_400 && count === "1" ? text.units.day : unit.word}`;
}

export const percentWords = (share: number): string => `${Math.round(share * 100)} %`;

export const moneyWords = (amount: number, currency: string): string =>
  `${amount.toLocaleString(locale(), { maximumFractionDigits: Math.abs(amount) < 100 ? 2 : 0 })} ${currency}`;
