"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { check } from "@/contract";
import type { CheckData } from "@/contract/check";
import { type CheckOptions, type Finding, type ProfileName, type Verdict, verdictOf } from "@/core/check";
import type { Model } from "@/core/model";
import { complain } from "../controls/notices";
import { JobRunner } from "../kernel/jobRunner";
import { lookAgain, useAsked } from "../kernel/queries";
import { useVersion } from "./VersionContext";

interface Findings extends CheckData {
  /** The model that is looked at: the version as it was when it last came to rest. */
  readonly settled: Model;
  readonly findings: readonly Finding[];
  /** Null until everything was looked at once. */
  readonly verdict: Verdict | null;
  /** Whether the model is still being looked at; what was known of it is shown meanwhile. */
  readonly isLooking: boolean;
  readonly reload: () => Promise<void>;
}

const Context = createContext<Findings | null>(null);

/** Milliseconds without a change before the model is checked again. */
const restBeforeCheck = 250;
const nobodySaid: CheckData = { profile: "review", adaption: {}, waivers: [], verdicts: [] };

interface Found {
  readonly findings: readonly Finding[];
  /** What was looked at; null before anything was. */
  readonly of: Model | null;
}

/** What a worker of its own finds in a model. Until it has looked, what it found before stays. */
function useFound(
  part: "quick" | "long" | "all",
  model: Model,
  { profile, adaption }: CheckData,
  isKnown: boolean,
): Found {
  const [found, setFound] = useState<Found>({ findings: [], of: null });
  const [worker] = useState(() => new JobRunner());
  // Told again with each change that is stored, but seldom otherwise than before.
  const told = JSON.stringify({ profile, adaption });
  useEffect(() => {
    if (!isKnown) return;
    let isStale = false;
    const options = JSON.parse(told) as Pick<CheckOptions, "profile" | "adaption">;
    worker
      .run("findings", { model }, { ...options, part }, { isAlone: part !== "quick" })
      .then((findings) => !isStale && setFound({ findings, of: model }))
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [worker, part, model, told, isKnown]);
  useEffect(() => () => worker.stop(), [worker]);
  return found;
}

/** The check runs live, a moment behind the typing, for all stages at once, in workers. */
export function FindingsProvider({ children }: { readonly children: ReactNode }) {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  // A signature lapses with the next change, which the server is asked about once that is stored.
  const isStored = useVersion((state) => state.pending.length === 0);
  const { data: state = null, error } = useAsked(check.openCheck, { version });
  const reload = useCallback(() => lookAgain([{ kind: "version", id: version }]), [version]);
  const wasStored = useRef(isStored);
  useEffect(() => {
    if (isStored && !wasStored.current) void reload();
    wasStored.current = isStored;
  }, [reload, isStored]);
  useEffect(() => {
    if (error) complain(error);
  }, [error]);
  // Not while one types: a model is handed to a worker as a copy.
  const [settled, setSettled] = useState(model);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(model), restBeforeCheck);
    return () => clearTimeout(timer);
  }, [model]);
  const said = state ?? nobodySaid;
  const quick = useFound("quick", settled, said, state !== null);
  // After the quick part, and by the same worker: most models take less time to look at than a worker takes to begin.
  const long = useFound("long", settled, said, quick.of === settled);
  const value = useMemo(() => {
    // An element that is gone since is not told about any more.
    const findings = [...long.findings, ...quick.findings].filter(({ elements }) =>
      elements.every((id) => settled.elements.has(id)),
    );
    return {
      ...said,
      settled,
      findings,
      verdict: quick.of && long.of && verdictOf(findings, said.waivers),
      isLooking: quick.of !== settled || long.of !== settled,
      reload,
    };
  }, [said, quick, long, settled, reload]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

/** The verdict there would be for another purpose; null until it is known. */
export function useVerdictFor(profile: ProfileName): Verdict | null {
  const said = useFindings();
  const { findings, of } = useFound("all", said.settled, { ...said, profile }, said.verdict !== null);
  return useMemo(() => of && verdictOf(findings, said.waivers), [findings, of, said.waivers]);
}

export function useFindings(): Findings {
  const findings = useContext(Context);
  if (!findings) throw new Error("Findings are known only inside an open version.");
  return findings;
}
