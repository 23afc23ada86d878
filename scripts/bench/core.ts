import { SaxesParser } from "saxes";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import { perform } from "@/core/commands";
import { sceneOf } from "@/core/drawing";
import { largeModel } from "@/core/testing/largeModel";
import { type BenchRow, ms, percentile, timed } from "./measure";
import { largeFile } from "./models";

/** Files, commands and comparison, without a browser. */
export function coreRows(): BenchRow[] {
  const text = largeFile(10_000);
  const bare = percentile(
    timed(7, () => {
      const parser = new SaxesParser();
      parser.on("opentag", () => {});
      parser.write(text).close();
    }),
    0.5,
  );
  const read = percentile(
    timed(7, () => readBpmn(text)),
    0.5,
  );
  const model = largeModel(10_000);
  const write = percentile(
    timed(7, () => writeBpmn(model)),
    0.5,
  );
  const rows: BenchRow[] = [
    {
      what: `read a 10,000-element file (${(text.length / 1e6).toFixed(1)} MB)`,
      measured: `${ms(read)}, ${(read / bare).toFixed(2)} × the bare parse (${ms(bare)})`,
      goal: "≤ 3 × bare parse, ≤ 1,500 ms",
      met: read <= 3 * bare && read <= 1500,
    },
    { what: "write it", measured: ms(write), goal: "reported", met: true },
  ];
  for (const [size, goal] of [
    [1_000, 0.2],
    [10_000, 1],
  ] as const) {
    let current = largeModel(size);
    perform(current, { type: "rename", id: "task-1", name: "Warm" });
    let turn = 0;
    const times = timed(
      400,
      () => {
        turn++;
        const done = perform(current, { type: "rename", id: `task-${(turn * 7) % (size / 2)}`, name: `Name ${turn}` });
        if (done.ok) current = done.value.model;
      },
      50,
    );
    const median = percentile(times, 0.5);
    rows.push({
      what: `one command (name a step) on ${size.toLocaleString("en")} elements`,
      measured: `median ${ms(median)}, p95 ${ms(percentile(times, 0.95))}`,
      goal: `≤ ${goal} ms median`,
      met: median <= goal,
    });
    const appends = timed(
      40,
      () => {
        turn++;
        const done = perform(current, {
          type: "append",
          diagram: "page",
          from: `task-${size / 2 - 1}`,
          id: `new-${turn}`,
          flow: `new-flow-${turn}`,
          kind: { type: "task" },
        });
        if (done.ok) current = done.value.model;
      },
      5,
    );
    rows.push({
      what: `one command (add a step, routed) on ${size.toLocaleString("en")} elements`,
      measured: `median ${ms(percentile(appends, 0.5))}`,
      goal: "reported",
      met: true,
    });
  }
  const thousand = largeModel(1_000);
  const page = [...thousand.diagrams][0];
  if (page) {
    const first = percentile(
      timed(5, () => sceneOf(largeModel(1_000), page)),
      0.5,
    );
    rows.push({
      what: "scene of 1,000 elements, drawn from nothing",
      measured: ms(first),
      goal: "reported",
      met: true,
    });
  }
  return rows;
}
