import { describe, expect, test } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { checkModel, verdictOf } from "@/core/check";
import { perform } from "@/core/commands";
import { applyEdits, flowNodesIn, nameOf, type StoredModel, toStored, trustStored } from "@/core/model";
import { largeModel } from "@/core/testing/largeModel";
import { expectOk, smallModel, startModel } from "@/core/testing/models";
import { jobIn, jobModules, type ListWritten } from ".";
import { findings } from "./findings";
import { performAll } from "./perform";
import { writeSteps } from "./steps";
import { summary } from "./summary";
import run from "./thread";

const silent = () => {};

describe("jobs", () => {
  test.each(Object.keys(jobModules) as (keyof typeof jobModules)[])(
    "%s stands where it is looked for",
    async (name) => {
      expect(await jobIn(jobModules, name)).toBeInstanceOf(Function);
    },
  );

  test("writeSteps writes a list into a sheet as edits, with what is named in it", () => {
    const model = startModel();
    const done = writeSteps(
      { model },
      {
        process: "process",
        row: -1,
        steps: ["Read the meter", "Write the bill"].map((step) => ({
          step,
          by: ["Billing clerk"],
          uses: [],
          needs: [],
          gives: [],
          guidance: "",
          time: "",
          cost: "",
        })) as never,
        entries: new Map([["role\nBilling clerk", { entry: "clerk", name: "Billing clerk" }]]),
        tidy: "page",
      },
      silent,
    ) as ListWritten;
    expect(done.problems).toEqual([]);
    const written = expectOk(applyEdits(model, done.edits));
    const names = flowNodesIn(written, "process").map((node) => nameOf(written, node.id));
    expect(names).toEqual(expect.arrayContaining(["Read the meter", "Write the bill"]));
  });

  test("performAll is performing one after the other, all or none", () => {
    const model = smallModel();
    const good = { type: "rename", id: "check", name: "Check at once" } as const;
    const done = performAll({ model }, { commands: [good] }, silent);
    expect(done).toMatchObject({ edits: expectOk(perform(model, good)).edits });
    const bad = { type: "rename", id: "nothing", name: "x" } as const;
    expect(performAll({ model }, { commands: [good, bad] }, silent)).toHaveProperty("refused");
  });

  test("findings are those of a check, in its order, in parts and in one", async () => {
    const model = largeModel(60);
    const all = await findings({ model }, { profile: "review", part: "all" }, silent);
    expect(all).toEqual(checkModel(model, { profile: "review" }));
    const parts = await Promise.all(
      (["quick", "long"] as const).map((part) => findings({ model }, { profile: "review", part }, silent)),
    );
    expect(parts.flat()).toHaveLength(all.length);
  });

  test("a summary counts what the check says and nobody accepted", async () => {
    const model = smallModel();
    const counted = await summary(
      { model },
      { profile: "review", adaption: {}, waivers: [], tests: [], decisions: [] },
      silent,
    );
    const { counts } = verdictOf(checkModel(model, { profile: "review" }), []);
    expect(counted).toMatchObject({ errors: counts.error, warnings: counts.warning, steps: 9, walks: 0 });
  });
});

describe("the thread", () => {
  const text = JSON.stringify(toStored(smallModel()));

  test("does any job on models that come as text", async () => {
    const found = await run({ name: "findings", models: { model: text }, input: { profile: "review", part: "quick" } });
    expect(found).toEqual(await findings({ model: smallModel() }, { profile: "review", part: "quick" }, silent));
    expect(await run({ name: "bpmnFile", models: { model: text }, input: {} })).toBe(
      writeBpmn(trustStored(JSON.parse(text) as StoredModel)),
    );
  });

  test("reads files, or says why not, with the place", async () => {
    const read = (name: string, content: string) =>
      run({
        name: "readFile",
        models: {},
        input: { name, title: "Read", bytes: new TextEncoder().encode(content), directory: [] },
      });
    const bpmn = (await read("a.bpmn", writeBpmn(smallModel()))) as { model: string; made: unknown[] };
    expect((JSON.parse(bpmn.model) as StoredModel).elements.length).toBe([...smallModel().elements].length);
    const sheet = (await read("a.csv", "Step,Who\nRead the meter,Billing clerk\n")) as { made: { name: string }[] };
    expect(sheet.made.map(({ name }) => name)).toEqual(["Billing clerk"]);
    expect(await read("a.bpmn", "<no")).toMatchObject({ problems: [{ line: 1 }] });
  });

  test("opens what is stored as the door does, and says what is wrong with what is not", async () => {
    const opened = (await run({ name: "openedModel", models: {}, input: { snapshot: text, edits: "[]" } })) as {
      model: string;
    };
    expect(JSON.parse(opened.model)).toEqual(JSON.parse(text));
    const damaged = {
      name: "openedModel",
      models: {},
      input: { snapshot: '{"schemaVersion":2}', edits: "[]" },
    } as const;
    expect(await run(damaged)).toMatchObject({ problem: { code: "not-a-model" } });
  });
});
