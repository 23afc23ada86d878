"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { live } from "@/contract";
import type { RunFigures } from "@/contract/live";
import { controlChart } from "@/core/live";
import { axis, Chart, ink } from "../../controls/Chart";
import { Choice } from "../../controls/fields";
import { BesideTitle, Panel } from "../../controls/Panel";
import { EmptyState } from "../../controls/states";
import { decimals, inUnit, timeWords, unitFor } from "../../controls/units";
import { useAsked } from "../../kernel/queries";
import { locale, text } from "../../messages";
import { CommentOn } from "../../version/comments/CommentOn";
import { aboutOf } from "../../version/comments/store";
import { Against } from "./Against";

const words = text.live.figures;
const commentOnFigure = (title: string) => <CommentOn about={aboutOf("figure", `live ${title}`, title)} />;
const spans = ["7", "30", "90", "365"] as const;

/** Figures of a run over time: what came and went, what is under way and for how long, who did the work, and what is out of the usual. */
export function FiguresView({
  at,
  name,
}: {
  readonly at: { readonly version: string; readonly run: string };
  readonly name: string;
}) {
  const [days, setDays] = useState<(typeof spans)[number]>("30");
  const { data } = useAsked(live.runFigures, { ...at, days: Number(days) }, { keepsLast: true });
  if (!data) return <EmptyState>{text.shell.loading}</EmptyState>;
  const isEmpty = data.days.every(({ began, ended, open }) => began + ended + open === 0);
  return (
    <Flex direction="column" p={4} gap={4} data-testid="live-figures">
      <Flex gap={3} align="center" wrap="wrap">
        <Flex gap={2} align="center" fontSize="13px">
          {words.days}
          <Choice
            label={words.days}
            value={days}
            options={spans.map((span) => [span, words.over(Number(span))] as const)}
            onChoose={setDays}
          />
        </Flex>
        <chakra.p>{sentenceOf(data)}</chakra.p>
      </Flex>
      {isEmpty ? (
        <EmptyState>{words.nothing}</EmptyState>
      ) : (
        <BesideTitle.Provider value={commentOnFigure}>
          <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(420px, 1fr))" gridAutoRows="230px" gap={4}>
            <Throughput figures={data} />
            <UnderWay figures={data} />
            <Control figures={data} />
            <Ages figures={data} />
            <People figures={data} />
            <Roles figures={data} />
          </Box>
          <Against figures={data} name={name} />
        </BesideTitle.Provider>
      )}
    </Flex>
  );
}

function sentenceOf({ ended, days }: RunFigures): string {
  if (ended.length === 0) return "";
  const sorted = ended.map(({ seconds }) => seconds).sort((a, b) => a - b);
  const mean = sorted.reduce((sum, value) => sum + value, 0) / sorted.length;
  const most = sorted[Math.ceil(sorted.length * 0.9) - 1] as number;
  return words.sentence(ended.length, days.length, timeWords(mean), timeWords(most));
}

const dayWords = () => new Intl.DateTimeFormat(locale(), { day: "numeric", month: "short", timeZone: "UTC" });
const isoDay = (at: number) => new Date(at).toISOString().slice(0, 10);
const grid = { left: 40, right: 16, top: 12, bottom: 24 };

function Throughput({ figures: { days } }: { readonly figures: RunFigures }) {
  const option = useMemo(
    () => ({
      grid,
      tooltip: { trigger: "axis" },
      xAxis: { ...axis, type: "category", data: days.map(({ day }) => dayWords().format(day)) },
      yAxis: { ...axis, type: "value", minInterval: 1, splitNumber: 3 },
      series: [
        { name: words.began, type: "bar", data: days.map(({ began }) => began), itemStyle: { color: ink("dots") } },
        { name: words.ended, type: "bar", data: days.map(({ ended }) => ended), itemStyle: { color: ink("accent") } },
      ],
    }),
    [days],
  );
  const rows = days.map(({ day, began, ended }) => [isoDay(day), began, ended]);
  return (
    <Panel
      title={words.throughput}
      unit={words.aDay}
      isPicture
      table={{ head: [words.day, words.began, words.ended], rows }}
    >
      <Chart option={option} label={words.throughput} height="100%" />
    </Panel>
  );
}

