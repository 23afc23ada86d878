"use client";
import { useEffect, useMemo } from "react";
import type { Id } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { Marks } from "../../canvas/marks/Marks";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import { useScene } from "../../canvas/useScene";
import { text } from "../../messages";
import { placeToShow, walkMarks } from "./marks";
import { pageOfScope, type Standing } from "./useStanding";
import { useWalk } from "./walkStore";

/** The page the case is on, with its tokens. A click on a node that can act lets it act; one on a way chooses it. */
export function WalkPage({
  standing,
  onPick,
}: {
  readonly standing: Standing;
  readonly onPick: (element: Id) => void;
}) {
  const breaks = useWalk((state) => state.breaks);
  const { shown } = standing;
  const scene = useScene(shown.model, pageOfScope(shown));
  const page = useShownPage(scene);
  const { open, show } = page.viewport;
  const figures = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);
  const marks = useMemo(() => walkMarks(standing, breaks), [standing, breaks]);
  const lettering = useLettering(scene.figures.length);
  useEffect(() => open(scene.bounds), [scene, open]);
  const first = placeToShow(marks);
  useEffect(() => {
    const figure = first === undefined ? undefined : figures.get(first);
    if (figure) show(figure.bounds);
  }, [first, figures, show]);
  return (
    <ShownPage
      shown={page}
      label={text.walk.drawing}
      testId="walk-page"
      marks={marks}
      onPick={(id) => id && onPick(id)}
    >
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
}
