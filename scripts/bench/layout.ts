import { perform } from "@/core/commands";
import { type Id, laneOf, type Model } from "@/core/model";
import { randomProcess, tangledProcess } from "@/core/testing/randomProcess";
import { flowLines, layeredByElk, qualityOf } from "./layoutQuality";
import { type BenchRow, ms, percentile, timed } from "./measure";

const kinds = [
  { name: "built of blocks, with loops, jumps and events at edges", make: randomProcess, graphs: 200 },
  { name: "tangled", make: tangledProcess, graphs: 40 },
] as const;

const tidied = (model: Model): Model => {
  const done = perform(model, { type: "tidy", diagram: [...model.diagrams][0]?.id ?? "" });
  if (!done.ok) throw new Error(done.problems[0]?.message);
  return done.value.model;
};

/** How well pages are tidied, beside the layered algorithm of elkjs on the same graphs, and how fast. */
export async function layoutRows(): Promise<BenchRow[]> {
  const rows: BenchRow[] = [];
  for (const { name, make, graphs } of kinds) {
    for (const lanes of [1, 3, 6]) {
      const [ours, theirs] = [zero(), zero()];
      let changes = 0;
      for (let seed = 1; seed <= graphs; seed++) {
        const model = tidied(make({ seed, nodes: 15 + (seed % 5) * 10, lanes }));
        add(ours, qualityOf(flowLines(model)));
        add(theirs, qualityOf(await layeredByElk(model)));
        changes += laneChanges(model);
      }
      const crossings = lanes === 1 ? 1.2 : 1.5;
      const bends = 1.2 * theirs.bends + (lanes === 1 ? 0 : 2 * changes);
      rows.push({
        what: `tidy: ${graphs} graphs of 15 to 55 nodes, ${name}, ${lanes} ${lanes === 1 ? "lane" : "lanes"}`,
        measured: `crossings ${ours.crossings} (elkjs without lanes ${theirs.crossings}), bends ${ours.bends} (${theirs.bends}; ${changes} flows change the lane), length ${(ours.length / theirs.length).toFixed(2)} ×`,
        goal: `crossings ≤ ${crossings} ×, bends ≤ ${Math.round(bends)}`,
        met: ours.crossings <= crossings * theirs.crossings && ours.bends <= bends,
      });
    }
  }
  const large = randomProcess({ seed: 5, nodes: 212, lanes: 6 });
  const size = [...large.elements].filter((element) => element.slot === "flowElements").length;
  const median = percentile(
    timed(5, () => tidied(large)),
    0.5,
  );
  rows.push({ what: `tidy ${size} elements in 6 lanes`, measured: ms(median), goal: "≤ 500 ms", met: median <= 500 });
  return rows;
}

const zero = () => ({ crossings: 0, bends: 0, length: 0 });
function add(sum: ReturnType<typeof zero>, more: Readonly<ReturnType<typeof zero>>): void {
  sum.crossings += more.crossings;
  sum.bends += more.bends;
  sum.length += more.length;
}

function laneChanges(model: Model): number {
  const lane = (id: Id) => {
    const element = model.elements.get(id);
    return laneOf(model, (element?.attachedToRef as Id | undefined) ?? id)?.id;
  };
  return [...model.elements].filter(
    (element) => element.type === "sequenceFlow" && lane(element.sourceRef as Id) !== lane(element.targetRef as Id),
  ).length;
}
