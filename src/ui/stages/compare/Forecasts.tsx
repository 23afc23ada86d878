"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { type Forecast, compared as heldAgainst } from "@/core/forecast";
import type { Model } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { useRoleDefaults } from "../../controls/entries";
import { moneyWords, percentWords, timeWords } from "../../controls/units";
import { JobRunner } from "../../kernel/jobRunner";
import { text } from "../../messages";
import { useDecisionTexts } from "../../version/decisionTexts";
import { expectedFigure } from "./expectedFigure";
import type { Compared } from "./useComparison";

const words = text.forecast.against;

/** Of the side that was before, and of the one that comes of it. */
export type BothForecasts = readonly [before: Forecast, after: Forecast];

/** What the changes come to in time and money, where both sides say enough for a forecast: the same cases met both. */
export function Forecasts({ both }: { readonly both: BothForecasts | undefined }) {
  if (!both) return null;
  const [before, after] = both;
  const differences = heldAgainst(before, after);
  const money = (value: number) => moneyWords(value, after.currency);
  return (
    <>
      <Told
        label={text.forecast.tell.within.trim()}
        from={timeWords(before.cycleTime.p90)}
        to={timeWords(after.cycleTime.p90)}
        share={before.cycleTime.p90 > 0 ? after.cycleTime.p90 / before.cycleTime.p90 - 1 : null}
        isSure={null}
      />
      {differences
        .filter(({ figure }) => figure !== "processing")
        .map(({ figure, from, to, share, isMoreThanChance }) => (
          <Told
            key={figure}
            label={words.figures[figure]}
            from={figure === "cost" ? money(from) : timeWords(from)}
            to={figure === "cost" ? money(to) : timeWords(to)}
            share={share}
            isSure={isMoreThanChance}
          />
        ))}
    </>
  );
}

/** Beside what is expected of a change: what the forecast says of that figure, all changes being made together. */
export function ForecastOfExpected({
  both,
  effect,
}: {
  readonly both: BothForecasts | undefined;
  readonly effect: string;
}) {
  const figure = expectedFigure(effect);
  if (!both || !figure) return null;
  const one = heldAgainst(...both).find((difference) => difference.figure === figure);
  if (!one) return null;
  const amount = (value: number) => (figure === "cost" ? moneyWords(value, both[1].currency) : timeWords(value));
  const half = (one.ci95[1] - one.ci95[0]) / 2;
  return (
    <chakra.p fontSize="12px" color="quiet" mb={1.5} data-testid="forecast-of-expected">
      {text.compare.forecastSays(
        words.figures[figure],
        `${one.difference > 0 ? "+" : ""}${amount(one.difference)}`,
        one.isMoreThanChance === null ? "" : amount(half),
      )}
    </chakra.p>
  );
}

function Told(props: {
  readonly label: string;
  readonly from: string;
  readonly to: string;
  readonly share: number | null;
  readonly isSure: boolean | null;
}) {
  const { label, from, to, share, isSure } = props;
  const isLess = share !== null && share < -0.005;
  const isMore = share !== null && share > 0.005;
  return (
    <Box
      px={3}
      py={1.5}
      minW="max-content"
      fontSize="13px"
      flex="1"
      borderInlineEndWidth="1px"
      borderColor="line"
      _last={{ borderInlineEndWidth: 0 }}
      data-effect="forecast"
    >
      <chakra.dt fontSize="12px" color="quiet" whiteSpace="nowrap">
        {label}
      </chakra.dt>
      <chakra.dd m={0} whiteSpace="nowrap">
        <chakra.span color="pencil">{from}</chakra.span> <span>→</span> <chakra.span fontWeight="700">{to}</chakra.span>{" "}
        <chakra.span fontSize="12px" color={isLess ? "good" : isMore ? "trouble" : "quiet"}>
          {share === null ? "" : `${share > 0 ? "+" : ""}${percentWords(share)}`}
          {isLess ? ` ${text.compare.better}` : isMore ? ` ${text.compare.worse}` : ""}
          {isSure === false ? ` ${words.chance}` : ""}
        </chakra.span>
      </chakra.dd>
    </Box>
  );
}

/** The first scenario of both sides, run in a worker, one after the other. */
export function useForecastsOfBoth({ from, to }: Compared): BothForecasts | undefined {
  const roles = useRoleDefaults();
  const models = useMemo(() => [from.model, to.model], [from.model, to.model]);
  const decisions = useDecisionTexts(models);
  const [found, setFound] = useState<BothForecasts | undefined>();
  const [worker] = useState(() => new JobRunner());
  useEffect(() => {
    setFound(undefined);
    const [scenario] = scenariosOf(to.model);
    if (!roles || !decisions || !scenario || !isTold(from.model) || !isTold(to.model)) return;
    let isStale = false;
    const run = async (model: Model): Promise<Forecast | undefined> => {
      const answer = await worker.run("forecasts", { model }, { scenario: scenario.id, roles, decisions });
      return "unsound" in answer ? undefined : answer.forecast;
    };
    const look = async () => {
      const before = await run(from.model);
      if (isStale || !before) return;
      const after = await run(to.model);
      if (!isStale && after) setFound([before, after]);
    };
    // Forecasts are an addition: where they cannot be had, the rest is there.
    look().catch(() => undefined);
    return () => {
      isStale = true;
      worker.stop();
    };
  }, [worker, from.model, to.model, roles]);
  return found;
}

/** Without a word on how often cases come, nothing queues, and a forecast tells little that a comparison does not. */
const isTold = (model: Model): boolean =>
  [...(scenariosOf(model)[0]?.of.values() ?? [])].some(({ interval }) => interval !== undefined);
