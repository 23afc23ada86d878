import type { Figure, Scene } from "@/core/drawing";
import { contains, nearestOnLine } from "@/core/layout";
import type { Id, Point } from "@/core/model";

/** The topmost shape under a point that is meant. */
export function figureUnder(scene: Scene, point: Point, accepts: (figure: Figure) => boolean): Figure | undefined {
  return scene.figures.findLast((figure) => !figure.line && contains(figure.bounds, point) && accepts(figure));
}

/** The sequence flow that passes close by a point. */
export function flowUnder(scene: Scene, point: Point): Id | undefined {
  return scene.figures.find(
    (figure) => figure.type === "sequenceFlow" && figure.line && nearestOnLine(figure.line, point).distance < 10,
  )?.id;
}

/** An open pool is met only at its band; its face belongs to what lies in it. */
export function poolBandUnder(scene: Scene, point: Point): Id | undefined {
  return figureUnder(scene, point, (figure) => figure.type === "participant" && point.x < figure.bounds.x + 28)?.id;
}
