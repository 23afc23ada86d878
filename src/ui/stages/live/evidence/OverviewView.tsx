"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useEffect } from "react";
import type { Counted, LogFilter, LogOverview } from "@/core/evidence";
import { EmptyState } from "../../../controls/states";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { LogTable, Narrowing } from "./LogTable";
import { useLookedAt } from "./lookedAt";
import { dayWords, spanWords } from "./said";
import { useLogJob } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.overview;
const count = (number: number) => number.toLocaleString(locale());

/** What a log holds, before any model: in short, its activities, where cases begin and end, who did what, and who hands to whom. */
export function OverviewView(props: {
  readonly log: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { log, runner, filters } = props;
  const { answer, share, error, again } = useLogJob(runner, "overviewLog", filters);
  const { filter, saw } = useLookedAt();
  useEffect(() => {
    if (answer) saw(log, answer.overview);
  }, [answer, log, saw]);
  const narrow = (one: LogFilter) => filter(log, [...filters, one]);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  const { overview, leftOut } = answer;
  return (
    <Flex direction="column" gap={5} p={4} overflow="auto" flex="1" minH={0} data-testid="log-overview">
      <Short overview={overview} />
      {leftOut.count > 0 && <chakra.p color="quiet">{words.leftOut(leftOut.count)}</chakra.p>}
      {leftOut.corrected > 0 && <chakra.p color="quiet">{words.corrected(leftOut.corrected)}</chakra.p>}
      {overview.cases === 0 ? (
        <EmptyState>{words.empty}</EmptyState>
      ) : (
        <>
          {/* As high as its rows: by itself it would take what is left of the page. */}
          <chakra.div flexShrink={0}>
            <Activities overview={overview} onNarrow={narrow} />
          </chakra.div>
          <Flex gap={6} wrap="wrap" align="flex-start">
            <Tallied title={words.starts} rows={overview.starts} />
            <Tallied title={words.ends} rows={overview.ends} />
            {overview.people.length > 0 && <Tallied title={words.people} rows={overview.people} />}
            {overview.roles.length > 0 && <Tallied title={words.roles} rows={overview.roles} />}
            {overview.handOvers.length > 0 && (
              <LogTable
                title={words.hands}
                head={[words.from, words.to, words.times]}
                rows={overview.handOvers
                  .slice(0, 30)
                  .map(({ from, to, count: often }) => ({ key: `${from}\n${to}`, cells: [from, to, count(often)] }))}
              />
            )}
            {[
              ...overview.attributes.map((one) => ({ ...one, kind: "attribute" as const })),
              ...overview.eventAttributes.map((one) => ({ ...one, kind: "eventAttribute" as const })),
            ].map(({ name, values, kind }) => (
              <LogTable
                key={`${kind} ${name}`}
                title={kind === "attribute" ? name : words.ofEvents(name)}
                head={[words.attributes, words.count]}
                rows={values.slice(0, 20).map((value) => ({
                  key: value.name,
                  share: value.count / overview.cases,
                  cells: [
                    <Narrowing
                      key="name"
                      label={words.onlyWith(name, value.name)}
                      onClick={() => narrow({ kind, name, value: value.name, is: true })}
                    >
                      {value.name}
                    </Narrowing>,
                    count(value.count),
                  ],
                }))}
              />
            ))}
          </Flex>
        </>
      )}
    </Flex>
  );
}

function Short({ overview }: { readonly overview: LogOverview }) {
  const { cases, events, variantCount, first, last, durations } = overview;
  const figures = [
    [words.cases, count(cases)],
    [words.events, count(events)],
    [words.variants, count(variantCount)],
    [words.span, first <= last ? `${dayWords(first)} – ${dayWords(last)}` : words.untimed],
    ...(durations.count > 0
      ? [
          [words.half, spanWords(durations.median)],
          [words.ninth, spanWords(durations.ninth)],
        ]
      : []),
  ];
  return (
    <chakra.dl display="flex" flexWrap="wrap" gap={6} aria-label={words.figures}>
      {figures.map(([name, value]) => (
        <div key={name}>
          <chakra.dt color="quiet" fontSize="12px">
            {name}
          </chakra.dt>
          <chakra.dd fontSize="18px" fontWeight="700">
            {value}
          </chakra.dd>
        </div>
      ))}
    </chakra.dl>
  );
}

function Activities(props: { readonly overview: LogOverview; readonly onNarrow: (filter: LogFilter) => void }) {
  const { overview, onNarrow } = props;
  const { activities, cases } = overview;
  const isTimed = activities.some(({ working }) => working.count > 0);
  return (
    <LogTable
      title={words.activities}
      head={[words.activity, words.times, words.traces, ...(isTimed ? [words.working] : []), words.waiting]}
      rows={activities.map(({ name, times, traces, working, waiting }) => ({
        key: name,
        share: traces / Math.max(1, cases),
        cells: [
          <Narrowing
            key="name"
            label={words.only(name)}
            onClick={() => onNarrow({ kind: "passes", activity: name, is: true })}
          >
            {name}
          </Narrowing>,
          count(times),
          count(traces),
          ...(isTimed ? [working.count > 0 ? spanWords(working.median) : ""] : []),
          waiting.count > 0 ? spanWords(waiting.median) : "",
        ],
      }))}
    />
  );
}

function Tallied({ title, rows }: { readonly title: string; readonly rows: readonly Counted[] }) {
  const most = Math.max(1, ...rows.map((row) => row.count));
  return (
    <LogTable
      title={title}
      width="240px"
      head={[title, words.times]}
      rows={rows.slice(0, 30).map(({ name, count: often }) => ({
        key: name,
        share: often / most,
        cells: [name, count(often)],
      }))}
    />
  );
}
