"use client";
import type { Point } from "@/core/model";

/** A flow that something goes along, marked under its line. */
export function FlowGlow({ line }: { readonly line: readonly Point[] }) {
  return (
    <path
      d={line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("")}
      fill="none"
      stroke="var(--chakra-colors-saffron)"
      strokeWidth={7}
      strokeOpacity={0.35}
      strokeLinejoin="round"
    />
  );
}
