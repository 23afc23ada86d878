"use client";
import { chakra } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import type { Id } from "@/core/model";
import { today } from "../../kernel/today";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";
import { estimate, unreadable } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import { TextCell } from "./TextCell";
import type { Sheet } from "./useSheet";

interface FigureCellProps {
  readonly sheet: Sheet;
  readonly step: Id;
  readonly column: "time" | "cost";
  readonly label: string;
  readonly value: string;
  /** What a timer waits for; undefined for a step that is worked on. */
  readonly waits: string | undefined;
  readonly editing: { readonly start: string | null } | null;
  readonly onLeave: (event: KeyboardEvent) => void;
  readonly onCancel: () => void;
}

/** How long a step is worked on, what it costs, or what a timer waits for. What cannot be read stays, with the reason. */
export function FigureCell(props: FigureCellProps) {
  const { sheet, step, column, label, waits, editing, onLeave, onCancel } = props;
  const { dispatch } = useVersionStore().getState();
  const cell = `${column}-${step}`;
  const unread = useSheetStore((state) => state.unread[cell]);
  const { setUnread } = useSheetStore.getState();
  const value = waits ?? props.value;
  const check = (typed: string) => unreadable(waits === undefined ? column : "waits", typed);
  const commit = (typed: string) => {
    onCancel();
    const reason = check(typed);
    setUnread(cell, reason === undefined ? undefined : { typed, reason });
    if (reason !== undefined || typed === value) return;
    if (waits === undefined) estimate(sheet, step, column, typed);
    else dispatch({ type: "sayTimer", event: step, text: typed, today: today() });
  };
  if (editing)
    return (
      <TextCell
        label={label}
        value={value}
        placeholder={waits === undefined ? text.steps.estimateHints[column] : text.steps.estimateHints.waits}
        start={editing.start ?? unread?.typed ?? null}
        check={check}
        onCommit={commit}
        onLeave={onLeave}
        onCancel={() => {
          setUnread(cell, undefined);
          onCancel();
        }}
      />
    );
  if (unread)
    return (
      <chakra.span truncate w="100%" color="trouble" title={unread.reason} aria-invalid>
        <chakra.span srOnly>{unread.reason} </chakra.span>⚠ {unread.typed}
      </chakra.span>
    );
  return (
    <chakra.span
      truncate
      w="100%"
      textAlign={column === "cost" ? "end" : "start"}
      color={waits === undefined ? undefined : "quiet"}
      title={value}
    >
      {waits === undefined ? value : text.steps.waits(waits)}
    </chakra.span>
  );
}
