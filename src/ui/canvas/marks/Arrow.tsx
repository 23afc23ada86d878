"use client";
import type { Figure } from "@/core/drawing";
import { tones } from "./tones";

/** A fine arrow from where something was to where it is. */
export function Arrow({ from, to }: { readonly from: Figure; readonly to: Figure | undefined }) {
  if (!to || from.line || to.line) return null;
  const middle = ({ bounds: { x, y, width, height } }: Figure) => ({ x: x + width / 2, y: y + height / 2 });
  const [a, b] = [middle(from), middle(to)];
  const isUp = b.y < a.y;
  const start = { x: a.x, y: isUp ? from.bounds.y - 4 : from.bounds.y + from.bounds.height + 4 };
  const end = { x: b.x, y: isUp ? to.bounds.y + to.bounds.height + 8 : to.bounds.y - 8 };
  const length = Math.hypot(end.x - start.x, end.y - start.y);
  if (length < 12) return null;
  const [ux, uy] = [(end.x - start.x) / length, (end.y - start.y) / length];
  const wing = (side: 1 | -1) => `${end.x - 8 * ux + side * 4 * uy} ${end.y - 8 * uy - side * 4 * ux}`;
  return (
    <path
      data-arrow={`${from.id} ${to.id}`}
      d={`M${start.x} ${start.y}L${end.x} ${end.y}M${wing(1)}L${end.x} ${end.y}L${wing(-1)}`}
      fill="none"
      stroke={tones.accent.colour}
      strokeWidth="1.3"
    />
  );
}
