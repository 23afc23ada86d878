"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Download, X } from "lucide-react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import {
  type Handover,
  handoverMatrix,
  handoversOf,
  type MatrixColumn,
  type MatrixView,
  matrixCell,
  matrixColumns,
  matrixTable,
  partOfLetter,
  rolesOf,
  stepName,
  stepsOf,
  useOfLetter,
} from "@/core/directory";
import { tableToSvg } from "@/core/drawing";
import { type Element, type Id, type Model, systemsOf } from "@/core/model";
import { writeTable } from "@/core/table";
import { EntryPicker } from "../../controls/EntryPicker";
import { useEntries } from "../../controls/entries";
import { giveFile } from "../../kernel/ask";
import { text } from "../../messages";
import { newId } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";

interface MatrixProps {
  readonly model: Model;
  /** Shows hand-overs on the diagram: all, or those of one cell, with what they join. */
  readonly onShow: (which: { between: "roles" | "systems"; from?: string; to?: string }, ids: readonly Id[]) => void;
  readonly onClose: () => void;
}

/** Who does what with what, as tables one writes in with the keyboard; and how often work changes hands. */
export function Matrix({ model, onShow, onClose }: MatrixProps) {
  const [view, setView] = useState<MatrixView>("roles");
  const views = Object.entries(text.matrix.views) as [MatrixView, string][];
  return (
    <Flex
      role="dialog"
      aria-label={text.matrix.title}
      data-testid="matrix"
      direction="column"
      position="absolute"
      inset="12px"
      zIndex={3}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      boxShadow="0 4px 16px rgb(0 0 0 / 14%)"
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
        event.stopPropagation();
      }}
    >
      <Flex align="center" gap={2} px={3} h="42px" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
        <Flex role="tablist" gap={1} flex="1">
          {views.map(([name, words]) => (
            <Button
              key={name}
              role="tab"
              aria-selected={view === name}
              size="xs"
              variant="outline"
              bg={view === name ? "accentSoft" : "paper"}
              borderColor={view === name ? "accent" : "line"}
              onClick={() => setView(name)}
            >
              {words}
            </Button>
          ))}
        </Flex>
        <chakra.span color="quiet" fontSize="13px">
          {view === "roles" ? text.matrix.roleKeys : view === "systems" ? text.matrix.systemKeys : text.matrix.counted}
        </chakra.span>
        <Files model={model} view={view} />
        <Button size="2xs" variant="ghost" aria-label={text.dialog.close} onClick={onClose}>
          <X size={14} />
        </Button>
      </Flex>
      <Box flex="1" minH={0} overflow="auto">
        {view === "roles" || view === "systems" ? (
          <Assignments key={view} model={model} kind={view} />
        ) : (
          <Handovers model={model} between={view === "roleHandovers" ? "roles" : "systems"} onShow={onShow} />
        )}
      </Box>
    </Flex>
  );
}

/** The table one looks at, as a file for a spreadsheet or a picture for a page. */
function Files({ model, view }: { readonly model: Model; readonly view: MatrixView }) {
  const { entries } = useEntries();
  const give = (format: "csv" | "svg") => {
    const named = (column: MatrixColumn) => entries.find(({ id }) => id === column.entry)?.name ?? column.name;
    const table = matrixTable(model, view, named);
    const corner = view === "roles" || view === "systems" ? text.matrix.step : text.matrix.fromTo;
    const content =
      format === "csv"
        ? writeTable([[corner, ...table.columns], ...table.rows.map(({ name, cells }) => [name, ...cells])])
        : tableToSvg({ title: text.matrix.views[view], corner, ...table });
    const type = format === "csv" ? "text/csv" : "image/svg+xml";
    giveFile(new Blob([content], { type }), `${text.matrix.fileNames[view]}.${format}`);
  };
  return (["csv", "svg"] as const).map((format) => (
    <Button key={format} size="xs" variant="ghost" fontWeight="400" onClick={() => give(format)}>
      <Download size={13} /> {text.matrix.files[format]}
    </Button>
  ));
}

