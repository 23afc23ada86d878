"use client";
import { useMemo } from "react";
import { type DecisionFileText, decisionModels } from "@/core/decisions";
import { type Exact, exactOf, withDirectory } from "@/core/forecast";
import type { Id, Model } from "@/core/model";
import type { Scenario } from "@/core/scenario";
import { worldWith } from "@/core/tokens";
import { useRoleDefaults } from "../controls/entries";

/** Above so many elements the equations take longer than a key press may. */
const most = 800;

/** What follows from a scenario without playing, at once while one types; undefined where the model is too large or has no one answer. */
export function useExact(
  models: {
    readonly settled: Model;
    readonly called: ReadonlyMap<Id, Model> | undefined;
    readonly decisions: readonly DecisionFileText[];
  },
  scenario: Scenario | undefined,
): Exact | undefined {
  const { settled, called, decisions } = models;
  const roles = useRoleDefaults();
  return useMemo(() => {
    if (!called || !roles || !scenario || settled.elements.size > most) return undefined;
    const { scenario: whole } = withDirectory(scenario, settled, new Map(roles.map((role) => [role.id, role])));
    return exactOf(worldWith(settled, called, true, decisionModels(decisions)), whole);
  }, [settled, called, decisions, roles, scenario]);
}
