import { listOf, type Said, say } from "../messages";
import { type Id, type Model, nameOf } from "../model";
import { modelsOf } from "../tokens";
import type { AlignedMove } from "./align";
import type { Held, Variant } from "./holding";

export const differenceKinds = ["skipped", "unforeseen", "replaced", "order", "repeated", "role"] as const;
export type DifferenceKind = (typeof differenceKinds)[number];

/** How what happened differs from the model, gathered over all traces in which it does. */
export interface Difference {
  readonly kind: DifferenceKind;
  readonly statement: Said;
  /** Steps of the model that it is about, those it is mostly about first. */
  readonly elements: readonly Id[];
  /** Of what was done otherwise: the activity; and the step behind which it was done, none at the beginning. */
  readonly activity?: string;
  readonly behind?: Id;
  /** Of an order: whether the first of its elements is done before the second. */
  readonly isBefore?: boolean;
  readonly role?: string;
  /** Which traces it is in. */
  readonly traces: readonly number[];
  /** 0 to 1. */
  readonly share: number;
}

/**
 * What differs, as patterns: steps that are skipped together; what is done though the model does not have it there, and behind which step;
 * what is done in place of a step; a step that is done earlier or later than modelled; one that is done again; one that is done by another
 * role than its lane. Each with the traces it is in, what is in most of them first. O(moves).
 */
export function differencesOf(held: Held): Difference[] {
  const gathering = new Gathering(held);
  for (const variant of held.variants) gathering.look(variant);
  for (const { step, role, traces } of held.byOthers) gathering.role(step, role, traces);
  return gathering.ranked();
}

/** What tells a difference from all others of its log and model, whatever traces it is in: a judgement of it holds by this. */
export const differenceKey = ({ kind, elements, activity, behind, isBefore, role }: Pattern): string =>
  JSON.stringify([kind, elements, activity ?? null, behind ?? null, isBefore ?? null, role ?? null]);

type Pattern = Omit<Difference, "traces" | "share" | "statement">;

class Gathering {
  readonly #found = new Map<string, { pattern: Pattern; traces: Set<number> }>();
  readonly #models: readonly Model[];

  constructor(readonly held: Held) {
    this.#models = modelsOf(held.world);
  }

  look({ activities, traces, alignment }: Variant): void {
    const add = (pattern: Pattern) => this.#add(pattern, traces);
    const { moves } = alignment;
    const stepsOf = (at: number) => this.held.meant.get(activities[at] ?? "") ?? [];
    const left = new Set(moves.keys());
    for (const [place, move] of moves.entries()) {
      if (move.kind === "both") left.delete(place);
      if (move.kind !== "model") continue;
      // A step that the trace has elsewhere was not skipped: it was done earlier, or later.
      const elsewhere = [...left].find((other) => {
        const one = moves[other];
        return one?.kind === "log" && stepsOf(one.at).includes(move.step);
      });
      if (elsewhere === undefined) continue;
      left.delete(place);
      left.delete(elsewhere);
      const pattern = movedFrom(moves, place, elsewhere, move.step);
      if (pattern) add(pattern);
    }
    for (const stretch of stretches(moves, left)) this.#stretch(stretch, moves, activities, stepsOf, add);
  }

