"use client";
import { useEffect, useRef } from "react";

/** Milliseconds until numbers that are being counted are asked for again: less and less often, where counting takes long. */
const firstPause = 700;
const longestPause = 15_000;

/** Asks again as long as numbers that are shown are being counted behind what people do. */
export function useCounting(counting: number, askAgain: () => void): void {
  const latest = useRef(askAgain);
  latest.current = askAgain;
  const isCounting = counting > 0;
  useEffect(() => {
    if (!isCounting) return;
    let timer: ReturnType<typeof setTimeout>;
    const wait = (pause: number) => {
      timer = setTimeout(() => {
        latest.current();
        wait(Math.min(longestPause, pause * 1.4));
      }, pause);
    };
    wait(firstPause);
    return () => clearTimeout(timer);
  }, [isCounting]);
}
