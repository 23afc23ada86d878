"use client";
import { Box } from "@chakra-ui/react";
import { useEffect, useMemo, useRef } from "react";
import { roleOfLane } from "@/core/directory";
import { type Scene, sceneOf } from "@/core/drawing";
import { type Id, isFlowNode } from "@/core/model";
import { FigureView } from "../canvas/FigureView";
import { FitButton, useFitKey } from "../canvas/FitButton";
import { figureUnder, flowUnder } from "../canvas/hits";
import { Layer } from "../canvas/Layer";
import { useLettering } from "../canvas/useLettering";
import { useViewport } from "../canvas/useViewport";
import { useEntries } from "../directory/entries";
import { text } from "../messages";
import { marksOf, pageOfScope, type Standing } from "./useStanding";
import { WalkSigns } from "./WalkSigns";
import { useWalk } from "./walkStore";

const nothing: Scene = { figures: [], bounds: { x: 0, y: 0, width: 0, height: 0 } };

/** The page the case is on, with its tokens. A click on a node that can act lets it act; one on a way chooses it. */
export function WalkPage({
  standing,
  onPick,
}: {
  readonly standing: Standing;
  readonly onPick: (element: Id) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const { open, show, fit, toPage } = useViewport(frame, layer, () => true);
  const { entries } = useEntries();
  const breaks = useWalk((state) => state.breaks);
  const { shown } = standing;
  const { model } = shown;
  const page = pageOfScope(shown);
  const scene = useMemo(() => {
    const hues = new Map(entries.flatMap((entry) => (entry.hue ? [[entry.id, entry.hue] as const] : [])));
    return page ? sceneOf(model, page, { hueOf: (lane) => hues.get(roleOfLane(model, lane)?.entry ?? "") }) : nothing;
  }, [model, page, entries]);
  const figures = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);
  const marks = useMemo(() => marksOf(standing, breaks), [standing, breaks]);
  const lettering = useLettering(scene.figures.length);
  useEffect(() => open(scene.bounds), [scene, open]);
  useFitKey(() => fit(scene.bounds));
  const first = [...marks.able][0] ?? [...marks.tokens.keys()][0];
  useEffect(() => {
    const figure = first === undefined ? undefined : figures.get(first);
    if (figure) show(figure.bounds);
  }, [first, figures, show]);
  return (
    <Box
      ref={frame}
      flex="1"
      minH={0}
      position="relative"
      overflow="clip"
      bg="ground"
      data-testid="walk-page"
      onClick={(event) => {
        const point = toPage(event);
        const id = figureUnder(scene, point, ({ type }) => isFlowNode(type))?.id ?? flowUnder(scene, point);
        if (id) onPick(id);
      }}
    >
      <Layer layer={layer} role="group" aria-label={text.walk.drawing}>
        {scene.figures.map((figure) => (
          <FigureView key={figure.id} figure={figure} lettering={lettering} />
        ))}
        <WalkSigns marks={marks} figures={figures} />
      </Layer>
      <FitButton onFit={() => fit(scene.bounds)} />
    </Box>
  );
}
