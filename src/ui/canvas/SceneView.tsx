"use client";
import { Box } from "@chakra-ui/react";
import type { Scene } from "@/core/drawing";
import { FigureView } from "./FigureView";

/** A page to look at, fitted into its box. */
export function SceneView({
  scene,
  height,
  label,
}: {
  readonly scene: Scene;
  readonly height: number | string;
  readonly label: string;
}) {
  const { x, y, width, height: tall } = scene.bounds;
  return (
    <Box
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      bg="ground"
      h={typeof height === "number" ? `${height}px` : height}
    >
      <svg
        textRendering="geometricPrecision"
        width="100%"
        height="100%"
        viewBox={`${x - 16} ${y - 16} ${width + 32} ${tall + 32}`}
        role="img"
        aria-label={label}
      >
        {scene.figures.map((figure) => (
          <FigureView key={figure.id} figure={figure} />
        ))}
      </svg>
    </Box>
  );
}
