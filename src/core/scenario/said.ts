import { type Distribution, faultOf, normalQuantile, type Point } from "./distributions";

/** What a value is a value of: of time, or a bare number. */
export type SaidAs = "time" | "number";

const units: readonly (readonly [pattern: RegExp, seconds: number, word: string])[] = [
  [/^(?:weeks?|wks?|w|wochen?)$/i, 604_800, "weeks"],
  [/^(?:working days?|business days?|wd|arbeitstage?n?)$/i, 28_800, "working days"],
  [/^(?:days?|d|tage?n?)$/i, 86_400, "days"],
  [/^(?:hours?|hrs?|h|stunden?|std)$/i, 3600, "h"],
  [/^(?:minutes?|mins?|m|minuten)$/i, 60, "min"],
  [/^(?:seconds?|secs?|s|sekunden?|sek)$/i, 1, "s"],
];
const amount = String.raw`\d+(?:[.,]\d+)?`;
/** Times are told in English and typed in German as well; longer words stand before those they begin with. */
const unitWords = `(?:working days?|business days?|arbeitstage?n?|wd|weeks?|wochen?|wks?|w|days?|d|tage?n?|hours?|hrs?|h|stunden?|std|minutes?|minuten|mins?|m|seconds?|secs?|sekunden?|sek|s)`;
const time = String.raw`${amount}\s*${unitWords}(?:\s*${amount}\s*${unitWords})?`;
/** A number whose unit may stand behind a later one: "10 to 30 min". */
const quantity = `${time}|${amount}`;

/** One value in seconds (or as it is); what has no unit has that of the last one, else minutes. */
function amountOf(text: string, as: SaidAs, unit: number): number {
  if (as === "number") return Number(text.replace(",", "."));
  let sum = 0;
  let found = false;
  for (const [, count = "", word = ""] of text.matchAll(new RegExp(`(${amount})\\s*(${unitWords})?`, "gi"))) {
    const known = units.find(([pattern]) => pattern.test(word));
    sum += Number(count.replace(",", ".")) * (word === "" ? unit : (known?.[1] ?? Number.NaN));
    found = true;
  }
  return found ? sum : Number.NaN;
}

/** The unit of the last value that has one: "10, 20, at most 40 min" is in minutes. */
function lastUnit(text: string): number {
  const words = [...text.matchAll(new RegExp(`${amount}\\s*(${unitWords})(?![a-z])`, "gi"))].at(-1)?.[1];
  return units.find(([pattern]) => words !== undefined && pattern.test(words))?.[1] ?? 60;
}

type Reader = (values: readonly number[], plain: readonly number[]) => Distribution;

/** A median and the value that 9 of 10 stay below make a log-normal curve. */
const byTwo = (median: number, ninth: number): Distribution => {
  const sigma = Math.log(ninth / median) / normalQuantile(0.9);
  const mean = median * Math.exp(sigma ** 2 / 2);
  return { kind: "logNormal", mean, deviation: mean * Math.sqrt(Math.expm1(sigma ** 2)) };
};
const normal = (mean: number, deviation: number): Distribution => ({
  kind: "normal",
  mean,
  deviation,
  min: 0,
});

