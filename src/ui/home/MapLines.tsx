"use client";
import type { MapLink } from "@/contract/home";
import { textWidth } from "@/core/drawing";
import type { Point } from "@/core/model";
import { text } from "../messages";

const ink = "var(--chakra-colors-ink)";

/** What leads from one process or area to another: calls drawn through, messages dashed, as BPMN draws its flows. */
export function MapLines(props: {
  readonly links: readonly MapLink[];
  readonly lines: readonly (readonly Point[] | undefined)[];
  readonly nameOf: (end: MapLink["from"]) => string;
  readonly width: number;
  readonly height: number;
}) {
  const { links, lines, nameOf, width, height } = props;
  return (
    <svg
      role="group"
      aria-label={text.home.links}
      width={width}
      height={height}
      style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
    >
      <defs>
        <marker id="calls-tip" viewBox="0 0 10 10" refX="9" refY="5" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0 0L10 5L0 10Z" fill={ink} />
        </marker>
        <marker id="message-tip" viewBox="0 0 10 10" refX="9" refY="5" markerWidth="8" markerHeight="8" orient="auto">
          <path d="M1 1L9 5L1 9Z" fill="var(--chakra-colors-paper)" stroke={ink} />
        </marker>
      </defs>
      {links.map(({ from, to, kind, names, count }, at) => {
        const points = lines[at];
        if (!points) return null;
        const said = text.home.link(nameOf(from), kind, nameOf(to), names.join(", "));
        const words = names.join(", ") || text.home.times(text.home.kinds[kind], count);
        return (
          <g key={`${from.id} ${to.id} ${kind}`} role="img" aria-label={said} data-link={`${from.id} ${to.id}`}>
            <title>{said}</title>
            <path
              d={points.map(({ x, y }, index) => `${index === 0 ? "M" : "L"}${x} ${y}`).join("")}
              fill="none"
              stroke={ink}
              strokeWidth="1.4"
              strokeDasharray={kind === "calls" ? undefined : "6 4"}
              markerEnd={`url(#${kind === "calls" ? "calls" : "message"}-tip)`}
            />
            <Words points={points} words={words} />
          </g>
        );
      })}
    </svg>
  );
}

/** In the middle of the longest piece across, where they have room; else only told when one points at the line. */
function Words({ points, words }: { readonly points: readonly Point[]; readonly words: string }) {
  const pieces = points.slice(1).map((to, at) => ({ from: points[at] as Point, to }));
  const longest = pieces
    .filter(({ from, to }) => from.y === to.y)
    .sort((one, other) => Math.abs(other.to.x - other.from.x) - Math.abs(one.to.x - one.from.x))[0];
  if (!longest) return null;
  const { from, to } = longest;
  const shown = words.length > 30 ? `${words.slice(0, 29)}…` : words;
  if (textWidth(shown, 11) + 16 > Math.abs(to.x - from.x)) return null;
  return (
    <text
      x={(from.x + to.x) / 2}
      y={from.y + 4}
      textAnchor="middle"
      fontSize="11"
      fill="var(--chakra-colors-quiet)"
      stroke="var(--chakra-colors-ground)"
      strokeWidth="4"
      paintOrder="stroke"
    >
      {shown}
    </text>
  );
}
