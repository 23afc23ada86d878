"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { inVersion } from "@/contract";
import { compared, type Difference, type Forecast } from "@/core/forecast";
import { type Id, trustStored } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { Panel } from "../../controls/Panel";
import { decimals, inUnit, moneyWords, percentWords, timeWords, unitFor } from "../../controls/units";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useDecisionTexts } from "../../version/decisionTexts";
import { useVersion } from "../../version/VersionContext";
import { useForecast, useOpenModels } from "./useForecast";

const words = text.forecast.against;

/** Another scenario of this version, or another version: the same cases met both. */
export function Against({ forecast, scenario }: { readonly forecast: Forecast; readonly scenario: Id }) {
  const info = useVersion((state) => state.info);
  const { settled, called, decisions } = useOpenModels();
  const scenarios = scenariosOf(settled);
  const others = scenarios.filter(({ id }) => id !== scenario);
  const siblings = info.siblings.filter(({ id }) => id !== info.version.id);
  const source = siblings.find(({ id }) => id === info.version.source) ?? siblings[0];
  const [chosen, setChosen] = useState<string | undefined>();
  // A to-be is held against what it comes from, an as-is against its to-be, else one scenario against the other.
  const usual = source ? `v ${source.id}` : others[0] ? `s ${others[0].id}` : "";
  const value = chosen ?? usual;
  const version = value.startsWith("v ") ? value.slice(2) : "";
  const opened = useAsked(inVersion.openVersion, { version }, { isWanted: version !== "" });
  const openedCalls = useAsked(inVersion.openCalled, { version }, { isWanted: version !== "" });
  const theirs = useMemo(() => (opened.data ? trustStored(opened.data.model) : undefined), [opened.data]);
  const theirCalled = useMemo(
    () =>
      openedCalls.data ? new Map(openedCalls.data.called.map((one) => [one.calls, trustStored(one.model)])) : undefined,
    [openedCalls.data],
  );
  const model = version ? theirs : value ? settled : undefined;
  const ofTheirs = version ? (theirs ? scenariosOf(theirs) : undefined) : undefined;
  const name = scenarios.find(({ id }) => id === scenario)?.name;
  const wanted = version
    ? (ofTheirs?.find(({ id }) => id === scenario) ?? ofTheirs?.find((one) => one.name === name) ?? ofTheirs?.[0])?.id
    : value.slice(2) || undefined;
  const theirModels = useMemo(() => (theirs ? [theirs, ...(theirCalled?.values() ?? [])] : []), [theirs, theirCalled]);
  const theirDecisions = useDecisionTexts(theirModels);
  const other = useForecast(model, version ? theirCalled : called, wanted, version ? theirDecisions : decisions);
  const before = other.done?.forecast;
  // What comes of a change stands behind what was before, from whichever side one looks.
  const isBefore = version !== "" && siblings.find(({ id }) => id === version)?.source === info.version.id;
  const [older, newer] = isBefore ? [forecast, before] : [before, forecast];
  const differences = older && newer ? compared(older, newer) : [];
  const isUnsure = differences.some(({ isMoreThanChance }) => isMoreThanChance === null);
  return (
    <Panel
      title={text.forecast.panels.against}
      aside={
        <chakra.select
          aria-label={words.choose}
          value={value}
          h="24px"
          maxW="190px"
          fontSize="12px"
          bg="paper"
          color="ink"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">{words.none}</option>
          {siblings.map(({ id, name: title }) => (
            <option key={id} value={`v ${id}`}>
              {words.version(title)}
            </option>
          ))}
          {others.map(({ id, name: title }) => (
            <option key={id} value={`s ${id}`}>
              {words.scenario(title)}
            </option>
          ))}
        </chakra.select>
      }
      {...(before && {
        table: {
          head: ["", text.forecast.columns.from, text.forecast.columns.to, "±", "%"],
          rows: differences.map((one) => [
            words.figures[one.figure],
            told(one, one.from, forecast.currency),
            told(one, one.to, forecast.currency),
            `${told(one, one.ci95[0], forecast.currency)} … ${told(one, one.ci95[1], forecast.currency)}`,
            one.share === null ? "" : percentWords(one.share),
          ]),
        },
      })}
    >
      {ofTheirs?.length === 0 && <chakra.p color="quiet">{words.noScenario}</chakra.p>}
      {other.unsound && <chakra.p color="quiet">{text.forecast.unsound(other.unsound.name)}</chakra.p>}
      <chakra.dl m={0} data-testid="forecast-against" aria-busy={other.share !== undefined}>
        {older && newer && (
          <Line
            label={text.forecast.tell.within.trim()}
            from={timeWords(older.cycleTime.p90)}
            to={timeWords(newer.cycleTime.p90)}
            share={(newer.cycleTime.p90 - older.cycleTime.p90) / older.cycleTime.p90}
            isSure={false}
          />
        )}
        {differences.map((one) => (
          <Line
            key={one.figure}
            label={words.figures[one.figure]}
            from={told(one, one.from, forecast.currency)}
            to={told(one, one.to, forecast.currency)}
            share={one.share}
            isSure={one.isMoreThanChance === true}
          />
        ))}
      </chakra.dl>
      {before && (
        <chakra.p fontSize="12px" color="quiet" mt={1.5}>
          {isUnsure ? words.unsure : words.sure}
        </chakra.p>
      )}
    </Panel>
  );
}

function told({ figure, from }: Difference, value: number, currency: string): string {
  if (figure === "cost") return moneyWords(value, currency);
  const unit = unitFor(from);
  return `${inUnit(value, unit)} ${unit.word}`;
}

function Line(props: {
  readonly label: string;
  readonly from: string;
  readonly to: string;
  readonly share: number | null;
  readonly isSure: boolean;
}) {
  const { label, from, to, share, isSure } = props;
  const isLess = share !== null && share < 0;
  return (
    <Flex align="baseline" gap={2} py="3px" borderBottomWidth="1px" borderColor="line" fontSize="13px">
      <chakra.dt flex="1" truncate>
        {label}
      </chakra.dt>
      <chakra.dd m={0} color="pencil" whiteSpace="nowrap">
        {from} →
      </chakra.dd>
      <chakra.dd m={0} color="accent" fontWeight="700" whiteSpace="nowrap">
        {to}
      </chakra.dd>
      <chakra.dd
        m={0}
        w="52px"
        textAlign="end"
        color={isLess ? "good" : share ? "trouble" : "quiet"}
        fontWeight={isSure ? "700" : "400"}
        whiteSpace="nowrap"
      >
        {share === null ? "" : `${share > 0 ? "+" : ""}${decimals(share * 100)} %`}
      </chakra.dd>
    </Flex>
  );
}
