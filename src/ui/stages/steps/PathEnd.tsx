"use client";
import { chakra } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import type { StepRow } from "@/core/capture";
import { nameOf, wordFor } from "@/core/model";
import { text } from "../../messages";
import { type CellOption, ChoiceCell } from "./ChoiceCell";
import { leadChosen } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

interface PathEndProps {
  readonly sheet: Sheet;
  readonly row: Extract<StepRow, { kind: "jump" | "stop" }>;
  readonly indent: number;
  readonly editing: { readonly start: string | null } | null;
  readonly numberOf: (element: string) => string;
  readonly onLeave: (event: KeyboardEvent) => void;
}

/** Where a path goes on elsewhere, or stops; edited, it is led to another step or to an end. */
export function PathEnd({ sheet, row, indent, editing, numberOf, onLeave }: PathEndProps) {
  const called = (element: string) => {
    const name = nameOf(sheet.model, element) || wordFor(sheet.model.elements.get(element)?.type ?? "");
    const number = numberOf(element);
    return number ? `${number} ${name}` : name;
  };
  if (editing) {
    const options = (typed: string): readonly CellOption[] => {
      const wanted = typed.trim().toLowerCase();
      const steps = sheet.rows.flatMap((other) =>
        other.kind === "step" &&
        other.scope === row.scope &&
        sheet.model.elements.get(other.element)?.type !== "startEvent"
          ? [{ id: other.element, label: called(other.element) }]
          : [],
      );
      return [{ id: "end", label: text.steps.endHere }, ...steps].filter((option) =>
        option.label.toLowerCase().includes(wanted),
      );
    };
    const stop = () => useSheetStore.getState().set({ editing: null });
    return (
      <ChoiceCell
        label={text.steps.leadTo}
        start={editing.start}
        options={options}
        onChoose={(option) => {
          stop();
          leadChosen(sheet, option.id);
        }}
        onLeave={onLeave}
        onCancel={stop}
      />
    );
  }
  return (
    <chakra.span color="quiet" truncate style={{ paddingInlineStart: indent }}>
      {row.kind === "stop"
        ? text.steps.stops
        : row.isBack
          ? text.steps.backTo(called(row.to))
          : text.steps.onTo(called(row.to))}
    </chakra.span>
  );
}
