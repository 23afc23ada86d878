import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";

const outer = mkdtempSync(join(tmpdir(), "lane-services-"));
const folder = join(outer, "here");
mkdirSync(folder);
afterAll(() => rmSync(outer, { recursive: true, force: true }));
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", "services", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const json = (...args: string[]) => JSON.parse(lane(...args, "--json").out);
const write = (name: string, text: string) => writeFileSync(join(folder, name), text);

write(
  "meters.yaml",
  `openapi: 3.0.3
info: { title: Meter platform, version: "1" }
paths:
  /meters/{id}:
    get:
      parameters: [{ name: id, in: path, required: true, schema: { type: string } }]
      responses: { "200": { description: A, content: { application/json: { schema: { $ref: "meter.json" } } } }, "404": { description: B } }
`,
);
write("meter.json", '{ "type": "object", "properties": { "id": {}, "read": {} } }');
write(
  "model.bpmn",
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t"><process id="p">
<laneSet id="ls"><lane id="desk" name="Front desk"><flowNodeRef>ask</flowNodeRef><flowNodeRef>look</flowNodeRef></lane></laneSet>
<serviceTask id="ask" name="Read the meter"/><userTask id="look" name="Look at it"/></process></definitions>`,
);

test("a description: its interfaces and operations", () => {
  expect(json("meters.yaml")).toEqual({
    interfaces: [
      {
        name: "Meter platform",
        operations: [{ name: "GET /meters/{id}", in: ["id"], out: ["id", "read"], errors: ["404"] }],
      },
    ],
    problems: [],
  });
  write(
    "away.json",
    '{"openapi":"3.1.0","info":{"title":"A","version":"1"},"paths":{},"components":{"schemas":{"a":{"$ref":"https://quillmere.example/a.json"}}}}',
  );
  expect(lane("away.json", "--json")).toMatchObject({ code: 1 });
  expect(json("away.json").problems).toHaveLength(1);
});

test("a link that leads out of the folder is not followed", () => {
  writeFileSync(join(outer, "secret.json"), '{ "properties": { "secret": {} } }');
  symlinkSync(join(outer, "secret.json"), join(folder, "link.json"));
  write("linked.yaml", readFileSync(join(folder, "meters.yaml"), "utf8").replace("meter.json", "link.json"));
  const told = json("linked.yaml");
  expect(told.interfaces[0].operations[0].out).toEqual([]);
  expect(told.problems).toHaveLength(1);
});

test("a model: candidates and what is bound; binding and writing one out", () => {
  const candidate = { name: "Front desk", from: "desk" };
  expect(json("model.bpmn")).toEqual({
    candidates: [
      {
        ...candidate,
        operations: [
          { name: "Read the meter", from: "ask" },
          { name: "Look at it", from: "look" },
        ],
      },
    ],
    bound: [],
  });
  expect(lane("model.bpmn", "--bind", "ask=meters.yaml#GET /meters/{id}", "bound.bpmn").code).toBe(0);
  expect(json("bound.bpmn").bound).toEqual([
    { element: "ask", interface: "Meter platform", operation: "GET /meters/{id}" },
  ]);
  expect(lane("model.bpmn", "--export", "Front desk", "desk.json").code).toBe(0);
  expect(json("desk.json").interfaces).toMatchObject([
    { name: "Front desk", operations: [{ name: "readTheMeter" }, { name: "lookAtIt" }] },
  ]);
});

test("what cannot be used: one line, exit code 2, nothing written", () => {
  for (const args of [
    ["model.bpmn", "--bind", "gone=meters.yaml#GET /meters/{id}", "none.bpmn"],
    ["model.bpmn", "--bind", "ask=meters.yaml#gone", "none.bpmn"],
    ["model.bpmn", "--bind", "look=meters.yaml#GET /meters/{id}", "none.bpmn"],
    ["model.bpmn", "--bind", "ask=gone.yaml#a", "none.bpmn"],
    ["model.bpmn", "--bind", "ask", "none.bpmn"],
    ["model.bpmn", "--export", "gone", "none.bpmn"],
    ["model.bpmn", "--export"],
    ["gone.yaml"],
    [],
  ]) {
    const done = lane(...args);
    expect([done.code, done.out], args.join(" ")).toEqual([2, ""]);
    expect(done.error).toMatch(/^lane: [^\n]+\n$/);
  }
  expect(existsSync(join(folder, "none.bpmn"))).toBe(false);
});
