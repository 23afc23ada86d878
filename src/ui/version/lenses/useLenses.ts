"use client";
import { useEffect, useMemo, useState } from "react";
import { comments, lenses, live } from "@/contract";
import type { LensRow } from "@/contract/lenses";
import type { Forecast } from "@/core/forecast";
import {
  countsAt,
  type Facts,
  factsOf,
  fieldsOf,
  type Lens,
  type LensField,
  markedBy,
  type SeenLens,
  type Surroundings,
} from "@/core/lens";
import type { Id, Model } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { useRoleDefaults } from "../../controls/entries";
import { JobRunner } from "../../kernel/jobRunner";
import { useAsked } from "../../kernel/queries";
import { useDecisionTexts } from "../decisionTexts";
import { useFindings } from "../findings";
import { useVersion } from "../VersionContext";
import { useLensesOn } from "./store";
import { useDeviations } from "./useDeviations";

const none: readonly LensRow[] = [];

/** All lenses there are, as everybody keeps them. */
export const useKeptLenses = (): readonly LensRow[] =>
  useAsked(lenses.listLenses, {}, { keepsLast: true }).data?.lenses ?? none;

/** Lenses that are shown, with what they mark in the open version. */
export function useShownLenses(): readonly (SeenLens & { readonly id: string })[] {
  const rows = useKeptLenses();
  const on = useLensesOn((state) => state.on);
  const shown = useMemo(() => on.flatMap((id) => rows.filter((row) => row.id === id)), [on, rows]);
  const marked = useMarked(useMemo(() => shown.map(({ lens }) => lens), [shown]));
  return useMemo(() => shown.map(({ id, lens }, at) => ({ id, lens, marked: marked[at] ?? [] })), [shown, marked]);
}

const nothing = new Map<Id, Facts>();

/** What lenses mark in the open version, each: what they ask for is found out, and nothing else. */
export function useMarked(wanted: readonly Lens[]): readonly (readonly Id[])[] {
  const { findings, settled: model } = useFindings();
  const version = useVersion((state) => state.info.version.id);
  const fields = new Set<LensField>(wanted.flatMap((lens) => [...fieldsOf(lens)]));
  const asks = (...some: LensField[]) => some.some((field) => fields.has(field));
  const forecast = useForecastOf(model, asks("takes", "waits", "costs", "busy"));
  const { data: talk } = useAsked(comments.listThreads, { version }, { isWanted: asks("comments"), keepsLast: true });
  const { data: runs } = useAsked(
    live.listRuns,
    { version },
    { isWanted: asks("cases", "incidents"), keepsLast: true },
  );
  const going = runs?.runs.find(({ isEnded }) => !isEnded)?.id;
  const { data: run } = useAsked(
    live.openRun,
    { version, run: going ?? "" },
    { isWanted: going !== undefined, keepsLast: true },
  );
  const deviates = useDeviations(version, model, asks("deviates"));
  const facts = useMemo(() => {
    if (wanted.length === 0) return nothing;
    const standing = going === undefined ? undefined : run?.standing;
    const around: Surroundings = {
      scenario: scenariosOf(model)[0],
      forecast,
      findings: countsAt(findings.flatMap(({ elements }) => elements)),
      ...(talk && {
        comments: countsAt(
          talk.threads.flatMap(({ about, resolved }) =>
            about.kind === "element" && resolved === null ? [about.key] : [],
          ),
        ),
      }),
      ...(standing && {
        cases: new Map(standing.map(({ element, waiting }) => [element, waiting])),
        incidents: new Map(standing.map(({ element, incidents }) => [element, incidents])),
      }),
      ...(deviates && { deviates }),
    };
    return factsOf(model, around);
  }, [wanted.length, model, forecast, findings, talk, going, run, deviates]);
  return useMemo(() => wanted.map((lens) => markedBy(lens, facts)), [wanted, facts]);
}

/** Milliseconds without a change before a forecast is run anew. */
const rest = 400;

/** The forecast of the first scenario, in a worker; what was found before stays until the next one is there. */
function useForecastOf(model: Model, isWanted: boolean): Forecast | undefined {
  const roles = useRoleDefaults();
  const models = useMemo(() => (isWanted ? [model] : []), [isWanted, model]);
  const decisions = useDecisionTexts(models);
  const [found, setFound] = useState<Forecast | undefined>();
  const [worker] = useState(() => new JobRunner());
  useEffect(() => {
    const [scenario] = isWanted ? scenariosOf(model) : [];
    if (!scenario || !roles || !decisions) {
      if (!scenario) setFound(undefined);
      return;
    }
    let isStale = false;
    const timer = setTimeout(() => {
      worker.run("forecasts", { model }, { scenario: scenario.id, roles, decisions }).then(
        (answer) => !isStale && setFound("unsound" in answer ? undefined : answer.forecast),
        // Without a forecast a lens goes by what was entered.
        () => !isStale && setFound(undefined),
      );
    }, rest);
    return () => {
      isStale = true;
      clearTimeout(timer);
      worker.stop();
    };
  }, [worker, model, isWanted, roles, decisions]);
  return found;
}
