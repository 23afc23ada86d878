"use client";
import { type Figure, middleOf, textWidth } from "@/core/drawing";
import { overlaps } from "@/core/layout";
import type { Id, Point } from "@/core/model";
import type { Label } from "./mark";
import { ink, paper, tones } from "./tones";

const height = 20;

/**
 * At the corner that is asked for, just over the edge, so that it covers no marker of the element; where its name or something else
 * stands there, at another corner, or beside. O(figures).
 */
export function placeOfLabel(
  { id, bounds, label, line }: Figure,
  width: number,
  at: Label["at"],
  others: Iterable<Figure> = [],
): Point {
  if (line) {
    const middle = middleOf(line);
    return { x: middle.x - width / 2, y: middle.y - height / 2 };
  }
  const right = bounds.x + bounds.width;
  const x = at === "start" ? bounds.x - 6 : right - width + 8;
  const places: Point[] = [
    { x, y: bounds.y - height + 3 },
    { x, y: bounds.y + bounds.height - 3 },
    { x: at === "start" ? right - width + 8 : bounds.x - 6, y: bounds.y - height + 3 },
    { x: right + 4, y: bounds.y + (bounds.height - height) / 2 },
  ];
  const isInside = !label || overlaps(label.bounds, bounds, -4);
  const taken = isInside ? [] : [label.bounds];
  // Only what is small can be covered: a pool or lane lies under everything in it.
  for (const other of others) {
    if (other.id === id || other.line || other.bounds.width > 160 || other.bounds.height > 160) continue;
    taken.push(other.bounds, ...(other.label ? [other.label.bounds] : []));
  }
  const free = places.find((place) => !taken.some((one) => overlaps(one, { ...place, width, height }, 0)));
  return free ?? (places[0] as Point);
}

/** A few words or a number on a piece of paper at the element. */
export function LabelView(props: {
  readonly label: Label;
  readonly figure: Figure;
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  const { label, figure, figures } = props;
  const { colour, dash } = tones[label.tone];
  const width = Math.max(height, textWidth(label.text, 13, 600) + 14);
  const { x, y } = placeOfLabel(figure, width, label.at, figures.values());
  return (
    <>
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={label.isFilled ? height / 2 : 4}
        fill={label.isFilled ? colour : paper}
        stroke={label.isFilled ? ink : colour}
        strokeWidth="1.2"
        strokeDasharray={dash}
      />
      <text
        x={x + width / 2}
        y={y + 14.5}
        fontSize="13"
        fontWeight="600"
        textAnchor="middle"
        fill={
          label.isFilled
            ? label.tone === "accent"
              ? paper
              : ink
            : label.tone === "attention"
              ? "var(--chakra-colors-ink)"
              : colour
        }
      >
        {label.text}
      </text>
    </>
  );
}
