"use client";
import type { Figure } from "@/core/drawing";
import { middleOf } from "@/core/drawing";
import { overlaps } from "@/core/layout";
import type { Point } from "@/core/model";
import type { Sign } from "./mark";
import { ink, paper, tones } from "./tones";

/** Pixels from a sign's middle to its edge. */
const half = 8;

/**
 * Where signs stand: findings at the upper end, what a walk stops for where reading begins; on a connection at its middle. Where the
 * element's own name stands there, the sign takes another corner.
 */
export function placeOf({ line, bounds, label }: Figure, { sign }: Pick<Sign, "sign">): Point {
  const isFree = ({ x, y }: Point) =>
    !label || !overlaps({ x: x - half, y: y - half, width: 2 * half, height: 2 * half }, label.bounds, 1);
  if (line) {
    const middle = middleOf(line);
    if (sign === "hand-over") return middle;
    const beside = [
      { x: middle.x + 8, y: middle.y - 10 },
      { x: middle.x + 8, y: middle.y + 11 },
      { x: middle.x - 10, y: middle.y + 11 },
    ];
    return beside.find(isFree) ?? (beside[0] as Point);
  }
  if (sign === "break") return { x: bounds.x + 3, y: bounds.y - 1 };
  const [left, right, top, bottom] = [
    bounds.x + 4,
    bounds.x + bounds.width - 4,
    bounds.y - 4,
    bounds.y + bounds.height + 4,
  ];
  const corners = [
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: top },
    { x: left, y: bottom },
  ];
  return corners.find(isFree) ?? (corners[0] as Point);
}

export function SignView({ sign, figure }: { readonly sign: Sign; readonly figure: Figure }) {
  const at = placeOf(figure, sign);
  return (
    <g
      transform={`translate(${at.x} ${at.y})`}
      {...(sign.words === undefined ? { "aria-hidden": true } : { role: "img", "aria-label": sign.words })}
    >
      <Shape sign={sign.sign} />
    </g>
  );
}

function Shape({ sign }: { readonly sign: Sign["sign"] }) {
  switch (sign) {
    case "error":
      return (
        <>
          <circle r="7.5" fill="var(--chakra-colors-trouble)" />
          <path d="M-2.8 -2.8L2.8 2.8M2.8 -2.8L-2.8 2.8" stroke={paper} strokeWidth="1.8" />
        </>
      );
    case "warning":
      return (
        <>
          <path d="M0 -8L8.5 6.5H-8.5Z" fill={tones.attention.colour} />
          <path d="M0 -3V2M0 3.4V4.8" stroke={ink} strokeWidth="1.7" />
        </>
      );
    case "hand-over":
      return (
        <>
          <circle r="9" fill={paper} stroke={tones.attention.colour} strokeWidth="2" />
          <path
            d="M-4 -3.5L-0.5 0L-4 3.5M0.5 -3.5L4 0L0.5 3.5"
            fill="none"
            stroke="var(--chakra-colors-ink)"
            strokeWidth="1.6"
          />
        </>
      );
    case "break":
      return (
        <>
          <rect x="-8" y="-8" width="16" height="16" rx="3" fill={paper} stroke={ink} />
          <path d="M-2.5 -3.5V3.5M2.5 -3.5V3.5" stroke={ink} strokeWidth="2" />
        </>
      );
  }
}
