"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { isDecidedByData, namesDrawn } from "@/core/forecast";
import type { Scenario } from "@/core/scenario";
import { decodeText } from "@/core/table";
import { worldWith } from "@/core/tokens";
import { useEntries } from "../../controls/entries";
import { giveFile } from "../../kernel/ask";
import { text } from "../../messages";
import { cellLabels, cellsOf } from "../../version/figures/cells";
import { commandsFor, shown, spreadIn } from "../../version/figures/figureText";
import { SaidCell, type Took } from "../../version/figures/SaidCell";
import { type CellName, dataRows, type SheetRow, sheetRows, siteRows } from "../../version/figures/sheetRows";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";
import { HowItIsRun } from "./HowItIsRun";
import { readSheetTable, writeSheetTable } from "./sheetTable";

const words = text.forecast.sheet;
/** Curves take more room than numbers. */
const curveWidths = "minmax(0, 2.6fr) minmax(0, 2.2fr) minmax(0, 0.7fr)";
const widthsOf = (kind: SheetRow["kind"]) =>
  kind === "people" ? "minmax(0, 1.8fr) minmax(0, 1.4fr) minmax(0, 1.2fr) minmax(0, 1.2fr)" : curveWidths;

/** All a scenario says, a row a start, step, decision and role; only the figures that its kind has. */
export function ScenarioSheet({ scenario }: { readonly scenario: Scenario }) {
  const model = useVersion((state) => state.model);
  const store = useVersionStore();
  const { called, decisions } = useWalks();
  const world = useMemo(() => worldWith(model, called ?? new Map(), true, decisions), [model, called, decisions]);
  const rows = useMemo(
    () => [...sheetRows(model), ...dataRows(world, scenario), ...siteRows(model, scenario)],
    [model, world, scenario],
  );
  const drawn = useMemo(() => namesDrawn(world, scenario), [world, scenario]);
  const isByData = ({ element }: SheetRow) => {
    const gateway = model.elements.get(String(model.elements.get(element)?.sourceRef));
    return gateway !== undefined && isDecidedByData(model, gateway, drawn);
  };
  const [problems, setProblems] = useState<readonly string[]>([]);
  const { entries } = useEntries();
  const directory = useMemo(() => new Map(entries.map((entry) => [entry.id, entry])), [entries]);
  const say = (row: SheetRow, parameter: CellName, typed: string): Took => {
    const commands = commandsFor(row, parameter, typed, scenario);
    if (typeof commands === "string") return commands;
    return store.getState().dispatch(...commands) ? undefined : "";
  };
  const paste = (from: SheetRow, parameter: CellName, lines: readonly string[]) => {
    const column = rows.filter((row) => row.says.includes(parameter));
    const at = column.indexOf(from);
    const commands = lines.flatMap((line, place) => {
      const row = column[at + place];
      const made = row ? commandsFor(row, parameter, line.trim(), scenario) : [];
      return typeof made === "string" ? [] : made;
    });
    store.getState().dispatch(...commands);
  };
  const takeFile = async (file: File) => {
    const { commands, problems: told } = readSheetTable(
      decodeText(new Uint8Array(await file.arrayBuffer())),
      rows,
      scenario,
    );
    setProblems(told);
    if (commands.length > 0) store.getState().dispatch(...commands);
  };
  const usualOf = (row: SheetRow, parameter: CellName): string => {
    const entry = row.entry === undefined ? undefined : directory.get(row.entry);
    const from = (value: number | null | undefined, more = "") =>
      value == null ? "" : `${value}${more} (${words.fromDirectory})`;
    if (parameter === "quantity") return from(entry?.headcount);
    if (parameter === "unitCost") return from(entry?.costPerHour);
    if (parameter === "availability") return from(entry?.hoursPerWeek, " h") || words.always;
    if (parameter === "probability" && row.kind === "share") return isByData(row) ? words.byData : words.rest;
    if (row.data) return words.notDrawn;
    return row.drawn !== undefined && parameter === "interval" ? `${row.drawn} (${words.byModel})` : "";
  };
  const groups = [
    [words.start, rows.filter(({ kind }) => kind === "start")],
    [words.steps, rows.filter(({ kind }) => stepKinds.has(kind))],
    [words.people, rows.filter(({ kind }) => kind === "people")],
    [words.data, rows.filter(({ kind }) => kind === "data")],
    [words.systems, rows.filter(({ kind }) => kind === "system")],
    [words.ways, rows.filter(({ kind }) => kind === "way")],
  ] as const;
  return (
    <Flex
      direction={{ base: "column", xl: "row" }}
      gap={4}
      px={5}
      pb={4}
      flex="1"
      minH={0}
      overflow="auto"
      align="flex-start"
    >
      <Box flex="1" minW={0} w="100%" data-sheet role="group" aria-label={words.label}>
        <Flex gap={3} fontSize="12px" color="quiet" pb={1} align="baseline">
          <chakra.p flex="1">{words.hint}</chakra.p>
          <chakra.button
            type="button"
            color="accent"
            cursor="pointer"
            onClick={() =>
              giveFile(
                new Blob([`\uFEFF${writeSheetTable(rows, scenario)}`], { type: "text/csv" }),
                `${scenario.name}.csv`,
              )
            }
          >
            {words.csvOut}
          </chakra.button>
          <chakra.label color="accent" cursor="pointer">
            {words.csvIn}
            <chakra.input
              type="file"
              accept=".csv,text/csv"
              srOnly
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                event.target.value = "";
                if (file) void takeFile(file);
              }}
            />
          </chakra.label>
        </Flex>
        {problems.length > 0 && (
          <chakra.ul role="alert" fontSize="12px" color="trouble" pb={2}>
            {problems.slice(0, 8).map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </chakra.ul>
        )}
        {groups.map(([title, list], group) =>
          group > 2 && list.length === 0 ? null : (
            <Box
              key={title}
              as="section"
              aria-label={title}
              bg="paper"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              mb={3}
            >
              <Flex px={3} pt={2} pb={1} gap={2} align="baseline">
                <chakra.h2 fontSize="13px" fontWeight="700" w="22%" minW="150px">
                  {title}
                </chakra.h2>
                <Box w="126px" flexShrink={0} />
                <Box
                  display="grid"
                  gridTemplateColumns={widthsOf(list[0]?.kind ?? "step")}
                  gap={2}
                  flex="1"
                  fontSize="12px"
                  color="quiet"
                  aria-hidden
                >
                  {cellsOf(headKind(list)).map(([parameter, label]) => (
                    <chakra.span key={parameter} px={1.5}>
                      {label}
                    </chakra.span>
                  ))}
                </Box>
              </Flex>
              {list.map((row) => (
                <Row
                  key={`${row.kind} ${row.element}`}
                  row={row}
                  scenario={scenario}
                  usualOf={usualOf}
                  onSay={say}
                  onPaste={paste}
                />
              ))}
            </Box>
          ),
        )}
      </Box>
      <HowItIsRun scenario={scenario} />
    </Flex>
  );
}

