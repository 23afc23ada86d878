"use client";
import { memo } from "react";
import type { Handover } from "@/core/directory";
import type { Figure } from "@/core/drawing";
import type { Id, Point } from "@/core/model";
import { FlowGlow } from "./FlowGlow";

const saffron = "var(--chakra-colors-saffron)";

/** Where work changes hands: the flows it goes along, and a sign on the last one with how often. */
export const HandoverSigns = memo(function HandoverSigns({
  handovers,
  figures,
}: {
  readonly handovers: readonly Handover[];
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  const flows = new Set(handovers.flatMap((handover) => handover.flows));
  const last = new Map<Id, string[]>();
  for (const { flows: along, from, to } of handovers) {
    const id = along.at(-1);
    if (id) last.set(id, [...(last.get(id) ?? []), `${from} → ${to}`]);
  }
  return (
    <g pointerEvents="none" data-testid="handovers">
      {[...flows].map((id) => {
        const line = figures.get(id)?.line;
        return line && <FlowGlow key={id} line={line} />;
      })}
      {[...last].map(([id, words]) => {
        const line = figures.get(id)?.line;
        return line && <Sign key={id} at={middleOf(line)} words={words} />;
      })}
    </g>
  );
});

function Sign({ at, words }: { readonly at: Point; readonly words: readonly string[] }) {
  return (
    <g transform={`translate(${at.x} ${at.y})`} role="img" aria-label={words.join(", ")}>
      <circle r="9" fill="var(--chakra-colors-paper)" stroke={saffron} strokeWidth="2" />
      <path
        d="M-4 -3.5L-0.5 0L-4 3.5M0.5 -3.5L4 0L0.5 3.5"
        fill="none"
        stroke="var(--chakra-colors-ink)"
        strokeWidth="1.6"
      />
    </g>
  );
}

/** The middle of a line's longest part, where most room is. */
function middleOf(line: readonly Point[]): Point {
  let best = { length: -1, at: line[0] as Point };
  for (let index = 1; index < line.length; index++) {
    const [a, b] = [line[index - 1] as Point, line[index] as Point];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length > best.length) best = { length, at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } };
  }
  return best.at;
}
