"use client";
import { useEffect, useState } from "react";
import { type DecisionDocument, documentText } from "@/core/decisions";
import type { DecisionFindings } from "@/jobs";
import { complain } from "../controls/notices";
import { JobRunner } from "../kernel/jobRunner";

/** Milliseconds without a change before a table is proven again. */
const rest = 150;

/** What is proven of a decision as it is, a moment behind the typing; undefined until the first answer. */
export function useFindings(
  document: DecisionDocument | null,
  decision: string | undefined,
): DecisionFindings | undefined {
  const [worker] = useState(() => new JobRunner());
  const [found, setFound] = useState<{ readonly of: string; readonly findings: DecisionFindings }>();
  useEffect(() => () => worker.stop(), [worker]);
  useEffect(() => {
    if (!document || decision === undefined) return;
    let isStale = false;
    const timer = setTimeout(() => {
      worker
        .run("decisionFindings", {}, { content: documentText(document), decision }, { isAlone: true })
        .then((findings) => {
          if (!isStale) setFound({ of: decision, findings });
        })
        .catch(complain);
    }, rest);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [worker, document, decision]);
  return found?.of === decision ? found?.findings : undefined;
}
