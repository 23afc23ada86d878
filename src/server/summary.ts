import { eq } from "drizzle-orm";
import { checkModel, verdictOf, type Waiver } from "@/core/check";
import { isFlowNode, type Model } from "@/core/model";
import type { Database } from "@/data/database";
import { members, waivers } from "@/data/schema";
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

const known = new WeakMap<Model, Map<string, Summary>>();

export async function waiversOf(db: Database, version: string): Promise<(Waiver & { id: string })[]> {
  const rows = await db
    .select({ id: waivers.id, finding: waivers.finding, reason: waivers.reason, member: members.name, at: waivers.at })
    .from(waivers)
    .leftJoin(members, eq(members.id, waivers.member))
    .where(eq(waivers.version, version));
  return rows.map((row) => ({ ...row, member: row.member ?? "" }));
}

/** Computed once for a model and its waivers; models never change. */
export async function summaryOf(db: Database, model: Model, version: string): Promise<Summary> {
  const accepted = await waiversOf(db, version);
  const kept = await walkTestsOf(db, version);
  const key = [...accepted.map((waiver) => waiver.finding), ...kept.map((test) => `${test.id} ${test.at}`)].join("\n");
  let byWaivers = known.get(model);
  if (!byWaivers) {
    byWaivers = new Map();
    known.set(model, byWaivers);
  }
  let summary = byWaivers.get(key);
  if (!summary) {
    const { counts } = verdictOf(checkModel(model), accepted);
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
