"use client";
import { memo, useCallback } from "react";
import type { ElementStanding, OpenCase } from "@/contract/live";
import { type Id, isGateway, type Model } from "@/core/model";
import { ModelPage } from "../../canvas/ModelPage";
import type { Mark } from "../../canvas/marks/mark";
import { timeWords } from "../../controls/units";
import { text } from "../../messages";

const nothing: readonly Id[] = [];
const pickNothing = () => undefined;

/** The drawing with what waits where and how long, what went through today; or with the path of one case. */
export const LivePage = memo(function LivePage(props: {
  readonly model: Model;
  readonly standing: readonly ElementStanding[];
  /** Elements of which a target broke. */
  readonly broken: readonly Id[];
  readonly shown: OpenCase | undefined;
}) {
  const { model, standing, broken, shown } = props;
  const marksOn = useCallback(
    () => (shown ? pathMarks(shown) : [...standingMarks(standing, model), ...brokenMarks(broken)]),
    [standing, broken, shown, model],
  );
  return (
    <ModelPage
      model={model}
      about={nothing}
      marksOn={marksOn}
      label={text.live.page}
      testId="live-page"
      onPick={pickNothing}
    />
  );
});

const standingMarks = (standing: readonly ElementStanding[], model: Model): Mark[] =>
  standing.flatMap((one): Mark[] => [
    ...(one.waiting > 0
      ? [
          {
            on: one.element,
            means: "liveWaiting",
            as: "label",
            text: text.live.waiting(one.waiting, timeWords(one.median / 1000), timeWords(one.oldest / 1000)),
            tone: "accent",
            at: "end",
          } as const,
        ]
      : []),
    // What goes through a gateway has been counted before it.
    ...(one.doneToday > 0 && !isGateway(model.elements.get(one.element)?.type)
      ? [
          {
            on: one.element,
            means: "liveDone",
            as: "label",
            text: String(one.doneToday),
            tone: "pencil",
            at: "start",
          } as const,
        ]
      : []),
    ...(one.incidents > 0 ? [{ on: one.element, means: "liveIncident", as: "frame", tone: "attention" } as const] : []),
  ]);

const brokenMarks = (broken: readonly Id[]): Mark[] =>
  [...new Set(broken)].map((on) => ({ on, means: "liveBroken", as: "frame", tone: "attention" }));

const pathMarks = ({ path, waits }: OpenCase): Mark[] => [
  ...path.map(
    ({ element, times }): Mark => ({
      on: element,
      means: "liveBeen",
      as: "label",
      text: String(times),
      tone: "pencil",
      at: "start",
    }),
  ),
  ...waits.map(
    ({ element, kind }): Mark => ({
      on: element,
      means: kind === "incident" ? "liveIncident" : "liveAt",
      as: "frame",
      tone: kind === "incident" ? "attention" : "accent",
    }),
  ),
];
