"use client";
import { useEffect, useMemo } from "react";
import type { Scene } from "@/core/drawing";
import type { Id } from "@/core/model";
import { Marks } from "../../canvas/marks/Marks";
import type { Mark } from "../../canvas/marks/mark";
import { PennedFigures } from "../../canvas/marks/PennedFigures";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import type { Viewport } from "../../canvas/useViewport";
import { useVisibleFigures } from "../../canvas/useVisibleFigures";

interface ComparedPageProps {
  readonly scene: Scene;
  readonly marks: readonly Mark[];
  readonly label: string;
  readonly onPick: (id: Id | undefined) => void;
  /** Called with the viewport once it is there. */
  readonly onViewport: (viewport: Viewport) => void;
  /** Whether this page has the button that shows all of it: one of two that go together has. */
  readonly hasFit: boolean;
}

/** One drawing of a comparison: what both sides share in ink, what only one has in its own pen, paper labels for what happened. */
export function ComparedPage({ scene, marks, label, onPick, onViewport, hasFit }: ComparedPageProps) {
  const page = useShownPage(scene);
  const { viewport } = page;
  useEffect(() => onViewport(viewport), [viewport, onViewport]);
  const visible = useVisibleFigures(scene, viewport);
  const lettering = useLettering(scene.figures.length);
  const figures = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);
  return (
    <ShownPage shown={page} label={label} onPick={onPick} fits={hasFit ? "key" : "not"}>
      <PennedFigures figures={visible} marks={marks} lettering={lettering} />
      <Marks marks={marks} figures={figures} />
    </ShownPage>
  );
}
