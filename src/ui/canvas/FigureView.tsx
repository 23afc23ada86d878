"use client";
import { memo } from "react";
import type { Figure, Primitive, Tone } from "@/core/drawing";

const colour = (tone: Tone) => (tone === "none" ? "none" : `var(--chakra-colors-${tone === "soft" ? "ground" : tone})`);

const PrimitiveView = memo(function PrimitiveView({ primitive }: { readonly primitive: Primitive }) {
  switch (primitive.kind) {
    case "path":
      return (
        <path
          d={primitive.d}
          fill={colour(primitive.fill)}
          stroke={primitive.stroke === "none" ? undefined : colour(primitive.stroke)}
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
export const FigureView = memo(function FigureView({ figure }: { readonly figure: Figure }) {
  return (
    <g
      data-id={figure.id}
      data-type={figure.type}
      id={`figure-${figure.id}`}
      role="img"
      aria-label={figure.title}
      pointerEvents="none"
    >
      {figure.primitives.map((primitive, at) => (
        <PrimitiveView key={at} primitive={primitive} />
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
