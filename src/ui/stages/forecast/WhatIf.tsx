"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import type { Effect } from "@/core/forecast";
import type { Id } from "@/core/model";
import { constant, type Input, inputOf, readSaid, type Scenario, saidOf } from "@/core/scenario";
import type { VariedPoint } from "@/jobs";
import { DialogFrame } from "../../controls/DialogFrame";
import { useRoleDefaults } from "../../controls/entries";
import { text } from "../../messages";
import { inputsOf, type SheetRow } from "../../version/figures/sheetRows";
import { useAskedJob } from "../../version/useAskedJob";
import { withCalled } from "../../version/withCalled";
import { AskField, AskSelect, UnderWay } from "./askParts";
import type { useOpenModels } from "./useForecast";
import { type FigureName, figureNames, VariedChart } from "./VariedChart";
import { WhatMatters } from "./WhatMatters";

const words = text.forecast.what;
type Turned = ReturnType<typeof inputsOf>[number];
interface Range {
  readonly from: string;
  readonly to: string;
}
/** Points along one input, and along each of two. */
const points1 = 7;
const points2 = 5;

/** One input over a range, or two against each other, and what follows: each point a forecast with the same cases. */
export function WhatIf(props: {
  readonly models: ReturnType<typeof useOpenModels>;
  readonly scenario: Scenario;
  readonly rows: readonly SheetRow[];
  /** How many there are of each resource, by the scenario or the directory. */
  readonly quantities: ReadonlyMap<Id, number>;
  readonly onClose: () => void;
}) {
  const { models, scenario, rows, quantities, onClose } = props;
  const roles = useRoleDefaults();
  const inputs = useMemo(() => inputsOf(rows), [rows]);
  const { share, error, run, stop, fail } = useAskedJob();
  const [chosen, setChosen] = useState<readonly number[]>([0]);
  const [figure, setFigure] = useState<FigureName>("p90");
  const [ranges, setRanges] = useState<readonly (Range | undefined)[]>([]);
  const [shown, setShown] = useState<
    | { readonly points: readonly VariedPoint[]; readonly turned: readonly Turned[] }
    | { readonly effects: readonly Effect[] }
  >();
  const turned = chosen.flatMap((at) => inputs[at] ?? []);
  const rangeAt = (at: number): Range => {
    const one = turned[at];
    return (
      ranges[at] ??
      (one
        ? rangeOf(one.input, inputOf(scenario, one.input) ?? quantities.get(one.input.element))
        : { from: "", to: "" })
    );
  };
  const choose = (at: number, input: number) => {
    setChosen(input < 0 ? chosen.slice(0, at) : [...chosen.slice(0, at), input, ...chosen.slice(at + 1)]);
    setRanges(ranges.slice(0, at));
    setShown(undefined);
  };
  const turn = (at: number, change: Partial<Range>) =>
    setRanges(chosen.map((_, one) => (one === at ? { ...rangeAt(one), ...change } : ranges[one])));
  const look = async () => {
    const [one, other] = turned;
    if (!one || !models.called || !roles) return;
    const values: (readonly number[])[] = [];
    for (const [at, { input }] of turned.entries()) {
      const { from, to } = rangeAt(at);
      const some = valuesOf(input, from, to, turned.length > 1 ? points2 : points1);
      if (!some) {
        fail(text.forecast.sheet.cannotNumber(`${from} … ${to}`));
        return;
      }
      values.push(some);
    }
    const answer = await run("vary", withCalled(models.settled, models.called), {
      scenario: scenario.id,
      roles,
      decisions: models.decisions,
      input: one.input,
      values: values[0] ?? [],
      ...(other && { second: { input: other.input, values: values[1] ?? [] } }),
    });
    if (answer && "points" in answer) setShown({ points: answer.points, turned });
  };
  const rank = async () => {
    if (!models.called || !roles) return;
    const answer = await run("matters", withCalled(models.settled, models.called), {
      scenario: scenario.id,
      roles,
      decisions: models.decisions,
      inputs: inputs.map(({ input }) => input),
      figure: figure === "waiting" ? "mean" : figure,
      replications: Math.min(3, scenario.replications ?? 1),
    });
    if (answer && "effects" in answer) setShown({ effects: answer.effects });
  };
  const nameOf = ({ input }: Effect) => {
    const found = inputs.find((other) => other.input.element === input.element && other.input.what === input.what);
    return found ? `${found.name}: ${words.kinds[found.what as keyof typeof words.kinds]}` : input.element;
  };
  return (
    <DialogFrame
      title={words.title}
      width="760px"
      onClose={onClose}
      footer={
        <Button variant="outline" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <Flex gap={2} align="center" wrap="wrap" fontSize="13px" pb={3}>
        {[0, ...(chosen.length > 0 && inputs.length > 1 ? [1] : [])].map((at) => (
          <Flex key={at} gap={2} align="center" w="100%">
            <chakra.span minW="62px">{at === 0 ? words.input : words.and}</chakra.span>
            <AskSelect
              label={at === 0 ? words.input : words.and}
              value={String(chosen[at] ?? -1)}
              onChange={(value) => choose(at, Number(value))}
            >
              {at > 0 && <option value={-1}>{words.alone}</option>}
              {inputs.map(({ input, name, what }, number) =>
                at > 0 && number === chosen[0] ? null : (
                  <option key={`${input.element} ${what}`} value={number}>
                    {name}: {words.kinds[what as keyof typeof words.kinds]}
                  </option>
                ),
              )}
            </AskSelect>
            {chosen[at] !== undefined && (
              <>
                <span>{words.from}</span>
                <AskField
                  label={at === 0 ? words.from : words.secondFrom}
                  value={rangeAt(at).from}
                  onChange={(from) => turn(at, { from })}
                />
                <span>{words.to}</span>
                <AskField
                  label={at === 0 ? words.to : words.secondTo}
                  value={rangeAt(at).to}
                  onChange={(to) => turn(at, { to })}
                />
              </>
            )}
          </Flex>
        ))}
        <chakra.span minW="62px">{words.figure}</chakra.span>
        <AskSelect label={words.figure} value={figure} onChange={(value) => setFigure(value as FigureName)}>
          {Object.entries(figureNames()).map(([name, title]) => (
            <option key={name} value={name}>
              {title}
            </option>
          ))}
        </AskSelect>
        {share !== undefined ? (
          <UnderWay share={share} onStop={stop} />
        ) : (
          <>
            <Button size="sm" h="28px" bg="accent" color="onAccent" onClick={() => void look()}>
              {words.run}
            </Button>
            <Button size="sm" h="28px" variant="outline" bg="paper" borderColor="line" onClick={() => void rank()}>
              {words.matters}
            </Button>
          </>
        )}
      </Flex>
      {error && (
        <chakra.p color="trouble" role="alert" fontSize="13px">
          {error}
        </chakra.p>
      )}
      {shown && "effects" in shown ? (
        <WhatMatters
          effects={shown.effects}
          nameOf={nameOf}
          currency={figure === "cost" ? scenario.currency : undefined}
        />
      ) : shown ? (
        <VariedChart {...shown} figure={figure} currency={scenario.currency} />
      ) : (
        <chakra.p color="quiet" py={8} textAlign="center">
          {words.nothing}
        </chakra.p>
      )}
    </DialogFrame>
  );
}

/** The values of an input from one amount to another; undefined where these are none. */
function valuesOf(input: Input, from: string, to: string, most: number): readonly number[] | undefined {
  const [low, high] = [amountOf(input, from), amountOf(input, to)];
  if (low === undefined || high === undefined || high <= low) return undefined;
  const isWhole = input.what === "quantity";
  const count = isWhole ? Math.min(most === points1 ? 12 : most, Math.round(high - low) + 1) : most;
  const values = Array.from({ length: count }, (_, at) => {
    const value = low + ((high - low) * at) / Math.max(1, count - 1);
    return isWhole ? Math.round(value) : value;
  });
  return [...new Set(values)];
}

/** From half to double of what it is now, or a few people. */
function rangeOf(input: Input, now: number | undefined): Range {
  if (input.what === "quantity") return { from: "1", to: String(Math.max(4, (now ?? 2) + 2)) };
  if (input.what === "probability") return { from: "0 %", to: `${Math.min(100, Math.round((now ?? 0.25) * 200))} %` };
  const time = (seconds: number) => saidOf(constant(Math.round(seconds / 60) * 60), "time");
  return { from: time((now ?? 3600) / 2), to: time((now ?? 3600) * 2) };
}

function amountOf(input: Input, typed: string): number | undefined {
  if (input.what === "interval" || input.what === "processing") {
    const read = readSaid(typed, "time");
    return read?.kind === "constant" && read.value > 0 ? read.value : undefined;
  }
  const value = Number(typed.replace("%", "").replace(",", ".").trim());
  if (!Number.isFinite(value) || value < 0) return undefined;
  return input.what === "probability" ? Math.min(1, value / 100) : Math.round(value);
}