function Assignments({ model, kind }: { readonly model: Model; readonly kind: "roles" | "systems" }) {
  const { dispatch } = useVersionStore().getState();
  const { entries } = useEntries();
  const [more, setMore] = useState<readonly MatrixColumn[]>([]);
  const [at, setAt] = useState<readonly [row: number, column: number]>([0, 0]);
  const grid = useRef<HTMLTableElement>(null);
  const steps = useMemo(() => stepsOf(model), [model]);
  const columns = useMemo(() => {
    const used = matrixColumns(model, steps, kind);
    return [...used, ...more.filter(({ entry }) => !used.some((one) => one.entry === entry))];
  }, [model, steps, kind, more]);
  const named = (column: MatrixColumn) => entries.find((entry) => entry.id === column.entry)?.name ?? column.name;
  const go = (row: number, column: number) => {
    const next = [
      Math.max(0, Math.min(steps.length - 1, row)),
      Math.max(0, Math.min(columns.length - 1, column)),
    ] as const;
    setAt(next);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next[0]} ${next[1]}"]`)?.focus();
  };
  const write = (step: Element, column: MatrixColumn, letter: string): boolean => {
    if (kind === "roles") return writeRole(step, column, letter);
    const use = useOfLetter[letter];
    const held = systemsOf(step).find((system) => system.entry === column.entry);
    if (letter === "delete" || (use && held?.use === use))
      return held ? dispatch({ type: "dropSystem", step: step.id, entry: column.entry }) : true;
    return use
      ? dispatch({ type: "useSystem", step: step.id, system: { ...column, name: named(column) }, use })
      : false;
  };
  const writeRole = (step: Element, column: MatrixColumn, letter: string): boolean => {
    const own = rolesOf(model, step.id).filter((role) => role.entry === column.entry && role.from === "step");
    const part = partOfLetter[letter];
    const held = own.find((role) => role.part === part);
    if (letter === "delete")
      return (
        own.length === 0 ||
        dispatch(...own.map((role) => ({ type: "unassignRole", assignment: role.element }) as const))
      );
    if (!part) return false;
    if (held) return dispatch({ type: "unassignRole", assignment: held.element });
    const role = { entry: column.entry, name: named(column) };
    return dispatch({ type: "assignRole", step: step.id, role, part, id: newId("role") });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const [row, column] = at;
    const moves: { readonly [key: string]: readonly [number, number] } = {
      ArrowDown: [row + 1, column],
      ArrowUp: [row - 1, column],
      ArrowRight: [row, column + 1],
      ArrowLeft: [row, column - 1],
      Home: [row, 0],
      End: [row, columns.length - 1],
    };
    const move = moves[event.key];
    if (move) go(...move);
    else {
      const [step, where] = [steps[row], columns[column]];
      const letter = event.key === "Backspace" ? "delete" : event.key.toLowerCase();
      if (event.ctrlKey || event.metaKey || event.altKey || !step || !where || !write(step, where, letter)) return;
    }
    event.preventDefault();
  };
  if (steps.length === 0) return <Empty words={text.matrix.noSteps} />;
  return (
    <chakra.table
      ref={grid}
      role="grid"
      aria-label={text.matrix.views[kind]}
      onKeyDown={onKeyDown}
      css={{ borderCollapse: "separate", borderSpacing: 0 }}
    >
      <thead>
        <tr>
          <Heading>{text.matrix.step}</Heading>
          {columns.map((column) => (
            <Heading key={column.entry}>{named(column)}</Heading>
          ))}
          <Heading>
            <EntryPicker
              kind={kind === "roles" ? "role" : "system"}
              label={text.matrix.addColumn[kind]}
              words={text.matrix.addColumn[kind]}
              side="below"
              onChoose={(entry) => setMore((known) => [...known, entry])}
            />
          </Heading>
        </tr>
      </thead>
      <tbody>
        {steps.map((step, row) => (
          <tr key={step.id}>
            <chakra.th
              scope="row"
              textAlign="start"
              fontWeight="400"
              px={3}
              h="28px"
              position="sticky"
              left={0}
              bg="paper"
              borderBottomWidth="1px"
              borderColor="line"
            >
              {stepName(model, step)}
            </chakra.th>
            {columns.map((column, index) => {
              const { letters, fromLane } = matrixCell(model, step, column.entry, kind);
              return (
                <chakra.td
                  key={column.entry}
                  role="gridcell"
                  data-cell={`${row} ${index}`}
                  tabIndex={at[0] === row && at[1] === index ? 0 : -1}
                  aria-label={`${stepName(model, step)}, ${named(column)}: ${letters || text.tray.none}`}
                  textAlign="center"
                  fontWeight="700"
                  color={fromLane ? "quiet" : "ink"}
                  borderBottomWidth="1px"
                  borderLeftWidth="1px"
                  borderColor="line"
                  onFocus={() => setAt([row, index])}
                  onMouseDown={() => go(row, index)}
                  _focusVisible={{ outline: "2px solid var(--chakra-colors-accent)", outlineOffset: "-2px" }}
                >
                  {letters}
                </chakra.td>
              );
            })}
            <td />
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}

function Heading({ children }: { readonly children: React.ReactNode }) {
  return (
    <chakra.th
      scope="col"
      textAlign="start"
      px={3}
      h="32px"
      fontWeight="600"
      whiteSpace="nowrap"
      position="sticky"
      top={0}
      bg="sheet"
      borderBottomWidth="1px"
      borderColor="ink"
    >
      {children}
    </chakra.th>
  );
}

const Empty = ({ words }: { readonly words: string }) => (
  <chakra.p color="quiet" p={5}>
    {words}
  </chakra.p>
);

function Handovers(props: {
  readonly model: Model;
  readonly between: "roles" | "systems";
  readonly onShow: MatrixProps["onShow"];
}) {
  const { model, between, onShow } = props;
  const handovers = useMemo(() => handoversOf(model, between), [model, between]);
  const { hands, count } = handoverMatrix(handovers);
  const idsOf = (chosen: readonly Handover[]) => [
    ...new Set(chosen.flatMap((one) => [one.source, ...one.flows, one.target])),
  ];
  if (hands.length === 0) return <Empty words={text.matrix.noHandovers} />;
  return (
    <chakra.table aria-label={text.matrix.views[between === "roles" ? "roleHandovers" : "systemHandovers"]}>
      <thead>
        <tr>
          <Heading>{text.matrix.fromTo}</Heading>
          {hands.map((hand) => (
            <Heading key={hand}>{hand}</Heading>
          ))}
        </tr>
      </thead>
      <tbody>
        {hands.map((from) => (
          <tr key={from}>
            <chakra.th
              scope="row"
              textAlign="start"
              fontWeight="400"
              px={3}
              h="30px"
              borderBottomWidth="1px"
              borderColor="line"
            >
              {from}
            </chakra.th>
            {hands.map((to) => (
              <chakra.td key={to} textAlign="center" borderBottomWidth="1px" borderLeftWidth="1px" borderColor="line">
                {count(from, to) > 0 && (
                  <Button
                    size="2xs"
                    variant="ghost"
                    aria-label={text.matrix.show(count(from, to), from, to)}
                    title={text.matrix.show(count(from, to), from, to)}
                    onClick={() =>
                      onShow(
                        { between, from, to },
                        idsOf(handovers.filter((one) => one.from === from && one.to === to)),
                      )
                    }
                  >
                    {count(from, to)}
                  </Button>
                )}
              </chakra.td>
            ))}
          </tr>
        ))}
      </tbody>
      <caption>
        <chakra.span display="block" p={3} textAlign="start" color="quiet">
          {text.matrix.total(handovers.length)}{" "}
          <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onShow({ between }, [])}>
            {text.matrix.showAll}
          </chakra.button>
        </chakra.span>
      </caption>
    </chakra.table>
  );
}
