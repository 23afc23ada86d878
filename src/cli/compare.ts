import { type Change, changeGroups, compareModels, type FieldChange, type MatchBy, type Named } from "@/core/compare";
import { counted, isAnonymous } from "@/core/model";
import { EXIT, readModel, UnusableInput } from "./input";

/** What the contract has no field for, by the field it is a part of there: forms and decisions are extension elements of the file. */
const contractField: { readonly [field: string]: string } = {
  decision: "extension",
  form: "extension",
  holds: "extension",
};
/** For programs types are called as the standard writes them, also among the fields. */
const inStandard = ({ field, from, to, standard }: FieldChange) => ({
  field: contractField[field] ?? field,
  from,
  to,
  ...standard,
});
/** Compared here as everywhere, but not one by one in the contract's lists. */
const isListed = (change: Change) => (change.to ?? change.from)?.type !== "property";

const methods = ["counterpart", "id", "name"] as const;

/** `lane compare A.bpmn B.bpmn [--match counterpart|id|name]`. */
export function compare(args: readonly string[], json: boolean): number {
  const at = args.indexOf("--match");
  const method = at < 0 ? undefined : (args[at + 1] as MatchBy | undefined);
  if (at >= 0 && !(methods as readonly (string | undefined)[]).includes(method))
    throw new UnusableInput(`--match takes one of ${methods.join(", ")}`);
  const files = at < 0 ? args : [...args.slice(0, at), ...args.slice(at + 2)];
  const [first, second] = files;
  if (!first || !second || files.length > 2) throw new UnusableInput("compare needs two files");
  const [from, to] = [readModel(first), readModel(second)];
  const comparison = compareModels(from, to, method);
  const changes = comparison.changes.filter(isListed);
  const sameData = [...comparison.pairs.keys()].filter((id) => from.elements.get(id)?.type === "property").length;
  const otherData = comparison.changes.filter((change) => !isListed(change) && change.from && change.to).length;
  const unchanged = comparison.unchanged - (sameData - otherData);
  const groups = changeGroups(from, to, comparison);
  if (!json) {
    for (const group of groups) process.stdout.write(`${group.kind.padEnd(11)} ${group.words}\n`);
    const count = counted(groups.length, "change");
    process.stdout.write(`${count} of ${counted(changes.length, "element")}, ${unchanged} unchanged\n`);
    return EXIT.done;
  }
  const shown = (named: Named | undefined) =>
    named ? { id: isAnonymous(named.id) ? "" : named.id, type: named.type, name: named.name } : undefined;
  const answer = {
    added: changes.filter((change) => change.kind === "new").map((change) => shown(change.to)),
    removed: changes.filter((change) => change.kind === "gone").map((change) => shown(change.from)),
    changed: changes
      .filter((change) => change.kind === "changed" || change.kind === "moved")
      .map((change) => ({
        from: { id: change.from?.id },
        to: { id: change.to?.id },
        fields: change.fields.map(inStandard),
      })),
    unchanged,
    changes: groups.map(({ kind, words, from: before, to: after }) => ({
      kind,
      words,
      from: before.filter((id) => !isAnonymous(id)),
      to: after.filter((id) => !isAnonymous(id)),
    })),
  };
  process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
  return EXIT.done;
}
