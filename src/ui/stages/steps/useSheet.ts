"use client";
import { useCallback, useEffect, useMemo } from "react";
import { type Draft, plan, type StepRow, stepSheetOf } from "@/core/capture";
import { isTidy, knownTidy, noteTidy } from "@/core/commands";
import { type Edit, type Id, type Model, processesOf, shapesOf } from "@/core/model";
import { complain } from "../../controls/notices";
import { reasons } from "../../messages";
import { newId } from "../../version/actions";
import { isLargePage, tidyEdits, tidyPage } from "../../version/tidyPage";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useSheetStore } from "./sheetStore";

export interface Sheet {
  readonly model: Model;
  readonly processes: readonly { readonly id: Id; readonly name?: string | undefined }[];
  readonly process: Id;
  readonly diagram: Id;
  readonly rows: readonly StepRow[];
  readonly indexOf: (row: string | null) => number;
  /** Does an edit of the sheet as one undo step; gives the element it was about, or null where it was refused. */
  /** Whether the page is laid out anew with each change. */
  readonly isKeptTidy: () => boolean;
  /** Takes over edits made elsewhere, as one undo step. */
  readonly takeEdits: (edits: readonly Edit[], label: string, tidied: boolean) => boolean;
  readonly run: (make: (draft: Draft) => Id | undefined) => { readonly focus: Id | undefined } | null;
}

/**
 * A page that tidying would not change has no layout of somebody's own; it is kept tidy. Of a large page this is worked out in
 * the background when the sheet is opened.
 */
const isKeptTidy = (model: Model, diagram: Id): boolean =>
  isLargePage(model, diagram) ? knownTidy(model, diagram) === true : isTidy(model, diagram);

let waiting: ReturnType<typeof setTimeout> | undefined;
/** Gestures in quick succession are laid out together. */
function layOutLater(run: () => void): void {
  clearTimeout(waiting);
  waiting = setTimeout(run, 16);
}

/** The step sheet of the open version, and the way to change it. */
export function useSheet(): Sheet {
  const store = useVersionStore();
  const model = useVersion((state) => state.model);
  const wanted = useSheetStore((state) => state.process);
  const processes = useMemo(() => processesOf(model), [model]);
  const process = processes.find((candidate) => candidate.id === wanted)?.id ?? processes[0]?.id ?? "";
  const rows = useMemo(() => stepSheetOf(model, process), [model, process]);
  const positions = useMemo(() => new Map(rows.map((row, at) => [row.id, at])), [rows]);
  const diagram = useMemo(() => {
    const first = rows.find((row) => row.kind === "step");
    const drawnOn = first?.kind === "step" ? shapesOf(model, first.element)[0]?.diagram : undefined;
    return drawnOn ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "";
  }, [model, rows]);
  const indexOf = useCallback((row: string | null) => (row === null ? -1 : (positions.get(row) ?? -1)), [positions]);
  useEffect(() => {
    const { model: opened } = store.getState();
    if (!diagram || !isLargePage(opened, diagram) || knownTidy(opened, diagram) !== undefined) return;
    tidyEdits(opened, diagram)
      .then((edits) => edits?.length === 0 && noteTidy(opened, diagram))
      .catch(complain);
  }, [store, diagram]);
  const run = useCallback<Sheet["run"]>(
    (make) => {
      const { model: now, say, take } = store.getState();
      const isLarge = isLargePage(now, diagram);
      const keepTidy = isKeptTidy(now, diagram);
      const made = plan(now, newId, (draft) => {
        const focus = make(draft);
        if (keepTidy && !isLarge && draft.commands.length > 0) draft.do({ type: "tidy", diagram });
        return focus;
      });
      if (!made.ok) {
        say("refusal", reasons(made.problems));
        return null;
      }
      const { focus } = made.value;
      take(made.value);
      if (keepTidy) noteTidy(made.value.model, diagram);
      // On a large page the words are there at once, the layout when it is ready.
      if (keepTidy && isLarge) layOutLater(() => void tidyPage(store, diagram, true).catch(complain));
      return { focus };
    },
    [store, diagram],
  );
  const isTidyNow = useCallback(() => isKeptTidy(store.getState().model, diagram), [store, diagram]);
  const takeEdits = useCallback<Sheet["takeEdits"]>(
    (edits, label, tidied) => {
      if (!store.getState().dispatch({ type: "edits", label, edits: edits as never })) return false;
      if (tidied) noteTidy(store.getState().model, diagram);
      return true;
    },
    [store, diagram],
  );
  return { model, processes, process, diagram, rows, indexOf, isKeptTidy: isTidyNow, takeEdits, run };
}
