"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useMemo } from "react";
import { type Forecast, shareWithin } from "@/core/forecast";
import { axis, Chart, ink } from "../../controls/Chart";
import { Panel } from "../../controls/Panel";
import { decimals, inUnit, percentWords, timeWords, unitFor } from "../../controls/units";
import { text } from "../../messages";

const bins = 24;

/** How many cases take how long, with the aim and the share within it. */
export function Durations(props: {
  readonly forecast: Forecast;
  readonly aim: number | undefined;
  readonly typed: string;
  readonly onAim: (typed: string) => void;
}) {
  const { forecast, aim, typed, onAim } = props;
  const { durations, cycleTime } = forecast;
  const isEmpty = durations.length === 0;
  const unit = unitFor(cycleTime.p90);
  // The last of a thousand would make all others one bar.
  const last = Math.max(cycleTime.p95 * 1.3, aim ?? 0, 1);
  const width = last / bins;
  const counts = useMemo(() => {
    const found = new Array<number>(bins).fill(0);
    for (const one of durations) {
      const at = Math.min(bins - 1, Math.floor(one / width));
      found[at] = (found[at] ?? 0) + 1;
    }
    return found;
  }, [durations, width]);
  const within = aim === undefined ? undefined : shareWithin(forecast, aim);
  const option = useMemo(() => {
    const share = (count: number) => (100 * count) / Math.max(1, durations.length);
    const line = (at: number, words: string, color: string, type: "solid" | "dashed") => ({
      xAxis: at / unit.seconds,
      lineStyle: { color, type, width: 2 },
      label: { formatter: words, color, fontSize: 12, fontWeight: 600, position: "end" as const },
    });
    return {
      grid: { left: 34, right: 40, top: 34, bottom: 34 },
      tooltip: { trigger: "axis", axisPointer: { type: "none" } },
      xAxis: {
        ...axis,
        axisLabel: { ...axis.axisLabel, showMaxLabel: false },
        type: "value",
        min: 0,
        max: Number((last / unit.seconds).toPrecision(3)),
        name: unit.word,
        nameLocation: "middle",
        nameGap: 20,
      },
      yAxis: [
        { ...axis, type: "value", axisLabel: { ...axis.axisLabel, formatter: "{value} %" }, splitNumber: 3 },
        // All that are done by then, from none to all.
        { ...axis, type: "value", min: 0, max: 100, show: false },
      ],
      series: [
        {
          type: "bar",
          barWidth: "92%",
          emphasis: { disabled: true },
          tooltip: { valueFormatter: (value: unknown) => `${decimals(Number(value))} %` },
          data: counts.map((count, at) => ({
            value: [((at + 0.5) * width) / unit.seconds, share(count)],
            itemStyle: {
              color: aim === undefined || (at + 0.5) * width <= aim ? ink("accent") : ink("paper"),
              borderColor: ink("accent"),
              opacity: 0.75,
            },
          })),
          name: text.forecast.soLong,
          markLine: {
            symbol: "none",
            silent: true,
            data: [
              line(cycleTime.p90, text.forecast.ninth(inUnit(cycleTime.p90, unit)), ink("attention"), "solid"),
              ...(aim === undefined
                ? []
                : [line(aim, `${text.forecast.aim} ${inUnit(aim, unit)}`, ink("good"), "dashed")]),
            ],
          },
        },
        {
          type: "line",
          yAxisIndex: 1,
          name: text.forecast.doneBy,
          showSymbol: false,
          emphasis: { disabled: true },
          lineStyle: { color: ink("ink"), width: 1.5 },
          itemStyle: { color: ink("ink") },
          tooltip: { valueFormatter: (value: unknown) => `${decimals(Number(value))} %` },
          endLabel: {
            show: true,
            color: ink("ink"),
            fontSize: 11,
            formatter: ({ value }: { value: readonly number[] }) => `${Math.round(value[1] ?? 0)} %`,
          },
          data: counts.reduce<[number, number][]>(
            (line, count, at) => {
              const before = line.at(-1)?.[1] ?? 0;
              // The last bar holds all that take longer than the picture goes.
              if (at < bins - 1) line.push([((at + 1) * width) / unit.seconds, before + share(count)]);
              return line;
            },
            [[0, 0]],
          ),
        },
      ],
    };
  }, [counts, width, last, unit, aim, cycleTime, durations]);
  let sum = 0;
  return (
    <Panel
      title={text.forecast.panels.durations}
      {...(within !== undefined && { unit: text.forecast.within(percentWords(within)) })}
      aside={
        <Flex gap={1.5} align="center" fontSize="12px" color="quiet">
          {text.forecast.aim}
          <chakra.input
            aria-label={text.forecast.aim}
            value={typed}
            placeholder={isEmpty ? "" : timeWords(cycleTime.p90)}
            w="76px"
            h="22px"
            px={1.5}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="4px"
            _placeholder={{ color: "quiet" }}
            onChange={(event) => onAim(event.target.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
        </Flex>
      }
      isPicture={!isEmpty}
      table={{
        head: [`${text.forecast.columns.from} (${unit.word})`, text.forecast.columns.to, text.forecast.shareOf, "≤"],
        rows: counts.map((count, at) => {
          sum += count;
          const share = (of: number) => percentWords(of / Math.max(1, durations.length));
          return [
            inUnit(at * width, unit),
            at === bins - 1 ? "…" : inUnit((at + 1) * width, unit),
            share(count),
            share(sum),
          ];
        }),
      }}
    >
      {isEmpty ? (
        <chakra.p color="quiet">{text.forecast.tell.none}</chakra.p>
      ) : (
        <Chart option={option} label={text.forecast.panels.durations} height="100%" />
      )}
    </Panel>
  );
}
