import { type Said, say, term } from "../messages";
import type { Id } from "../model";
import type { FieldChange } from "./changes";
import { listChange } from "./fieldWords";
import type { ChangeGroup } from "./groups";

/** What a drawing of one side says at an element. */
export interface ChangeMark {
  /** The change it is part of. */
  readonly key: string;
  readonly kind: "new" | "gone" | "changed" | "moved";
  /** On a paper label: "new", "from Field crew"; empty where the change of its neighbours says it. */
  readonly tag: Said;
}

const none = term("");

/** Marks for the drawings of both sides, by the elements of each. O(changes). */
export function marksOf(groups: readonly ChangeGroup[]): {
  readonly from: ReadonlyMap<Id, ChangeMark>;
  readonly to: ReadonlyMap<Id, ChangeMark>;
} {
  const [from, to] = [new Map<Id, ChangeMark>(), new Map<Id, ChangeMark>()];
  for (const group of groups) {
    for (const change of group.changes) {
      const { key } = group;
      const { kind, fields } = change;
      if (change.from)
        from.set(change.from.id, { key, kind, tag: kind === "gone" ? say`gone` : tagOf(fields, "from") });
      if (change.to) to.set(change.to.id, { key, kind, tag: kind === "new" ? say`new` : tagOf(fields, "to") });
    }
    // Steps that only stand otherwise to one another are in no change of their own.
    if (
      group.kind === "parallel" ||
      group.kind === "sequential" ||
      group.kind === "alternative" ||
      group.kind === "reordered"
    ) {
      const tag =
        group.kind === "parallel"
          ? say`in parallel`
          : group.kind === "alternative"
            ? say`one of these`
            : say`other order`;
      const [a, b] = [group.from[0], group.to[0]];
      if (a !== undefined && !from.has(a)) from.set(a, { key: group.key, kind: "changed", tag: none });
      if (b !== undefined && !to.has(b)) to.set(b, { key: group.key, kind: "changed", tag });
    }
  }
  return { from, to };
}

const short = (words: string) => (words.length > 28 ? `${words.slice(0, 27)}…` : words);

/** Only what is used besides, or no longer: the rest is on the drawing's own side. */
function usedTag(systems: FieldChange): Said {
  const { added, gone } = listChange(systems);
  if (added && gone) return say`was ${short(gone)}, now ${short(added)}`;
  return added ? say`with ${short(added)}` : say`without ${short(gone)}`;
}

function tagOf(fields: readonly FieldChange[], side: "from" | "to"): Said {
  const of = (field: FieldChange["field"]) => fields.find((one) => one.field === field);
  const lane = of("lane");
  if (lane) {
    const where = (name: string) => (name ? short(name) : say`no lane`);
    return side === "to" ? say`from ${where(lane.from)}` : say`to ${where(lane.to)}`;
  }
  if (side === "from") return fields.length > 0 ? say`changed` : none;
  const systems = of("systems");
  if (systems) return usedTag(systems);
  const told = of("name") ?? of("type") ?? of("timer");
  if (told) return say`was ${told.from ? short(told.from) : say`nothing`}`;
  return fields.length > 0 ? say`changed` : none;
}
