"use client";
import { chakra } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import { canBeLedTo, type PathGoal, type StepRow } from "@/core/capture";
import { type Id, type Model, nameOf, outgoingOf } from "@/core/model";
import { text, typeWord } from "../../messages";
import { type CellOption, ChoiceCell } from "./ChoiceCell";
import { leadChosen } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

type NumberOf = (element: string) => string;

/** What a row to be led to is called: by number and name; a join without a name, by what stands behind it. */
export function calledRow(model: Model, element: Id, numberOf: NumberOf): string {
  const type = model.elements.get(element)?.type ?? "";
  const name = nameOf(model, element);
  const number = numberOf(element);
  if (name || number) return [number, name || typeWord(type)].filter((part) => part !== "").join(" ");
  const [flow, second] = outgoingOf(model, element);
  if (!flow || second) return typeWord(type);
  return text.steps.joinBefore(calledRow(model, flow.targetRef as Id, numberOf));
}

/** Where a path goes on elsewhere, or that it stops: what the last row of a path says. */
export function PathEnd(props: {
  readonly sheet: Sheet;
  readonly row: Extract<StepRow, { kind: "jump" | "stop" }>;
  readonly numberOf: NumberOf;
}) {
  const { sheet, row, numberOf } = props;
  return (
    <chakra.span color="quiet" truncate>
      {row.kind === "stop"
        ? text.steps.stops
        : row.isBack
          ? text.steps.backTo(calledRow(sheet.model, row.to, numberOf))
          : text.steps.onTo(calledRow(sheet.model, row.to, numberOf))}
    </chakra.span>
  );
}

/** How well an option fits what is typed: its number, the beginning of a word, anywhere in it; undefined for not at all. */
function fit(label: string, typed: string): number | undefined {
  if (typed === "") return 0;
  const words = label.toLowerCase();
  if (words.split(" ").includes(typed)) return 0;
  if (` ${words}`.includes(` ${typed}`)) return 1;
  return words.includes(typed) ? 2 : undefined;
}

/** Says where a row's path leads: to another row, or to an end, with the end's name as it is typed. */
export function PathGoalCell(props: {
  readonly sheet: Sheet;
  readonly row: StepRow;
  readonly start: string | null;
  readonly numberOf: NumberOf;
  readonly onLeave: (event: KeyboardEvent) => void;
}) {
  const { sheet, row, start, numberOf, onLeave } = props;
  const { model, rows } = sheet;
  const own = row.kind === "step" || row.kind === "stop" ? row.element : undefined;
  const isEnd = row.kind === "step" && model.elements.get(row.element)?.type === "endEvent";
  const at = sheet.indexOf(row.id);
  const goals = new Map<string, PathGoal>();
  const options = (typed: string): readonly CellOption[] => {
    goals.clear();
    // The end's own name, as it stood, looks for nothing yet.
    const wanted = isEnd && typed === nameOf(model, row.element) ? "" : typed.trim().toLowerCase();
    const steps = rows.flatMap((other, index) => {
      if (other.kind !== "step" || other.scope !== row.scope || other.element === own) return [];
      if (!canBeLedTo(model, other.element)) return [];
      const called = calledRow(model, other.element, numberOf);
      const rank = fit(called, wanted);
      if (rank === undefined) return [];
      const label = index < at ? text.steps.backTo(called) : text.steps.onTo(called);
      goals.set(other.element, { step: other.element });
      return [{ option: { id: other.element, label }, rank }];
    });
    const led = steps.sort((a, b) => a.rank - b.rank).map(({ option }) => option);
    goals.set("end", { end: typed.trim() });
    const end = { id: "end", label: typed.trim() ? text.steps.endsAs(typed.trim()) : text.steps.endHere };
    // An end's row is its name first of all; elsewhere one looks for a row.
    return isEnd || wanted === "" ? [end, ...led] : [...led, end];
  };
  const stop = () => useSheetStore.getState().set({ editing: null, leading: false });
  return (
    <ChoiceCell
      label={text.steps.leadTo}
      start={start ?? (isEnd ? nameOf(model, row.element) : "")}
      options={options}
      onChoose={(option) => {
        const goal = goals.get(option.id);
        stop();
        if (goal) leadChosen(sheet, goal);
      }}
      onLeave={onLeave}
      onCancel={stop}
    />
  );
}
