"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { checkModel, type Finding, type Verdict, verdictOf, type Waiver } from "@/core/check";
import { ask } from "../api";
import { complain } from "../controls/toaster";
import { useVersion } from "./VersionContext";

interface Findings {
  readonly findings: readonly Finding[];
  readonly waivers: readonly Waiver[];
  readonly verdict: Verdict;
  readonly reloadWaivers: () => Promise<void>;
}

const Context = createContext<Findings | null>(null);

/** Milliseconds without a change before the model is checked again. */
const restBeforeCheck = 250;

/** The check runs live, a moment behind the typing, for all stages at once. */
export function FindingsProvider({ children }: { readonly children: ReactNode }) {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const [waivers, setWaivers] = useState<readonly Waiver[]>([]);
  const reloadWaivers = useCallback(async () => {
    const answer = await ask<{ waivers: Waiver[] }>("listWaivers", { version });
    setWaivers(answer.waivers);
  }, [version]);
  useEffect(() => {
    reloadWaivers().catch(complain);
  }, [reloadWaivers]);
  // Not while the change is being painted: at 500 elements a check takes as long as a frame.
  const [findings, setFindings] = useState(() => checkModel(model));
  const checked = useRef(model);
  useEffect(() => {
    if (checked.current === model) return;
    const timer = setTimeout(() => {
      checked.current = model;
      setFindings(checkModel(model));
    }, restBeforeCheck);
    return () => clearTimeout(timer);
  }, [model]);
  const value = useMemo(
    () => ({ findings, waivers, verdict: verdictOf(findings, waivers), reloadWaivers }),
    [findings, waivers, reloadWaivers],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useFindings(): Findings {
  const findings = useContext(Context);
  if (!findings) throw new Error("Findings are known only inside an open version.");
  return findings;
}
