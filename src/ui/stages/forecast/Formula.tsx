"use client";
import { chakra } from "@chakra-ui/react";
import type { Exact } from "@/core/forecast";
import { moneyWords, percentWords, timeWords } from "../../controls/units";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

/** What follows without playing, in a line: work and cost by the visits, and how busy that makes everybody. */
export function Formula({ exact, currency }: { readonly exact: Exact; readonly currency: string }) {
  const model = useVersion((state) => state.model);
  const [busiest] = [...exact.loads].sort((a, b) => b[1] - a[1]);
  const name = busiest && model.elements.get(busiest[0])?.name;
  return (
    <chakra.p fontSize="13px" color="quiet" data-testid="forecast-formula">
      {text.forecast.formula(timeWords(exact.work), moneyWords(exact.cost, currency))}
      {busiest && name && text.forecast.formulaLoad(name, percentWords(busiest[1]))}
      {exact.duration !== undefined && text.forecast.formulaTime(timeWords(exact.duration))}.
      {exact.doubts.length > 0 && ` ${text.forecast.formulaDoubts(exact.doubts.join(", "))}`}
    </chakra.p>
  );
}
