import { type Decision, type DecisionTable, decide, proveTable, readDecisions } from "@/core/decisions";
import { decision, dmn, table } from "@/core/decisions/testing/tables";
import type { BenchRow } from "./measure";

/** A table of so many rules over eight inputs as people make them: cases told apart again and again; some forgotten, some told twice. */
function large(rules: number): { readonly text: string } {
  const names = [..."abcdefgh"];
  let seed = 7;
  const pick = (count: number) => {
    seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((seed / 2 ** 31) * count);
  };
  const boxes = [names.map((): readonly [number, number] => [0, 100])];
  while (boxes.length < rules + 6) {
    const [box] = boxes.splice(pick(boxes.length), 1);
    const column = pick(names.length);
    const [from, to] = box?.[column] ?? [0, 100];
    if (!box || to - from < 4) {
      if (box) boxes.push(box);
      continue;
    }
    const at = from + 1 + pick(to - from - 1);
    boxes.push(box.with(column, [from, at] as const), box.with(column, [at, to] as const));
  }
  const rows = boxes
    .slice(6)
    .map(
      (box, row) =>
        `${box.map(([from, to]) => (from === 0 && to === 100 ? "-" : `[${from}..${to}${row % 60 === 0 ? "]" : ")"}`)).join("; ")} -> ${row % 9}`,
    );
  return {
    text: dmn(
      decision(
        "t",
        table(
          names.map((name) => `${name}: number = [0..100)`),
          ["r"],
          rows,
        ),
      ),
    ),
  };
}

/** How quickly a large table is proven, and decided by. */
export function decisionRows(): BenchRow[] {
  const read = readDecisions(new TextEncoder().encode(large(300).text));
  if (!read.ok) throw new Error("The table cannot be read.");
  const one = read.value.decisions.get("t") as Decision;
  const begun = performance.now();
  const proof = proveTable(read.value, one, one.logic as DecisionTable);
  const proven = performance.now() - begun;
  const data = Object.fromEntries([..."abcdefgh"].map((name, at) => [name, at * 5]));
  const started = performance.now();
  for (let at = 0; at < 100; at++) decide(read.value, one, data);
  const decided = (performance.now() - started) / 100;
  return [
    {
      what: "a table of 300 rules and 8 inputs proven: gaps and overlaps",
      measured: `${proven.toFixed(0)} ms; ${proof.complete === null ? proof.problems.join() : `${proof.gaps.length} gaps, ${proof.overlaps.length} overlaps`}`,
      goal: "1 s",
      met: proven <= 1_000 && proof.complete !== null,
    },
    { what: "the same decided by", measured: `${decided.toFixed(1)} ms`, goal: "20 ms", met: decided <= 20 },
  ];
}
