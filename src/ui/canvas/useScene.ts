"use client";
import { useMemo } from "react";
import { roleOfLane } from "@/core/directory";
import { type Scene, sceneOf } from "@/core/drawing";
import type { Diagram, Id, Model } from "@/core/model";
import { useEntries } from "../controls/entries";

const nothing: Scene = { figures: [], bounds: { x: 0, y: 0, width: 0, height: 0 } };

/** A page of any model, lanes with the hues of their roles. */
export function useScene(model: Model, page: Diagram | undefined): Scene {
  const { entries } = useEntries();
  const hues = useMemo(
    () => new Map(entries.flatMap((entry) => (entry.hue ? [[entry.id, entry.hue] as const] : []))),
    [entries],
  );
  return useMemo(
    () => (page ? sceneOf(model, page, { hueOf: (lane) => hues.get(roleOfLane(model, lane)?.entry ?? "") }) : nothing),
    [model, page, hues],
  );
}

/** The page an element is drawn on; the first of the model where it is on none. */
export function pageWith(model: Model, ids: readonly Id[]): Diagram | undefined {
  for (const id of ids)
    for (const drawn of [...model.shapes, ...model.edges])
      if (drawn.element === id) return model.diagrams.get(drawn.diagram);
  return [...model.diagrams].sort((a, b) => a.order - b.order)[0];
}
