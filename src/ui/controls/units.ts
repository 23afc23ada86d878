/** Units of time, in seconds: the one in which a time is told reads as a number a person can picture. */
const units = [
  [86_400, "days", "day"],
  [3600, "h", "h"],
  [60, "min", "min"],
  [1, "s", "s"],
] as const;

export interface Unit {
  readonly seconds: number;
  readonly word: string;
}

/** The unit in which times about so long are told. */
export function unitFor(seconds: number): Unit {
  const [size, word] =
    units.find(([one]) => Math.abs(seconds) >= one * 1.5) ?? (units.at(-1) as (typeof units)[number]);
  return { seconds: size, word };
}

export const decimals = (value: number): string => {
  const size = Math.abs(value);
  return value.toLocaleString("en", { maximumFractionDigits: size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 1 : 2 });
};

export const inUnit = (seconds: number, unit: Unit): string => decimals(seconds / unit.seconds);

export function timeWords(seconds: number): string {
  if (Math.abs(seconds) < 0.5) return "0 min";
  const unit = unitFor(seconds);
  const count = inUnit(seconds, unit);
  return `${count} ${unit.word === "days" && count === "1" ? "day" : unit.word}`;
}

export const percentWords = (share: number): string => `${Math.round(share * 100)} %`;

export const moneyWords = (amount: number, currency: string): string =>
  `${amount.toLocaleString("en", { maximumFractionDigits: Math.abs(amount) < 100 ? 2 : 0 })} ${currency}`;