const stepKinds: ReadonlySet<SheetRow["kind"]> = new Set(["step", "decision", "share", "event"]);

/** The kind of row whose columns stand at the head of a group. */
function headKind(list: readonly SheetRow[]): SheetRow["kind"] {
  const kind = list[0]?.kind ?? "step";
  return stepKinds.has(kind) ? "step" : kind;
}

/** Among steps a figure stands under its heading. */
const placeOf = ({ kind }: SheetRow, name: CellName): number | undefined =>
  stepKinds.has(kind) ? cellsOf("step").findIndex(([one]) => one === name) + 1 || undefined : undefined;

function Row(props: {
  readonly row: SheetRow;
  readonly scenario: Scenario;
  readonly usualOf: (row: SheetRow, parameter: CellName) => string;
  readonly onSay: (row: SheetRow, parameter: CellName, typed: string) => Took;
  readonly onPaste: (row: SheetRow, parameter: CellName, lines: readonly string[]) => void;
}) {
  const { row, scenario, usualOf, onSay, onPaste } = props;
  const cells = cellsOf(row.kind).filter(([parameter]) => row.says.includes(parameter));
  return (
    <Flex
      px={3}
      py="1px"
      gap={2}
      align="flex-start"
      borderTopWidth="1px"
      borderColor="line"
      minH="27px"
      data-row={row.element}
    >
      <chakra.span
        w="22%"
        minW="150px"
        truncate
        fontSize="13px"
        pt="3px"
        style={{ paddingInlineStart: row.depth * 14 }}
        color={row.kind === "share" ? "quiet" : "ink"}
        title={row.name}
      >
        {row.name}
      </chakra.span>
      <Box w="126px" flexShrink={0}>
        {row.says.includes("selection") ? (
          <SaidCell
            label={`${cellLabels().step.selection}: ${row.name}`}
            column="selection"
            value={shown(row, "selection", scenario)}
            usual={row.by}
            isOwn={scenario.inherits !== undefined && shown(row, "selection", scenario, true) !== ""}
            onSay={(typed) => onSay(row, "selection", typed)}
            onPaste={(lines) => onPaste(row, "selection", lines)}
          />
        ) : (
          <chakra.span display="block" truncate fontSize="12px" color="quiet" pt="4px">
            {row.by}
          </chakra.span>
        )}
      </Box>
      <Box display="grid" gridTemplateColumns={widthsOf(row.kind)} gap={2} flex="1" minW={0}>
        {cells.map(([parameter, label]) => (
          <Box key={parameter} gridColumn={placeOf(row, parameter)}>
            <SaidCell
              label={`${label}: ${row.name}`}
              column={parameter}
              value={shown(row, parameter, scenario)}
              usual={usualOf(row, parameter)}
              spread={spreadIn(row, parameter, scenario)}
              isOwn={scenario.inherits !== undefined && shown(row, parameter, scenario, true) !== ""}
              onSay={(typed) => onSay(row, parameter, typed)}
              onPaste={(lines) => onPaste(row, parameter, lines)}
            />
          </Box>
        ))}
      </Box>
    </Flex>
  );
}
