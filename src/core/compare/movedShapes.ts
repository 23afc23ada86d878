import { type Id, type Model, shapesOf } from "../model";

/**
 * Elements whose shapes lie elsewhere or have another size: no change of the process, and so no part of its comparison. By the ids of
 * the new side. O(shapes).
 */
export function movedShapes(from: Model, to: Model, pairs: ReadonlyMap<Id, Id>): Id[] {
  const moved: Id[] = [];
  for (const [before, after] of pairs) {
    const [was, is] = [shapesOf(from, before)[0]?.bounds, shapesOf(to, after)[0]?.bounds];
    if (!was || !is) continue;
    if (was.x !== is.x || was.y !== is.y || was.width !== is.width || was.height !== is.height) moved.push(after);
  }
  return moved;
}
