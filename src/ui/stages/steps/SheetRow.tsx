"use client";
import { chakra } from "@chakra-ui/react";
import { type KeyboardEvent, memo, type RefObject, useState } from "react";
import { cellsOf, giveRole, type StepRow } from "@/core/capture";
import { type Kind, kindOf } from "@/core/commands";
import { type Element, isActivity, isEvent, nameOf } from "@/core/model";
import { KindGlyph } from "../../canvas/KindGlyph";
import { text } from "../../messages";
import { newId } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";
import { EntryCell, type EntryLabel } from "./EntryCell";
import { FigureCell } from "./FigureCell";
import { rowGridOf, rowHeight } from "./grid";
import { calledRow, PathEnd, PathGoalCell } from "./PathEnd";
import { moveBehind } from "./sheetActions";
import { type Column, useSheetStore } from "./sheetStore";
import { TextCell } from "./TextCell";
import type { Sheet } from "./useSheet";

interface SheetRowProps {
  readonly sheet: Sheet;
  /** The sheet as it is when something is done: a row that shows the same is not drawn again with each change elsewhere. */
  readonly current: RefObject<Sheet>;
  /** All that the row shows, as one text (see `lookOf`). */
  readonly look: string;
  readonly row: StepRow;
  readonly at: number;
  /** The column the keyboard is at, where it is in this row. */
  readonly column: Column | null;
  readonly editing: { readonly start: string | null } | null;
  readonly numberOf: (element: string) => string;
  readonly onLeave: (event: KeyboardEvent) => void;
}

export const cellId = (row: string, column: Column) => `cell-${column}-${row}`;

/** A cell that is being written is kept when another is pressed: it loses the focus before it goes. */
function goByHand(row: string, column: Column): void {
  const written = document.activeElement;
  if (written instanceof HTMLElement && written.dataset.sheetCell !== undefined) written.blur();
  useSheetStore.getState().go(row, column);
}

/** What a dragged row is called while it is dragged, so that nothing else can be dropped into a sheet. */
const draggedRow = "application/x-lane-row";

/** All that a row shows of the model: two rows with one look need no second drawing. */
export function lookOf({ model }: Sheet, row: StepRow, numberOf: (element: string) => string): string {
  const element = row.kind === "step" ? model.elements.get(row.element) : undefined;
  const to = row.kind === "jump" ? calledRow(model, row.to, numberOf) : null;
  const split = row.kind === "path" ? model.elements.get(row.of) : undefined;
  const path = row.kind === "path" && [nameOf(model, row.flow), split?.type, split?.default === row.flow];
  const isNumbered = row.kind === "step" && row.number !== "";
  return JSON.stringify([
    { ...row, number: isNumbered },
    element && [kindOf(model, element), cellsOf(model, element.id)],
    to,
    path,
  ]);
}

const isAlike = (last: SheetRowProps, next: SheetRowProps) =>
  !next.editing && last.editing === next.editing && last.column === next.column && last.look === next.look;

/**
 * One row of the sheet. A row that is put in or taken out gives all rows below another number, and nothing else: so number and
 * frame are light, and the cells are drawn again only when they show something else.
 */
export function SheetRow(props: SheetRowProps) {
  const { current, row, at, column } = props;
  const [over, setOver] = useState(false);
  const estimates = useSheetStore((state) => state.estimates);
  const mayMove = row.kind === "step" && row.lead === "flow";
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus and names its present cell (aria-activedescendant).
    <div
      role="row"
      aria-level={row.depth + 1}
      aria-rowindex={at + 2}
      aria-selected={column !== null}
      data-row={row.id}
      data-kind={row.kind}
      style={{
        display: "grid",
        gridTemplateColumns: rowGridOf(estimates),
        height: rowHeight,
        borderBottom: "1px solid var(--chakra-colors-line)",
        background: column
          ? "var(--chakra-colors-accent-soft)"
          : row.kind === "step"
            ? undefined
            : "var(--chakra-colors-sheet)",
        boxShadow: over ? "inset 0 -3px 0 var(--chakra-colors-accent)" : undefined,
      }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(draggedRow)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        const dragged = event.dataTransfer.getData(draggedRow);
        if (!dragged) return;
        event.preventDefault();
        moveBehind(current.current, dragged, row.id);
      }}
    >
      {/* biome-ignore lint/a11y/useFocusableInteractive: the same. */}
      <div
        role="gridcell"
        style={{
          display: "flex",
          alignItems: "center",
          justifyContent: "flex-end",
          paddingInlineEnd: 8,
          color: "var(--chakra-colors-quiet)",
          cursor: mayMove ? "grab" : undefined,
        }}
        draggable={mayMove}
        title={mayMove ? text.steps.drag : undefined}
        onDragStart={(event) => event.dataTransfer.setData(draggedRow, row.id)}
        onMouseDown={() => goByHand(row.id, "step")}
      >
        {row.kind === "step" ? row.number : ""}
      </div>
      <RowCells {...props} />
    </div>
  );
}

