// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { bindingsOf } from "@/core/services";
import { expectOk } from "@/core/testing/models";
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
    const content = Object.assign(new File([text], "meters.yaml"), { text: async () => text });
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

  // A lane is a candidate, and its operations are called by the rules.
  const candidates = within(await screen.findByTestId("candidates"));
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
