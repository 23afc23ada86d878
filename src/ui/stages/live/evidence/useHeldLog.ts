"use client";
import { useCallback, useMemo, useRef } from "react";
import { evidence } from "@/contract";
import type { OpenedLogRow } from "@/contract/evidence";
import type { LogFilter } from "@/core/evidence";
import type { HeldLog } from "@/jobs";
import { useAsked } from "../../../kernel/queries";
import type { LogRunner } from "../../../version/logRunner";
import { useWalks } from "../../../version/walks";
import { withCalled } from "../../../version/withCalled";
import { type LogAnswer, useAnswer } from "./useLogJob";

/** A log held against the version as it is when it comes to rest, and what is said of it; anew when any of that changes. */
export function useHeldLog(version: string, log: string, runner: LogRunner, filters: readonly LogFilter[]) {
  const { settled, called } = useWalks();
  const { data: opened } = useAsked(evidence.openLog, { version, log }, { keepsLast: true });
  const models = useMemo(() => called && withCalled(settled, called), [settled, called]);
  const steps = useSame(opened?.steps);
  const input = useMemo(() => steps && { filters, steps }, [filters, steps]);
  const hold = useCallback(
    async (tell: (share: number) => void): Promise<HeldLog | undefined> =>
      models && input && runner.run("holdLog", models, input, { tell }),
    [runner, models, input],
  );
  const answer: LogAnswer<HeldLog | undefined> = useAnswer(hold);
  return { opened: opened as OpenedLogRow | undefined, models, input, model: settled, ...answer };
}

/** The same object as long as it says the same: an answer that was asked for again is a new one. */
function useSame<Value>(value: Value): Value {
  const held = useRef(value);
  if (JSON.stringify(held.current) !== JSON.stringify(value)) held.current = value;
  return held.current;
}
