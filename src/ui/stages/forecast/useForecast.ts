"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import type { DecisionFileText } from "@/core/decisions";
import type { Id, Model } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import type { Forecasted, Unsound } from "@/jobs";
import { useRoleDefaults } from "../../controls/entries";
import { JobRunner } from "../../kernel/jobRunner";
import { wordsOf } from "../../kernel/wordsOf";
import { useWalks } from "../../version/walks";
import { withCalled } from "../../version/withCalled";

export interface ForecastState {
  /** What came of the last run that was not stopped; of what was there before, while a new one is under way. */
  readonly done: Forecasted | undefined;
  readonly unsound: Unsound["unsound"] | undefined;
  /** How far a run is, 0 to 1; undefined where none is under way. */
  readonly share: number | undefined;
  readonly isStopped: boolean;
  /** What is there is of the first run alone, of so many. */
  readonly firstOf: number | undefined;
  readonly error: string | undefined;
}

const nothing: ForecastState = {
  done: undefined,
  unsound: undefined,
  share: undefined,
  isStopped: false,
  firstOf: undefined,
  error: undefined,
};

/** Milliseconds without another change before a forecast is run anew. */
const rest = 150;
/** So many milliseconds one waits without seeing anything new. */
const patience = 700;

/** The forecast of a scenario of a model, run anew in a worker when either changes; what was found before stays until then. */
export function useForecast(
  model: Model | undefined,
  called: ReadonlyMap<Id, Model> | undefined,
  scenario: Id | undefined,
  decisions: readonly DecisionFileText[] | undefined,
) {
  const roles = useRoleDefaults();
  const [worker] = useState(() => new JobRunner());
  const [state, setState] = useState<ForecastState>(nothing);
  const [wish, setWish] = useState(0);
  /** Milliseconds the last one took; of the first one nothing is known. */
  const took = useRef(Number.POSITIVE_INFINITY);
  useEffect(() => {
    if (!model || !called || !roles || !decisions || scenario === undefined) {
      setState(nothing);
      return;
    }
    let isStale = false;
    const timer = setTimeout(() => {
      setState((before) => ({ ...before, share: 0, isStopped: false, error: undefined }));
      const tell = (share: number) => !isStale && setState((before) => ({ ...before, share }));
      const run = (replications?: number) =>
        worker.run(
          "forecasts",
          withCalled(model, called),
          { scenario, roles, decisions, samples: 12, ...(replications !== undefined && { replications }) },
          { isAlone: true, tell },
        );
      const runs = scenariosOf(model).find(({ id }) => id === scenario)?.replications ?? 1;
      const look = async () => {
        const began = performance.now();
        // Where all of it takes a while, the first run is shown until then.
        if (runs > 2 && took.current > patience) {
          const first = await run(1);
          if (isStale) return;
          if ("forecast" in first) setState({ ...nothing, done: first, share: 1 / runs, firstOf: runs });
        }
        const answer = await run();
        if (isStale) return;
        took.current = performance.now() - began;
        setState({ ...nothing, ...("unsound" in answer ? { unsound: answer.unsound } : { done: answer }) });
      };
      look().catch(
        (error: unknown) => !isStale && setState((before) => ({ ...before, share: undefined, error: wordsOf(error) })),
      );
    }, rest);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [worker, model, called, roles, decisions, scenario, wish]);
  useEffect(() => () => worker.stop(), [worker]);
  const stop = useCallback(() => {
    worker.stop();
    setState((before) => ({ ...before, share: undefined, isStopped: true }));
  }, [worker]);
  const again = useCallback(() => setWish((count) => count + 1), []);
  return { ...state, stop, again };
}

/** The version that is open, at rest, with what it calls. */
export function useOpenModels() {
  const { settled, called, decisionTexts } = useWalks();
  return { settled, called, decisions: decisionTexts };
}
