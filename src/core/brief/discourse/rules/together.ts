import type { Course, Node } from "../course";
import type { Part } from "../part";
import type { TurnOfPhrase } from "./rule";

const meanwhile =
  /\b(?:meanwhile|in the meantime|at the same time|in parallel|simultaneously|concurrently|side by side)\b/i;

/** Puts what was told side by side: each list of nodes stands behind the other in its place. */
export function putTogether(told: readonly (readonly Course["told"][number][])[]): boolean {
  const branches = told.filter((branch) => branch.length > 0);
  const first = branches[0]?.[0];
  if (branches.length < 2 || !first) return false;
  const { place } = first;
  if (branches.flat().some((one) => one.place !== place || !place.items.includes(one.node))) return false;
  const at = place.items.indexOf(first.node);
  const nodes = branches.flat().map((one) => one.node);
  // Only what follows directly can stand side by side.
  if (place.items.slice(at, at + nodes.length).some((node, order) => node !== nodes[order])) return false;
  const node: Node = {
    kind: "parallel",
    mark: `${"mark" in first.node ? first.node.mark : ""}:both`,
    branches: branches.map((branch) => branch.map((one) => one.node)),
  };
  place.items.splice(at, nodes.length, node);
  return true;
}

const samePart = (told: Course["told"]) =>
  [...new Set(told.map((one) => one.part))].map((part) => told.filter((one) => one.part === part));

/** After a sentence was read: what it says goes on at the same time. */
export function sideBySide(course: Course, parts: readonly Part[]): void {
  const { told, toldBefore } = course;
  const first = parts[0];
  if (!first || told.length === 0) return;
  const hung = parts.find((part) => part.clause.link === "while" && told.some((one) => one.part === part));
  if (hung) {
    const inside = told.filter((one) => one.part === hung || parts.indexOf(one.part) > parts.indexOf(hung));
    const outside = told.filter((one) => !inside.includes(one));
    // "While A, B": the first clause is one side, the rest the other.
    const isFirst = told[0]?.part === hung;
    putTogether(
      isFirst ? [told.filter((one) => one.part === hung), told.filter((one) => one.part !== hung)] : [outside, inside],
    );
    return;
  }
  if (/^(?:meanwhile|in the meantime|at the same time|in parallel|simultaneously)\b/i.test(first.lead)) {
    putTogether([toldBefore, told]);
    return;
  }
  const inner = parts.find((part, at) => at > 0 && meanwhile.test(part.lead));
  if (inner) {
    const at = told.findIndex((one) => one.part === inner);
    if (at > 0) putTogether([told.slice(at - 1, at), told.slice(at)]);
    return;
  }
  if (meanwhile.test(first.sentence.text)) {
    const { place } = told[told.length - 1] as Course["told"][number];
    putTogether(samePart(told.filter((one) => one.place === place)));
  }
}

/** Its clauses are read as what they are; `sideBySide` puts them beside each other when their sentence was read to its end. */
export const together: TurnOfPhrase = {
  name: "at the same time",
  examples: [
    {
      text: "The [role: caretaker] [activity: takes pictures] while the [role: office] [activity: asks for a price].",
      reads: ["together", "  | Take pictures", "  | Ask for price"],
    },
    {
      text: "The [role: baker] [activity: mixes the dough]. Meanwhile the [role: apprentice] [activity: heats the oven].",
      reads: ["together", "  | Mix dough", "  | Heat oven"],
    },
    {
      text: "The [role: office] [activity: books the coach] and [activity: orders the tickets] at the same time.",
      reads: ["together", "  | Book coach", "  | Order tickets"],
    },
  ],
  read: () => false,
};
