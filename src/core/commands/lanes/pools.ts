import { z } from "zod";
import { childrenOf, derivedId, type Id } from "../../model";
import type { Change } from "../kernel/change";

/** The collaboration a page shows; a page of a single process becomes one, with the process as it was. */
export function addPoolAround(change: Change, diagramId: Id): Id {
  const diagram = change.diagram(diagramId);
  const plane = diagram.element === undefined ? undefined : change.model.elements.get(diagram.element);
  if (plane?.type === "collaboration") return plane.id;
  const existing = childrenOf(change.model, change.model.root).find((element) => element.type === "collaboration");
  const id = existing?.id ?? derivedId(change.isTaken, change.model.root, "collaboration");
  if (!existing) change.insert("collaboration", id, change.model.root);
  change.set("diagrams", diagramId, "element", id);
  return id;
}

export const addPageSchema = z.object({
  type: z.literal("addPage"),
  id: z.string().min(1).max(200),
  element: z.string().min(1),
});

/** A page of its own for the inside of a sub-process, or for a process that is not drawn yet. */
export function addPage(change: Change, { id, element }: z.infer<typeof addPageSchema>): void {
  const shown = change.element(element);
  for (const diagram of change.model.diagrams) if (diagram.element === element) return;
  let order = 0;
  for (const diagram of change.model.diagrams) order = Math.max(order, diagram.order);
  change.insertRecord("diagrams", {
    id,
    order: order + 1,
    element,
    plane: {},
    ...(shown.name && { name: shown.name }),
  });
}
