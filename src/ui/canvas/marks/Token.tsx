"use client";
import type { Point } from "@/core/model";
import { ink, tones } from "./tones";

/** A token at rest; several are counted. */
export function Token({ count, at }: { readonly count: number; readonly at: Point }) {
  return (
    <>
      <circle cx={at.x} cy={at.y} r="9" fill={tones.attention.colour} stroke={ink} strokeWidth="1.4" />
      <text x={at.x} y={at.y + 4} fontSize="11" fontWeight="700" textAnchor="middle" fill={ink}>
        {count > 1 ? count : ""}
      </text>
    </>
  );
}
