"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import { inVersion, walk } from "@/contract";
import type { WalkTestRow } from "@/contract/walk";
import { type DecisionFileText, type DecisionModel, decisionModels } from "@/core/decisions";
import { callKeyOf, type Id, type Model, trustStored } from "@/core/model";
import type { WalkTestResult } from "@/core/tokens";
import { calledName } from "@/jobs/called";
import { complain } from "../controls/notices";
import { JobRunner } from "../kernel/jobRunner";
import { lookAgain, useAsked } from "../kernel/queries";
import { useDecisionTexts } from "./decisionTexts";
import { useVersion } from "./VersionContext";

interface Walks {
  readonly tests: readonly WalkTestRow[];
  /** How each goes on the model as it is, a moment behind the typing. */
  readonly results: ReadonlyMap<string, WalkTestResult>;
  readonly failing: number;
  /** The version as it was when it last came to rest, and the models it calls by process, once they are known. */
  readonly settled: Model;
  readonly called: ReadonlyMap<Id, Model> | undefined;
  /** Files of decisions that steps decide by, once they are known. */
  readonly decisions: ReadonlyMap<Id, DecisionModel> | undefined;
  readonly decisionTexts: readonly DecisionFileText[];
  readonly reload: () => Promise<void>;
}

const Context = createContext<Walks | null>(null);

const noTexts: readonly DecisionFileText[] = [];
const noTests: readonly WalkTestRow[] = [];

/** Milliseconds without a change before kept walks are played again. */
const restBeforePlaying = 400;

/** The walks kept with a version, played again on what it holds now, for all stages at once. */
export function WalksProvider({ children }: { readonly children: ReactNode }) {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const { data, error } = useAsked(walk.listWalkTests, { version });
  const tests = data?.tests ?? noTests;
  const [settled, setSettled] = useState(model);
  const reload = useCallback(() => lookAgain([{ kind: "version", id: version }]), [version]);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(model), restBeforePlaying);
    return () => clearTimeout(timer);
  }, [model]);
  const calls = useMemo(
    () => [...settled.elements].flatMap((one) => (one.type === "callActivity" ? [callKeyOf(one)] : [])).join("\n"),
    [settled],
  );
  // What it calls is asked for again when it calls something else, or when that changed.
  const { data: answer, error: callsNothing } = useAsked(inVersion.openCalled, { version }, { isWanted: calls !== "" });
  const called = useMemo<ReadonlyMap<Id, Model> | undefined>(
    () =>
      calls === "" || callsNothing
        ? new Map()
        : answer && new Map(answer.called.map((one) => [one.calls, trustStored(one.model)])),
    [calls, answer, callsNothing],
  );
  const models = useMemo(() => [settled, ...(called?.values() ?? [])], [settled, called]);
  const texts = useDecisionTexts(models);
  const decisions = useMemo(() => texts && decisionModels(texts), [texts]);
  useEffect(() => {
    for (const one of [error, callsNothing]) if (one) complain(one);
  }, [error, callsNothing]);
  const [worker] = useState(() => new JobRunner());
  const [results, setResults] = useState<ReadonlyMap<string, WalkTestResult>>(new Map());
  useEffect(() => {
    if (!called || !texts || tests.length === 0) {
      setResults(new Map());
      return;
    }
    let isStale = false;
    const calledModels = Object.fromEntries([...called].map(([calls, one]) => [calledName(calls), one]));
    const contents = tests.map((test) => test.content);
    worker
      .run("walks", { model: settled, ...calledModels }, { tests: contents, decisions: texts }, { isAlone: true })
      .then((played) => {
        if (!isStale) setResults(new Map(tests.map((test, at) => [test.id, played[at] as WalkTestResult])));
      })
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [worker, settled, called, texts, tests]);
  useEffect(() => () => worker.stop(), [worker]);
  const failing = [...results.values()].filter((result) => result.verdict !== "passes").length;
  const value = useMemo(
    () => ({ tests, results, failing, settled, called, decisions, decisionTexts: texts ?? noTexts, reload }),
    [tests, results, failing, settled, called, decisions, texts, reload],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useWalks(): Walks {
  const walks = useContext(Context);
  if (!walks) throw new Error("Walks are known only inside an open version.");
  return walks;
}
