"use client";
import { Box } from "@chakra-ui/react";
import { memo, useDeferredValue, useEffect, useMemo, useRef } from "react";
import { roleOfLane } from "@/core/directory";
import { sceneOf } from "@/core/drawing";
import type { Id, Model } from "@/core/model";
import { FigureView } from "../canvas/FigureView";
import { FitButton } from "../canvas/FitButton";
import { Layer } from "../canvas/Layer";
import { useLettering } from "../canvas/useLettering";
import { useViewport } from "../canvas/useViewport";
import { useEntries } from "../directory/entries";
import { text } from "../messages";
import { isLargePage } from "../version/tidyPage";

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
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  // Until somebody moves the page themselves, it is shown anew as it grows.
  const own = useRef(false);
  const { open, show, fit } = useViewport(frame, layer, () => {
    own.current = true;
    return true;
  });
  const { entries } = useEntries();
  const page = model.diagrams.get(diagram);
  const scene = useMemo(() => {
    const hues = new Map(entries.flatMap((entry) => (entry.hue ? [[entry.id, entry.hue] as const] : [])));
    return page
      ? sceneOf(model, page, { hueOf: (lane) => hues.get(roleOfLane(model, lane)?.entry ?? "") })
      : { figures: [], bounds: { x: 0, y: 0, width: 0, height: 0 } };
  }, [model, page, entries]);
  const lettering = useLettering(scene.figures.length);
  const { x: left, y: top, width: wide, height: high } = scene.bounds;
  const isEmpty = scene.figures.length === 0;
  useEffect(() => {
    if (diagram && !isEmpty && !own.current) open({ x: left, y: top, width: wide, height: high });
  }, [diagram, isEmpty, open, left, top, wide, high]);
  const figure = scene.figures.find((candidate) => candidate.id === chosen);
  const { x, y, width, height } = figure?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0) show({ x, y, width, height });
  }, [x, y, width, height, show]);
  return (
    <Box
      ref={frame}
      flex="1"
      minH={0}
      position="relative"
      overflow="clip"
      bg="ground"
      data-testid="following-page"
      onClick={(event) => {
        const id = (event.target as Element).closest<SVGElement>("[data-id]")?.dataset.id;
        if (id) onChoose(id);
      }}
    >
      <Layer layer={layer} role="group" aria-label={text.steps.drawing}>
        {scene.figures.map((one) => (
          <FigureView key={one.id} figure={one} lettering={lettering} />
        ))}
        {figure && !figure.line && (
          <rect
            x={x - 4}
            y={y - 4}
            width={width + 8}
            height={height + 8}
            rx="9"
            fill="none"
            stroke="var(--chakra-colors-accent)"
            strokeWidth="2.4"
            pointerEvents="none"
          />
        )}
      </Layer>
      <FitButton
        onFit={() => {
          own.current = false;
          fit(scene.bounds);
        }}
      />
    </Box>
  );
});
