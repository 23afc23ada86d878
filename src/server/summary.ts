import { checkModel, verdictOf } from "@/core/check";
import { everyRule } from "@/core/language";
import { isFlowNode, type Model } from "@/core/model";
import { adaptionOf, profileOf } from "./checkProfiles";
import type { Transaction } from "./kernel/act";
import { waiversOf } from "./waivers";
import { walkResults, walkTestsOf } from "./walks";

/** What the signs of the stages are computed from. */
export interface Summary {
  /** Flow nodes: what the flow passes. */
  readonly steps: number;
  /** Everything drawn but the connections. */
  readonly shapes: number;
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
  /** Kept walks, and those of them that no longer go as expected. */
  readonly walks: number;
  readonly failingWalks: number;
}

/** In the place of what cannot be computed, since a version cannot be read. */
export const noSummary: Summary = {
  steps: 0,
  shapes: 0,
  errors: 0,
  warnings: 0,
  advice: 0,
  walks: 0,
  failingWalks: 0,
};

const known = new WeakMap<Model, Map<string, Summary>>();

/** Computed once for a model and its waivers; models never change. */
export async function summaryOf(db: Transaction, model: Model, version: string): Promise<Summary> {
  const accepted = await waiversOf(db, version);
  const kept = await walkTestsOf(db, version);
  const options = { profile: await profileOf(db, version), adaption: await adaptionOf(db), rules: everyRule };
  const key = [
    JSON.stringify([options.profile, options.adaption]),
    ...accepted.map((waiver) => waiver.finding),
    ...kept.map((test) => `${test.id} ${test.at}`),
  ].join("\n");
  let byWaivers = known.get(model);
  if (!byWaivers) {
    byWaivers = new Map();
    known.set(model, byWaivers);
  }
  let summary = byWaivers.get(key);
  if (!summary) {
    const { counts } = verdictOf(checkModel(model, options), accepted);
    let steps = 0;
    for (const element of model.elements) if (isFlowNode(element.type)) steps++;
    const results = await walkResults(db, model, kept);
    summary = {
      steps,
      shapes: model.shapes.size,
      errors: counts.error,
      warnings: counts.warning,
      advice: counts.advice,
      walks: kept.length,
      failingWalks: results.filter(({ result }) => result.verdict !== "passes").length,
    };
    byWaivers.set(key, summary);
  }
  return summary;
}
