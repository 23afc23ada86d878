"use client";
import { memo } from "react";
import { type Kind, pictureOfKind } from "@/core/commands";
import { FigureView } from "./FigureView";

/** A kind of element as a diagram draws it, small or as large as one likes. */
export const KindPicture = memo(function KindPicture({
  kind,
  width,
  height,
}: {
  readonly kind: Kind;
  readonly width: number;
  readonly height: number;
}) {
  const figure = pictureOfKind(kind, height < 40);
  const { x, y, width: wide, height: high } = figure.bounds;
  const scale = Math.max(wide / (width - 4), high / (height - 4));
  const [seenWide, seenHigh] = [width * scale, height * scale];
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${x + wide / 2 - seenWide / 2} ${y + high / 2 - seenHigh / 2} ${seenWide} ${seenHigh}`}
      aria-hidden="true"
    >
      <FigureView figure={figure} />
    </svg>
  );
});
