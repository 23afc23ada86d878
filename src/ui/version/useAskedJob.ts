"use client";
import { useCallback, useEffect, useState } from "react";
import type { Model } from "@/core/model";
import type { InputOf, Jobs, OutputOf } from "@/jobs";
import { JobRunner } from "../kernel/jobRunner";
import { wordsOf } from "../kernel/wordsOf";

/** Long work that is asked for by a button: how far it is, what stood in its way, and how it is stopped. */
export function useAskedJob() {
  const [worker] = useState(() => new JobRunner());
  const [share, setShare] = useState<number | undefined>();
  const [error, setError] = useState<string | undefined>();
  useEffect(() => () => worker.stop(), [worker]);
  const stop = useCallback(() => {
    worker.stop();
    setShare(undefined);
  }, [worker]);
  /** Gives what came of it; undefined where it failed, which is told. One that is stopped never answers. */
  const run = async <Name extends keyof Jobs>(
    name: Name,
    models: { readonly [name: string]: Model },
    input: InputOf<Jobs, Name>,
  ): Promise<OutputOf<Jobs, Name> | undefined> => {
    setError(undefined);
    setShare(0);
    try {
      return await worker.run(name, models, input, { isAlone: true, tell: setShare });
    } catch (problem) {
      setError(wordsOf(problem));
      return undefined;
    } finally {
      setShare(undefined);
    }
  };
  return { share, error, run, stop, fail: setError };
}
