"use client";
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemParams } from "echarts";
import { useMemo } from "react";
import type { Forecast } from "@/core/forecast";
import type { Id } from "@/core/model";
import { axis, Chart, ink } from "../../controls/Chart";
import { clockWords } from "../../controls/moment";
import { Panel } from "../../controls/Panel";
import { inUnit, timeWords, unitFor } from "../../controls/units";
import { text } from "../../messages";

interface Bar {
  readonly row: number;
  readonly case: number;
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly isWork: boolean;
  readonly colour: string;
}

/** So many cases are drawn. */
const most = 8;

/** Some cases of the first run, each a row from its beginning on: thin where it waits, thick where it is worked on. */
export function SampleCases(props: {
  readonly forecast: Forecast;
  readonly start: number;
  readonly zone: string;
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onFollow: (number: number) => void;
}) {
  const { forecast, start, zone, hueOf, onFollow } = props;
  const rows = useMemo(
    () =>
      forecast.samples
        .filter(({ stretches }) => stretches.length > 0)
        .sort((a, b) => a.case - b.case)
        .slice(0, most)
        .map((one) => ({
          ...one,
          began: Math.min(...one.stretches.map(({ from }) => from)),
          ended: Math.max(...one.stretches.map(({ to }) => to)),
        })),
    [forecast.samples],
  );
  const longest = Math.max(60, ...rows.map(({ began, ended }) => ended - began));
  const unit = unitFor(longest / 1.5);
  const bars = useMemo(() => {
    const names = new Map(forecast.elements.map(({ id, name }) => [id, name]));
    return rows.flatMap(({ case: number, began, stretches }, row) =>
      stretches.flatMap(({ element, from, begun, to, by }): Bar[] => {
        const base = { row, case: number, name: names.get(element) ?? element };
        const colour = (by[0] === undefined ? undefined : hueOf(by[0])) ?? ink("ink");
        const works = by.length > 0 || begun < to;
        return [
          ...(begun > from ? [{ ...base, from: from - began, to: begun - began, isWork: false, colour }] : []),
          ...(works ? [{ ...base, from: begun - began, to: to - began, isWork: true, colour }] : []),
        ];
      }),
    );
  }, [rows, forecast.elements, hueOf]);
  const title = text.forecast.panels.samples;
  const option = useMemo(
    () => ({
      grid: { left: 58, right: 14, top: 6, bottom: 36 },
      tooltip: {
        formatter: ({ dataIndex }: { dataIndex: number }) => {
          const bar = bars[dataIndex];
          return bar
            ? `${bar.name}: ${bar.isWork ? text.forecast.working : text.forecast.waiting} ${timeWords(bar.to - bar.from)}`
            : "";
        },
      },
      xAxis: {
        ...axis,
        type: "value",
        min: 0,
        max: Number((longest / unit.seconds).toPrecision(3)),
        axisLabel: { ...axis.axisLabel, showMaxLabel: false },
        name: unit.word,
        nameLocation: "middle",
        nameGap: 20,
      },
      yAxis: {
        ...axis,
        type: "category",
        inverse: true,
        data: rows.map(({ case: number }) => text.forecast.caseNumber(number + 1)),
      },
      series: [
        {
          type: "custom",
          renderItem: ({ dataIndex }: CustomSeriesRenderItemParams, api: CustomSeriesRenderItemAPI) => {
            const bar = bars[dataIndex];
            if (!bar) return null;
            const [left = 0, middle = 0] = api.coord([bar.from / unit.seconds, bar.row]);
            const [right = 0] = api.coord([bar.to / unit.seconds, bar.row]);
            const room = ((api.size?.([0, 1]) ?? []) as number[])[1] ?? 16;
            const height = bar.isWork ? room * 0.62 : 2;
            return {
              type: "rect",
              shape: { x: left, y: middle - height / 2, width: Math.max(1.5, right - left), height },
              style: { fill: bar.isWork ? bar.colour : ink("pencil") },
            };
          },
          encode: { x: [0, 1], y: 2 },
          data: bars.map(({ from, to, row }) => [from / unit.seconds, to / unit.seconds, row]),
        },
      ],
    }),
    [bars, rows, longest, unit],
  );
  return (
    <Panel
      title={title}
      isPicture
      table={{
        head: [
          text.forecast.columns.case,
          text.forecast.columns.step,
          text.forecast.columns.from,
          text.forecast.columns.waits,
          text.forecast.columns.works,
        ],
        rows: rows.flatMap(({ case: number, stretches }) =>
          stretches.map(({ element, from, begun, to }) => [
            number + 1,
            forecast.elements.find(({ id }) => id === element)?.name ?? element,
            clockWords(start + from * 1000, zone),
            inUnit(begun - from, unit),
            inUnit(to - begun, unit),
          ]),
        ),
      }}
    >
      <Chart
        option={option}
        label={title}
        height="100%"
        onPick={(at) => {
          const bar = bars[at];
          if (bar) onFollow(bar.case);
        }}
      />
    </Panel>
  );
}
