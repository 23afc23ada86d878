"use client";
import { memo } from "react";
import type { Figure } from "@/core/drawing";
import type { Id, Model } from "@/core/model";
import { FlowGlow } from "./FlowGlow";

const saffron = "var(--chakra-colors-saffron)";

/** A run through the page: the flows it goes along, and on each node the steps at which it is passed. */
export const RunSigns = memo(function RunSigns({
  run,
  model,
  figures,
}: {
  readonly run: readonly Id[];
  readonly model: Model;
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  const passed = new Map<Id, number[]>();
  for (const [at, id] of run.entries()) passed.set(id, [...(passed.get(id) ?? []), at + 1]);
  return (
    <g pointerEvents="none" data-testid="run">
      {[...figures.values()].map(({ id, line }) => {
        const flow = model.elements.get(id);
        if (!line || flow?.type !== "sequenceFlow") return null;
        if (!passed.has(String(flow.sourceRef)) || !passed.has(String(flow.targetRef))) return null;
        return <FlowGlow key={id} line={line} />;
      })}
      {[...passed].map(([id, steps]) => {
        const bounds = figures.get(id)?.bounds;
        if (!bounds) return null;
        const words = steps.length > 3 ? `${steps.slice(0, 3).join(", ")} …` : steps.join(", ");
        const width = Math.max(18, words.length * 6.5 + 8);
        return (
          <g key={id} transform={`translate(${bounds.x} ${bounds.y})`}>
            <rect x={-6} y={-11} width={width} height={18} rx="9" fill={saffron} stroke="#1E2430" />
            <text x={-6 + width / 2} y={2} textAnchor="middle" style={{ fontSize: 11, fontWeight: 600 }} fill="#1E2430">
              {words}
            </text>
          </g>
        );
      })}
    </g>
  );
});