const Q = `(${quantity})`;
const N = `(${amount})`;
/** Turns of phrase, the first that fits counts. A group is a value; those behind `plain` are bare numbers. */
const forms: readonly { readonly pattern: RegExp; readonly plain?: number; readonly read: Reader }[] = [
  {
    pattern: new RegExp(
      `^(?:usually|meist|meistens) ${Q}, ?(?:9 (?:of|von) 10|nine of ten|90 ?%) (?:within|below|under|in|innerhalb) ${Q}$`,
      "i",
    ),
    read: ([a = 0, b = 0]) => byTwo(a, b),
  },
  {
    pattern: new RegExp(`^(?:from |between |von |zwischen )?${Q} ?(?:to|and|bis|und|–|-|\\.\\.) ?${Q}$`, "i"),
    read: ([min = 0, max = 0]) => ({ kind: "uniform", min, max }),
  },
  {
    pattern: new RegExp(
      `^(?:at least |mindestens )?${Q}, ?(?:usually |meist )?${Q}, ?(?:at most |höchstens )?${Q}$`,
      "i",
    ),
    read: ([min = 0, mode = 0, max = 0]) => ({ kind: "triangular", min, mode, max }),
  },
  {
    pattern: new RegExp(`^(?:normal(?:ly)? )?${Q} ?(?:±|\\+\\/?-) ?${Q}$`, "i"),
    read: ([mean = 0, deviation = 0]) => normal(mean, deviation),
  },
  {
    pattern: new RegExp(`^log-?normal ${Q} ?(?:±|\\+\\/?-) ?${Q}$`, "i"),
    read: ([mean = 0, deviation = 0]) => ({ kind: "logNormal", mean, deviation }),
  },
  {
    pattern: new RegExp(
      `^(?:exponential|on average|im Mittel|at random,? on average|at random,?(?: every)?) ${Q}$`,
      "i",
    ),
    read: ([mean = 0]) => ({ kind: "exponential", mean }),
  },
  {
    pattern: new RegExp(`^(?:every |alle )?${Q},? (?:on average|at random|im Mittel|zufällig)$`, "i"),
    read: ([mean = 0]) => ({ kind: "exponential", mean }),
  },
  {
    pattern: new RegExp(`^erlang ${N}, ?${Q}$`, "i"),
    plain: 1,
    read: ([mean = 0], [k = 0]) => ({ kind: "erlang", k, mean }),
  },
  {
    pattern: new RegExp(`^gamma ${N}, ?${Q}$`, "i"),
    plain: 1,
    read: ([scale = 0], [shape = 0]) => ({ kind: "gamma", shape, scale }),
  },
  {
    pattern: new RegExp(`^weibull ${N}, ?${Q}$`, "i"),
    plain: 1,
    read: ([scale = 0], [shape = 0]) => ({ kind: "weibull", shape, scale }),
  },
  {
    pattern: new RegExp(`^beta ${N}, ?${N}, ?${Q} ?(?:to|–|-) ?${Q}$`, "i"),
    plain: 2,
    read: ([min = 0, max = 0], [alpha = 0, beta = 0]) => ({ kind: "beta", alpha, beta, min, max }),
  },
  { pattern: new RegExp(`^(?:every )?${Q}$`, "i"), read: ([value = 0]) => ({ kind: "constant", value }) },
];

/**
 * A value as people say it: "20 min", "10 to 30 min", "10, usually 20, at most 40 min", "usually 20 min, 9 of 10 within 45 min",
 * "20 ± 5 min", "30 min on average" (exponential), "12 a day" (that many, at random), "erlang 3, 20 min", "gamma 2, 10 min",
 * "weibull 1.5, 30 min", "beta 2, 5, 10 to 40 min", "70 % 10 min, 30 % 1 h". A working day counts 8 hours of work.
 * @returns undefined for words that are none of these, or make no distribution
 */
export function readSaid(text: string, as: SaidAs): Distribution | undefined {
  const typed = text.trim().replace(/\s+/g, " ");
  if (typed === "") return undefined;
  const made = rateOf(typed, as) ?? sharesOf(typed, as) ?? formOf(typed, as);
  return made && faultOf(made) === undefined ? made : undefined;
}

function formOf(typed: string, as: SaidAs): Distribution | undefined {
  const unit = as === "time" ? lastUnit(typed) : 1;
  for (const { pattern, plain = 0, read } of forms) {
    const found = pattern.exec(typed)?.slice(1);
    if (!found) continue;
    return read(
      found.slice(plain).map((one) => amountOf(one, as, unit)),
      found.slice(0, plain).map((one) => Number(one.replace(",", "."))),
    );
  }
  return undefined;
}

/** "12 a day", "5 per hour": so many, at random. */
function rateOf(typed: string, as: SaidAs): Distribution | undefined {
  const [, count = "", word = ""] =
    new RegExp(
      `^${N} (?:cases? |fälle? |fall )?(?:a|an|per|each|every|je|pro|am|in der|im|\\/) ?(hour|day|week|month|year|minute|working day|stunde|tag|woche|monat|jahr)$`,
      "i",
    ).exec(typed) ?? [];
  if (as !== "time" || count === "") return undefined;
  const [month, year] = [30 * 86_400, 365 * 86_400];
  const long: { readonly [word: string]: number } = { month, year, monat: month, jahr: year };
  const seconds = long[word.toLowerCase()] ?? units.find(([pattern]) => pattern.test(word))?.[1];
  return seconds === undefined ? undefined : { kind: "exponential", mean: seconds / Number(count.replace(",", ".")) };
}

