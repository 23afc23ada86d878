"use client";
import { chakra } from "@chakra-ui/react";
import { memo } from "react";
import { type Distribution, momentsOf, shareBelow } from "@/core/scenario";
import { text } from "../../messages";

const size = { width: 34, height: 15 };
const parts = 20;

/** How what was said is spread, as a curve the height of a line; nothing where it is one value, or has no curve. */
export const SmallCurve = memo(function SmallCurve({ of }: { readonly of: Distribution }) {
  const { mean, variance } = momentsOf(of);
  const deviation = Math.sqrt(variance);
  if (!(deviation > 0)) return null;
  const [from, to] = [Math.max(0, mean - 3 * deviation), mean + 3.5 * deviation];
  const step = (to - from) / parts;
  const chances = Array.from({ length: parts }, (_, at) => {
    const below = (time: number) => shareBelow(of, time);
    return below(from + (at + 1) * step) - (at === 0 && from === 0 ? 0 : below(from + at * step));
  });
  const most = Math.max(...chances);
  if (!(most > 0)) return null;
  const points = chances.map((chance, at) => {
    const x = ((at + 0.5) / parts) * size.width;
    return `${x.toFixed(1)},${(size.height - 1 - (chance / most) * (size.height - 3)).toFixed(1)}`;
  });
  const path = `M0,${size.height - 1} L${points.join(" L")} L${size.width},${size.height - 1} Z`;
  return (
    <chakra.svg
      style={size}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label={text.forecast.sheet.curve}
      color="accent"
      flexShrink={0}
      data-curve
    >
      <path d={path} fill="currentColor" fillOpacity="0.18" stroke="currentColor" strokeWidth="1" />
    </chakra.svg>
  );
});
