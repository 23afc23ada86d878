import { readBpmn, writeBpmn } from "@/core/bpmn";
import { perform } from "@/core/commands";
import { readDescription } from "@/core/descriptions";
import { syncModels, syncState } from "@/core/handoff";
import type { Model } from "@/core/model";
import { candidatesOf } from "@/core/services";
import { largeModel } from "@/core/testing/largeModel";
import { type BenchRow, ms, percentile, timed } from "./measure";

const read = (text: string): Model => {
  const done = readBpmn(text);
  if (!done.ok) throw new Error(done.problems[0]?.message);
  return done.value;
};
const renamed = (model: Model, id: string): Model => {
  const done = perform(model, { type: "rename", id, name: "Look at it again" });
  if (!done.ok) throw new Error(done.problems[0]?.message);
  return done.value.model;
};
const median = (runs: number, run: () => unknown) => percentile(timed(runs, run), 0.5);

/** Build copies and descriptions of services, without git's or the disk's own time. */
export function handoffRows(): BenchRow[] {
  const text = writeBpmn(largeModel(1_000))
    .replaceAll("\n  ", "\n\t")
    .replace("<definitions ", '<definitions xmlns:rig="urn:rig" ');
  const base = read(text);
  const theirs = text.replace(/ id="task-7"/, ' rig:queue="desk" id="task-7"');
  const build = { text: theirs, model: read(theirs) };
  const model = renamed(base, "task-3");
  const sync = median(7, () => syncModels(base, model, build));
  const ties = Array.from({ length: 50 }, () => largeModel(60));
  const texts = ties.map(writeBpmn);
  const states = median(5, () =>
    ties.map((one, at) => syncState(one, renamed(one, "task-3"), read(texts[at] as string))),
  );
  const description = openApiOf(500);
  const bytes = new TextEncoder().encode(description);
  const opened = median(5, () => readDescription({ name: "large.json", bytes }));
  const processes = Array.from({ length: 100 }, () => largeModel(100));
  const candidates = median(5, () => processes.map(candidatesOf));
  return [
    { what: "sync a build copy of 1,000 elements", measured: ms(sync), goal: "≤ 500 ms", met: sync <= 500 },
    { what: "state of 50 ties (60 elements each)", measured: ms(states), goal: "≤ 1,000 ms", met: states <= 1_000 },
    {
      what: `read an OpenAPI description of 500 operations (${(bytes.length / 1e6).toFixed(1)} MB)`,
      measured: ms(opened),
      goal: "≤ 1,000 ms",
      met: opened <= 1_000,
    },
    { what: "candidates of 100 processes", measured: ms(candidates), goal: "≤ 1,000 ms", met: candidates <= 1_000 },
  ];
}

/** A description of so many operations, each with data of its own. */
function openApiOf(operations: number): string {
  const schema = (at: number) => ({
    type: "object",
    properties: Object.fromEntries(
      Array.from({ length: 12 }, (_, field) => [
        `field${field}`,
        { type: "string", description: `Field ${field} of thing ${at}. `.repeat(3) },
      ]),
    ),
  });
  const json = (ref: string) => ({ "application/json": { schema: { $ref: ref } } });
  return JSON.stringify({
    openapi: "3.1.0",
    info: { title: "Large", version: "1" },
    paths: Object.fromEntries(
      Array.from({ length: operations }, (_, at) => [
        `/things/${at}`,
        {
          post: {
            operationId: `do${at}`,
            requestBody: { content: json(`#/components/schemas/S${at}`) },
            responses: {
              "200": { description: "ok", content: json(`#/components/schemas/S${(at + 1) % operations}`) },
            },
          },
        },
      ]),
    ),
    components: { schemas: Object.fromEntries(Array.from({ length: operations }, (_, at) => [`S${at}`, schema(at)])) },
  });
}
