"use client";
import { memo, useEffect, useRef } from "react";
import type { Figure } from "@/core/drawing";
import type { Id, Point } from "@/core/model";
import { FlowGlow } from "../../canvas/FlowGlow";

const saffron = "var(--chakra-colors-saffron)";
const ink = "#1E2430";

export interface WalkMarks {
  /** Tokens before or in each node; whether it can act; how often nodes and flows were passed. */
  readonly tokens: ReadonlyMap<Id, number>;
  readonly able: ReadonlySet<Id>;
  /** Ways a person may choose now. */
  readonly ways: ReadonlySet<Id>;
  readonly passed: ReadonlyMap<Id, number>;
  readonly breaks: ReadonlySet<Id>;
  /** The flows of the last step: a token moves along each, once. */
  readonly moved: readonly Id[];
  readonly step: number;
}

/** Where the case stands, where it has been, and the tokens moving on. */
export const WalkSigns = memo(function WalkSigns({
  marks,
  figures,
}: {
  readonly marks: WalkMarks;
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  return (
    <g pointerEvents="none" data-testid="walk-signs">
      {[...figures.values()].map(({ id, line }) => {
        const times = marks.passed.get(id);
        if (!line || !times) return null;
        return (
          <g key={id}>
            <FlowGlow line={line} />
            {times > 1 && <Count times={times} at={middleOf(line)} />}
          </g>
        );
      })}
      {[...marks.ways].map((id) => {
        const line = figures.get(id)?.line;
        return line ? (
          <path
            key={id}
            d={pathOf(line)}
            fill="none"
            stroke={saffron}
            strokeWidth={2.5}
            strokeDasharray="6 4"
            data-way={id}
          />
        ) : null;
      })}
      {[...marks.passed].map(([id, times]) => {
        const figure = figures.get(id);
        if (!figure || figure.line) return null;
        const { x, y, width } = figure.bounds;
        return <Count key={id} times={times} at={{ x: x + width, y }} isNode />;
      })}
      {[...marks.breaks].map((id) => {
        const bounds = figures.get(id)?.bounds;
        return bounds ? (
          <g key={id} transform={`translate(${bounds.x - 5} ${bounds.y - 9})`}>
            <rect width="16" height="16" rx="3" fill="var(--chakra-colors-paper)" stroke={ink} />
            <path d="M5.5 4.5V11.5M10.5 4.5V11.5" stroke={ink} strokeWidth="2" />
          </g>
        ) : null;
      })}
      {[...marks.tokens].map(([id, tokens]) => {
        const bounds = figures.get(id)?.bounds;
        return bounds ? <Standing key={id} figure={bounds} tokens={tokens} isAble={marks.able.has(id)} /> : null;
      })}
      {marks.moved.map((id) => {
        const line = figures.get(id)?.line;
        return line ? <Moving key={`${marks.step} ${id}`} line={line} /> : null;
      })}
    </g>
  );
});

const pathOf = (line: readonly Point[]) =>
  line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("");
const middleOf = (line: readonly Point[]): Point => {
  const at = Math.floor((line.length - 1) / 2);
  const [a, b] = [line[at] as Point, line[at + 1] as Point];
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
};

/** How often something was passed: on nodes always, on flows from the second time. */
function Count({ times, at, isNode }: { readonly times: number; readonly at: Point; readonly isNode?: boolean }) {
  const words = `${times}×`;
  const width = 12 + words.length * 5;
  return (
    <g transform={`translate(${at.x - width / 2 + (isNode ? -2 : 0)} ${at.y - 9})`}>
      <rect width={width} height="17" rx="4" fill="var(--chakra-colors-paper)" stroke={saffron} strokeWidth="1.2" />
      <text x={width / 2} y="12.5" fontSize="11" textAnchor="middle" fill="var(--chakra-colors-ink)">
        {words}
      </text>
    </g>
  );
}

/** A token at rest, with a ring where it can go on and a frame round the node. */
function Standing({
  figure,
  tokens,
  isAble,
}: {
  readonly figure: Figure["bounds"];
  readonly tokens: number;
  readonly isAble: boolean;
}) {
  const { x, y, width, height } = figure;
  return (
    <g>
      <rect
        x={x - 6}
        y={y - 6}
        width={width + 12}
        height={height + 12}
        rx="11"
        fill="none"
        stroke={saffron}
        strokeWidth={isAble ? 3 : 1.6}
        strokeDasharray={isAble ? undefined : "3 4"}
      />
      <circle cx={x} cy={y + height / 2} r="9" fill={saffron} stroke={ink} strokeWidth="1.4" />
      <text x={x} y={y + height / 2 + 4} fontSize="11" fontWeight="700" textAnchor="middle" fill={ink}>
        {tokens > 1 ? tokens : ""}
      </text>
    </g>
  );
}

/** A token on its way along a flow, once. */
function Moving({ line }: { readonly line: readonly Point[] }) {
  const motion = useRef<SVGAnimateMotionElement>(null);
  const circle = useRef<SVGCircleElement>(null);
  useEffect(() => {
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    circle.current?.setAttribute("visibility", "visible");
    motion.current?.beginElement();
    const timer = setTimeout(() => circle.current?.setAttribute("visibility", "hidden"), 430);
    return () => clearTimeout(timer);
  }, []);
  return (
    <circle ref={circle} r="7" fill={saffron} stroke={ink} strokeWidth="1.4" visibility="hidden">
      <animateMotion ref={motion} dur="0.42s" begin="indefinite" fill="freeze" path={pathOf(line)} />
    </circle>
  );
}