/** "70 % 10 min, 30 % 1 h". */
function sharesOf(typed: string, as: SaidAs): Distribution | undefined {
  const parts = typed.split(/, ?(?=\d+(?:[.,]\d+)? ?%)/);
  const unit = as === "time" ? lastUnit(typed) : 1;
  const points = parts.map((part): Point | undefined => {
    const [, share, value] = new RegExp(`^${N} ?% ${Q}$`, "i").exec(part) ?? [];
    return share && value
      ? { share: Number(share.replace(",", ".")) / 100, value: amountOf(value, as, unit) }
      : undefined;
  });
  return points.length > 0 && points.every((point) => point !== undefined) ? { kind: "discrete", points } : undefined;
}

const rounded = (value: number) => String(Number(value.toPrecision(6)));
const timeWord = (seconds: number): string => {
  const [, size, word] =
    units.find(([, one, name]) => name !== "working days" && Math.abs(seconds) >= one && isShort(seconds / one)) ??
    units.find(([, one, name]) => name !== "working days" && Math.abs(seconds) >= one) ??
    (units.at(-1) as (typeof units)[number]);
  const count = seconds / size;
  return `${rounded(count)} ${rounded(count) === "1" ? word.replace(/s$/, (s) => (word === "s" ? s : "")) : word}`;
};
const isShort = (count: number) => Math.abs(count * 100 - Math.round(count * 100)) < 1e-7;

/** "3.7 a day", where that is the shorter way to say it. */
function rateWords(mean: number): string | undefined {
  const [, size] = units.find(([, one, word]) => word !== "working days" && mean >= one) ?? [undefined, 1];
  if (isShort(mean / size)) return undefined;
  const rate = (
    [
      ["hour", 3600],
      ["day", 86_400],
      ["week", 604_800],
    ] as const
  ).find(([, seconds]) => seconds / mean >= 1 && isShort(seconds / mean));
  return rate && `${rounded(rate[1] / mean)} ${rate[0] === "hour" ? "an" : "a"} ${rate[0]}`;
}

/** A distribution in the words that `readSaid` reads. */
export function saidOf(one: Distribution, as: SaidAs): string {
  const value = as === "time" ? timeWord : rounded;
  switch (one.kind) {
    case "constant":
      return value(one.value);
    case "uniform":
      return `${value(one.min)} to ${value(one.max)}`;
    case "triangular":
      return `${value(one.min)}, usually ${value(one.mode)}, at most ${value(one.max)}`;
    case "normal":
      return `${value(one.mean)} ± ${value(one.deviation)}`;
    case "logNormal": {
      const variance = Math.log1p((one.deviation / one.mean) ** 2);
      const median = one.mean * Math.exp(-variance / 2);
      return `usually ${value(median)}, 9 of 10 within ${value(median * Math.exp(Math.sqrt(variance) * normalQuantile(0.9)))}`;
    }
    case "exponential":
      return (as === "time" ? rateWords(one.mean) : undefined) ?? `${value(one.mean)} on average`;
    case "erlang":
      return `erlang ${one.k}, ${value(one.mean)}`;
    case "gamma":
      return `gamma ${rounded(one.shape)}, ${value(one.scale)}`;
    case "weibull":
      return `weibull ${rounded(one.shape)}, ${value(one.scale)}`;
    case "beta":
      return `beta ${rounded(one.alpha)}, ${rounded(one.beta)}, ${value(one.min)} to ${value(one.max)}`;
    case "poisson":
      return `poisson ${rounded(one.mean)} × ${value(one.unit)}`;
    case "binomial":
      return `binomial ${one.trials}, ${rounded(one.probability)} × ${value(one.unit)}`;
    case "discrete":
      return one.points.map((point) => `${rounded(point.share * 100)} % ${value(point.value)}`).join(", ");
    case "continuous":
      return `table of ${one.points.length} values`;
  }
}
