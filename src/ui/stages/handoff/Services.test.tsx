// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { bindingsOf, keptCandidates } from "@/core/services";
import { expectOk, smallModel } from "@/core/testing/models";
import { testOf, walk } from "@/core/tokens";
import { importModel, run, storedModel } from "@/server/testing/workspace";

const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Meters">
  <laneSet id="ls"><lane id="desk" name="Front desk"><flowNodeRef>start</flowNodeRef><flowNodeRef>ask</flowNodeRef><flowNodeRef>end</flowNodeRef></lane></laneSet>
  <startEvent id="start" name="Reading due"/><serviceTask id="ask" name="Read the meter"/><endEvent id="end" name="Meter read"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="ask"/><sequenceFlow id="f2" sourceRef="ask" targetRef="end"/>
</process></definitions>`;
const meters = (inside: string) =>
  `openapi: 3.1.0\ninfo: { title: Meter platform, version: "1" }\npaths:\n  /meters:\n    get:\n      operationId: readMeter\n      parameters: [${inside}]\n      responses: { "200": { description: ok } }\n`;
const parameter = (name: string) => `{ name: ${name}, in: query, required: true, schema: { type: string } }`;

let app: Application;
let version: string;
afterEach(() => app.close());

test("a description is read, a step bound to what is likely, and what a newer one breaks is told", async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Meters", expectOk(readBpmn(file)));
  });
  app.goTo(`/v/${version}/hand-off`);
  await app.user.click(await screen.findByRole("radio", { name: "Services" }));
  const give = async (text: string) => {
    const content = new File([text], "meters.yaml");
    await app.user.upload(await screen.findByTestId("description-file"), content);
  };
  await give("openapi: 2");
  expect(await screen.findByText(/meters\.yaml: .*OpenAPI 3\.0 and 3\.1 are read/)).toBeTruthy();
  await give(meters(parameter("id")));
  expect(await screen.findByText("Meter platform: 1 operation")).toBeTruthy();

  await app.user.click(await screen.findByRole("button", { name: "Bind Read the meter to readMeter" }));
  await waitFor(async () =>
    expect(bindingsOf(await storedModel(version)).map(({ operation }) => operation.name)).toEqual(["readMeter"]),
  );
  // By look-up as well: to none, and back by a part of its name.
  await app.user.click(await screen.findByRole("button", { name: "Operation of Read the meter: readMeter" }));
  await app.user.click(await screen.findByText("Bind to none"));
  await app.user.click(await screen.findByRole("button", { name: "Operation of Read the meter: none" }));
  await app.user.type(await screen.findByLabelText("Type a part of a name…"), "meter pl{Enter}");
  expect(await screen.findByRole("button", { name: "Operation of Read the meter: readMeter" })).toBeTruthy();
  await give(meters(`${parameter("id")}, ${parameter("unit")}`));
  expect(await screen.findByText("readMeter now asks for unit.")).toBeTruthy();

  // A lane is a candidate; kept, its operations are called by the rules.
  await app.user.click(await screen.findByRole("button", { name: "Keep Front desk as a candidate" }));
  const candidates = within(await screen.findByTestId("candidates"));
  await candidates.findByTestId("kept-candidate");
  expect(candidates.getByText("readTheMeter")).toBeTruthy();
  await app.user.selectOptions(screen.getByLabelText("Case of names"), "snake_case");
  expect(candidates.getByText("read_the_meter")).toBeTruthy();
  await app.user.type(screen.getByLabelText("Verbs an operation begins with"), "get");
  expect(candidates.getByText("begins with no verb of the list")).toBeTruthy();
  await app.user.type(screen.getByLabelText("Words to replace"), "read = get");
  expect(candidates.getByText("get_the_meter")).toBeTruthy();

  await app.user.click(screen.getByRole("button", { name: "Remove meters.yaml" }));
  await waitFor(async () =>
    expect((await run<{ descriptions: unknown[] }>("listDescriptions", {})).descriptions).toEqual([]),
  );
  // What is bound stays bound.
  expect(bindingsOf(await storedModel(version))).toHaveLength(1);
});

test("candidates are kept, named by rule in one step, cut and added to, decided, and weighed", async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Connect", smallModel());
  });
  app.goTo(`/v/${version}/hand-off?part=services`);
  const kept = async () => keptCandidates(await storedModel(version));
  const namesOf = async () => (await kept()).map(({ operations }) => operations.map(({ name }) => name));
  await app.user.click(await screen.findByRole("button", { name: "Keep Front desk as a candidate" }));
  await waitFor(async () => expect((await kept()).map(({ name }) => name)).toEqual(["Front desk"]));
  const before = await namesOf();
  await app.user.click(await screen.findByRole("button", { name: /^Name \d+ by rule$/ }));
  await waitFor(async () => expect((await namesOf())[0]).toContain("checkApplication"));
  expect(await screen.findByRole("button", { name: "All are named by rule" })).toBeTruthy();
  await app.user.keyboard("{Control>}z{/Control}");
  await waitFor(async () => expect(await namesOf()).toEqual(before));

  // One is superfluous and comes back, another is added.
  await app.user.click(await screen.findByRole("button", { name: "Leave Check application out" }));
  await app.user.click(await screen.findByRole("button", { name: "Take Check application in" }));
  await app.user.type(await screen.findByLabelText("Add an operation"), "Ping{Enter}");
  await waitFor(async () => expect((await namesOf())[0]).toContain("Ping"));
  expect(await screen.findByText("added by hand")).toBeTruthy();

  // What is decided stays with its reason and who decided it.
  await app.user.selectOptions(screen.getByLabelText("Decision on Front desk"), "buy");
  await app.user.type(await screen.findByLabelText(/^Reason/), "Everybody sells it");
  await app.user.click(screen.getByRole("button", { name: "Decide" }));
  await waitFor(async () =>
    expect((await kept())[0]?.decision).toMatchObject({
      what: "buy",
      reason: "Everybody sells it",
      member: "Mara Aldous",
    }),
  );
  expect(await screen.findByText(/Everybody sells it \(Mara Aldous, \d{4}-\d\d-\d\d\)/)).toBeTruthy();

  // One alone is not weighed; of two, the one that changes less often comes first when nothing else counts.
  expect(screen.getByText("Two kept candidates and more are weighed against each other.")).toBeTruthy();
  await app.user.selectOptions(screen.getByLabelText("Derive a candidate from"), "Remind household");
  await screen.findByTestId("weighing");
  for (const criterion of ["Steps", "Visits a case", "Hand work (min a case)", "Systems", "Done again (%)"])
    await app.user.click(screen.getByRole("button", { name: `Take ${criterion} out` }));
  const say = async (name: string, value: string) => {
    const cell = await screen.findByLabelText(`Changes a year of ${name}`);
    await app.user.clear(cell);
    await app.user.type(cell, `${value}{Enter}`);
  };
  await say("Front desk", "6");
  await say("Remind household", "2");
  await waitFor(() =>
    expect(screen.getByTestId("weighing-sentence").textContent).toMatch(/^Remind household is before Front desk/),
  );
  await app.user.selectOptions(screen.getByLabelText("What is better of Changes a year"), "more");
  await waitFor(() =>
    expect(screen.getByTestId("weighing-sentence").textContent).toMatch(/^Front desk is before Remind household/),
  );
  // What was dropped is gone from the model as well.
  await app.user.click(screen.getByRole("button", { name: "Drop the candidate Front desk" }));
  await waitFor(async () => expect((await kept()).map(({ name }) => name)).toEqual(["Remind household"]));
});

test("who calls whom is told for all paths and for a kept walk, and each line leads to what it tells of", async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Connect", smallModel());
    const model = await storedModel(version);
    const process = [...model.elements].find(({ type }) => type === "process")?.id ?? "";
    const content = testOf({ model }, process, walk(model, process), true);
    await run("keepWalkTests", { version, tests: [{ name: "The usual one", content }] });
  });
  app.goTo(`/v/${version}/hand-off?part=sequence`);
  const picture = await screen.findByRole("group", { name: /take part$/ });
  expect(within(picture).getByRole("link", { name: /^alt Complete\?/ })).toBeTruthy();
  await screen.findByRole("option", { name: "walk: The usual one" });
  await app.user.selectOptions(screen.getByLabelText("Show"), "walk: The usual one");
  await waitFor(() => expect(within(picture).queryByRole("link", { name: /^alt/ })).toBeNull());
  await app.user.click(within(picture).getByRole("link", { name: "Check application" }));
  expect(app.address()).toBe(`/v/${version}/diagram?element=check`);
});
