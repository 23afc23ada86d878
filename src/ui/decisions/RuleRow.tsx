"use client";
import { chakra } from "@chakra-ui/react";
import { memo, type RefObject, useEffect, useRef } from "react";
import { cellProblem, expressionProblem, sheets, type TableSheet } from "@/core/decisions";
import { text } from "../messages";
import { RuleCell } from "./RuleCell";
import type { At } from "./TableView";

const words = text.decisions;

interface RuleRowProps {
  readonly row: number;
  readonly sheet: TableSheet;
  /** The sheet as it is when something is done. */
  readonly current: RefObject<TableSheet>;
  readonly known: readonly string[];
  readonly look: "words" | "feel";
  readonly at: At | null;
  readonly isSought: boolean;
  readonly isConflicting: boolean;
  readonly isHidden: boolean;
  /** What each cell makes of the values that are tried. */
  readonly tried: readonly (boolean | null)[] | undefined;
  readonly isTaken: boolean;
  readonly setAt: (at: At) => void;
  readonly put: (label: string, sheet: TableSheet) => boolean;
}

/** All that a row shows of the sheet, as one text: two rows with one look need no second drawing. */
const lookOf = (sheet: TableSheet, row: number): string => {
  const rule = sheet.rules[row];
  return JSON.stringify([
    rule && [rule.inputs, rule.outputs, rule.notes],
    row === sheet.rules.length,
    sheet.inputs,
    sheet.outputs,
    sheet.notes,
  ]);
};
const isAlike = ({ sheet: before, ...last }: RuleRowProps, { sheet, ...next }: RuleRowProps): boolean =>
  (Object.keys(next) as (keyof typeof next)[]).every((key) => last[key] === next[key]) &&
  (before === sheet || lookOf(before, next.row) === lookOf(sheet, next.row));

/**
 * One rule of the sheet, with what is proven of it as a sign beside its number. In a table of hundreds a key draws again only the rows that
 * show something else by it.
 */
export const RuleRow = memo(function RuleRow(props: RuleRowProps) {
  const { row, sheet, current, known, look, at, isSought, isConflicting, isHidden, tried, isTaken, setAt, put } = props;
  const line = useRef<HTMLTableRowElement>(null);
  /** The line for a rule that is not there yet. */
  const isNew = row === sheet.rules.length;
  const isHere = at !== null;
  const column = at?.column;
  const isWriting = at?.editing != null;
  const takesKeyboard = at?.takesKeyboard ?? false;
  useEffect(() => {
    // The keyboard goes where the sheet says it is, but takes it from nobody else.
    const grid = line.current?.closest("table");
    if (!isHere || isWriting || !(takesKeyboard || grid?.contains(document.activeElement))) return;
    line.current?.querySelector<HTMLElement>(`[data-column="${column}"]`)?.focus();
  }, [isHere, column, isWriting, takesKeyboard]);
  const signs = [
    ...(isTaken ? [["✓", "good"] as const] : []),
    ...(isConflicting ? [["≠", "trouble"] as const] : []),
    ...(isHidden ? [["∅", "attention"] as const] : []),
  ];
  const title = [
    isNew ? words.newRule : words.rule(row + 1),
    isConflicting ? text.decisions.signs.conflict : "",
    isHidden ? text.decisions.signs.hidden : "",
    isTaken ? text.decisions.signs.taken : "",
  ]
    .filter((one) => one !== "")
    .join(", ");
  return (
    <chakra.tr
      ref={line}
      opacity={isSought ? 1 : 0.35}
      bg={isTaken ? "accentSoft" : undefined}
      data-taken={isTaken || undefined}
    >
      <chakra.th
        scope="row"
        px={1.5}
        py="5px"
        color="quiet"
        fontWeight="400"
        whiteSpace="nowrap"
        aria-label={title}
        title={title}
      >
        {isNew ? "+" : row + 1}
        {signs.map(([sign, colour]) => (
          <chakra.span key={sign} color={colour} fontWeight="700" ms={1} aria-hidden="true">
            {sign}
          </chakra.span>
        ))}
      </chakra.th>
      {Array.from({ length: sheets.columnCount(sheet) }, (_, place) => {
        const { kind, at: inKind } = sheets.placeOf(sheet, place);
        const words = sheets.cellText(sheet, row, place);
        const problem =
          kind === "input"
            ? cellProblem(words, known)
            : kind === "output"
              ? expressionProblem(words, known)
              : undefined;
        return (
          <RuleCell
            key={place}
            row={row}
            column={place}
            kind={kind}
            head={sheets.headOf(sheet, place) || text.decisions.outputHead(inKind + 1)}
            words={words}
            look={look}
            options={
              kind === "note"
                ? ""
                : kind === "input"
                  ? (sheet.inputs[inKind]?.allowed ?? "")
                  : (sheet.outputs[inKind]?.allowed ?? "")
            }
            problem={problem?.text}
            isHere={at?.column === place}
            isFirst={row === 0 && place === 0}
            editing={at?.column === place ? at.editing : null}
            takes={kind === "input" ? tried?.[inKind] : undefined}
            setAt={setAt}
            onWrite={(typed, then) => {
              // The sheet as it is now: this row may have been drawn when others were otherwise.
              const sheet = current.current;
              const kept = typed.trim() === "" && isNew ? words : sheets.keptCell(sheet, place, typed, known);
              const next = kept === words ? sheet : sheets.withCell(sheet, row, place, kept);
              if (next !== sheet) put(text.decisions.editing.cell, next);
              const last = sheets.columnCount(sheet) - 1;
              // Behind the last rule stands the line for a new one, which begins at its first cell.
              const below = Math.min(next.rules.length, row + 1);
              const column = below === next.rules.length && place >= sheet.inputs.length ? 0 : place;
              if (then === "down") setAt({ rule: below, column, editing: null, takesKeyboard: true });
              else if (then === "right")
                setAt({ rule: row, column: Math.min(last, place + 1), editing: null, takesKeyboard: true });
              else if (then === "left")
                setAt({ rule: row, column: Math.max(0, place - 1), editing: null, takesKeyboard: true });
              else setAt({ rule: row, column: place, editing: null, takesKeyboard: then === "back" });
            }}
          />
        );
      })}
    </chakra.tr>
  );
}, isAlike);
