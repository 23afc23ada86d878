"use client";
import { useEffect, useState } from "react";
import { type DecisionDocument, documentText } from "@/core/decisions";
import type { DecisionFindings, DecisionProposals } from "@/jobs";
import { complain } from "../controls/notices";
import { JobRunner } from "../kernel/jobRunner";

/** Milliseconds without a change before a table is proven again. */
const rest = 150;

export type Findings = DecisionFindings & DecisionProposals;
const none: DecisionProposals = { missing: undefined, joined: undefined };

/** What is proven of a decision as it is, a moment behind the typing; undefined until the first answer. */
export function useFindings(document: DecisionDocument | null, decision: string | undefined): Findings | undefined {
  const [worker] = useState(() => new JobRunner());
  const [found, setFound] = useState<{ readonly of: string; readonly findings: Findings }>();
  useEffect(() => () => worker.stop(), [worker]);
  useEffect(() => {
    if (!document || decision === undefined) return;
    let isStale = false;
    const timer = setTimeout(() => {
      const asked = { content: documentText(document), decision };
      const look = async () => {
        const findings = await worker.run("decisionFindings", {}, asked, { isAlone: true });
        if (isStale) return;
        setFound({ of: decision, findings: { ...findings, ...none } });
        const proposals = await worker.run("decisionProposals", {}, asked);
        if (!isStale) setFound({ of: decision, findings: { ...findings, ...proposals } });
      };
      look().catch(complain);
    }, rest);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [worker, document, decision]);
  return found?.of === decision ? found?.findings : undefined;
}
