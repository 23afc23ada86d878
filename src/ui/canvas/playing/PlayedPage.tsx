"use client";
import { useEffect, useMemo } from "react";
import type { Id } from "@/core/model";
import { text } from "../../messages";
import { Figures } from "../FigureView";
import { Marks } from "../marks/Marks";
import { ShownPage, useShownPage } from "../ShownPage";
import { useLettering } from "../useLettering";
import { useScene } from "../useScene";
import { placeToShow, playedMarks } from "./playedMarks";
import { pageOfScope, type Standing } from "./standing";

const none: ReadonlySet<Id> = new Set();

/** The page the case is on, with its tokens. A click on a node that can act lets it act; one on a way chooses it. */
export function PlayedPage({
  standing,
  breaks = none,
  onPick,
}: {
  readonly standing: Standing;
  /** Where the case is to stop. */
  readonly breaks?: ReadonlySet<Id>;
  readonly onPick: (element: Id) => void;
}) {
  const { shown } = standing;
  const scene = useScene(shown.model, pageOfScope(shown));
  const page = useShownPage(scene);
  const { open, show } = page.viewport;
  const figures = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);
  const marks = useMemo(() => playedMarks(standing, breaks), [standing, breaks]);
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
