"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, memo, useCallback, useEffect, useMemo, useRef } from "react";
import { flushSync } from "react-dom";
import { type Happening, happeningsFor, type StepRow } from "@/core/capture";
import { currencyOf } from "@/core/scenario";
import { today } from "../../kernel/today";
import { text } from "../../messages";
import { ChoiceCell } from "./ChoiceCell";
import { rowGridOf, rowHeight } from "./grid";
import { cellId, lookOf, SheetRow } from "./SheetRow";
import { startRow, step, writeMeanwhile, writeNewRow } from "./sheetActions";
import { onGesture, onSheetKey } from "./sheetKeys";
import { type NewRow, useSheetStore } from "./sheetStore";
import { TextCell } from "./TextCell";
import type { Sheet } from "./useSheet";

type Line = { readonly row: StepRow; readonly at: number } | { readonly row: null };

/** The sheet as a table one can walk and write in with the keyboard; only what is in view is drawn. */
export function SheetGrid({ sheet }: { readonly sheet: Sheet }) {
  const { row, column, editing, newRow } = useSheetStore();
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const current = useRef(sheet);
  current.current = sheet;
  const lines = useMemo(() => linesOf(sheet.rows, newRow), [sheet.rows, newRow]);
  const numbers = useMemo(
    () => new Map(sheet.rows.flatMap((one) => (one.kind === "step" ? [[one.element, one.number] as const] : []))),
    [sheet.rows],
  );
  const numberOf = useCallback((element: string) => numbers.get(element) ?? "", [numbers]);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 8,
    useFlushSync: false,
  });
  const chosenLine = lines.findIndex((line) => (newRow ? line.row === null : line.row?.id === row));
  useEffect(() => {
    if (chosenLine >= 0) virtual.scrollToIndex(chosenLine);
  }, [chosenLine, virtual]);
  // The keyboard stays in the sheet when a cell's editor goes.
  useEffect(() => {
    if (
      !editing &&
      !newRow &&
      (document.activeElement === document.body || grid.current?.contains(document.activeElement))
    )
      grid.current?.focus({ preventScroll: true });
  }, [editing, newRow]);

  // One can begin to write at once.
  useEffect(() => {
    if (document.activeElement === document.body) grid.current?.focus({ preventScroll: true });
  }, []);

  const onLeave = useCallback(
    (event: KeyboardEvent) => {
      grid.current?.focus({ preventScroll: true });
      // A gesture is about the row that was just written: the sheet is first drawn with it.
      if (event.altKey) {
        flushSync(() => undefined);
        onGesture(event, current.current);
        return;
      }
      useSheetStore.getState().set({ editing: null, leading: false });
      if (event.key === "Tab") step(sheet, 0, event.shiftKey ? -1 : 1);
      else if (event.key === "Enter") startRow(event.shiftKey ? "before" : "behind");
    },
    [sheet],
  );
  const known = sheet.indexOf(row) >= 0;
  return (
    <Box
      ref={scroller}
      flex="1 1 0"
      minH={0}
      overflowY="auto"
      overflowX="auto"
      bg="ground"
      onMouseDown={(event) => {
        if (event.target !== scroller.current) return;
        event.preventDefault();
        grid.current?.focus({ preventScroll: true });
      }}
    >
      <Box
        ref={grid}
        role="treegrid"
        aria-label={text.steps.sheet}
        aria-rowcount={sheet.rows.length + 1}
        aria-activedescendant={known && row && !editing && !newRow ? cellId(row, column) : undefined}
        tabIndex={0}
        minW="1180px"
        outline="none"
        data-testid="step-sheet"
        onFocus={(event) => {
          if (event.target === grid.current && !known && sheet.rows[0]) useSheetStore.getState().go(sheet.rows[0].id);
        }}
        onKeyDown={(event) => {
          if (event.target === grid.current && onSheetKey(event, sheet)) event.preventDefault();
        }}
      >
        <Headings currency={currencyOf(sheet.model)} />
        <chakra.div role="rowgroup" position="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index] as Line;
            return (
              <div
                key={line.row?.id ?? `new:${newRow?.row}`}
                role="presentation"
                style={{
                  position: "absolute",
                  insetInline: 0,
                  top: item.start,
                  zIndex: item.index === chosenLine ? 3 : undefined,
                }}
              >
                {line.row ? (
                  <SheetRow
                    sheet={sheet}
                    current={current}
                    look={lookOf(sheet, line.row, numberOf)}
                    row={line.row}
                    at={line.at}
                    column={line.row.id === row && !newRow ? column : null}
                    editing={line.row.id === row ? editing : null}
                    numberOf={numberOf}
                    onLeave={onLeave}
                  />
                ) : (
                  newRow && <NewRowLine sheet={sheet} newRow={newRow} onLeave={onLeave} />
                )}
              </div>
            );
          })}
        </chakra.div>
      </Box>
    </Box>
  );
}

