import { perform } from "@/core/commands";
import { changeGroups, compareModels, matchElements, onePicture, startToBe, takeOver } from "@/core/compare";
import { mergeModels } from "@/core/merge";
import { type Element, type Id, isActivity, type Model, Table } from "@/core/model";
import { largeModel } from "@/core/testing/largeModel";
import { randomProcess } from "@/core/testing/randomProcess";
import { type BenchRow, ms, percentile, timed } from "./measure";

const words = ["check", "register", "approve", "plan", "book", "inspect", "answer", "report", "measure", "change"];
const objects = [
  "application",
  "feeder",
  "meter",
  "visit",
  "plant",
  "bill",
  "complaint",
  "fuse",
  "drawing",
  "agreement",
];

/** Names as people give them: verbs and objects that come again and again, each with something of its own. */
const nameFor = (at: number, ending: string) =>
  `${words[at % 10]} ${objects[Math.floor(at / 10) % 10]} ${String.fromCharCode(97 + (Math.floor(at / 100) % 26))}${ending}`;

function renamed(model: Model, ending: string, prefix: string): Model {
  const id = (old: Id) => `${prefix}${old}`;
  let step = 0;
  const elements = [...model.elements].map((element) => {
    const next: { [field: string]: unknown } = { ...element, id: id(element.id) };
    if (element.parent !== null) next.parent = id(element.parent);
    if (isActivity(element.type)) next.name = nameFor(step++, ending);
    for (const field of ["sourceRef", "targetRef", "attachedToRef", "default"])
      if (typeof next[field] === "string") next[field] = id(next[field] as Id);
    return [next.id as Id, next as unknown as Element] as const;
  });
  return {
    ...model,
    root: id(model.root),
    elements: Table.from(elements),
    shapes: Table.empty(),
    edges: Table.empty(),
  };
}

/** An edited copy: names, lanes, steps put in and taken out. */
function edited(model: Model): Model {
  let current = startToBe(model);
  const steps = [...model.elements].filter((element) => isActivity(element.type)).map(({ id }) => id);
  for (const [at, id] of steps.entries()) {
    const done =
      at % 9 === 0
        ? perform(current, { type: "rename", id, name: `Done otherwise ${at}` })
        : at % 31 === 0
          ? perform(current, { type: "delete", ids: [id] })
          : undefined;
    if (done?.ok) current = done.value.model;
  }
  return current;
}

/** How long it takes to hold two models against each other, by each method, and to show and merge them. */
export function compareRows(): BenchRow[] {
  const rows: BenchRow[] = [];
  const row = (what: string, times: readonly number[], goal?: number) => {
    const median = percentile(times, 0.5);
    rows.push({
      what,
      measured: `median ${ms(median)}, p95 ${ms(percentile(times, 0.95))}`,
      goal: goal === undefined ? "reported" : `≤ ${goal} ms`,
      met: goal === undefined || median <= goal,
    });
  };
  const thousand = largeModel(1_000);
  const toBe = edited(thousand);
  row(
    "match 1,000 × 1,000 elements by counterpart",
    timed(9, () => matchElements(thousand, toBe, "counterpart")),
    50,
  );
  row(
    "match 1,000 × 1,000 elements by id",
    timed(9, () => matchElements(thousand, toBe, "id")),
    50,
  );
  const [one, other] = [renamed(thousand, "", "a-"), renamed(thousand, " part", "b-")];
  row(
    "match 1,000 × 1,000 elements by name, every name and id another",
    timed(5, () => matchElements(one, other, "name")),
    1_000,
  );
  row(
    "compare two 1,000-element models",
    timed(9, () => compareModels(thousand, toBe)),
    50,
  );
  const comparison = compareModels(thousand, toBe);
  row(
    "gather their differences into changes",
    timed(9, () => changeGroups(thousand, toBe, comparison)),
  );
  const groups = changeGroups(thousand, toBe, comparison);
  row(
    "draw both as one picture",
    timed(3, () => onePicture(thousand, toBe, comparison.pairs, groups), 1),
  );
  const key = groups[0]?.key ?? "";
  const request = { from: thousand, to: toBe, pairs: comparison.pairs, groups, into: "from" as const };
  row(
    "take one of the changes over",
    timed(5, () => takeOver(request, [key]), 1),
  );
  row(
    "merge three 1,000-element models",
    timed(5, () => mergeModels(thousand, toBe, edited(toBe))),
  );
  const [process, changedProcess] = [
    randomProcess({ seed: 3, nodes: 450, lanes: 6 }),
    edited(randomProcess({ seed: 3, nodes: 450, lanes: 6 })),
  ];
  const both = compareModels(process, changedProcess);
  row(
    `compare and gather a branching process of ${process.elements.size} elements`,
    timed(5, () => changeGroups(process, changedProcess, compareModels(process, changedProcess))),
  );
  row(
    "its one picture",
    timed(3, () => onePicture(process, changedProcess, both.pairs, changeGroups(process, changedProcess, both)), 1),
  );
  return rows;
}
