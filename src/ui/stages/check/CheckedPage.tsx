"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import type { Finding } from "@/core/check";
import { type Id, type Model, shapesOf } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { findingMarks, runMarks } from "../../canvas/marks/findingMarks";
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
  readonly onPick: (element: Id | undefined) => void;
}

/** The page that a finding is about: the one its elements are drawn on, else the first. */
function pageOf(model: Model, chosen: Finding | undefined): Id {
  const drawn = chosen?.elements.flatMap((id) => shapesOf(model, id))[0]?.diagram;
  const edge = chosen && [...model.edges].find((one) => chosen.elements.includes(one.element))?.diagram;
  return drawn ?? edge ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id ?? "";
}

/** The drawing above its findings: each has its sign, the chosen one its frame and its run. */
export const CheckedPage = memo(function CheckedPage({ model, findings, chosen, onPick }: CheckedPageProps) {
  const diagram = pageOf(model, chosen);
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
      ...findingMarks(findings),
      ...(chosen?.elements ?? []).map(
        (on): Mark => ({ on, means: "finding", as: figures.get(on)?.line ? "ribbon" : "frame", tone: "accent" }),
      ),
    ],
    [chosen, findings, model, figures],
  );
  const place = chosen?.elements.map((id) => figures.get(id)).find((figure) => figure !== undefined);
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
