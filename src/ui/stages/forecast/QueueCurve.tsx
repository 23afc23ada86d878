"use client";
import { useMemo } from "react";
import type { Forecast } from "@/core/forecast";
import type { Id } from "@/core/model";
import { axis, Chart, ink } from "../../controls/Chart";
import { Panel } from "../../controls/Panel";
import { decimals } from "../../controls/units";
import { text } from "../../messages";
import { dayFormat } from "./dayFormat";

/** Who waits for a role, and how many cases are under way, over the time of the first run. */
export function QueueCurve(props: {
  readonly forecast: Forecast;
  readonly resource: Id | undefined;
  readonly hue: string | undefined;
  readonly start: number;
}) {
  const { forecast, resource, hue, start } = props;
  const name = forecast.resources.find(({ id }) => id === resource)?.name;
  const curve = forecast.curves.resources.find(({ id }) => id === resource)?.queue ?? forecast.curves.underWay;
  const title = name ? text.forecast.panels.queue(name) : text.forecast.panels.underWay;
  // Of a long run several stretches are one point.
  const points = useMemo(() => {
    const each = Math.max(1, Math.ceil(curve.means.length / 120));
    const found: [number, number][] = [];
    for (let at = 0; at < curve.means.length; at += each) {
      const some = curve.means.slice(at, at + each);
      found.push([(at + some.length / 2) * curve.width, some.reduce((sum, one) => sum + one, 0) / some.length]);
    }
    return found;
  }, [curve]);
  const day = useMemo(() => dayFormat(forecast.length), [forecast.length]);
  const option = useMemo(
    () => ({
      grid: { left: 32, right: 16, top: 12, bottom: 24 },
      tooltip: { trigger: "axis", valueFormatter: (value: unknown) => decimals(Number(value)) },
      xAxis: {
        ...axis,
        type: "value",
        min: 0,
        max: forecast.length,
        splitNumber: 4,
        axisLabel: {
          ...axis.axisLabel,
          formatter: (seconds: number) => day.format(new Date(start + seconds * 1000)),
          hideOverlap: true,
        },
        axisPointer: {
          label: { formatter: ({ value }: { value: number }) => day.format(new Date(start + value * 1000)) },
        },
      },
      yAxis: { ...axis, type: "value", splitNumber: 3 },
      series: [
        {
          type: "line",
          showSymbol: false,
          emphasis: { disabled: true },
          lineStyle: { color: hue ?? ink("accent"), width: 2 },
          itemStyle: { color: hue ?? ink("accent") },
          data: points,
          ...(forecast.warmUp > 0 && {
            markArea: {
              silent: true,
              itemStyle: { color: ink("dots"), opacity: 0.6 },
              label: { color: ink("quiet"), fontSize: 11, position: "insideTopLeft" as const },
              data: [[{ name: text.forecast.warmUp, xAxis: 0 }, { xAxis: forecast.warmUp }]],
            },
          }),
        },
      ],
    }),
    [points, hue, forecast, start, day],
  );
  return (
    <Panel
      title={title}
      isPicture
      table={{
        head: [text.forecast.columns.time, text.forecast.columns.cases],
        rows: points.map(([at, value]) => [
          new Date(start + at * 1000).toISOString().slice(0, 16).replace("T", " "),
          decimals(value),
        ]),
      }}
    >
      <Chart option={option} label={title} height="100%" />
    </Panel>
  );
}
