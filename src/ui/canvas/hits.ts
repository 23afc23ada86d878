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

/** The innermost lane, or else the pool, that lies under a point. */
export function holderUnder(scene: Scene, point: Point): Id | undefined {
  const area = ({ bounds }: Figure) => bounds.width * bounds.height;
  const held = scene.figures.filter(
    (figure) => (figure.type === "lane" || figure.type === "participant") && contains(figure.bounds, point),
  );
  return held.sort((a, b) => area(a) - area(b) || (a.type === "lane" ? -1 : 1))[0]?.id;
}

/** An open pool is met only at its band; its face belongs to what lies in it. */
export function poolBandUnder(scene: Scene, point: Point): Id | undefined {
  return figureUnder(scene, point, (figure) => figure.type === "participant" && point.x < figure.bounds.x + 28)?.id;
}
