import { type Command, perform } from "../commands";
import { boundsAround } from "../layout";
import { type Bounds, edgeOn, emptyModel, type Point, shapeOn } from "../model";
import type { LandscapeLink, LandscapeProcess } from "./landscape";

export interface LandscapePicture {
  readonly boxes: readonly { readonly id: string; readonly name: string; readonly bounds: Bounds }[];
  readonly lines: readonly (LandscapeLink & { readonly points: readonly Point[] })[];
  readonly area: Bounds;
}

/**
 * Places processes and their links as the layout places steps and flows: callers left of what they call, lines around boxes.
 * Processes that nothing ties to others are left out; the table has them.
 */
export function placeLandscape(
  processes: readonly Pick<LandscapeProcess, "id" | "name">[],
  links: readonly LandscapeLink[],
): LandscapePicture {
  const tied = new Set(links.flatMap((link) => [link.from, link.to]));
  const shown = processes.filter((process) => tied.has(process.id));
  const page = "landscape";
  let model = emptyModel({ definitions: "all", process: "whole", diagram: page }, "");
  const draw = (command: Command) => {
    const done = perform(model, command, { isRough: true });
    if (!done.ok) throw new Error(`The landscape cannot be placed: ${done.problems[0]?.message}`);
    model = done.value.model;
  };
  for (const process of shown)
    draw({
      type: "place",
      diagram: page,
      id: `box-${process.id}`,
      kind: { type: "callActivity" },
      at: { x: 200, y: 200 },
      name: process.name,
    });
  // Two links between the same two, one each way or of both kinds, are two lines.
  for (const [at, { from, to }] of links.entries())
    draw({ type: "connect", diagram: page, id: `line-${at}`, source: `box-${from}`, target: `box-${to}` });
  draw({ type: "tidy", diagram: page });
  const boxes = shown.map(({ id, name }) => ({
    id,
    name,
    bounds: shapeOn(model, page, `box-${id}`)?.bounds ?? { x: 0, y: 0, width: 0, height: 0 },
  }));
  const lines = links.map((link, at) => ({ ...link, points: edgeOn(model, page, `line-${at}`)?.waypoints ?? [] }));
  return { boxes, lines, area: boundsAround(boxes.map((box) => box.bounds)) ?? { x: 0, y: 0, width: 0, height: 0 } };
}
