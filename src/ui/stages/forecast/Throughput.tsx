"use client";
import { useMemo } from "react";
import type { Forecast } from "@/core/forecast";
import { axis, Chart, ink } from "../../controls/Chart";
import { Panel } from "../../controls/Panel";
import { decimals } from "../../controls/units";
import { text } from "../../messages";
import { dayFormat } from "./dayFormat";

const day = 86_400;

/** How many cases come to their end, over the time of the first run. */
export function Throughput({ forecast, start }: { readonly forecast: Forecast; readonly start: number }) {
  const { width, means } = forecast.curves.done;
  const dayWords = useMemo(() => dayFormat(forecast.length), [forecast.length]);
  const title = text.forecast.panels.done;
  const counted = (forecast.length - forecast.warmUp) / day;
  const mean = counted > 0 ? forecast.cases / counted : 0;
  const option = useMemo(() => {
    const days = means.map((_, at) => dayWords.format(new Date(start + at * width * 1000)));
    return {
      grid: { left: 32, right: 16, top: 12, bottom: 24 },
      tooltip: { trigger: "axis", valueFormatter: (value: unknown) => decimals(Number(value)) },
      xAxis: { ...axis, type: "category", data: days },
      yAxis: { ...axis, type: "value", splitNumber: 3 },
      series: [
        {
          type: "bar",
          barWidth: "80%",
          emphasis: { disabled: true },
          data: means.map((value, at) => ({
            value,
            // What comes to its end while nothing is counted yet is drawn, not counted.
            itemStyle: { color: (at + 1) * width <= forecast.warmUp ? ink("dots") : ink("accent"), opacity: 0.75 },
          })),
        },
      ],
    };
  }, [means, width, start, dayWords, forecast.warmUp]);
  return (
    <Panel
      title={title}
      unit={text.forecast.aDay(decimals(mean))}
      isPicture
      table={{
        head: [text.forecast.columns.time, text.forecast.panels.doneUnit],
        rows: means.map((value, at) => [
          new Date(start + at * width * 1000).toISOString().slice(0, 10),
          decimals(value),
        ]),
      }}
    >
      <Chart option={option} label={title} height="100%" />
    </Panel>
  );
}
