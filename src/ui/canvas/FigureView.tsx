"use client";
import { memo } from "react";
import type { Figure, Primitive, Tone } from "@/core/drawing";
import { worded } from "../messages";

const named = (tone: Tone) => (tone === "none" ? "none" : `var(--chakra-colors-${tone === "soft" ? "ground" : tone})`);
/** A hue is chosen for white paper; mixed with ink it is as dark there, and light enough on dark paper. */
const colour = (tone: Tone, hue?: string) =>
  hue && tone === "ink" ? `color-mix(in oklab, ${hue}, var(--chakra-colors-ink) 40%)` : named(tone);

/** Draws words by the outlines of their letters, where a page has many; see `useLettering`. */
export type Lettering = (
  words: string,
  weight: 400 | 600,
) => { readonly path: string; readonly width: number } | undefined;

interface PrimitiveViewProps {
  readonly primitive: Primitive;
  readonly lettering: Lettering | undefined;
}

export const PrimitiveView = memo(function PrimitiveView({ primitive, lettering }: PrimitiveViewProps) {
  const outline = primitive.kind === "text" ? lettering?.(primitive.text, primitive.weight) : undefined;
  if (outline && primitive.kind === "text") {
    const { x, y, size, anchor, upright, tone } = primitive;
    const before = anchor === "middle" ? outline.width / 2 : anchor === "end" ? outline.width : 0;
    return (
      <path
        d={outline.path}
        fill={colour(tone)}
        transform={`translate(${x} ${y})${upright ? " rotate(-90)" : ""} scale(${size / 1000}) translate(${-before} 0)`}
      />
    );
  }
  switch (primitive.kind) {
    case "path":
      return (
        <path
          d={primitive.d}
          fill={colour(primitive.fill, primitive.hue)}
          stroke={primitive.stroke === "none" ? undefined : colour(primitive.stroke, primitive.hue)}
          strokeWidth={primitive.width || undefined}
          strokeDasharray={primitive.dash}
          strokeLinejoin="round"
        />
      );
    case "text":
      return (
        <text
          x={primitive.x}
          y={primitive.y}
          // As style: the page's reset lets all text inherit its font, which is stronger than attributes.
          style={{ fontSize: primitive.size, fontWeight: primitive.weight }}
          textAnchor={primitive.anchor}
          fill={colour(primitive.tone)}
          transform={primitive.upright ? `rotate(-90 ${primitive.x} ${primitive.y})` : undefined}
        >
          {primitive.text}
        </text>
      );
    case "ribbon":
      return (
        <rect
          x={primitive.bounds.x}
          y={primitive.bounds.y}
          width={primitive.bounds.width}
          height={primitive.bounds.height}
          fill={primitive.hue}
        />
      );
  }
});

/** What a pointer can meet of a figure: a line's surroundings, a container's band and border, a shape's whole face. */
function HitArea({ figure }: { readonly figure: Figure }) {
  const { x, y, width, height } = figure.bounds;
  if (figure.line) {
    return (
      <path
        d={figure.line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("")}
        fill="none"
        stroke="transparent"
        strokeWidth={12}
        pointerEvents="stroke"
      />
    );
  }
  if (figure.type === "participant" || figure.type === "lane") {
    return (
      <>
        <rect
          x={x}
          y={y}
          width={width}
          height={height}
          fill="none"
          stroke="transparent"
          strokeWidth={8}
          pointerEvents="stroke"
        />
        <rect
          x={x}
          y={y}
          width={figure.type === "participant" && height < 60 ? width : 28}
          height={height}
          fill="transparent"
          pointerEvents="all"
        />
      </>
    );
  }
  if (figure.type === "group")
    return (
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        fill="none"
        stroke="transparent"
        strokeWidth={8}
        pointerEvents="stroke"
      />
    );
  return <rect x={x} y={y} width={width} height={height} fill="transparent" pointerEvents="all" />;
}

/** One element as drawn. A figure that did not change is not painted again. */
export const FigureView = memo(function FigureView({
  figure,
  lettering,
}: {
  readonly figure: Figure;
  readonly lettering?: Lettering | undefined;
}) {
  return (
    <g
      data-id={figure.id}
      data-type={figure.type}
      id={`figure-${figure.id}`}
      role="img"
      aria-label={worded(figure.title)}
      pointerEvents="none"
    >
      {figure.primitives.map((primitive, at) => (
        <PrimitiveView key={at} primitive={primitive} lettering={lettering} />
      ))}
      <HitArea figure={figure} />
      {figure.label && (
        <rect
          data-label="true"
          x={figure.label.bounds.x}
          y={figure.label.bounds.y}
          width={figure.label.bounds.width}
          height={figure.label.bounds.height}
          fill="transparent"
          pointerEvents="all"
        />
      )}
    </g>
  );
});

/** All figures of a page. What a pointer does over them, frame by frame, does not make them be looked through. */
export const Figures = memo(function Figures({
  figures,
  lettering,
}: {
  readonly figures: readonly Figure[];
  readonly lettering: Lettering | undefined;
}) {
  return (
    <g>
      {figures.map((figure) => (
        <FigureView key={figure.id} figure={figure} lettering={lettering} />
      ))}
    </g>
  );
});
