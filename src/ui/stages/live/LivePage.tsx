"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import type { ElementStanding, OpenCase } from "@/contract/live";
import { type Id, isGateway, type Model } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { Marks } from "../../canvas/marks/Marks";
import type { Mark } from "../../canvas/marks/mark";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import { useScene } from "../../canvas/useScene";
import { timeWords } from "../../controls/units";
import { text } from "../../messages";

/** The drawing with what waits where and how long, what went through today; or with the path of one case. */
export const LivePage = memo(function LivePage(props: {
  readonly model: Model;
  readonly standing: readonly ElementStanding[];
  /** Elements of which a target broke. */
  readonly broken: readonly Id[];
  readonly shown: OpenCase | undefined;
}) {
  const { model, standing, broken, shown } = props;
  const diagram = useMemo(() => [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "", [model]);
  const scene = useScene(model, model.diagrams.get(diagram));
  const page = useShownPage(scene);
  const lettering = useLettering(scene.figures.length);
  const { open } = page.viewport;
  const bounds = useRef(scene.bounds);
  bounds.current = scene.bounds;
  useEffect(() => {
    if (diagram) open(bounds.current);
  }, [diagram, open]);
  const figures = useMemo(() => new Map(scene.figures.map((one) => [one.id, one])), [scene]);
  const marks = useMemo(
    () =>
      (shown ? pathMarks(shown) : [...standingMarks(standing, model), ...brokenMarks(broken)]).filter(({ on }) =>
        figures.has(on),
      ),
    [standing, broken, shown, figures, model],
  );
  return (
    <ShownPage
      shown={page}
      label={text.live.page}
      testId="live-page"
      onPick={() => undefined}
      marks={marks}
      fits="button"
    >
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
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
