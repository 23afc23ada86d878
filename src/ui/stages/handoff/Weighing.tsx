"use client";
import { Box, Button, chakra, Flex, Table } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { inVersion } from "@/contract";
import { type Model, type Weight, weightsOf } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import {
  changesAYear,
  figuresOf,
  keptCandidates,
  type Ranked,
  usualWeights,
  type Weighing as Weighed,
  weigh,
} from "@/core/services";
import { writeTable } from "@/core/table";
import { Choice, TextField } from "../../controls/fields";
import { NewLine } from "../../controls/trayParts";
import { decimals, typedDecimals } from "../../controls/units";
import { giveFile } from "../../kernel/ask";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useExact } from "../../version/useExact";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";

const words = text.handoff.services;
const nameOf = (criterion: string) => words.criteria[criterion] ?? criterion;
/** Shares are shown and said in percent. */
const inCell = (criterion: string, value: number) => (criterion === "rework" ? value * 100 : value);
const outOfCell = (criterion: string, value: number) => (criterion === "rework" ? value / 100 : value);

/** Kept candidates against each other: by which criteria, how much each counts, who comes first, and how sure that is. */
export function Weighing({ model }: { readonly model: Model }) {
  const { settled, called, decisionTexts: decisions } = useWalks();
  const scenario = useMemo(() => scenariosOf(settled)[0], [settled]);
  const exact = useExact({ settled, called, decisions }, scenario);
  const { dispatch } = useVersionStore().getState();
  const definitions = model.elements.get(model.root);
  const said = definitions ? weightsOf(definitions) : [];
  const weights = said.length > 0 ? said : usualWeights;
  const version = useVersion((state) => state.info.version.id);
  const kept = useMemo(() => keptCandidates(model), [model]);
  const groups = useMemo(
    () => Object.fromEntries(kept.map(({ id, operations }) => [id, operations.flatMap(({ from }) => from ?? [])])),
    [kept],
  );
  const { data: changed } = useAsked(inVersion.changeDays, { version, groups }, { keepsLast: true });
  const rows = useMemo(() => {
    const volumes = exact && scenario ? { visits: exact.visits, scenario } : undefined;
    return kept.map((candidate) => {
      const days = changed?.days[candidate.id];
      const changes = changed && days !== undefined ? changesAYear(days, changed.over) : undefined;
      return { candidate, figures: figuresOf(model, candidate, volumes, changes) };
    });
  }, [model, kept, exact, scenario, changed]);
  if (rows.length < 2) return <chakra.p color="quiet">{words.weighingFew}</chakra.p>;
  const weighing = weigh(
    rows.map(({ candidate, figures }) => ({ id: candidate.id, figures })),
    weights,
  );
  const setWeights = (next: readonly Weight[]) => dispatch({ type: "setWeights", weights: [...next] });
  const change = (criterion: string, more: Partial<Weight>) =>
    setWeights(weights.map((one) => (one.criterion === criterion ? { ...one, ...more } : one)));
  const named = (id: string) => rows.find(({ candidate }) => candidate.id === id)?.candidate.name ?? id;
  const save = () => {
    const head = [words.rank, words.candidate, ...weights.map(({ criterion }) => nameOf(criterion)), words.score];
    const lines = weighing.ranking.map(({ id, rank, score }) => {
      const figures = rows.find(({ candidate }) => candidate.id === id)?.figures ?? {};
      const cells = weights.map(({ criterion }) => {
        const value = figures[criterion];
        return value === undefined ? "" : decimals(inCell(criterion, value));
      });
      return [String(rank), named(id), ...cells, decimals(score)];
    });
    const weightLine = ["", words.weight, ...weights.map(({ weight }) => decimals(weight)), ""];
    giveFile(new Blob([`\uFEFF${writeTable([head, weightLine, ...lines])}`], { type: "text/csv" }), words.csvFile);
  };
  return (
    <Box data-testid="weighing">
      <chakra.p mb={2} data-testid="weighing-sentence">
        {sentence(weighing, named)}
      </chakra.p>
      {!exact && (
        <chakra.p mb={2} color="quiet">
          {words.noScenario}
        </chakra.p>
      )}
      <Box overflowX="auto">
        <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line">
          <Table.Header>
            <Table.Row bg="sheet">
              <Table.ColumnHeader color="quiet">{words.candidate}</Table.ColumnHeader>
              {weights.map((one) => (
                <Table.ColumnHeader key={one.criterion} color="quiet" verticalAlign="top">
                  <WeightHead
                    weight={one}
                    onChange={(more) => change(one.criterion, more)}
                    onDrop={() => setWeights(weights.filter(({ criterion }) => criterion !== one.criterion))}
                  />
                </Table.ColumnHeader>
              ))}
              <Table.ColumnHeader color="quiet" minW="150px">
                {words.score}
              </Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {weighing.ranking.map((ranked) => {
              const row = rows.find(({ candidate }) => candidate.id === ranked.id);
              if (!row) return null;
              const { candidate, figures } = row;
              return (
                <Table.Row key={ranked.id} bg="paper">
                  <Table.Cell fontWeight="700" whiteSpace="nowrap">
                    {ranked.rank}. {candidate.name}
                  </Table.Cell>
                  {weights.map(({ criterion }) => {
                    const value = figures[criterion];
                    const shown = value === undefined ? "" : typedDecimals(inCell(criterion, value));
                    const isSaid = Object.hasOwn(candidate.figures, criterion);
                    return (
                      <Table.Cell key={criterion}>
                        <Box w="76px" fontWeight={isSaid ? "700" : "400"}>
                          <TextField
                            label={words.figureOf(nameOf(criterion), candidate.name)}
                            value={shown}
                            onCommit={(typed) => {
                              const number = Number(typed.replace(",", "."));
                              if (typed.trim() !== "" && !Number.isFinite(number)) return;
                              const said = typed.trim() === "" ? null : outOfCell(criterion, number);
                              dispatch({ type: "setCandidateFigure", id: candidate.id, criterion, value: said });
                            }}
                          />
                        </Box>
                      </Table.Cell>
                    );
                  })}
                  <Table.Cell>
                    <Score ranked={ranked} weights={weights} />
                  </Table.Cell>
                </Table.Row>
              );
            })}
          </Table.Body>
        </Table.Root>
      </Box>
      <Flex gap={3} mt={2}>
        <AddCriterion
          onAdd={(criterion) =>
            !weights.some((one) => one.criterion === criterion) &&
            setWeights([...weights, { criterion, weight: 1, isLessBetter: false }])
          }
        />
        <Button size="xs" variant="outline" onClick={save}>
          {words.csv}
        </Button>
      </Flex>
    </Box>
  );
}