const RowCells = memo(function RowCells(props: SheetRowProps) {
  const { sheet, row, column } = props;
  const element = row.kind === "step" ? sheet.model.elements.get(row.element) : undefined;
  const shown = useSheetStore((state) => state.shown);
  return shown.map((name) => (
    <chakra.div
      key={name}
      id={cellId(row.id, name)}
      role="gridcell"
      data-column={name}
      minW={0}
      px={2}
      display="flex"
      alignItems="center"
      borderLeftWidth={name === "step" ? "1px" : 0}
      borderColor="ink"
      outline={column === name ? "2px solid var(--chakra-colors-accent)" : undefined}
      outlineOffset="-2px"
      onMouseDown={() => useSheetStore.getState().row !== row.id && goByHand(row.id, name)}
      onClick={() => useSheetStore.getState().column !== name && goByHand(row.id, name)}
      onDoubleClick={() => useSheetStore.getState().edit(null)}
    >
      {name === "step" ? (
        <StepCell {...props} element={element} />
      ) : (
        element && <OtherCell {...props} element={element} name={name} />
      )}
    </chakra.div>
  ));
}, isAlike);

function StepCell({
  sheet,
  row,
  column,
  editing,
  numberOf,
  onLeave,
  element,
}: SheetRowProps & { readonly element: Element | undefined }) {
  const { dispatch } = useVersionStore().getState();
  const cancel = () => useSheetStore.getState().set({ editing: null });
  const isEdited = column === "step" && editing !== null;
  const leading = useSheetStore((state) => state.leading);
  const indent = row.depth * 20 + (row.kind === "jump" || row.kind === "stop" ? 4 : 0);
  const isPathEnd = row.kind === "jump" || row.kind === "stop" || element?.type === "endEvent";
  if (isEdited && (leading || isPathEnd))
    return (
      <chakra.div w="100%" style={{ paddingInlineStart: indent }}>
        <PathGoalCell sheet={sheet} row={row} start={editing.start} numberOf={numberOf} onLeave={onLeave} />
      </chakra.div>
    );
  if (row.kind === "jump" || row.kind === "stop")
    return (
      <chakra.div display="flex" w="100%" minW={0} style={{ paddingInlineStart: indent }}>
        <PathEnd sheet={sheet} row={row} numberOf={numberOf} />
      </chakra.div>
    );
  const named = row.kind === "path" ? row.flow : row.element;
  const name = sheet.model.elements.get(named)?.name ?? "";
  const isDefault = row.kind === "path" && sheet.model.elements.get(row.of)?.default === row.flow;
  const commit = (typed: string) => {
    cancel();
    if (typed !== name) dispatch({ type: "rename", id: named, name: typed });
  };
  // Steps are the rule and need no picture; the rest shows what it is.
  const isPlain = element?.type.toLowerCase().endsWith("task");
  return (
    <chakra.div display="flex" alignItems="center" gap={1.5} w="100%" minW={0} style={{ paddingInlineStart: indent }}>
      {row.kind === "path" && (
        <chakra.span color="accent" fontWeight="700" aria-hidden>
          ↳
        </chakra.span>
      )}
      {element && !isPlain && (
        <chakra.span display="inline-flex" w="18px" flexShrink={0} justifyContent="center">
          <KindGlyph kind={glyphOf(sheet.model, element)} />
        </chakra.span>
      )}
      {isEdited ? (
        <TextCell
          label={text.steps.columns.step}
          value={name}
          start={editing.start}
          onCommit={commit}
          onLeave={onLeave}
          onCancel={cancel}
        />
      ) : (
        <chakra.span
          truncate
          title={name}
          color={row.kind === "path" ? "accent" : name ? "ink" : "quiet"}
          fontWeight={row.kind === "path" || element?.type.endsWith("Gateway") ? "700" : "400"}
        >
          {name || (row.kind === "path" ? pathWords(sheet, row.of) : wordsFor(row, element))}
        </chakra.span>
      )}
      {row.kind === "step" && row.number !== "" && element && !isEdited && waysWords(element) && (
        <chakra.span color="quiet" fontSize="12px" flexShrink={0}>
          {waysWords(element)}
        </chakra.span>
      )}
      {isDefault && !isEdited && (
        <chakra.span color="quiet" fontSize="12px" flexShrink={0}>
          {text.steps.usual}
        </chakra.span>
      )}
    </chakra.div>
  );
}