  /** What lies between two steps that went as modelled. */
  #stretch(
    stretch: readonly number[],
    moves: readonly AlignedMove[],
    activities: readonly string[],
    stepsOf: (at: number) => readonly Id[],
    add: (pattern: Pattern) => void,
  ): void {
    const skipped = stretch.flatMap((place) =>
      moves[place]?.kind === "model" ? [(moves[place] as { step: Id }).step] : [],
    );
    const extra = stretch.flatMap((place) => (moves[place]?.kind === "log" ? [place] : []));
    const [only] = extra;
    if (skipped.length === 1 && extra.length === 1 && only !== undefined) {
      const at = (moves[only] as { at: number }).at;
      if (stepsOf(at).length === 0) {
        add({ kind: "replaced", elements: skipped, activity: activities[at] ?? "" });
        return;
      }
    }
    if (skipped.length > 0) add({ kind: "skipped", elements: skipped });
    for (const place of extra) {
      const { at } = moves[place] as { at: number };
      const behind = lastStep(moves, place);
      const again = stepsOf(at).find((step) =>
        moves.slice(0, place).some((one) => one.kind === "both" && one.step === step),
      );
      const activity = activities[at] ?? "";
      const about = { activity, ...(behind !== undefined && { behind }) };
      if (again !== undefined)
        add({ kind: "repeated", elements: [...new Set([again, ...(behind === undefined ? [] : [behind])])], ...about });
      else add({ kind: "unforeseen", elements: behind === undefined ? [] : [behind], ...about });
    }
  }

  role(step: Id, role: string, traces: readonly number[]): void {
    this.#add({ kind: "role", elements: [step], role }, traces);
  }

  #add(pattern: Pattern, traces: readonly number[]): void {
    const key = JSON.stringify(pattern);
    const known = this.#found.get(key) ?? { pattern, traces: new Set<number>() };
    for (const trace of traces) known.traces.add(trace);
    this.#found.set(key, known);
  }

  ranked(): Difference[] {
    const all = this.held.traces;
    return [...this.#found.values()]
      .map(({ pattern, traces }) => {
        const share = all === 0 ? 0 : traces.size / all;
        const statement = this.#statement(pattern, share);
        return {
          ...pattern,
          statement: this.#isEitherOrder(pattern, traces) ? say`${statement} ${bothOrders}` : statement,
          traces: [...traces].sort((a, b) => a - b),
          share,
        };
      })
      .sort(
        (a, b) =>
          b.traces.length - a.traces.length ||
          differenceKinds.indexOf(a.kind) - differenceKinds.indexOf(b.kind) ||
          a.statement.text.localeCompare(b.statement.text),
      );
  }

  /** Whether two steps that the model has in turn are done in this order and in that, both often: they do not wait for each other. */
  #isEitherOrder({ kind, elements: [step, beside] }: Pattern, moved: ReadonlySet<number>): boolean {
    if (kind !== "order" || step === undefined || beside === undefined) return false;
    const done = new Set(moved);
    for (const { traces, alignment } of this.held.variants) {
      const steps = new Set(alignment.moves.flatMap((move) => (move.kind === "both" ? [move.step] : [])));
      if (steps.has(step) && steps.has(beside)) for (const trace of traces) done.add(trace);
    }
    const share = moved.size / done.size;
    return done.size >= leastCases && share >= seldom && share <= 1 - seldom;
  }

  #name(step: Id): Said {
    const model = this.#models.find((one) => one.elements.has(step));
    return say`“${(model && nameOf(model, step)) || step}”`;
  }

  #statement({ kind, elements, activity = "", behind, isBefore, role = "" }: Pattern, share: number): Said {
    const names = elements.map((step) => this.#name(step));
    const [first = say`“${activity}”`, second = first] = names;
    const often = say`in ${percent(share)} of the traces`;
    switch (kind) {
      case "skipped":
        return names.length === 1 ? say`${first} is skipped ${often}.` : say`${listOf(names)} are skipped ${often}.`;
      case "unforeseen":
        return behind === undefined
          ? say`“${activity}” is done at the beginning ${often}, which the model does not have.`
          : say`“${activity}” is done behind ${this.#name(behind)} ${often}, which the model does not have.`;
      case "replaced":
        return say`“${activity}” is done in place of ${first} ${often}.`;
      case "order":
        return isBefore
          ? say`${first} is done before ${second} ${often}.`
          : say`${first} is done after ${second} ${often}.`;
      case "repeated":
        return behind === undefined || behind === elements[0]
          ? say`${first} is done again at once ${often}.`
          : say`${first} is done again behind ${this.#name(behind)} ${often}.`;
      case "role":
        return say`${first} is done by ${role} ${often}, and not by its lane.`;
    }
  }
}

/** An order that fewer of the traces with both steps have is an exception; so many of them say something (common practice, no source). */
const seldom = 0.2;
const leastCases = 20;
const bothOrders = say`They are done in either order, where the model has them in turn.`;

function percent(share: number): string {
  const value = share * 100;
  return `${value > 0 && value < 1 ? "less than 1" : Math.round(value)} %`;
}

/** Where a step was done instead: before or after which step that went as modelled. */
function movedFrom(moves: readonly AlignedMove[], model: number, log: number, step: Id): Pattern | undefined {
  const between = moves.slice(Math.min(model, log) + 1, Math.max(model, log));
  const passed = between.flatMap((move) => (move.kind === "both" ? [move.step] : []));
  const isBefore = log < model;
  const beside = isBefore ? passed[0] : passed.at(-1);
  return beside === undefined ? undefined : { kind: "order", elements: [step, beside], isBefore };
}

/** Stretches of moves on one side, between those of both. */
function stretches(moves: readonly AlignedMove[], left: ReadonlySet<number>): number[][] {
  const found: number[][] = [[]];
  for (const [place, move] of moves.entries()) {
    if (move.kind === "both") found.push([]);
    else if (left.has(place)) (found.at(-1) as number[]).push(place);
  }
  return found.filter((stretch) => stretch.length > 0);
}

function lastStep(moves: readonly AlignedMove[], place: number): Id | undefined {
  for (let at = place - 1; at >= 0; at--) {
    const move = moves[at];
    if (move?.kind === "both") return move.step;
  }
  return undefined;
}
