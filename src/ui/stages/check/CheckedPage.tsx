"use client";
import { memo, useCallback } from "react";
import type { Finding } from "@/core/check";
import type { Figure } from "@/core/drawing";
import type { Id, Model } from "@/core/model";
import { ModelPage } from "../../canvas/ModelPage";
import { awaitedMarks, findingMarks, runMarks } from "../../canvas/marks/findingMarks";
import type { Mark } from "../../canvas/marks/mark";
import { text } from "../../messages";

interface CheckedPageProps {
  readonly model: Model;
  readonly findings: readonly Finding[];
  /** The finding that is looked at: its place is framed, and the run that leads there drawn along. */
  readonly chosen: Finding | undefined;
  /** What a repair that is shown changes. */
  readonly changed: readonly Id[];
  readonly onPick: (element: Id | undefined) => void;
}

/** The drawing above its findings: each has its sign, the chosen one its frame and its run. */
export const CheckedPage = memo(function CheckedPage(props: CheckedPageProps) {
  const { model, findings, chosen, changed, onPick } = props;
  const about = chosen?.elements ?? changed;
  const marksOn = useCallback(
    (figures: ReadonlyMap<Id, Figure>): Mark[] => [
      ...(chosen?.witness ? runMarks(chosen.witness, model) : []),
      ...awaitedMarks(chosen?.awaited ?? []),
      ...findingMarks(findings),
      ...about.map(
        (on): Mark => ({
          on,
          means: chosen ? "finding" : "repaired",
          as: figures.get(on)?.line ? "ribbon" : "frame",
          tone: "accent",
        }),
      ),
    ],
    [chosen, about, findings, model],
  );
  return (
    <ModelPage
      model={model}
      about={about}
      marksOn={marksOn}
      label={text.check.drawing}
      testId="checked-page"
      onPick={onPick}
    />
  );
});
