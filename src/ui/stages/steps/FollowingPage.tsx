"use client";
import { memo, useDeferredValue, useEffect, useMemo, useRef } from "react";
import type { Id, Model } from "@/core/model";
import { Figures } from "../../canvas/FigureView";
import { Marks } from "../../canvas/marks/Marks";
import type { Mark } from "../../canvas/marks/mark";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import { useScene } from "../../canvas/useScene";
import { text } from "../../messages";
import { isLargePage } from "../../version/tidyPage";

interface FollowingPageProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly chosen: Id | undefined;
  readonly onChoose: (element: Id) => void;
}

/** The drawing beside the sheet: it follows what is written, and shows where the present row is. */
export const FollowingPage = memo(function FollowingPage(props: FollowingPageProps) {
  const { diagram, chosen, onChoose } = props;
  const deferred = useDeferredValue(props.model);
  // Of a large page the words come first. A small one is painted with them: two paintings would take longer than one.
  const model = isLargePage(props.model, diagram) ? deferred : props.model;
  // Until somebody moves the page themselves, it is shown anew as it grows.
  const own = useRef(false);
  const scene = useScene(model, model.diagrams.get(diagram));
  const page = useShownPage(scene, () => {
    own.current = true;
  });
  const { open, show } = page.viewport;
  const lettering = useLettering(scene.figures.length);
  const { x: left, y: top, width: wide, height: high } = scene.bounds;
  const isEmpty = scene.figures.length === 0;
  useEffect(() => {
    if (diagram && !isEmpty && !own.current) open({ x: left, y: top, width: wide, height: high });
  }, [diagram, isEmpty, open, left, top, wide, high]);
  const figures = useMemo(() => new Map(scene.figures.map((one) => [one.id, one])), [scene]);
  const figure = figures.get(chosen ?? "");
  const marks = useMemo<Mark[]>(
    () => (chosen === undefined ? [] : [{ on: chosen, means: "row", as: "frame", tone: "accent" }]),
    [chosen],
  );
  const { x, y, width, height } = figure?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0) show({ x, y, width, height });
  }, [x, y, width, height, show]);
  return (
    <ShownPage
      shown={page}
      label={text.steps.drawing}
      testId="following-page"
      onPick={(id) => id && onChoose(id)}
      fits="button"
      onFit={() => {
        own.current = false;
      }}
    >
      <Figures figures={scene.figures} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
});
