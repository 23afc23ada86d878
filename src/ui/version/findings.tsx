"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import {
  type Adaption,
  checkModel,
  type Finding,
  type ProfileName,
  type SignedContent,
  type Verdict,
  verdictOf,
  type Waiver,
} from "@/core/check";
import { ask } from "../api";
import { complain } from "../controls/toaster";
import { CheckInWorker } from "./checkWorker";
import { useVersion } from "./VersionContext";

export interface SignedVerdict {
  readonly id: string;
  readonly revision: number;
  readonly profile: ProfileName;
  readonly content: SignedContent;
  readonly member: string;
  readonly at: string;
  readonly holds: boolean;
}

interface CheckState {
  readonly profile: ProfileName;
  readonly adaption: Adaption;
  readonly waivers: readonly Waiver[];
  readonly verdicts: readonly SignedVerdict[];
}

interface Findings extends CheckState {
  readonly findings: readonly Finding[];
  readonly verdict: Verdict;
  /** Whether behaviour is still being looked at; what was known of it is shown meanwhile. */
  readonly isLooking: boolean;
  /** The verdict there would be for another purpose. */
  readonly verdictFor: (profile: ProfileName) => Verdict;
  readonly reload: () => Promise<void>;
}

const Context = createContext<Findings | null>(null);

/** Milliseconds without a change before the model is checked again. */
const restBeforeCheck = 250;
const nobodySaid: CheckState = { profile: "review", adaption: {}, waivers: [], verdicts: [] };

/** The check runs live, a moment behind the typing, for all stages at once; behaviour in a worker. */
export function FindingsProvider({ children }: { readonly children: ReactNode }) {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  // A signature lapses with the next change, which the server is asked about once that is stored.
  const isStored = useVersion((state) => state.pending.length === 0);
  const [state, setState] = useState(nobodySaid);
  const reload = useCallback(async () => setState(await ask<CheckState>("openCheck", { version })), [version]);
  useEffect(() => {
    if (isStored) reload().catch(complain);
  }, [reload, isStored]);
  // Not while the change is being painted: at 500 elements a check takes as long as a frame.
  const [settled, setSettled] = useState(model);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(model), restBeforeCheck);
    return () => clearTimeout(timer);
  }, [model]);
  const { profile, adaption, waivers } = state;
  const rest = useMemo(() => checkModel(settled, { profile, adaption, part: "rest" }), [settled, profile, adaption]);
  const [behaviour, setBehaviour] = useState<readonly Finding[]>([]);
  const [lookedAt, setLookedAt] = useState<unknown>(null);
  const worker = useRef<CheckInWorker | null>(null);
  useEffect(() => {
    worker.current ??= new CheckInWorker();
    let isStale = false;
    worker.current
      .findings("long", settled, { profile, adaption })
      .then((found) => {
        if (isStale) return;
        setBehaviour(found);
        setLookedAt(settled);
      })
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [settled, profile, adaption]);
  useEffect(() => () => worker.current?.stop(), []);
  const verdictFor = useCallback(
    (other: ProfileName) =>
      verdictOf([...behaviour, ...checkModel(settled, { profile: other, adaption, part: "rest" })], waivers),
    [behaviour, settled, adaption, waivers],
  );
  const value = useMemo(() => {
    // An element that is gone since is not told about any more.
    const known = behaviour.filter(({ elements }) => elements.every((id) => settled.elements.has(id)));
    const findings = [...known, ...rest];
    const isLooking = lookedAt !== settled;
    return { ...state, findings, verdict: verdictOf(findings, waivers), isLooking, verdictFor, reload };
  }, [state, behaviour, rest, settled, lookedAt, waivers, verdictFor, reload]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useFindings(): Findings {
  const findings = useContext(Context);
  if (!findings) throw new Error("Findings are known only inside an open version.");
  return findings;
}
