import { type Block, type Fact, joined, type Line, line } from "../booklet";
import { cellsOf } from "../capture";
import { handoversOf, rolesOf, stepsOf } from "../directory";
import { say } from "../messages";
import { documentationIn, elementsOfType, entryOf, type Id, isActivity, nameOf, plainOf, referrersOf } from "../model";
import { Gathered, linkToNode, nameOfEntry, paragraphs, type Shared, type Telling } from "./telling";

/** The roles of the processes, with what the directory says of them (or the lane, or the resource) and what they do. */
export function roleBlocks(telling: Telling): Block[] {
  const { model, words, processes } = telling;
  const roles = new Gathered(telling);
  for (const lane of elementsOfType(model, "lane")) {
    const resource =
      typeof lane.partitionElementRef === "string" ? model.elements.get(lane.partitionElementRef) : undefined;
    const name = resource?.name ?? nameOf(model, lane.id);
    roles.at(resource && entryOf(resource), name, plainOf(documentationIn(lane)));
  }
  for (const resource of elementsOfType(model, "resource"))
    if (referrersOf(model, resource.id).length > 0)
      roles.at(entryOf(resource), resource.name ?? "", plainOf(documentationIn(resource)));
  for (const { nodes } of processes)
    for (const { element } of nodes) {
      for (const { entry, name } of cellsOf(model, element.id).by) roles.use(entry, name, words(say`Does`), element);
      if (!isActivity(element.type)) continue;
      for (const { part, entry, name } of rolesOf(model, element.id)) {
        if (part === "accountable") roles.use(entry, name, words(say`Accountable for`), element);
        if (part === "consulted") roles.use(entry, name, words(say`Consulted at`), element);
        if (part === "informed") roles.use(entry, name, words(say`Informed of`), element);
      }
    }
  // A pool without lanes is whoever the pool is.
  for (const { process } of processes) {
    const pool = referrersOf(model, process.id, "processRef").find(({ type }) => type === "participant");
    if (pool && !elementsOfType(model, "lane").some((lane) => isInside(telling, lane.id, process.id)))
      roles.at(undefined, nameOf(model, pool.id), plainOf(documentationIn(pool)));
  }
  return roles.all().flatMap((role) => sharedBlocks(telling.anchor("role", role.key), role, roleFacts(telling, role)));
}

function isInside({ model }: Telling, id: Id, process: Id): boolean {
  for (let at = model.elements.get(id); at; at = at.parent === null ? undefined : model.elements.get(at.parent))
    if (at.id === process) return true;
  return false;
}

function roleFacts(telling: Telling, { entry }: Shared): Fact[] {
  const known = entry === undefined ? undefined : telling.entries.get(entry);
  if (!known) return [];
  const { words } = telling;
  const unit = known.unit === null ? undefined : telling.entries.get(known.unit)?.name;
  return [
    ...(unit ? [{ name: words(say`Unit`), says: line(unit) }] : []),
    ...(known.headcount === null ? [] : [{ name: words(say`People`), says: line(String(known.headcount)) }]),
    ...(known.hoursPerWeek === null
      ? []
      : [{ name: words(say`Hours a week`), says: line(String(known.hoursPerWeek)) }]),
  ];
}

/** What steps have in common, with what is said of it and where it is used. */
export function sharedBlocks(anchor: string, { name, says, uses }: Shared, facts: readonly Fact[]): Block[] {
  const used = [...uses].map(([how, steps]): Fact => ({ name: how, says: joined(steps) }));
  const all = [...facts, ...used];
  return [
    { kind: "heading", level: 3, text: name, anchor },
    ...paragraphs(says),
    ...(all.length > 0 ? [{ kind: "facts" as const, facts: all }] : []),
  ];
}

/** So many roles stand side by side; of more there are several tables. */
const mostBeside = 7;

/** Who is responsible, accountable, consulted, informed: steps against roles. */
export function responsibilityBlocks(telling: Telling): Block[] {
  const { model, words } = telling;
  const byName = namedMatrix(telling);
  const steps = stepsOf(model);
  const tables: Block[] = [];
  for (let from = 0; from < byName.columns.length; from += mostBeside) {
    const columns = byName.columns.slice(from, from + mostBeside);
    tables.push({
      kind: "table",
      caption: words(say`R responsible, A accountable, C consulted, I informed; in brackets by the lane`),
      columns: [{ name: words(say`Step`), share: 3 }, ...columns.map((name) => ({ name, share: 1 }))],
      rows: byName.rows.map(({ cells }, row): Line[] => {
        const step = steps[row];
        return [step ? [linkToNode(telling, step)] : [], ...columns.map((_, at) => line(cells[from + at] ?? ""))];
      }),
    });
  }
  return tables;
}

/** By what roles are called: those of the directory by their names there, those that only the file knows by theirs. */
function namedMatrix(telling: Telling): { columns: string[]; rows: { cells: string[] }[] } {
  const { model } = telling;
  const letters = { responsible: "R", accountable: "A", consulted: "C", informed: "I" } as const;
  const steps = stepsOf(model).map((step) =>
    rolesOf(model, step.id).map((role) => ({ ...role, name: nameOfEntry(telling, role.entry, role.name) })),
  );
  const columns = [...new Set(steps.flat().map(({ name }) => name))].filter((name) => name !== "");
  return {
    columns,
    rows: steps.map((roles) => ({
      cells: columns.map((column) =>
        roles
          .filter(({ name }) => name === column)
          .map(({ part, from }) => (from === "lane" ? `(${letters[part]})` : letters[part]))
          .join(" "),
      ),
    })),
  };
}

/** Work that goes from one role to another, and where. */
export function handoverBlocks(telling: Telling): Block[] {
  const { model, words } = telling;
  const rows = handoversOf(model, "roles").map(({ from, to, source, target }): Line[] => {
    const node = (id: Id) => {
      const element = model.elements.get(id);
      return element ? [linkToNode(telling, element)] : [];
    };
    return [line(from), line(to), node(source), node(target)];
  });
  if (rows.length === 0) return [];
  return [
    {
      kind: "table",
      caption: words(say`Hand-overs between roles`),
      columns: [say`From`, say`To`, say`Behind`, say`Before`].map((name, at) => ({
        name: words(name),
        share: at < 2 ? 2 : 3,
      })),
      rows,
    },
  ];
}
