"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import type { Figure } from "@/core/drawing";
import { edgesOf, type Id, type Model, shapesOf } from "@/core/model";
import { Figures } from "./FigureView";
import { Marks } from "./marks/Marks";
import type { Mark } from "./marks/mark";
import { ShownPage, useShownPage } from "./ShownPage";
import { useLettering } from "./useLettering";
import { useScene } from "./useScene";

/** The page that something is about: the one its elements are drawn on, else the first. */
function pageOf(model: Model, about: readonly Id[]): Id {
  const drawn = about.flatMap((id) => shapesOf(model, id))[0]?.diagram;
  const edge = about.flatMap((id) => edgesOf(model, id))[0]?.diagram;
  return drawn ?? edge ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "";
}

type MarksOn = (figures: ReadonlyMap<Id, Figure>) => readonly Mark[];

/** A drawing that is looked at, with marks on what stands on its page; what it is about is brought into view. */
export const ModelPage = memo(function ModelPage(props: {
  readonly model: Model;
  readonly about: readonly Id[];
  /** The same function as long as the marks are the same. */
  readonly marksOn: MarksOn;
  readonly label: string;
  readonly testId: string;
  readonly onPick: (element: Id | undefined) => void;
}) {
  const { model, about, marksOn, label, testId, onPick } = props;
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
  const marks = useMemo(() => marksOn(figures).filter(({ on }) => figures.has(on)), [marksOn, figures]);
  const place = about.map((id) => figures.get(id)).find((figure) => figure !== undefined);
  const { x, y, width, height } = place?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0 || height > 0) show({ x, y, width, height });
  }, [x, y, width, height, show]);
  return (
    <ShownPage shown={page} label={label} testId={testId} onPick={onPick} marks={marks} fits="button">
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
});
