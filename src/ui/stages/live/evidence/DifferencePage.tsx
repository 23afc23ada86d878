"use client";
import { memo, useCallback, useMemo } from "react";
import type { Figure } from "@/core/drawing";
import type { Id, Model } from "@/core/model";
import type { HeldLog, ToldDifference } from "@/jobs";
import { ModelPage } from "../../../canvas/ModelPage";
import type { Mark } from "../../../canvas/marks/mark";
import { text } from "../../../messages";

const words = text.evidence.differences;
const pickNothing = () => undefined;

/** The model with the share of cases that leave each step out; with what a difference is about; or as it would be repaired. */
export const DifferencePage = memo(function DifferencePage(props: {
  readonly model: Model;
  /** What a repair that is shown changes. */
  readonly changed: readonly Id[] | undefined;
  readonly difference: ToldDifference | undefined;
  readonly held: HeldLog;
}) {
  const { model, changed, difference, held } = props;
  const about = useMemo<readonly Id[]>(
    () => changed ?? (difference ? [...difference.elements, ...(difference.behind ? [difference.behind] : [])] : []),
    [changed, difference],
  );
  const marksOn = useCallback(
    (figures: ReadonlyMap<Id, Figure>): Mark[] => [
      ...about.map(
        (on): Mark => ({
          on,
          means: changed ? "mended" : "differs",
          as: figures.get(on)?.line ? "ribbon" : "frame",
          tone: changed ? "accent" : "attention",
        }),
      ),
      ...(difference?.activity !== undefined && difference.kind !== "skipped" && about[0] !== undefined
        ? [
            {
              on: difference.behind ?? about[0],
              means: "evidenceDone",
              as: "label",
              text: words.doneHere(difference.activity),
              tone: "attention",
              at: "end",
            } as const,
          ]
        : []),
      ...(changed ? [] : skippedMarks(held)),
    ],
    [about, changed, difference, held],
  );
  return (
    <ModelPage
      model={model}
      about={about}
      marksOn={marksOn}
      label={words.drawing}
      testId="difference-page"
      onPick={pickNothing}
    />
  );
});

/** At each step that is left out, in how many of the hundred times one comes there. */
const skippedMarks = ({ steps }: HeldLog): Mark[] =>
  steps.flatMap(({ step, asModelled, skipped }): Mark[] => {
    const percent = Math.round((skipped / Math.max(1, asModelled + skipped)) * 100);
    return percent === 0
      ? []
      : [
          {
            on: step,
            means: "evidenceSkipped",
            as: "label",
            text: words.skippedHere(percent),
            tone: "pencil",
            at: "start",
          },
        ];
  });
