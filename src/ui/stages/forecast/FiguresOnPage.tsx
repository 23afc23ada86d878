"use client";
import { memo, useCallback, useMemo } from "react";
import type { Forecast } from "@/core/forecast";
import type { Id, Model } from "@/core/model";
import { ModelPage } from "../../canvas/ModelPage";
import type { Mark } from "../../canvas/marks/mark";
import { percentWords, timeWords } from "../../controls/units";
import { text } from "../../messages";

const pickNothing = () => undefined;

/** The drawing with what each step waits and works, how many cases go along, and where they wait most. */
export const FiguresOnPage = memo(function FiguresOnPage(props: {
  readonly model: Model;
  readonly forecast: Forecast;
  readonly most: Id | undefined;
  readonly shown: Id | undefined;
}) {
  const { model, forecast, most, shown } = props;
  const wanted = shown ?? most;
  const about = useMemo<readonly Id[]>(() => (wanted === undefined ? [] : [wanted]), [wanted]);
  const marksOn = useCallback((): Mark[] => {
    const cases = Math.max(1, forecast.cases + forecast.underWay);
    return forecast.elements.flatMap((one): Mark[] => {
      if (one.count === 0) return [];
      const label = (words: string, at: "start" | "end", tone: "attention" | "pencil"): Mark => ({
        on: one.id,
        means: at === "end" ? "forecastWait" : "forecastShare",
        as: "label",
        text: words,
        tone,
        at,
      });
      const waits =
        one.waitingMean > 30
          ? [label(timeWords(one.waitingMean), "end", one.id === most ? "attention" : "pencil")]
          : [];
      const share = one.count / cases;
      return [
        ...waits,
        ...(share < 0.995 || share > 1.005 ? [label(percentWords(share), "start", "pencil")] : []),
        ...(one.id === most ? [{ on: one.id, means: "forecastMost", as: "frame", tone: "attention" } as const] : []),
      ];
    });
  }, [forecast, most]);
  return (
    <ModelPage
      model={model}
      about={about}
      marksOn={marksOn}
      label={text.forecast.onDiagram}
      testId="forecast-page"
      onPick={pickNothing}
    />
  );
});
