"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import { callKeyOf, type Id, type Model, type StoredModel, toStored, trustStored } from "@/core/model";
import type { WalkTest, WalkTestResult } from "@/core/tokens";
import { ask } from "../api";
import { complain } from "../controls/toaster";
import { walksWorker } from "./ownWorker";
import { useVersion } from "./VersionContext";

export interface KeptWalk {
  readonly id: string;
  readonly name: string;
  readonly content: WalkTest;
  readonly member: string;
  readonly at: string;
}

interface Walks {
  readonly tests: readonly KeptWalk[];
  /** How each goes on the model as it is, a moment behind the typing. */
  readonly results: ReadonlyMap<string, WalkTestResult>;
  readonly failing: number;
  /** The version as it was when it last came to rest, and the models it calls by process, once they are known. */
  readonly settled: Model;
  readonly called: ReadonlyMap<Id, Model> | undefined;
  readonly reload: () => Promise<void>;
}

const Context = createContext<Walks | null>(null);

/** Milliseconds without a change before kept walks are played again. */
const restBeforePlaying = 400;

/** The walks kept with a version, played again on what it holds now, for all stages at once. */
export function WalksProvider({ children }: { readonly children: ReactNode }) {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const [tests, setTests] = useState<readonly KeptWalk[]>([]);
  const [called, setCalled] = useState<ReadonlyMap<Id, Model> | undefined>(undefined);
  const [settled, setSettled] = useState(model);
  const reload = useCallback(async () => {
    setTests((await ask<{ tests: KeptWalk[] }>("listWalkTests", { version })).tests);
  }, [version]);
  useEffect(() => {
    reload().catch(complain);
  }, [reload]);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(model), restBeforePlaying);
    return () => clearTimeout(timer);
  }, [model]);
  const calls = useMemo(
    () => [...settled.elements].flatMap((one) => (one.type === "callActivity" ? [callKeyOf(one)] : [])).join("\n"),
    [settled],
  );
  useEffect(() => {
    if (calls === "") {
      setCalled(new Map());
      return;
    }
    ask<{ called: { calls: Id; model: StoredModel }[] }>("openCalled", { version })
      .then((answer) => setCalled(new Map(answer.called.map((one) => [one.calls, trustStored(one.model)]))))
      .catch((error) => {
        setCalled(new Map());
        complain(error);
      });
  }, [calls, version]);
  const [worker] = useState(walksWorker);
  const [results, setResults] = useState<ReadonlyMap<string, WalkTestResult>>(new Map());
  useEffect(() => {
    if (!called || tests.length === 0) {
      setResults(new Map());
      return;
    }
    let isStale = false;
    const calledModels = [...called].map(([process, one]) => [process, toStored(one)] as const);
    const contents = tests.map((test) => test.content);
    worker
      .ask((remote) => remote.run(toStored(settled), calledModels, contents), true)
      .then((played) => {
        if (!isStale) setResults(new Map(tests.map((test, at) => [test.id, played[at] as WalkTestResult])));
      })
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [worker, settled, called, tests]);
  useEffect(() => () => worker.stop(), [worker]);
  const failing = [...results.values()].filter((result) => result.verdict !== "passes").length;
  const value = useMemo(
    () => ({ tests, results, failing, settled, called, reload }),
    [tests, results, failing, settled, called, reload],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useWalks(): Walks {
  const walks = useContext(Context);
  if (!walks) throw new Error("Walks are known only inside an open version.");
  return walks;
}
