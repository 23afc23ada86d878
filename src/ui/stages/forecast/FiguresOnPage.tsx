"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import type { Forecast } from "@/core/forecast";
import type { Id, Model } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { Marks } from "../../canvas/marks/Marks";
import type { Mark } from "../../canvas/marks/mark";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import { useScene } from "../../canvas/useScene";
import { percentWords, timeWords } from "../../controls/units";
import { text } from "../../messages";

/** The drawing with what each step waits and works, how many cases go along, and where they wait most. */
export const FiguresOnPage = memo(function FiguresOnPage(props: {
  readonly model: Model;
  readonly forecast: Forecast;
  readonly most: Id | undefined;
  readonly shown: Id | undefined;
}) {
  const { model, forecast, most, shown } = props;
  const diagram = useMemo(() => {
    const wanted = shown ?? most;
    const drawn =
      wanted === undefined ? undefined : [...model.shapes].find(({ element }) => element === wanted)?.diagram;
    return drawn ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "";
  }, [model, most, shown]);
  const scene = useScene(model, model.diagrams.get(diagram));
  const page = useShownPage(scene);
  const lettering = useLettering(scene.figures.length);
  const { open, show } = page.viewport;
  const bounds = useRef(scene.bounds);
  bounds.current = scene.bounds;
  useEffect(() => {
    if (diagram) open(bounds.current);
  }, [diagram, open]);
  const figures = useMemo(() => new Map(scene.figures.map((one) => [one.id, one])), [scene]);
  const marks = useMemo<Mark[]>(() => {
    const cases = Math.max(1, forecast.cases + forecast.underWay);
    return forecast.elements.flatMap((one): Mark[] => {
      if (!figures.has(one.id) || one.count === 0) return [];
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
  }, [forecast, figures, most]);
  const place = figures.get(shown ?? most ?? "");
  const { x, y, width, height } = place?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0) show({ x, y, width, height });
  }, [x, y, width, height, show]);
  return (
    <ShownPage
      shown={page}
      label={text.forecast.onDiagram}
      testId="forecast-page"
      onPick={() => undefined}
      marks={marks}
      fits="button"
    >
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
});
