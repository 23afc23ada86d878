"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useMemo, useState } from "react";
import type { RunFigures } from "@/contract/live";
import type { Command } from "@/core/commands";
import type { Forecast } from "@/core/forecast";
import { flowNodesIn, type Model } from "@/core/model";
import { constant, scenariosOf } from "@/core/scenario";
import { useRoleDefaults } from "../../controls/entries";
import { Choice } from "../../controls/fields";
import { tell } from "../../controls/notices";
import { decimals, percentWords, timeWords } from "../../controls/units";
import { text } from "../../messages";
import { useAskedJob } from "../../version/useAskedJob";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";
import { withCalled } from "../../version/withCalled";

const words = text.live.against;

/** What was measured beside what was forecast; and what was measured as a scenario to forecast with. */
export function Against({ figures, name }: { readonly figures: RunFigures; readonly name: string }) {
  const model = useVersion((state) => state.model);
  const { dispatch } = useVersionStore().getState();
  const { settled, called, decisionTexts } = useWalks();
  const roles = useRoleDefaults();
  const scenarios = useMemo(() => scenariosOf(model), [model]);
  const [chosen, setChosen] = useState("");
  const scenario = scenarios.find(({ id }) => id === chosen) ?? scenarios[0];
  const { share, error, run, stop, fail } = useAskedJob();
  const [forecast, setForecast] = useState<Forecast>();
  const ask = async () => {
    if (!scenario || !called || !roles) return;
    const input = { scenario: scenario.id, roles, decisions: decisionTexts };
    const answer = await run("forecasts", withCalled(settled, called), input);
    if (!answer) return;
    if ("forecast" in answer) setForecast(answer.forecast);
    else fail(words.unsound);
  };
  const take = () => {
    const id = `scenario-${nanoid(8)}`;
    const said = assumptionsFrom(figures, model, id);
    if (said.length === 0) {
      fail(words.nothing);
      return;
    }
    const title = words.name(name);
    dispatch({ type: "addScenario", id, name: title, ...(scenario && { inherits: scenario.id }) }, ...said);
    tell({ description: words.takenInto(title, said.length) });
  };
  const rows = forecast ? comparedWith(figures, forecast) : [];
  return (
    <chakra.section aria-label={words.title} bg="paper" borderWidth="1px" borderColor="line" borderRadius="6px" p={4}>
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.h2 fontSize="14px" fontWeight="700">
          {words.title}
        </chakra.h2>
        <chakra.span color="quiet" fontSize="13px" flex="1">
          {words.explain(figures.measured)}
        </chakra.span>
        {scenario ? (
          <>
            <Choice
              label={words.scenario}
              value={scenario.id}
              options={scenarios.map((one) => [one.id, one.name] as const)}
              onChoose={setChosen}
            />
            <Button size="xs" variant="outline" onClick={share === undefined ? () => void ask() : stop}>
              {share === undefined ? words.forecast : `${words.stop} (${percentWords(share)})`}
            </Button>
          </>
        ) : (
          <chakra.span color="quiet">{words.none}</chakra.span>
        )}
        <Button size="xs" variant="outline" disabled={figures.measured === 0} title={words.takes} onClick={take}>
          {words.take}
        </Button>
      </Flex>
      {error && (
        <chakra.p role="alert" color="trouble" mt={2}>
          {error}
        </chakra.p>
      )}
      {rows.length > 0 && (
        <chakra.table
          mt={3}
          w="100%"
          fontSize="13px"
          data-testid="against"
          css={{ "& th, & td": { padding: "3px 8px 3px 0", textAlign: "start" } }}
        >
          <thead>
            <chakra.tr color="quiet" fontSize="12px">
              {[words.figure, words.measured, words.forecasted, words.difference].map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </chakra.tr>
          </thead>
          <tbody>
            {rows.map(({ figure, measured, expected }) => (
              <chakra.tr key={figure} borderTopWidth="1px" borderColor="line">
                <td>{figure}</td>
                <td>{timeWords(measured)}</td>
                <td>{timeWords(expected)}</td>
                <td>{differenceWords(measured, expected)}</td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      )}
      <chakra.p color="quiet" fontSize="12px" mt={2}>
        {words.takes}
      </chakra.p>
    </chakra.section>
  );
}

interface Compared {
  readonly figure: string;
  readonly measured: number;
  readonly expected: number;
}

/** Durations, and of each step how long it waits and takes, side by side. */
function comparedWith({ ended, steps }: RunFigures, { cycleTime, elements }: Forecast): Compared[] {
  const durations = ended.map(({ seconds }) => seconds);
  const mean = durations.reduce((sum, value) => sum + value, 0) / Math.max(1, durations.length);
  return [
    { figure: words.duration, measured: mean, expected: cycleTime.mean },
    ...steps.flatMap(({ element, name, waitingMean, workingMean }) => {
      const one = elements.find(({ id }) => id === element);
      if (!one) return [];
      return [
        { figure: words.waiting(name), measured: waitingMean, expected: one.waitingMean },
        { figure: words.working(name), measured: workingMean, expected: one.processingMean },
        // What a machine does at once says nothing.
      ].filter(({ measured, expected }) => measured > 0 || expected > 0);
    }),
  ];
}

/** Less than a twentieth either way is told as the same. */
const noticed = 0.05;

function differenceWords(measured: number, expected: number): string {
  if (expected <= 0) return measured <= 0 ? words.same : "";
  const share = measured / expected - 1;
  if (share >= 2) return words.times(decimals(measured / expected));
  if (Math.abs(share) < noticed) return words.same;
  return share > 0 ? words.longer(percentWords(share)) : words.shorter(percentWords(-share));
}

/** What was measured of what the version still has, as assumptions of a scenario. */
function assumptionsFrom({ interval, steps, ways }: RunFigures, model: Model, scenario: string): Command[] {
  const said: Command[] = [];
  const say = (element: string, parameter: "interval" | "processing" | "probability", value: unknown) => {
    if (model.elements.has(element))
      said.push({ type: "setAssumption", scenario, element, parameter, value } as Command);
  };
  const start = [...model.elements]
    .filter(({ type }) => type === "process")
    .flatMap(({ id }) => flowNodesIn(model, id))
    .find(({ type }) => type === "startEvent");
  if (interval && start) say(start.id, "interval", interval);
  for (const { element, working } of steps) if (working) say(element, "processing", working);
  for (const { flow, share } of ways) say(flow, "probability", constant(Math.round(share * 1000) / 1000));
  return said;
}
