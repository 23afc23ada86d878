"use client";
import { useCallback, useEffect, useState } from "react";
import type { LogFilter } from "@/core/evidence";
import type { Jobs, OutputOf } from "@/jobs";
import { wordsOf } from "../../../kernel/wordsOf";
import type { LogRunner } from "../../../version/logRunner";

/** Answers of a job, until it is stopped or what it is about is another. */
export interface LogAnswer<Output> {
  readonly answer: Output | undefined;
  /** The answer is of what was asked before; the new one is on its way. */
  readonly isOld: boolean;
  readonly share: number | undefined;
  readonly error: string | undefined;
  readonly again: () => void;
}

/** Asks a job of a log whenever what is looked at is another; `key` says what that is besides the filters. */
export function useLogJob<Name extends "overviewLog" | "dotsOfLog">(
  runner: LogRunner,
  name: Name,
  filters: readonly LogFilter[],
): LogAnswer<OutputOf<Jobs, Name>> {
  const ask = useCallback(
    (tell: (share: number) => void) => runner.run(name, {}, { filters } as never, { tell }),
    [runner, name, filters],
  );
  return useAnswer(ask);
}

/** The answer to the last question that was asked; `ask` is another function where the question is another. */
export function useAnswer<Output>(
  ask: ((tell: (share: number) => void) => Promise<Output>) | undefined,
): LogAnswer<Output> {
  const [answer, setAnswer] = useState<{ readonly of: unknown; readonly output: Output }>();
  const [share, setShare] = useState<number>();
  const [error, setError] = useState<string>();
  const [round, setRound] = useState(0);
  useEffect(() => {
    if (!ask) return;
    let isStale = false;
    setError(undefined);
    setShare(0);
    ask((told) => !isStale && setShare(told))
      .then((output) => !isStale && setAnswer({ of: ask, output }))
      .catch((problem) => !isStale && setError(wordsOf(problem)))
      .finally(() => !isStale && setShare(undefined));
    return () => {
      isStale = true;
    };
  }, [ask, round]);
  return {
    answer: answer?.output,
    isOld: answer !== undefined && answer.of !== ask,
    share,
    error,
    again: () => setRound((before) => before + 1),
  };
}
