"use client";
import { useEffect, useMemo, useState } from "react";
import { type Finding, keyOf, newFindings, type Repair } from "@/core/check";
import { performed } from "@/core/commands";
import type { Id, Model } from "@/core/model";
import { JobRunner } from "../../kernel/jobRunner";
import { useFindings } from "../../version/findings";

/** A repair that is looked at before it is made. */
export interface TriedRepair {
  readonly finding: Finding;
  /** The one that is shown, of those there are. */
  readonly repair: Repair;
  readonly model: Model | undefined;
  /** Elements that are new or say something else. */
  readonly changed: readonly Id[];
  /** What the check then says; null while it is still looking. */
  readonly found: readonly Finding[] | null;
  /** Findings that go, and those that come new. */
  readonly gone: number;
  readonly added: readonly Finding[];
  /** The finding itself is still there. */
  readonly isInVain: boolean;
}

/** Tries one of a finding's repairs on the model and has it checked, in the background. */
export function useRepair(model: Model, finding: Finding | null, which: number): TriedRepair | undefined {
  const repair = finding?.repairs?.[which];
  const { findings, profile, adaption } = useFindings();
  const repaired = useMemo(() => (repair ? performed(model, repair.commands) : undefined), [model, repair]);
  const [found, setFound] = useState<readonly Finding[] | null>(null);
  useEffect(() => {
    setFound(null);
    if (!repaired) return;
    const worker = new JobRunner();
    worker.run("findings", { model: repaired }, { profile, adaption, part: "all" }).then(setFound, () => setFound([]));
    return () => worker.stop();
  }, [repaired, profile, adaption]);
  return useMemo(() => {
    if (!finding || !repair) return undefined;
    const after = new Set(found?.map(keyOf));
    const changed = [...(repaired?.elements ?? [])].flatMap((element) =>
      model.elements.get(element.id) === element ? [] : [element.id],
    );
    return {
      finding,
      repair,
      model: repaired,
      changed,
      found,
      gone: findings.filter((one) => !after.has(keyOf(one))).length,
      added: newFindings(findings, found ?? []),
      isInVain: after.has(keyOf(finding)),
    };
  }, [finding, repair, findings, found, model, repaired]);
}