function UnderWay({ figures: { days } }: { readonly figures: RunFigures }) {
  const option = useMemo(
    () => ({
      grid,
      tooltip: { trigger: "axis" },
      xAxis: { ...axis, type: "category", data: days.map(({ day }) => dayWords().format(day)) },
      yAxis: { ...axis, type: "value", minInterval: 1, splitNumber: 3 },
      series: [
        {
          name: words.open,
          type: "line",
          step: "end",
          showSymbol: false,
          data: days.map(({ open }) => open),
          lineStyle: { color: ink("accent") },
          itemStyle: { color: ink("accent") },
        },
      ],
    }),
    [days],
  );
  const rows = days.map(({ day, open }) => [isoDay(day), open]);
  return (
    <Panel title={words.underWay} unit={words.cases} isPicture table={{ head: [words.day, words.open], rows }}>
      <Chart option={option} label={words.underWay} height="100%" />
    </Panel>
  );
}

/** Open cases by how long they have been open: so many in each of ten stretches. */
function Ages({ figures: { ages } }: { readonly figures: RunFigures }) {
  const bins = useMemo(() => binsOf(ages), [ages]);
  const unit = unitFor(ages[0] ?? 0);
  const option = useMemo(
    () => ({
      grid,
      tooltip: { trigger: "axis" },
      xAxis: { ...axis, type: "category", data: bins.map(({ from }) => inUnit(from, unit)) },
      yAxis: { ...axis, type: "value", minInterval: 1, splitNumber: 3 },
      series: [
        { name: words.cases, type: "bar", data: bins.map(({ count }) => count), itemStyle: { color: ink("accent") } },
      ],
    }),
    [bins, unit],
  );
  const rows = bins.map(({ from, to, count }) => [`${inUnit(from, unit)}–${inUnit(to, unit)} ${unit.word}`, count]);
  return (
    <Panel title={words.ages} unit={unit.word} isPicture table={{ head: [words.age, words.cases], rows }}>
      <Chart option={option} label={words.ages} height="100%" />
    </Panel>
  );
}

function binsOf(ages: readonly number[]) {
  const most = Math.max(1, ...ages);
  const width = most / 10;
  const bins = Array.from({ length: 10 }, (_, at) => ({ from: at * width, to: (at + 1) * width, count: 0 }));
  for (const age of ages) (bins[Math.min(9, Math.floor(age / width))] as { count: number }).count++;
  return bins;
}

