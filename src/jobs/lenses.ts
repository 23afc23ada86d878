import { checkModel } from "@/core/check";
import type { DecisionFileText } from "@/core/decisions";
import { differencesOf } from "@/core/evidence";
import type { RoleDefaults } from "@/core/forecast";
import { countsAt, factsOf, fieldsOf, type Lens, type LensField, markedBy, type SeenLens } from "@/core/lens";
import type { Id } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { type HoldInput, heldFor } from "./evidence";
import { forecasts } from "./forecasts";
import { type Job, type Models, needs, type Tell } from "./job";

/** How many of something stand at each element. */
export type Counted = readonly (readonly [element: Id, count: number])[];

export interface LensedInput {
  readonly lenses: readonly Lens[];
  /** What the directory says of roles, and what decides, for the forecast. */
  readonly roles: readonly RoleDefaults[];
  readonly decisions: readonly DecisionFileText[];
  readonly comments?: Counted;
  /** Of a run that goes on. */
  readonly cases?: Counted;
  readonly incidents?: Counted;
  /** The log that deviations are told by. */
  readonly log?: HoldInput;
}

/** What lenses mark in a model, each: what they ask for is found out, and nothing else. */
export const lensed: Job<LensedInput, readonly SeenLens[]> = async (models, input, tell) => {
  const model = needs(models, "model");
  const fields = new Set<LensField>(input.lenses.flatMap((lens) => [...fieldsOf(lens)]));
  const asks = (...some: readonly LensField[]) => some.some((field) => fields.has(field));
  const [scenario] = scenariosOf(model);
  const told = asks("takes", "waits", "costs", "busy") && scenario;
  const foreseen = told
    ? await forecasts(models, { scenario: told.id, roles: input.roles, decisions: input.decisions }, tell)
    : undefined;
  const { comments, cases, incidents, log } = input;
  const facts = factsOf(model, {
    scenario,
    forecast: foreseen && "forecast" in foreseen ? foreseen.forecast : undefined,
    ...(asks("findings") && { findings: countsAt(checkModel(model).flatMap(({ elements }) => elements)) }),
    ...(comments && { comments: new Map(comments) }),
    ...(cases && { cases: new Map(cases) }),
    ...(incidents && { incidents: new Map(incidents) }),
    ...(log && asks("deviates") && { deviates: await deviationsFrom(models, log, tell) }),
  });
  return input.lenses.map((lens) => ({ lens, marked: markedBy(lens, facts) }));
};

/** In which share of the cases of a log something differs at each element: what is skipped there, done behind it, or otherwise. */
export const deviations: Job<HoldInput, Counted> = async (models, input, tell) => [
  ...(await deviationsFrom(models, input, tell)),
];

async function deviationsFrom(models: Models, input: HoldInput, tell: Tell): Promise<ReadonlyMap<Id, number>> {
  const { held } = await heldFor(models, input, tell);
  const traces = new Map<Id, Set<number>>();
  for (const { elements, traces: differing } of differencesOf(held))
    for (const element of elements) {
      const own = traces.get(element) ?? new Set();
      traces.set(element, own);
      for (const trace of differing) own.add(trace);
    }
  return new Map([...traces].map(([element, own]) => [element, own.size / Math.max(1, held.traces)]));
}