/** Dashed, an event at an edge would be one that does not interrupt. */
function glyphOf(model: Sheet["model"], element: Element): Kind {
  const kind = kindOf(model, element);
  return kind.type === "boundaryEvent" && element.cancelActivity !== false
    ? { ...kind, type: "intermediateCatchEvent" }
    : kind;
}

/** What a path without an answer is: at the same time, or a way to be named. */
function pathWords(sheet: Sheet, split: string): string {
  const type = sheet.model.elements.get(split)?.type;
  return type === "exclusiveGateway" || type === "inclusiveGateway" ? text.steps.unnamedPath : text.steps.sameTime;
}

/** How many of a split's ways are taken, where that is not the usual one. */
function waysWords(element: Element): string | undefined {
  const words: { readonly [type: string]: string } = text.steps.waysOf;
  return words[element.type];
}

function wordsFor(row: StepRow, element: Element | undefined): string {
  if (element?.type.endsWith("Gateway"))
    return row.kind === "step" && row.number === "" ? text.steps.joins : text.steps.splits;
  return element?.type === "startEvent"
    ? text.steps.begins
    : element?.type === "endEvent"
      ? text.steps.endsHere
      : text.steps.unnamed;
}

function OtherCell({
  sheet,
  column,
  editing,
  onLeave,
  element,
  name,
}: SheetRowProps & { readonly element: Element; readonly name: Exclude<Column, "step"> }) {
  const { dispatch } = useVersionStore().getState();
  const cancel = () => useSheetStore.getState().set({ editing: null });
  const cells = cellsOf(sheet.model, element.id);
  const edited = column === name ? editing : null;
  const step = element.id;
  const label = text.steps.columns[name];
  const shared = { label, editing: edited, onLeave, onCancel: cancel };
  switch (name) {
    case "by": {
      if (cells.outside && isEvent(element.type) && !edited)
        return (
          <chakra.span color="quiet" truncate>
            {text.steps.outside(cells.outside)}
          </chakra.span>
        );
      // What begins and ends a process is nobody's work.
      if (element.type === "startEvent" || element.type === "endEvent") return null;
      const labels = cells.by.map((role): EntryLabel => ({ key: role.element, name: role.name, entry: role.entry }));
      return (
        <EntryCell
          {...shared}
          kind="role"
          entries={labels}
          onAdd={(role) => {
            sheet.run((draft) => {
              giveRole(draft, step, role);
              return step;
            });
            cancel();
          }}
          onRemove={(key) => {
            if (sheet.model.elements.get(key)?.type !== "lane") dispatch({ type: "unassignRole", assignment: key });
          }}
        />
      );
    }
    case "uses":
      return (
        <EntryCell
          {...shared}
          kind="system"
          entries={cells.uses.map((used) => ({ key: used.entry, name: used.name, entry: used.entry }))}
          onAdd={(system) => dispatch({ type: "useSystem", step, system, use: "writes" })}
          onRemove={(entry) => dispatch({ type: "dropSystem", step, entry })}
        />
      );
    case "needs":
    case "gives": {
      const direction = name === "needs" ? "in" : "out";
      return (
        <EntryCell
          {...shared}
          kind="document"
          entries={cells[name].map((use) => ({ key: use.association, name: use.name, entry: use.entry }))}
          onAdd={(document) =>
            sheet.run((draft) => {
              draft.do({
                type: "giveDocument",
                diagram: draft.pageOf(step),
                step,
                document,
                direction,
                id: newId("paper"),
              });
              return step;
            })
          }
          onRemove={(association) => dispatch({ type: "delete", ids: [association] })}
        />
      );
    }
    case "time":
    case "cost": {
      const waits = name === "time" ? cells.waits : undefined;
      if (!isActivity(element.type) && waits === undefined) return null;
      return <FigureCell {...shared} sheet={sheet} step={step} column={name} waits={waits} value={cells[name]} />;
    }
    case "guidance":
      return edited ? (
        <TextCell
          label={label}
          value={cells.guidance}
          start={edited.start}
          onCommit={(typed) => {
            cancel();
            if (typed !== cells.guidance) dispatch({ type: "describe", id: step, text: typed });
          }}
          onLeave={onLeave}
          onCancel={cancel}
        />
      ) : (
        <chakra.span color="quiet" truncate title={cells.guidance}>
          {cells.guidance}
        </chakra.span>
      );
  }
}