function sentence({ ranking, swap }: Weighed, called: (id: string) => string): string {
  const [first, second] = ranking;
  if (!first || !second) return "";
  const [one, other] = [called(first.id), called(second.id)];
  if (first.rank === second.rank) return words.tie(one, other);
  return swap
    ? words.stable(one, other, nameOf(swap.criterion), decimals(swap.from), decimals(swap.to))
    : words.steady(one, other);
}

/** A criterion: how much it counts, and whether more or less of it is better. */
function WeightHead(props: {
  readonly weight: Weight;
  readonly onChange: (more: Partial<Weight>) => void;
  readonly onDrop: () => void;
}) {
  const { weight, onChange, onDrop } = props;
  const name = nameOf(weight.criterion);
  return (
    <Flex direction="column" gap={1} w="104px" fontWeight="400">
      <Flex gap={1}>
        <chakra.span flex="1" fontWeight="700" whiteSpace="normal">
          {name}
        </chakra.span>
        <chakra.button
          type="button"
          aria-label={words.dropCriterion(name)}
          cursor="pointer"
          minW="24px"
          onClick={onDrop}
        >
          ×
        </chakra.button>
      </Flex>
      <TextField
        label={words.weightOf(name)}
        value={typedDecimals(weight.weight)}
        onCommit={(typed) => {
          const value = Number(typed.replace(",", "."));
          if (typed.trim() !== "" && value >= 0) onChange({ weight: value });
        }}
      />
      <Choice
        label={words.betterOf(name)}
        value={weight.isLessBetter ? "less" : "more"}
        options={[
          ["more", words.more],
          ["less", words.less],
        ]}
        onChoose={(better) => onChange({ isLessBetter: better === "less" })}
      />
    </Flex>
  );
}

/** The score as a bar of what each criterion adds to it; which is which is told in words. */
function Score({ ranked, weights }: { readonly ranked: Ranked; readonly weights: readonly Weight[] }) {
  const parts = weights.flatMap(({ criterion }) => {
    const share = ranked.shares[criterion] ?? 0;
    return share > 0 ? [{ criterion, share }] : [];
  });
  const told = parts.map(({ criterion, share }) => `${nameOf(criterion)} ${decimals(share)}`).join(", ");
  return (
    <>
      <Flex align="center" gap={2}>
        <chakra.b w="34px">{decimals(ranked.score)}</chakra.b>
        <Flex role="img" aria-label={told} title={told} h="12px" flex="1" minW="100px" bg="sheet">
          {parts.map(({ criterion, share }, at) => (
            <Box
              key={criterion}
              w={`${share * 100}%`}
              bg={at % 2 === 0 ? "accent" : "pencil"}
              borderEndWidth="1px"
              borderColor="paper"
            />
          ))}
        </Flex>
      </Flex>
      <chakra.div color="quiet" fontSize="12px">
        {told}
      </chakra.div>
      {ranked.unknown.length > 0 && (
        <chakra.div color="quiet" fontSize="12px">
          {words.unknown(ranked.unknown.map(nameOf))}
        </chakra.div>
      )}
    </>
  );
}

function AddCriterion({ onAdd }: { readonly onAdd: (criterion: string) => void }) {
  const [typed, setTyped] = useState("");
  const add = () => {
    if (typed.trim() === "") return;
    onAdd(typed.trim());
    setTyped("");
  };
  return (
    <Box w="200px">
      <NewLine label={words.addCriterion} value={typed} onType={setTyped} onEnter={add} />
    </Box>
  );
}
