import { readBpmn } from "@/core/bpmn";
import { behaviourOf, checkModel } from "@/core/check";
import { perform } from "@/core/commands";
import type { Model } from "@/core/model";
import { randomProcess, tangledProcess } from "@/core/testing/randomProcess";
import { type BenchRow, ms, percentile } from "./measure";

/** Sixty branches at once, five steps each. */
function sixtyBranches(): Model {
  const nodes = ['<startEvent id="s"/><parallelGateway id="x"/><parallelGateway id="y"/><endEvent id="e"/>'];
  const flows: string[] = [];
  const flow = (from: string, to: string) =>
    flows.push(`<sequenceFlow id="f${flows.length}" sourceRef="${from}" targetRef="${to}"/>`);
  flow("s", "x");
  flow("y", "e");
  for (let branch = 0; branch < 60; branch++) {
    const ids = Array.from({ length: 5 }, (_, at) => `b${branch}.${at}`);
    for (const id of ids) nodes.push(`<task id="${id}"/>`);
    for (const [at, id] of ["x", ...ids].entries()) flow(id, ids[at] ?? "y");
  }
  const read = readBpmn(
    `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="x"><process id="p">${nodes.join("")}${flows.join("")}</process></definitions>`,
  );
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}

function measured(model: Model): { took: number; unknown: boolean } {
  const started = performance.now();
  const [process] = behaviourOf(model);
  return { took: performance.now() - started, unknown: process?.sound === null };
}

/** Findings after one edit, but for behaviour, which a worker looks at. */
function findingsRow(): BenchRow {
  let model = randomProcess({ seed: 11, nodes: 215, lanes: 5 });
  const size = [...model.elements].length;
  const step = [...model.elements].find((element) => element.type === "userTask")?.id ?? "";
  const times: number[] = [];
  // The first runs are slow until the rules are compiled; a page has run them by its second edit.
  for (let edit = -10; edit < 100; edit++) {
    const done = perform(model, { type: "rename", id: step, name: `Check the part ${edit}` });
    if (!done.ok) throw new Error(done.problems[0]?.message);
    model = done.value.model;
    const started = performance.now();
    checkModel(model, { part: "rest" });
    if (edit >= 0) times.push(performance.now() - started);
  }
  const p95 = percentile(times, 0.95);
  return {
    what: `findings after one edit, ${size} elements, all rules but behaviour`,
    measured: `median ${ms(percentile(times, 0.5))}, p95 ${ms(p95)}`,
    goal: "50 ms",
    met: p95 <= 50,
  };
}

/** How long a verdict takes: over generated models, and on the large cases. */
export function soundnessRows(): BenchRow[] {
  const rows: BenchRow[] = [];
  const kinds = [
    [
      "1,000 generated models of up to 100 nodes, blocks with loops, jumps and events at edges",
      1_000,
      (seed: number) => randomProcess({ seed, nodes: 10 + (seed % 91), lanes: 1 }),
    ],
    [
      "200 tangled models of up to 40 nodes, all faulty",
      200,
      (seed: number) => tangledProcess({ seed, nodes: 10 + (seed % 31), lanes: 1 }),
    ],
  ] as const;
  for (const [what, count, make] of kinds) {
    const all = Array.from({ length: count }, (_, seed) => measured(make(seed)));
    const times = all.map(({ took }) => took);
    const median = percentile(times, 0.5);
    const isTypical = count === 1_000;
    const unknown = all.filter((one) => one.unknown).length;
    rows.push({
      what: `soundness of ${what}`,
      measured: `median ${ms(median)}, 99th percentile ${ms(percentile(times, 0.99))}, worst ${ms(Math.max(...times))}; ${unknown} without an answer`,
      goal: isTypical ? "≤ 10 ms median, at most one in a thousand without an answer" : "reported",
      met: !isTypical || (median <= 10 && unknown <= 1),
    });
  }
  const large = [
    ["60 parallel branches of five steps", sixtyBranches()],
    ["1,000 nodes", randomProcess({ seed: 7, nodes: 1_000, lanes: 4, wild: false })],
  ] as const;
  for (const [what, model] of large) {
    const { took, unknown } = measured(model);
    rows.push({
      what: `soundness of ${what}`,
      measured: `${ms(took)}${unknown ? ", no answer" : ""}`,
      goal: "≤ 2,000 ms, with an answer",
      met: took <= 2_000 && !unknown,
    });
  }
  rows.push(findingsRow());
  return rows;
}
