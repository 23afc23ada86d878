import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "vitest";
import { decision, dmn, literal, table } from "@/core/decisions/testing/tables";

const folder = mkdtempSync(join(tmpdir(), "lane-decide-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, text: string) => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
const lane = (...args: string[]) =>
  spawnSync(process.execPath, ["scripts/lane.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
const size = file(
  "size.dmn",
  dmn(decision("size", table(["power: number"], ["r"], ['<= 10 -> "small"', '> 10 -> "large"']), "", "Plant size")),
);

describe("lane decide", () => {
  test("a decision on data, from the line or from a file with one or several", () => {
    const one = lane("decide", size, "--data", '{"power": 0.3}', "--json");
    expect([one.status, JSON.parse(one.stdout)]).toEqual([
      0,
      { decision: "size", result: "small", rules: [1], problems: [] },
    ]);
    const several = file("cases.json", '[{"power": 20}, {"power": "much"}, {"power": 1}]');
    const all = lane("decide", size, "--decision", "Plant size", "--data", `@${several}`, "--json");
    expect(all.status).toBe(1);
    expect(JSON.parse(all.stdout).results.map(({ result }: { result: unknown }) => result)).toEqual([
      "large",
      null,
      "small",
    ]);
    expect(lane("decide", size, "--data", '{"power": 3}').stdout).toBe('Plant size: "small"\n  by rule 1\n');
  });

  test("its tables: what is left out and said twice", () => {
    expect(lane("decide", size, "--check", "--json")).toMatchObject({ status: 0 });
    const open = file("open.dmn", dmn(decision("t", table(["power: number"], ["r"], ["< 10 -> 1", "> 5 -> 2"]))));
    const { status, stdout } = lane("decide", open, "--check", "--json");
    expect([status, JSON.parse(stdout).tables]).toMatchObject([
      1,
      [{ decision: "t", hitPolicy: "UNIQUE", complete: true, gaps: [], overlaps: [{ rules: [1, 2], conflict: true }] }],
    ]);
    expect(lane("decide", open, "--check").stdout).toContain("rules 1 and 2 overlap, with other outputs");
  });

  const two = file(
    "two.dmn",
    dmn(decision("a", literal("1"), "", "First") + decision("b", literal("2"), "", "Second")),
  );
  test.each<[string, string[], RegExp]>([
    ["several that nobody requires", [two, "--data", "{}"], /First, Second/],
    ["a decision there is not", [size, "--decision", "nothing", "--data", "{}"], /no decision "nothing"/],
    ["no file", [join(folder, "none.dmn"), "--data", "{}"], /no such file/],
    ["no DMN", [file("no.dmn", "<a/>"), "--data", "{}"], /no file of decisions/],
    ["not well-formed", [file("bad.dmn", "<definitions>\n<a></definitions>"), "--data", "{}"], /bad\.dmn:2:\d+: /],
    ["no JSON", [size, "--data", "{power: 1}"], /no JSON/],
    ["no object", [size, "--data", "3"], /an object/],
    ["neither data nor check", [size], /--data/],
    ["both", [size, "--check", "--data", "{}"], /--data/],
    ["an unknown option", [size, "--fast"], /does not know/],
  ])("%s: exit 2 and one line", (_, args, reason) => {
    const { status, stderr, stdout } = lane("decide", ...args);
    expect([status, stdout]).toEqual([2, ""]);
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).toMatch(/^lane: /);
    expect(stderr).toMatch(reason);
  });
});

test("lane walk decides by a table: the data takes the case where the decision leads", () => {
  const flow = (id: string, from: string, to: string, more = "") =>
    `<sequenceFlow id="${id}" sourceRef="${from}" targetRef="${to}">${more}</sequenceFlow>`;
  const condition = (text: string) => `<conditionExpression>${text}</conditionExpression>`;
  const process = file(
    "process.bpmn",
    `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="urn:q"><process id="p"><startEvent id="s"/><businessRuleTask id="rule"><extensionElements xmlns:lln="urn:lucid-lane:bpmn:1"><lln:decides file="any" decision="size" name="Plant size" result="plant size"/></extensionElements></businessRuleTask><exclusiveGateway id="g"/><task id="small"/><task id="large"/><endEvent id="e"/>${flow("f1", "s", "rule")}${flow("f2", "rule", "g")}${flow("f3", "g", "small", condition('plant size = "small"'))}${flow("f4", "g", "large", condition('plant size = "large"'))}${flow("f5", "small", "e")}${flow("f6", "large", "e")}</process></definitions>`,
  );
  const entered = (...args: string[]) =>
    JSON.parse(lane("walk", process, ...args, "--json").stdout).entered.map(
      ({ element }: { element: string }) => element,
    );
  expect(entered("--data", "power=20", "--decisions", size)).toContain("large");
  expect(entered("--data", "power=2", "--decisions", size)).toContain("small");
  const unreadable = lane("walk", process, "--decisions", process);
  expect([unreadable.status, unreadable.stderr]).toEqual([2, expect.stringMatching(/no file of decisions/)]);
});
