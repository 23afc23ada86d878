"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useCallback, useState } from "react";
import type { LogFilter, LoggedEvent } from "@/core/evidence";
import { SeekField } from "../../../controls/SeekField";
import { EmptyState } from "../../../controls/states";
import { percentWords } from "../../../controls/units";
import { useRested } from "../../../kernel/useRested";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { LogTable, Narrowing } from "./LogTable";
import { useLookedAt } from "./lookedAt";
import { logMoment, spanWords } from "./said";
import { useAnswer, useLogJob } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.variants;

interface ViewProps {
  readonly log: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}

/** The ways cases went, the commonest first, and the cases themselves. */
export function VariantsView({ log, runner, filters }: ViewProps) {
  const { answer, share, error, again } = useLogJob(runner, "overviewLog", filters);
  const filter = useLookedAt((state) => state.filter);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  const { variants, variantCount, cases } = answer.overview;
  const narrow = (one: LogFilter) => filter(log, [...filters, one]);
  return (
    <Flex direction="column" gap={4} p={4} overflow="auto" flex="1" minH={0} data-testid="log-variants">
      {cases === 0 ? (
        <EmptyState>{text.evidence.overview.empty}</EmptyState>
      ) : (
        <>
          {variantCount > variants.length && (
            <chakra.p color="quiet">{words.shown(variants.length, variantCount)}</chakra.p>
          )}
          <LogTable
            title={text.evidence.views.variants}
            head={[words.way, words.cases, words.share, words.took, ""]}
            rows={variants.map(({ activities, traces, median }) => ({
              key: activities.join("\n"),
              share: traces / cases,
              cells: [
                <chakra.ol key="way" display="flex" flexWrap="wrap" gap={1} listStyleType="none">
                  {activities.map((activity, at) => (
                    <chakra.li key={at} px={1.5} bg="paper" borderWidth="1px" borderColor="line" borderRadius="4px">
                      {activity}
                    </chakra.li>
                  ))}
                </chakra.ol>,
                traces.toLocaleString(locale()),
                percentWords(traces / cases),
                spanWords(median),
                <Flex key="narrow" as="span" display="inline-flex" gap={1}>
                  <Button
                    size="2xs"
                    variant="outline"
                    onClick={() => narrow({ kind: "variant", activities: [...activities], is: true })}
                  >
                    {words.only}
                  </Button>
                  <Button
                    size="2xs"
                    variant="ghost"
                    onClick={() => narrow({ kind: "variant", activities: [...activities], is: false })}
                  >
                    {words.not}
                  </Button>
                </Flex>,
              ],
            }))}
          />
          <Cases runner={runner} filters={filters} />
        </>
      )}
    </Flex>
  );
}

const atATime = 50;

/** The cases that are left, found by their name, each with what was done in it. */
function Cases({ runner, filters }: Omit<ViewProps, "log">) {
  const [typed, setTyped] = useState("");
  const [more, setMore] = useState(atATime);
  const [opened, setOpened] = useState<string>();
  const sought = useRested(typed, 200);
  const ask = useCallback(
    () => runner.run("tracesOfLog", {}, { filters, sought, start: 0, count: more }),
    [runner, filters, sought, more],
  );
  const { answer, error, share, again } = useAnswer(ask);
  return (
    <Flex direction="column" gap={2}>
      <SeekField
        label={words.sought}
        value={typed}
        onType={(next) => {
          setTyped(next);
          setMore(atATime);
        }}
      />
      {!answer ? (
        <Working share={share} error={error} onAgain={again} />
      ) : answer.total === 0 ? (
        <EmptyState>{words.noneSuch}</EmptyState>
      ) : (
        <Flex gap={6} align="flex-start" wrap="wrap">
          <Flex direction="column" gap={2} flex="1" minW="360px">
            <LogTable
              title={words.list}
              head={[words.example, words.began, words.ended]}
              rows={answer.rows.map((row) => ({
                key: row.case,
                cells: [
                  <Narrowing key="case" label={row.case} onClick={() => setOpened(row.case)}>
                    {row.case}
                  </Narrowing>,
                  logMoment(row.from),
                  logMoment(row.until),
                ],
              }))}
            />
            {answer.total > answer.rows.length && (
              <Button
                size="xs"
                alignSelf="flex-start"
                variant="outline"
                onClick={() => setMore((before) => before + 200)}
              >
                {words.moreCases}
              </Button>
            )}
          </Flex>
          {opened !== undefined && (
            <OneCase runner={runner} filters={filters} name={opened} onClose={() => setOpened(undefined)} />
          )}
        </Flex>
      )}
    </Flex>
  );
}

function OneCase(
  props: Omit<ViewProps, "log"> & {
    readonly name: string;
    readonly onClose: () => void;
  },
) {
  const { runner, filters, name, onClose } = props;
  const showCase = useLookedAt((state) => state.showCase);
  const ask = useCallback(() => runner.run("traceOfLog", {}, { filters, case: name }), [runner, filters, name]);
  const { answer, error, share, again } = useAnswer<readonly LoggedEvent[]>(ask);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  return (
    <Flex direction="column" gap={2} flex="1" minW="360px" data-testid="log-case">
      <LogTable
        title={name}
        head={[text.evidence.overview.activity, words.when, words.role, words.who]}
        rows={answer.map((event, at) => ({
          key: String(at),
          cells: [
            event.lifecycle === "" || event.lifecycle === "complete"
              ? event.activity
              : `${event.activity} (${event.lifecycle})`,
            logMoment(event.at),
            event.role,
            event.who,
          ],
        }))}
      />
      <Flex gap={2}>
        <Button size="xs" variant="outline" onClick={() => showCase(name)}>
          {text.evidence.replay.show}
        </Button>
        <Button size="xs" variant="ghost" onClick={onClose}>
          {words.close}
        </Button>
      </Flex>
    </Flex>
  );
}