/** Durations of cases in the order in which they ended, with the limits that they stay within as long as only chance moves them. */
function Control({ figures: { ended } }: { readonly figures: RunFigures }) {
  const chart = useMemo(() => controlChart(ended.map(({ seconds }) => seconds)), [ended]);
  const unit = unitFor(chart?.upper ?? 0);
  const unusual = useMemo(() => new Map(chart?.unusual.map(({ at, rule }) => [at, rule])), [chart]);
  const option = useMemo(
    () => ({
      grid,
      tooltip: { trigger: "axis", valueFormatter: (value: unknown) => `${decimals(Number(value))} ${unit.word}` },
      xAxis: { ...axis, type: "category", data: ended.map(({ number }) => String(number)) },
      yAxis: { ...axis, type: "value", splitNumber: 3 },
      series: [
        {
          name: words.took,
          type: "line",
          symbolSize: 5,
          showAllSymbol: true,
          lineStyle: { color: ink("pencil"), width: 1 },
          data: ended.map(({ seconds }, at) => ({
            value: seconds / unit.seconds,
            symbol: unusual.has(at) ? "diamond" : "circle",
            symbolSize: unusual.has(at) ? 10 : 4,
            itemStyle: { color: ink(unusual.has(at) ? "trouble" : "accent") },
          })),
          markLine: {
            symbol: "none",
            silent: true,
            label: { show: false },
            data: chart
              ? [
                  { yAxis: chart.centre / unit.seconds, lineStyle: { color: ink("accent"), type: "solid" } },
                  { yAxis: chart.upper / unit.seconds, lineStyle: { color: ink("quiet"), type: "dashed" } },
                  { yAxis: chart.lower / unit.seconds, lineStyle: { color: ink("quiet"), type: "dashed" } },
                ]
              : [],
          },
        },
      ],
    }),
    [ended, chart, unusual, unit],
  );
  const rows = ended.map(({ number, at, seconds }, place) => {
    const rule = unusual.get(place);
    return [
      number,
      new Date(at).toISOString(),
      `${inUnit(seconds, unit)} ${unit.word}`,
      rule ? words[rule] : words.usual,
    ];
  });
  if (!chart)
    return (
      <Panel title={words.control}>
        <chakra.p color="quiet">{words.few}</chakra.p>
      </Panel>
    );
  return (
    <Panel
      title={words.control}
      unit={words.limitWords(timeWords(chart.centre), timeWords(chart.lower), timeWords(chart.upper))}
      isPicture
      table={{ head: [words.case, words.endedAt, words.took, words.is], rows }}
    >
      <Flex direction="column" h="100%">
        <Box flex="1" minH={0}>
          <Chart option={option} label={words.control} height="100%" />
        </Box>
        <chakra.p fontSize="12px" color={unusual.size > 0 ? "trouble" : "quiet"} data-testid="unusual">
          {words.unusual(unusual.size)}
        </chakra.p>
      </Flex>
    </Panel>
  );
}

interface Share {
  readonly name: string;
  readonly done: number;
  readonly about: string;
}

/** Bars with their numbers, the most first. */
function Bars({ shares }: { readonly shares: readonly Share[] }) {
  const most = Math.max(1, ...shares.map(({ done }) => done));
  return (
    <chakra.ul listStyleType="none" fontSize="13px">
      {shares.map(({ name, done, about }) => (
        <chakra.li key={name} py={1}>
          <Flex justify="space-between" gap={3}>
            <chakra.span truncate>{name}</chakra.span>
            <chakra.span color="quiet" whiteSpace="nowrap">
              {done} · {about}
            </chakra.span>
          </Flex>
          <Box h="6px" bg="accent" borderRadius="3px" w={`${(100 * done) / most}%`} />
        </chakra.li>
      ))}
    </chakra.ul>
  );
}

function People({ figures: { people } }: { readonly figures: RunFigures }) {
  const shares = people.map(({ name, done, workingMean }) => ({
    name: name || words.nobody,
    done,
    about: timeWords(workingMean),
  }));
  const rows = shares.map(({ name, done, about }) => [name, done, about]);
  return (
    <Panel title={words.people} unit={words.pieces} table={{ head: [words.who, words.pieces, words.each], rows }}>
      {shares.length === 0 ? <chakra.p color="quiet">{words.nothing}</chakra.p> : <Bars shares={shares} />}
    </Panel>
  );
}

function Roles({ figures: { steps } }: { readonly figures: RunFigures }) {
  const roles = new Map<string, { done: number; working: number }>();
  for (const { role, count, workingMean } of steps) {
    const known = roles.get(role) ?? { done: 0, working: 0 };
    roles.set(role, { done: known.done + count, working: known.working + count * workingMean });
  }
  const shares = [...roles]
    .map(([name, { done, working }]) => ({
      name: name || words.nobody,
      done,
      about: timeWords(done > 0 ? working / done : 0),
    }))
    .sort((a, b) => b.done - a.done);
  const rows = steps.map(({ name, role, count, waitingMean, workingMean }) => [
    name,
    role,
    count,
    timeWords(waitingMean),
    timeWords(workingMean),
  ]);
  return (
    <Panel
      title={words.roles}
      unit={words.pieces}
      table={{ head: [words.step, words.role, words.pieces, words.waited, words.each], rows }}
    >
      {shares.length === 0 ? <chakra.p color="quiet">{words.nothing}</chakra.p> : <Bars shares={shares} />}
    </Panel>
  );
}
