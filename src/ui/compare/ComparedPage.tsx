"use client";
import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { type Figure, type Scene, textWidth } from "@/core/drawing";
import type { Id } from "@/core/model";
import { FigureView } from "../canvas/FigureView";
import { Layer } from "../canvas/Layer";
import { useLettering } from "../canvas/useLettering";
import { useViewport } from "../canvas/useViewport";

export interface Mark {
  readonly kind: "new" | "gone" | "changed" | "moved";
  readonly tag: string;
  readonly current: boolean;
}

interface ComparedPageProps {
  readonly scene: Scene;
  readonly marks: ReadonlyMap<Id, Mark>;
  readonly focus: Id | undefined;
  readonly side: "from" | "to";
  readonly label: string;
}

/** One side of a comparison: shared parts in ink, what only this side has in its own pen, paper labels for what happened. */
export function ComparedPage({ scene, marks, focus, side, label }: ComparedPageProps) {
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const { open, show } = useViewport(frame, layer, () => true);
  useEffect(() => open(scene.bounds), [scene, open]);
  useEffect(() => {
    const figure = scene.figures.find((candidate) => candidate.id === focus);
    if (figure) show(figure.bounds);
  }, [focus, scene, show]);
  const lettering = useLettering(scene.figures.length);
  const alone = side === "from" ? "var(--chakra-colors-pencil)" : "var(--chakra-colors-accent)";
  return (
    <Box ref={frame} flex="1" minH={0} position="relative" overflow="clip" role="img" aria-label={label}>
      <Layer layer={layer} aria-hidden="true">
        {scene.figures.map((figure) => {
          const mark = marks.get(figure.id);
          const only = mark?.kind === "new" || mark?.kind === "gone";
          const pen = only ? ({ "--chakra-colors-ink": alone } as React.CSSProperties) : undefined;
          return (
            <g key={figure.id} style={pen} strokeDasharray={mark?.kind === "gone" ? "5 3" : undefined}>
              {mark?.kind === "new" && !figure.line && (
                <rect
                  x={figure.bounds.x + 4}
                  y={figure.bounds.y + 4}
                  width={figure.bounds.width}
                  height={figure.bounds.height}
                  rx="8"
                  fill="none"
                  stroke={alone}
                  strokeWidth="1.4"
                />
              )}
              <FigureView figure={figure} lettering={lettering} />
            </g>
          );
        })}
        {scene.figures.map((figure) => {
          const mark = marks.get(figure.id);
          return mark && !figure.line ? (
            <Tag
              key={figure.id}
              figure={figure}
              mark={mark}
              pen={mark.kind === "gone" ? "var(--chakra-colors-pencil)" : "var(--chakra-colors-accent)"}
            />
          ) : null;
        })}
      </Layer>
    </Box>
  );
}

function Tag({ figure, mark, pen }: { readonly figure: Figure; readonly mark: Mark; readonly pen: string }) {
  const width = textWidth(mark.tag, 13, 600) + 14;
  const x = figure.bounds.x + figure.bounds.width - width + 8;
  const y = figure.bounds.y - 15;
  return (
    <g>
      {mark.current && (
        <rect
          x={figure.bounds.x - 6}
          y={figure.bounds.y - 6}
          width={figure.bounds.width + 12}
          height={figure.bounds.height + 12}
          rx="10"
          fill="none"
          stroke={pen}
          strokeWidth="2.4"
        />
      )}
      <rect
        x={x}
        y={y}
        width={width}
        height="20"
        rx="4"
        fill="var(--chakra-colors-paper)"
        stroke={pen}
        strokeWidth="1.2"
        strokeDasharray={mark.kind === "gone" ? "4 2.5" : undefined}
      />
      <text x={x + width / 2} y={y + 14.5} fontSize="13" fontWeight="600" textAnchor="middle" fill={pen}>
        {mark.tag}
      </text>
    </g>
  );
}
