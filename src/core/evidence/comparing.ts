import { type Said, say } from "../messages";
import { fisherExact, holm, mannWhitney } from "./chance";
import { spanOf } from "./filters";
import { countsIn, doneIn, type EventLog } from "./logs/eventLog";
import { medianOf } from "./overview";

/** In what two groups of cases differ, and how likely that is by chance alone. */
export interface GroupDifference {
  readonly statement: Said;
  /** Corrected for how much was looked at. */
  readonly chance: number;
  readonly isMoreThanChance: boolean;
}

export interface GroupsCompared {
  readonly cases: readonly [number, number];
  /** Milliseconds, half of them; NaN without times. */
  readonly medians: readonly [number, number];
  readonly differences: readonly GroupDifference[];
}

/** Once in twenty what is no difference is taken for one: common practice. */
const level = 0.05;

/** How times are said, which is the business of whoever shows them. */
type Duration = (milliseconds: number) => string;

/**
 * Two groups of cases beside each other: what is done in how many of each, how often it is done again, how long they take. What is least
 * likely by chance first. O(events log events).
 */
export function groupsCompared(some: EventLog, others: EventLog, duration: Duration): GroupsCompared {
  const [these, those] = [gathered(some), gathered(others)];
  const found: { statement: Said; chance: number }[] = [];
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  const shares = (
    one: ReadonlyMap<string, number>,
    other: ReadonlyMap<string, number>,
    tell: (name: string, a: string, b: string) => Said,
  ) => {
    for (const name of new Set([...one.keys(), ...other.keys()])) {
      const [a, b] = [one.get(name) ?? 0, other.get(name) ?? 0];
      const chance = fisherExact([a, these.count - a], [b, those.count - b]);
      found.push({
        statement: tell(name, percent(a / Math.max(1, these.count)), percent(b / Math.max(1, those.count))),
        chance,
      });
    }
  };
  shares(
    these.did,
    those.did,
    (name, a, b) => say`“${name}” is done in ${a} of these cases and in ${b} of the others.`,
  );
  shares(
    these.repeated,
    those.repeated,
    (name, a, b) => say`“${name}” is done more than once in ${a} of these cases and in ${b} of the others.`,
  );
  const medians = [medianOf(these.took), medianOf(those.took)] as const;
  if (these.took.length > 0 && those.took.length > 0)
    found.push({
      statement: say`Half of these cases take at most ${duration(medians[0])}, half of the others ${duration(medians[1])}.`,
      chance: mannWhitney(these.took, those.took),
    });
  const chances = holm(found.map(({ chance }) => chance));
  return {
    cases: [these.count, those.count],
    medians,
    differences: found
      .map(({ statement }, at) => {
        const chance = chances[at] as number;
        return { statement, chance, isMoreThanChance: chance < level };
      })
      .sort((one, other) => one.chance - other.chance),
  };
}

function gathered(log: EventLog) {
  const counts = countsIn(log);
  const did = new Map<string, number>();
  const repeated = new Map<string, number>();
  const took: number[] = [];
  const more = (of: Map<string, number>, activity: number) => {
    const name = log.activity.words[activity] as string;
    of.set(name, (of.get(name) ?? 0) + 1);
  };
  for (let trace = 0; trace < log.from.length; trace++) {
    const times = new Map<number, number>();
    for (const event of doneIn(log, trace, counts)) {
      const activity = log.activity.of[event] as number;
      times.set(activity, (times.get(activity) ?? 0) + 1);
    }
    for (const [activity, often] of times) {
      more(did, activity);
      if (often > 1) more(repeated, activity);
    }
    const [from, until] = spanOf(log, trace);
    if (!Number.isNaN(from)) took.push(until - from);
  }
  return { count: log.from.length, did, repeated, took };
}