const Headings = memo(function Headings({ currency }: { readonly currency: string }) {
  const estimates = useSheetStore((state) => state.estimates);
  const shown = useSheetStore((state) => state.shown);
  return (
    <chakra.div
      role="row"
      aria-rowindex={1}
      display="grid"
      gridTemplateColumns={rowGridOf(estimates)}
      position="sticky"
      top={0}
      zIndex={4}
      bg="sheet"
      h="28px"
      alignItems="center"
      borderBottomWidth="1px"
      borderColor="ink"
      color="quiet"
      fontWeight="600"
    >
      <chakra.div role="columnheader" textAlign="right" pe={2}>
        {text.steps.number}
      </chakra.div>
      {shown.map((name) => (
        <chakra.div key={name} role="columnheader" px={2} textAlign={name === "cost" ? "end" : undefined}>
          <span title={name === "time" ? text.steps.timeMeans : undefined}>
            {name === "cost" ? text.steps.costIn(currency) : text.steps.columns[name]}
          </span>
        </chakra.div>
      ))}
    </chakra.div>
  );
});

/** The rows with the one being written where it will stand. */
function linesOf(rows: readonly StepRow[], newRow: NewRow | null): readonly Line[] {
  const lines: Line[] = rows.map((row, at) => ({ row, at }));
  if (!newRow) return lines;
  const at = standsBehind(rows, newRow);
  const chosen = rows[at];
  // Behind a jump, a stop or an end means before it: that is where the path still goes on.
  const before = newRow.where === "before" || chosen?.kind === "jump";
  lines.splice(at < 0 ? lines.length : before ? at : at + 1, 0, { row: null });
  return lines;
}

/** The row that a new one comes behind: for a step whose ways part, the heading of the way it goes on. */
function standsBehind(rows: readonly StepRow[], { row, where }: NewRow): number {
  const at = rows.findIndex((other) => other.id === row);
  const chosen = rows[at];
  if (where === "before" || where === "path" || where === "meanwhile" || chosen?.kind !== "step") return at;
  const paths = rows.flatMap((other, index) =>
    other.kind === "path" && other.of === chosen.element ? [{ other, index }] : [],
  );
  return (paths.find(({ other }) => other.isMain) ?? paths[0])?.index ?? at;
}

function NewRowLine({
  sheet,
  newRow,
  onLeave,
}: {
  readonly sheet: Sheet;
  readonly newRow: NewRow;
  readonly onLeave: (event: KeyboardEvent) => void;
}) {
  const above = sheet.rows[standsBehind(sheet.rows, newRow)];
  const isInside = (above?.kind === "path" && !above.isMain) || newRow.where === "path" || newRow.where === "meanwhile";
  const depth = (above?.depth ?? 0) + (isInside ? 1 : 0);
  const cancel = () => useSheetStore.getState().set({ newRow: null });
  return (
    <chakra.div
      role="row"
      aria-level={depth + 1}
      display="grid"
      gridTemplateColumns={rowGridOf(useSheetStore.getState().estimates)}
      h={`${rowHeight}px`}
      alignItems="center"
      bg="accentSoft"
      borderBottomWidth="1px"
      borderColor="line"
    >
      <span />
      <chakra.div role="gridcell" px={2} style={{ paddingInlineStart: 8 + depth * 20 }}>
        {newRow.where === "meanwhile" ? (
          <ChoiceCell
            label={text.steps.newRow.meanwhile}
            placeholder={text.steps.newRow.meanwhile}
            start={newRow.start}
            options={(typed) =>
              typed.trim() === ""
                ? []
                : happeningsFor(typed, today()).map((one) => ({
                    id: JSON.stringify(one),
                    label: text.steps.happening(one.trigger, one.goesOn, typed.trim()),
                  }))
            }
            onChoose={({ id }, typed) => {
              cancel();
              writeMeanwhile(sheet, newRow, JSON.parse(id) as Happening, typed);
            }}
            onLeave={(event) => {
              cancel();
              if (event.key !== "Enter") onLeave(event);
            }}
            onCancel={cancel}
          />
        ) : (
          <TextCell
            label={text.steps.newRow[newRow.where]}
            placeholder={text.steps.newRow[newRow.where]}
            value=""
            start={newRow.start}
            onCommit={(typed) => {
              cancel();
              if (typed || newRow.where === "decision" || newRow.where === "parallel")
                writeNewRow(sheet, newRow, typed);
            }}
            onLeave={(event) => {
              // A list goes on until one stops it.
              if (event.key === "Enter" && !event.shiftKey) startRow("behind");
              else onLeave(event);
            }}
            onCancel={cancel}
          />
        )}
      </chakra.div>
    </chakra.div>
  );
}
