import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "vitest";

const folder = mkdtempSync(join(tmpdir(), "lane-files-"));
const lane = (...args: string[]) => spawnSync(process.execPath, ["scripts/lane.mjs", ...args], { encoding: "utf8" });
const put = (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const out = (name: string) => join(folder, name);

const head = `<bpmn:definitions xmlns:bpmn="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpmndi="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" xmlns:di="http://www.omg.org/spec/DD/20100524/DI" targetNamespace="t" id="d">`;
const process_ = (type: string, more = "") =>
  `<bpmn:process id="p"><bpmn:startEvent id="s"/><bpmn:${type} id="a" name="Answer"${more}/><bpmn:endEvent id="e"/><bpmn:sequenceFlow id="f" sourceRef="s" targetRef="a"/><bpmn:sequenceFlow id="g" sourceRef="a" targetRef="e"/></bpmn:process>`;
const file = (inside: string) => `<?xml version="1.0" encoding="UTF-8"?>\n${head}\n${inside}</bpmn:definitions>`;

describe("lane convert", () => {
  test("numbers with many digits, and otherwise spelled ones, come back as they stood", () => {
    const numbers = ["122.33333333333333", "1e2", "100.123456789012345678", "80.00", "140.000000001", "-0.5", "300.1"];
    const drawing = `<bpmndi:BPMNDiagram id="dd"><bpmndi:BPMNPlane id="pl" bpmnElement="p"><bpmndi:BPMNShape id="sh" bpmnElement="a"><dc:Bounds x="${numbers[0]}" y="${numbers[1]}" width="${numbers[2]}" height="${numbers[3]}"/></bpmndi:BPMNShape><bpmndi:BPMNEdge id="ed" bpmnElement="f"><di:waypoint x="${numbers[4]}" y="${numbers[5]}"/><di:waypoint x="${numbers[6]}" y="140"/></bpmndi:BPMNEdge></bpmndi:BPMNPlane></bpmndi:BPMNDiagram>`;
    expect(lane("convert", put("digits.bpmn", file(process_("task") + drawing)), out("digits-2.bpmn")).status).toBe(0);
    const written = readFileSync(out("digits-2.bpmn"), "utf8");
    for (const number of numbers) expect(written).toContain(`"${number}"`);
  });

  test("--draw draws what has no diagram, --tidy lays it out anew, and without them nothing is drawn", () => {
    const bare = put("bare.bpmn", file(process_("task")));
    lane("convert", bare, out("same.bpmn"));
    expect(readFileSync(out("same.bpmn"), "utf8")).not.toContain("BPMNShape");
    expect(lane("convert", bare, out("drawn.bpmn"), "--draw").status).toBe(0);
    const drawn = readFileSync(out("drawn.bpmn"), "utf8");
    expect(drawn.match(/<bpmndi:BPMNShape /g)).toHaveLength(3);
    const moved = put("moved.bpmn", drawn.replace(/(bpmnElement="a"[^>]*>\s*<dc:Bounds x=")[^"]*/, "$19999"));
    expect(lane("convert", moved, out("tidy.bpmn"), "--tidy").status).toBe(0);
    expect(readFileSync(out("tidy.bpmn"), "utf8")).not.toContain("9999");
  });
});

test("a file with an undeclared prefix is unusable, with its place", () => {
  for (const [at, content] of [process_("task", ' foo:x="1"'), "<foo:bar/>"].entries()) {
    const path = put(`prefix-${at}.bpmn`, file(content));
    const { status, stderr } = lane("check", path);
    expect([status, stderr]).toEqual([
      2,
      expect.stringMatching(/^lane: .*prefix-\d\.bpmn:3:\d+: The prefix "foo" is not declared .*\n$/),
    ]);
  }
});

test("lane compare --json speaks of types as the standard writes them, among the fields too", () => {
  const [from, to] = [put("from.bpmn", file(process_("task"))), put("to.bpmn", file(process_("sendTask")))];
  const { changed } = JSON.parse(lane("compare", from, to, "--json").stdout);
  expect(changed).toEqual([
    { from: { id: "a" }, to: { id: "a" }, fields: [{ field: "type", from: "task", to: "sendTask" }] },
  ]);
});

describe("what a person meets in the shell", () => {
  test("help for all, and for each verb", () => {
    const help = lane("--help");
    expect([help.status, help.stderr]).toEqual([0, ""]);
    for (const verb of ["check", "convert", "compare", "walk", "brief", "merge"]) {
      expect(help.stdout).toContain(`lane ${verb} `);
      const own = lane(verb, "--help");
      expect([own.status, own.stderr, own.stdout.startsWith(`lane ${verb} `)]).toEqual([0, "", true]);
    }
  });
  test("an unknown verb in one line", () => {
    const { status, stderr, stdout } = lane("frobnicate");
    expect([status, stdout, stderr.trim().split("\n").length]).toEqual([2, "", 1]);
  });
  test("one is one", () => {
    const { stdout } = lane("check", put("one.bpmn", file(process_("task"))));
    expect(stdout).not.toMatch(/\b1 (errors|warnings|pieces)\b/);
  });
});
