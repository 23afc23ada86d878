import { useMemo } from "react";
import { decisions } from "@/contract";
import type { DecisionFileText } from "@/core/decisions";
import { decidingFiles, type Model } from "@/core/model";
import { useAsked } from "../kernel/queries";

const none: readonly DecisionFileText[] = [];

/** The files that the steps of some models decide by; undefined until they are known, none where they cannot be had. */
export function useDecisionTexts(models: readonly Model[]): readonly DecisionFileText[] | undefined {
  const files = useMemo(() => decidingFiles(models), [models]);
  const { data, error } = useAsked(
    decisions.decisionTexts,
    { ids: files },
    { isWanted: files.length > 0, keepsLast: true },
  );
  return files.length === 0 || error ? none : data?.files;
}
