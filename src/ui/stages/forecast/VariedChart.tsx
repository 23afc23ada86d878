"use client";
import { useMemo } from "react";
import type { Forecast } from "@/core/forecast";
import type { Input } from "@/core/scenario";
import type { VariedPoint } from "@/jobs";
import { axis, Chart, ink } from "../../controls/Chart";
import { BesideTitle, Panel } from "../../controls/Panel";
import { decimals, unitFor } from "../../controls/units";
import { text } from "../../messages";

/** The figures that can be looked at while inputs are turned. */
export const figureNames = () => ({
  p90: text.forecast.tell.within.trim(),
  mean: text.forecast.against.figures.cycleTime,
  waiting: text.forecast.against.figures.waiting,
  cost: text.forecast.against.figures.cost,
});
export type FigureName = keyof ReturnType<typeof figureNames>;

const read: { readonly [name in FigureName]: (forecast: Forecast) => number } = {
  p90: ({ cycleTime }) => cycleTime.p90,
  mean: ({ cycleTime }) => cycleTime.mean,
  waiting: ({ waitingTime }) => waitingTime.mean,
  cost: ({ cost }) => cost.mean,
};

interface Turned {
  readonly input: Input;
  readonly name: string;
  readonly what: string;
}
const kinds: { readonly [what: string]: string } = text.forecast.what.kinds;

/** The unit of an input's values. */
function scaleOf({ what }: Input, most: number): { readonly size: number; readonly word: string } {
  if (what === "probability") return { size: 0.01, word: "%" };
  if (what !== "interval" && what !== "processing") return { size: 1, word: "" };
  const { seconds, word } = unitFor(most);
  return { size: seconds, word };
}

/** A figure over one input as a curve, or over two as a map. */
export function VariedChart(props: {
  readonly points: readonly VariedPoint[];
  readonly turned: readonly Turned[];
  readonly figure: FigureName;
  readonly currency: string;
}) {
  const { points, turned, figure, currency } = props;
  const [one, other] = turned;
  const unit = unitFor(Math.max(...points.map(({ forecast }) => forecast.cycleTime.p90), 1) / 1.5);
  const { size, word } = figure === "cost" ? { size: 1, word: currency } : { size: unit.seconds, word: unit.word };
  const option = useMemo(() => {
    const of = ({ forecast }: VariedPoint) => read[figure](forecast) / size;
    const tooltip = { valueFormatter: (value: unknown) => `${decimals(Number(value))} ${word}` };
    const scale = one ? scaleOf(one.input, points.at(-1)?.value ?? 60) : { size: 1, word: "" };
    const xName = { name: `${one?.name ?? ""} ${scale.word}`, nameLocation: "middle" as const, nameGap: 24 };
    if (other) {
      const others = scaleOf(other.input, Math.max(...points.map((point) => point.other ?? 0)));
      const [across, down] = [
        [...new Set(points.map(({ value }) => value))],
        [...new Set(points.map((point) => point.other ?? 0))],
      ];
      const values = points.map(of);
      return {
        grid: { left: 90, right: 90, top: 16, bottom: 44 },
        tooltip: { position: "top" },
        xAxis: { ...axis, type: "category", data: across.map((value) => decimals(value / scale.size)), ...xName },
        yAxis: {
          ...axis,
          type: "category",
          data: down.map((value) => decimals(value / others.size)),
          name: `${other.name} ${others.word}`,
          nameLocation: "middle",
          nameGap: 46,
        },
        visualMap: {
          min: Math.min(...values),
          max: Math.max(...values),
          calculable: false,
          right: 0,
          top: "middle",
          text: [word, ""],
          textStyle: { color: ink("quiet"), fontSize: 11 },
          precision: 1,
          // From little to much in one hue, so that it reads without colour vision.
          inRange: { color: mapColours },
        },
        series: [
          {
            type: "heatmap",
            tooltip,
            emphasis: { disabled: true },
            // The value stands in each field, light on dark and dark on light, so that no colour has to be read.
            data: points.map((point, at) => ({
              value: [across.indexOf(point.value), down.indexOf(point.other ?? 0), values[at] ?? 0],
              label: { color: isDark(values[at] ?? 0, values) ? "#ffffff" : "#1f2430" },
            })),
            label: {
              show: true,
              fontSize: 12,
              formatter: ({ value }: { value: readonly number[] }) => decimals(value[2] ?? 0),
            },
          },
        ],
      };
    }
    const at = (point: VariedPoint) => point.value / scale.size;
    const half = ({ forecast }: VariedPoint) => (forecast.cycleTime.ci95[1] - forecast.cycleTime.ci95[0]) / 2 / size;
    const line = (data: readonly (readonly number[])[], more: object) => ({
      type: "line",
      showSymbol: false,
      emphasis: { disabled: true },
      data,
      ...more,
    });
    const dashed = { lineStyle: { color: ink("pencil"), type: "dashed", width: 1 } };
    return {
      grid: { left: 46, right: 20, top: 16, bottom: 40 },
      tooltip: { trigger: "axis", ...tooltip },
      xAxis: { ...axis, type: "value", scale: true, ...xName },
      yAxis: { ...axis, type: "value", name: word },
      series: [
        ...(figure === "mean"
          ? [
              line(
                points.map((point) => [at(point), of(point) - half(point)]),
                dashed,
              ),
              line(
                points.map((point) => [at(point), of(point) + half(point)]),
                dashed,
              ),
            ]
          : []),
        line(
          points.map((point) => [at(point), of(point)]),
          {
            showSymbol: true,
            symbolSize: 7,
            lineStyle: { color: ink("accent"), width: 2 },
            itemStyle: { color: ink("accent") },
          },
        ),
      ],
    };
  }, [points, figure, size, word, one, other]);
  const label = `${text.forecast.what.title}: ${turned.map(({ name }) => name).join(", ")}`;
  const scales = turned.map(({ input }, at) =>
    scaleOf(input, Math.max(...points.map((point) => (at === 0 ? point.value : (point.other ?? 0))))),
  );
  const table = {
    head: [
      ...turned.map(({ name, what }, at) => `${name}: ${kinds[what]}${scales[at]?.word ? `, ${scales[at].word}` : ""}`),
      `${figureNames()[figure]}${word ? `, ${word}` : ""}`,
    ],
    rows: points.map((point) => [
      ...scales.map(({ size: per }, at) => decimals((at === 0 ? point.value : (point.other ?? 0)) / per)),
      decimals(read[figure](point.forecast) / size),
    ]),
  };
  return (
    // It lies over the page, and the comments with it.
    <BesideTitle.Provider value={undefined}>
      <Panel title={label} unit={word} table={table} isPicture>
        <Chart option={option} label={label} height="320px" />
      </Panel>
    </BesideTitle.Provider>
  );
}

const mapColours = ["#f4edf7", "#c9a9d6", "#8a5a9e", "#4b1f63"];

/** Whether a field is so dark that words on it have to be light. */
function isDark(value: number, all: readonly number[]): boolean {
  const [low, high] = [Math.min(...all), Math.max(...all)];
  return high > low && (value - low) / (high - low) > 0.5;
}
