"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import type { Finding } from "@/core/check";
import { type Effect, effectOf } from "@/core/compare";
import type { Model } from "@/core/model";
import { JobRunner } from "../../kernel/jobRunner";
import { locale, text } from "../../messages";
import { type BothForecasts, Forecasts } from "./Forecasts";
import type { Compared } from "./useComparison";

const signed = () => new Intl.NumberFormat(locale(), { signDisplay: "exceptZero" });
const share = () =>
  new Intl.NumberFormat(locale(), { style: "percent", signDisplay: "exceptZero", maximumFractionDigits: 0 });

/** What the changes come to: the figures of both sides, with difference and percent. */
export function EffectBar({
  compared,
  both,
}: {
  readonly compared: Compared;
  readonly both: BothForecasts | undefined;
}) {
  const { from, to } = compared;
  const findings = useFindingsOfBoth(compared);
  const effects = useMemo(() => effectOf(from.model, to.model, findings), [from.model, to.model, findings]);
  return (
    <Flex
      as="dl"
      data-testid="effect"
      bg="paper"
      borderTopWidth="1px"
      borderColor="line"
      overflowX="auto"
      flexShrink={0}
      aria-label={text.compare.effect}
      // Wider than the window once both forecasts are in: by keyboard it is scrolled too.
      tabIndex={0}
    >
      <Forecasts both={both} />
      {effects.map((effect) => (
        <Figure key={effect.id} effect={effect} />
      ))}
    </Flex>
  );
}

function Figure({ effect }: { readonly effect: Effect }) {
  const { id, from, to, difference, less } = effect;
  const isBetter = less === "better" && difference < 0;
  const isWorse = less === "better" && difference > 0;
  const tone = isBetter ? "good" : isWorse ? "trouble" : "quiet";
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
      data-effect={id}
    >
      <chakra.dt fontSize="12px" color="quiet" whiteSpace="nowrap">
        {text.compare.effects[id]}
      </chakra.dt>
      <chakra.dd m={0} whiteSpace="nowrap">
        {difference === 0 ? (
          <chakra.span fontWeight="600">{to}</chakra.span>
        ) : (
          <>
            <chakra.span color="pencil">{from}</chakra.span> <span>→</span>{" "}
            <chakra.span fontWeight="700">{to}</chakra.span>{" "}
            <chakra.span fontSize="12px" color={tone}>
              {signed().format(difference)}
              {effect.share === undefined ? "" : `, ${share().format(effect.share)}`}
              {isBetter ? ` ${text.compare.better}` : isWorse ? ` ${text.compare.worse}` : ""}
            </chakra.span>
          </>
        )}
      </chakra.dd>
    </Box>
  );
}

/** Both sides checked for the same purpose, in a worker, one after the other. */
function useFindingsOfBoth({ from, to }: Compared) {
  const [found, setFound] = useState<{ from: readonly Finding[]; to: readonly Finding[] } | undefined>();
  const [worker] = useState(() => new JobRunner());
  useEffect(() => {
    let isStale = false;
    const check = (model: Model) => worker.run("findings", { model }, { profile: "review", part: "all" });
    const look = async () => {
      const first = await check(from.model);
      if (isStale) return;
      const second = await check(to.model);
      if (!isStale) setFound({ from: first, to: second });
    };
    // Figures of the check are an addition: where they cannot be had, the rest is there.
    look().catch(() => undefined);
    return () => {
      isStale = true;
      worker.stop();
    };
  }, [worker, from.model, to.model]);
  return found;
}
