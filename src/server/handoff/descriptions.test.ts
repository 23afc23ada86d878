import { afterAll, beforeEach, expect, test } from "vitest";
import type { DescriptionRow } from "@/contract/handoff";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(() => openWorkspace());

const meters = (operation: string) =>
  `openapi: 3.1.0\ninfo: { title: Meters, version: "1" }\npaths: { /m: { get: { operationId: ${operation}, responses: { "200": { description: ok } } } } }`;
const listed = async () =>
  (await run<{ descriptions: DescriptionRow[] }>("listDescriptions", {})).descriptions.map(({ name, description }) => [
    name,
    description.interfaces.flatMap(({ operations }) => operations.map((operation) => operation.name)),
  ]);

test("one of the same name takes the place of what was there; what cannot be read changes nothing", async () => {
  const text = meters("readMeter");
  expect(await run("importDescription", { name: "meters.yaml", text })).toEqual({ operations: 1, problems: [] });
  await run("importDescription", { name: "other.yaml", text });
  await run("importDescription", { name: "meters.yaml", text: meters("readAll") });
  const both = [
    ["meters.yaml", ["readAll"]],
    ["other.yaml", ["readMeter"]],
  ];
  expect(await listed()).toEqual(both);
  await expect(run("importDescription", { name: "meters.yaml", text: "openapi: [" })).rejects.toThrow(
    /^meters\.yaml: Line 1, column \d+: /,
  );
  expect(await listed()).toEqual(both);
  await run("removeDescription", { name: "meters.yaml" });
  expect(await listed()).toEqual([both[1]]);
});

test("what leads elsewhere is told, and not asked for", async () => {
  const text = `${meters("readMeter")}\ncomponents: { schemas: { Away: { $ref: "https://quillmere.example/a.yaml" } } }`;
  const { problems } = await run<{ problems: string[] }>("importDescription", { name: "away.yaml", text });
  expect(problems).toHaveLength(1);
});

test("several files that are given together are one description: what it leads to is found by path or by name", async () => {
  const text = `${meters("readMeter").replace(
    'responses: { "200": { description: ok } }',
    'responses: { "200": { description: ok, content: { application/json: { schema: { $ref: "types/meter.yaml#/Meter" } } } } }',
  )}`;
  const types = { name: "meter.yaml", text: "Meter: { type: object, properties: { number: { type: string } } }" };
  const alone = await run<{ problems: string[] }>("importDescription", { name: "meters.yaml", text });
  expect(alone.problems).toHaveLength(1);
  const both = await run<{ problems: string[] }>("importDescription", { name: "meters.yaml", text, beside: [types] });
  expect(both.problems).toEqual([]);
  const { descriptions } = await run<{ descriptions: DescriptionRow[] }>("listDescriptions", {});
  expect(descriptions[0]?.description.interfaces[0]?.operations[0]?.out.map(({ name }) => name)).toEqual(["number"]);
});
