"use client";
import { Box } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { type ReactNode, type RefObject, useRef } from "react";
import type { Scene } from "@/core/drawing";
import { type Id, isFlowNode } from "@/core/model";
import { FitButton, useFitKey } from "./FitButton";
import { figureUnder, flowUnder } from "./hits";
import { Layer } from "./Layer";
import type { Mark } from "./marks/mark";
import { useViewport, type Viewport } from "./useViewport";

interface Shown {
  readonly scene: Scene;
  readonly frame: RefObject<HTMLDivElement | null>;
  readonly layer: RefObject<HTMLDivElement | null>;
  readonly viewport: Viewport;
}

/** A page that is looked at and picked from, not drawn on. `onPan`: somebody moves it by hand. */
export function useShownPage(scene: Scene, onPan?: () => void): Shown {
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const viewport = useViewport(frame, layer, () => {
    onPan?.();
    return true;
  });
  return { scene, frame, layer, viewport };
}

// It brings what opens over a page, which most pages never need.
const Legend = dynamic(() => import("./marks/Legend").then((file) => file.Legend), { loading: () => null });
const noMarks: readonly Mark[] = [];

interface ShownPageProps {
  readonly shown: Shown;
  readonly label: string;
  readonly testId?: string;
  /** A node or flow was clicked; undefined where there is none. */
  readonly onPick: (id: Id | undefined) => void;
  /** How all of it is shown: by a button and its key, by the button alone where keys are for typing, or not from here. */
  readonly fits?: "key" | "button" | "not";
  readonly onFit?: () => void;
  /** What is marked on it, for its legend. */
  readonly marks?: readonly Mark[];
  readonly children: ReactNode;
}

export function ShownPage({
  shown,
  label,
  testId,
  onPick,
  fits = "key",
  onFit,
  marks = noMarks,
  children,
}: ShownPageProps) {
  const { scene, frame, layer, viewport } = shown;
  const fit = () => {
    onFit?.();
    viewport.fit(scene.bounds);
  };
  useFitKey(fit, fits === "key");
  return (
    <Box
      ref={frame}
      flex="1"
      minH={0}
      position="relative"
      overflow="clip"
      bg="ground"
      data-testid={testId}
      onClick={(event) => {
        const point = viewport.toPage(event);
        onPick(figureUnder(scene, point, ({ type }) => isFlowNode(type))?.id ?? flowUnder(scene, point));
      }}
    >
      <Layer layer={layer} role="group" aria-label={label}>
        {children}
      </Layer>
      {marks.length > 0 && <Legend marks={marks} />}
      {fits !== "not" && <FitButton onFit={fit} hasKey={fits === "key"} />}
    </Box>
  );
}
