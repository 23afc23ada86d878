"use client";
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useDeferredValue,
  useEffect,
  useMemo,
  useState,
} from "react";
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

/** The check runs live, a moment behind the typing, for all stages at once. */
export function FindingsProvider({ children }: { readonly children: ReactNode }) {
  const model = useDeferredValue(useVersion((state) => state.model));
  const version = useVersion((state) => state.info.version.id);
  const [waivers, setWaivers] = useState<readonly Waiver[]>([]);
  const reloadWaivers = useCallback(async () => {
    const answer = await ask<{ waivers: Waiver[] }>("listWaivers", { version });
    setWaivers(answer.waivers);
  }, [version]);
  useEffect(() => {
    reloadWaivers().catch(complain);
  }, [reloadWaivers]);
  const findings = useMemo(() => checkModel(model), [model]);
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
