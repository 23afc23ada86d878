"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useCallback, useMemo, useState } from "react";
import { performed } from "@/core/commands";
import type { LogFilter, Taken, TakenFigure } from "@/core/evidence";
import type { Forecast } from "@/core/forecast";
import { saidOf } from "@/core/scenario";
import type { LogFigures } from "@/jobs";
import { BarChoice } from "../../../controls/BarChoice";
import { useRoleDefaults } from "../../../controls/entries";
import { tell } from "../../../controls/notices";
import { EmptyState } from "../../../controls/states";
import { percentWords, timeWords } from "../../../controls/units";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { useAskedJob } from "../../../version/useAskedJob";
import { useVersionStore } from "../../../version/VersionContext";
import { useWalks } from "../../../version/walks";
import { withCalled } from "../../../version/withCalled";
import { LogTable } from "./LogTable";
import { useHeldLog } from "./useHeldLog";
import { useAnswer } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.figures;

/** What a log says of times, arrivals and ways: taken into a scenario, and its forecast held against the log itself. */
export function LogFiguresView(props: {
  readonly version: string;
  readonly log: string;
  readonly name: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { version, log, name, runner, filters } = props;
  const { models, input } = useHeldLog(version, log, runner, filters);
  const { dispatch } = useVersionStore().getState();
  const [how, setHow] = useState<Taken>("fitted");
  const scenario = useMemo(() => ({ id: `scenario-${nanoid(8)}`, name: words.name(name) }), [name]);
  const measure = useCallback(
    async (told: (share: number) => void): Promise<LogFigures | undefined> =>
      models && input && runner.run("figuresOfLog", models, { ...input, how, scenario }, { tell: told }),
    [runner, models, input, how, scenario],
  );
  const { answer, share, error, again } = useAnswer(measure);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  const { figures, people, hours, commands } = answer;
  const take = () => {
    if (dispatch(...commands)) tell({ description: words.taken(scenario.name, figures.length) });
  };
  return (
    <Flex direction="column" gap={4} p={4} overflow="auto" flex="1" minH={0} data-testid="log-figures">
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.p color="quiet" flex="1" minW="320px">
          {words.explain}
        </chakra.p>
        <BarChoice
          isWide
          label={words.how}
          value={how}
          options={[
            ["fitted", words.hows.fitted],
            ["measured", words.hows.measured],
          ]}
          onChange={(one) => setHow(one as Taken)}
        />
        <Button size="xs" bg="accent" color="onAccent" disabled={figures.length === 0} onClick={take}>
          {words.take}
        </Button>
      </Flex>
      {figures.length === 0 ? (
        <EmptyState>{words.none}</EmptyState>
      ) : (
        <>
          <LogTable
            title={text.evidence.views.figures}
            head={[words.figure, "", words.value, words.observations, words.plot]}
            rows={figures.map((figure) => ({
              key: `${figure.element} ${figure.parameter}`,
              cells: [
                figure.name,
                words.parameters[figure.parameter],
                valueWords(figure),
                figure.observations.toLocaleString(locale()),
                <Quantiles key="plot" figure={figure} name={figure.name} />,
              ],
            }))}
          />
          <AgainstForecast figures={answer} scenario={scenario.id} />
        </>
      )}
      {people.length > 0 && (
        <LogTable
          title={words.people}
          width="640px"
          head={[words.role, words.count, words.hours, words.observations]}
          rows={people.map(({ role, count }) => {
            const own = hours.find((one) => one.role === role);
            return {
              key: role,
              cells: [
                role,
                String(count),
                own ? words.hoursWords(own.days, own.from, own.to, Math.round(own.share * 100)) : "",
                own ? own.observations.toLocaleString(locale()) : "",
              ],
            };
          })}
        />
      )}
    </Flex>
  );
}

/** In words, with no more digits than there is reason for. */
function valueWords({ parameter, value }: TakenFigure): string {
  if (parameter === "probability" && value.kind === "constant") return percentWords(value.value);
  if (value.kind === "exponential") return words.onAverage(timeWords(value.mean));
  return saidOf(value, "time").replace(/\d+\.\d+/g, (digits) => String(Number(Number(digits).toPrecision(3))));
}

const size = 56;

/** Measured quantiles against those of what is taken, beside the line on which both agree. */
function Quantiles({ figure, name }: { readonly figure: TakenFigure; readonly name: string }) {
  const { quantiles } = figure;
  const most = Math.max(...quantiles.flat(), 0);
  if (most === 0) return null;
  const at = (value: number) => 3 + (value / most) * (size - 6);
  return (
    <svg width={size} height={size} role="img" aria-label={words.plotOf(name)} style={{ display: "inline-block" }}>
      <title>{words.plotOf(name)}</title>
      <line x1={3} y1={size - 3} x2={size - 3} y2={3} stroke="var(--chakra-colors-dots)" />
      {quantiles.map(([measured, said], place) => (
        <circle
          key={`${place} ${measured}`}
          cx={at(measured)}
          cy={size - at(said)}
          r={1.6}
          fill="var(--chakra-colors-accent)"
        />
      ))}
    </svg>
  );
}

/** The forecast of the scenario that is taken, beside what the log says of the same. */
function AgainstForecast({ figures, scenario }: { readonly figures: LogFigures; readonly scenario: string }) {
  const { settled, called, decisionTexts } = useWalks();
  const roles = useRoleDefaults();
  const { share, error, run, stop, fail } = useAskedJob();
  const [forecast, setForecast] = useState<{ readonly of: LogFigures; readonly forecast: Forecast }>();
  const ask = async () => {
    // The version as it would be with the scenario.
    const model = performed(settled, figures.commands);
    if (!called || !roles || !model) return;
    const answer = await run("forecasts", withCalled(model, called), { scenario, roles, decisions: decisionTexts });
    if (!answer) return;
    if ("forecast" in answer) setForecast({ of: figures, forecast: answer.forecast });
    else fail(words.unsound);
  };
  const { durations } = figures;
  const told = forecast?.of === figures ? forecast.forecast.cycleTime : undefined;
  return (
    <Flex direction="column" gap={2}>
      <Button
        size="xs"
        alignSelf="flex-start"
        variant="outline"
        onClick={share === undefined ? () => void ask() : stop}
      >
        {share === undefined ? words.hold : `${text.evidence.stop} (${percentWords(share)})`}
      </Button>
      {error && (
        <chakra.p role="alert" color="trouble">
          {error}
        </chakra.p>
      )}
      {told && (
        <LogTable
          title={words.held}
          width="320px"
          head={[words.figure, words.log, words.forecast]}
          rows={(
            [
              [words.half, durations.median, told.p50],
              [words.ninth, durations.ninth, told.p90],
              [words.mean, durations.mean, told.mean],
            ] as const
          ).map(([name, log, own]) => ({ key: name, cells: [name, timeWords(log), timeWords(own)] }))}
        />
      )}
    </Flex>
  );
}
