"use client";
import { useEffect, useRef } from "react";
import type { Point } from "@/core/model";
import { pathOf } from "./lines";
import { ink, tones } from "./tones";

/** A token on its way along a flow, once. Who wants nothing to move sees only where it arrives. */
export function Motion({ line }: { readonly line: readonly Point[] }) {
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
    <circle ref={circle} r="7" fill={tones.attention.colour} stroke={ink} strokeWidth="1.4" visibility="hidden">
      <animateMotion ref={motion} dur="0.42s" begin="indefinite" fill="freeze" path={pathOf(line)} />
    </circle>
  );
}
