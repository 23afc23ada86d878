import { z } from "zod";
import {
  childrenOf,
  elementsOfType,
  entryOf,
  type Id,
  referrersOf,
  type SystemUse,
  systemsOf,
  withEntry,
  withSystems,
} from "../../model";
import type { Change } from "../kernel/change";
import { renameEntry } from "./assign";

const id = z.string().min(1).max(200);

export const mergeEntrySchema = z.object({
  type: z.literal("mergeEntry"),
  from: z.object({ entry: id, name: z.string().max(200) }),
  into: z.object({ entry: id, name: z.string().min(1).max(200) }),
});

/** Of two uses of one system by one step, the one that says more stays. */
const weight: readonly SystemUse[] = ["reads", "writes", "runs on"];

/** Two entries of the directory were one: whatever this model says of the one it says of the other. */
export function mergeEntry(change: Change, { from, into }: z.infer<typeof mergeEntrySchema>): void {
  for (const element of [...change.model.elements]) {
    const systems = systemsOf(element);
    if (systems.some((used) => used.entry === from.entry)) {
      const both = systems.filter((used) => used.entry === from.entry || used.entry === into.entry);
      const use = both.reduce<SystemUse>(
        (most, used) => (weight.indexOf(used.use) > weight.indexOf(most) ? used.use : most),
        "reads",
      );
      const others = systems.filter((used) => !both.includes(used));
      change.set("elements", element.id, "extension", withSystems(element, [...others, { ...into, use }]));
    }
    if (entryOf(element) === from.entry)
      change.set("elements", element.id, "extension", withEntry(change.element(element.id), into.entry));
  }
  joinResources(change, into.entry);
  renameEntry(change, { type: "renameEntry", entry: into.entry, from: from.name, name: into.name });
}

/** A role is one resource in a model; what named the second names the first, once. */
function joinResources(change: Change, entry: Id): void {
  const [first, ...others] = elementsOfType(change.model, "resource").filter((one) => entryOf(one) === entry);
  if (!first) return;
  for (const other of others) {
    for (const referrer of referrersOf(change.model, other.id)) {
      if (referrer.type === "lane") change.set("elements", referrer.id, "partitionElementRef", first.id);
      else if (isSaid(change, referrer.id, first.id)) change.remove("elements", referrer.id);
      else change.set("elements", referrer.id, "resourceRef", first.id);
    }
    for (const child of childrenOf(change.model, other.id)) change.remove("elements", child.id);
    change.remove("elements", other.id);
  }
}

function isSaid(change: Change, role: Id, resource: Id): boolean {
  const { parent, name } = change.element(role);
  return childrenOf(change.model, parent as Id, "resourceRoles").some(
    (sibling) => sibling.id !== role && sibling.name === name && sibling.resourceRef === resource,
  );
}
