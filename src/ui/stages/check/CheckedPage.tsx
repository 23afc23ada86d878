"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import type { Finding } from "@/core/check";
import { edgesOf, type Id, type Model, shapesOf } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { awaitedMarks, findingMarks, runMarks } from "../../canvas/marks/findingMarks";
import { Marks } from "../../canvas/marks/Marks";
import type { Mark } from "../../canvas/marks/mark";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import { useScene } from "../../canvas/useScene";
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

/** The page that something is about: the one its elements are drawn on, else the first. */
function pageOf(model: Model, about: readonly Id[]): Id {
  const drawn = about.flatMap((id) => shapesOf(model, id))[0]?.diagram;
  const edge = about.flatMap((id) => edgesOf(model, id))[0]?.diagram;
  return drawn ?? edge ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "";
}

/** The drawing above its findings: each has its sign, the chosen one its frame and its run. */
export const CheckedPage = memo(function CheckedPage(props: CheckedPageProps) {
  const { model, findings, chosen, changed, onPick } = props;
  const about = chosen?.elements ?? changed;
  const diagram = pageOf(model, about);
  const scene = useScene(model, model.diagrams.get(diagram));
  const page = useShownPage(scene);
  const lettering = useLettering(scene.figures.length);
  const { open, show } = page.viewport;
  const bounds = useRef(scene.bounds);
  bounds.current = scene.bounds;
  // Another page is first seen whole; the place is brought into view afterwards.
  useEffect(() => {
    if (diagram) open(bounds.current);
  }, [diagram, open]);
  const figures = useMemo(() => new Map(scene.figures.map((one) => [one.id, one])), [scene]);
  const marks = useMemo<Mark[]>(
    () => [
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
    [chosen, about, findings, model, figures],
  );
  const place = about.map((id) => figures.get(id)).find((figure) => figure !== undefined);
  const { x, y, width, height } = place?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0 || height > 0) show({ x, y, width, height });
  }, [x, y, width, height, show]);
  return (
    <ShownPage
      shown={page}
      label={text.check.drawing}
      testId="checked-page"
      onPick={onPick}
      marks={marks}
      fits="button"
    >
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
});
