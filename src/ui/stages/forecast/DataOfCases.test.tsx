// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { bpmnWith, flow, modelOf, start, task } from "@/core/forecast/testing/models";
import { scenariosOf } from "@/core/scenario";
import { performAll } from "@/core/testing/models";
import { importModel, storedModel } from "@/server/testing/workspace";

const conditional = (id: string, to: string, condition: string) =>
  `<bpmn:sequenceFlow id="${id}" sourceRef="g" targetRef="${to}"><bpmn:conditionExpression>${condition}</bpmn:conditionExpression></bpmn:sequenceFlow>`;
const process = `${start}<bpmn:exclusiveGateway id="g" name="Pitched?" default="fb"/>${task("Climb")}${task("Walk")}<bpmn:endEvent id="e1"/><bpmn:endEvent id="e2"/>${flow("f1", "s", "g")}${conditional("fa", "Climb", 'Plant.roof = "pitched" and urgent')}${flow("fb", "g", "Walk")}${flow("f2", "Climb", "e1")}${flow("f3", "Walk", "e2")}`;
const model = performAll(modelOf(bpmnWith(process, "")), {
  type: "defineData",
  process: "p",
  id: "plant-data",
  name: "Plant",
  schema: JSON.stringify({
    type: "object",
    properties: { roof: { type: "string", enum: ["pitched", "flat"] }, power: { type: "number" } },
  }),
});

let app: Application;
afterEach(() => app.close());

test("data of cases is spread in words, only over what it can be, and decides what the forecast shows", async () => {
  let version = "";
  app = await openApplication("/", async () => {
    version = await importModel("Plants", model);
  });
  app.goTo(`/v/${version}/forecast`);
  await screen.findByTestId("forecast-sentence");
  await app.user.click(await screen.findByRole("button", { name: /^Figures/ }));
  const group = within(await screen.findByRole("region", { name: "Data of cases" }));
  // The pieces of the data, and what a condition asks for besides.
  const cells = group.getAllByRole("textbox").map((cell) => cell.getAttribute("aria-label"));
  expect(cells).toEqual([
    "Spread over cases: Plant · roof",
    "Spread over cases: Plant · power",
    "Spread over cases: urgent",
  ]);
  const type = async (label: string, words: string) => {
    const cell = group.getByRole("textbox", { name: `Spread over cases: ${label}` });
    await app.user.clear(cell);
    await app.user.type(cell, `${words}{Enter}`);
  };
  const kept = async () => scenariosOf(await storedModel(version))[0]?.of.get("p")?.drawn ?? [];
  await type("Plant · roof", "50 % pitched, 50 % round");
  expect((await group.findByRole("alert")).textContent).toContain("“round” is none of pitched, flat");
  await type("Plant · roof", "50 % pitched, 40 % flat");
  expect((await group.findByRole("alert")).textContent).toContain("100 % together");
  await type("Plant · roof", "100 % pitched");
  await type("urgent", "100 % yes");
  await waitFor(async () => expect((await kept()).map(({ path }) => path)).toEqual(["Plant.roof", "urgent"]));
  await type("Plant · power", "5 to 30");
  await waitFor(async () => expect(await kept()).toHaveLength(3));
  expect((group.getByRole("textbox", { name: "Spread over cases: Plant · power" }) as HTMLInputElement).value).toBe(
    "5 to 30",
  );
});
