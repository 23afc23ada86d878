"use client";
import { useEffect, useState } from "react";
import { evidence } from "@/contract";
import type { Id, Model } from "@/core/model";
import { useAsked } from "../../kernel/queries";
import { fetchLog, LogRunner } from "../logRunner";

/** Milliseconds without a change before the log is held against the model anew. */
const rest = 800;

/** By the newest log: in which share of its cases something goes otherwise at each element; what was found before stays until then. */
export function useDeviations(version: string, model: Model, isWanted: boolean): ReadonlyMap<Id, number> | undefined {
  const { data: logs } = useAsked(evidence.listLogs, { version }, { isWanted, keepsLast: true });
  const log = isWanted ? logs?.logs[0]?.id : undefined;
  const { data: opened } = useAsked(
    evidence.openLog,
    { version, log: log ?? "" },
    { isWanted: log !== undefined, keepsLast: true },
  );
  const steps = JSON.stringify(opened?.steps ?? null);
  const [runner, setRunner] = useState<LogRunner>();
  const [found, setFound] = useState<ReadonlyMap<Id, number>>();
  useEffect(() => {
    if (log === undefined) return setRunner(undefined);
    const made = new LogRunner(log, () => fetchLog(version, log));
    setRunner(made);
    return () => made.stop();
  }, [version, log]);
  useEffect(() => {
    if (!runner || steps === "null") return setFound(undefined);
    let isStale = false;
    const timer = setTimeout(() => {
      runner.run("deviations", { model }, { filters: [], steps: JSON.parse(steps) }).then(
        (counts) => !isStale && setFound(new Map(counts)),
        // A log that cannot be held marks nothing.
        () => !isStale && setFound(undefined),
      );
    }, rest);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [runner, model, steps]);
  return found;
}
