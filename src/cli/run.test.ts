import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { DOMParser } from "@xmldom/xmldom";
import { strToU8, zipSync } from "fflate";
import { afterAll, describe, expect, test } from "vitest";
import { decision, dmn, inputData, needsInput, table } from "@/core/decisions/testing/tables";
import { chain, definition, end, file, flow, node, processOf, start, task } from "@/core/live/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-run-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const kept = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", "run", ...args], { encoding: "utf8" });
  return { code: done.status, out: done.stdout, error: done.stderr };
};

const choice = file(
  processOf(
    `<laneSet id="ls"><lane id="l1" name="Front desk"><flowNodeRef>a</flowNodeRef></lane></laneSet>${start}${node("exclusiveGateway", "g")}${task("a")}${task("b")}${end}${chain("s", "g")}${flow("g", "a", "n > 1")}${flow("g", "b", "n &lt; 0".replace("&lt;", "<"))}${chain("a", "e")}${chain("b", "e")}`,
  ),
);
const model = kept("choice.bpmn", choice);

describe("lane run", () => {
  test("prints what the contract says, and exits with 1 where a case stays open", () => {
    const data = kept("cases.json", JSON.stringify([{ n: 5 }, { n: -1 }, { n: 1 }, { n: 0 }]));
    const { code, out } = lane(model, "--data", `@${data}`, "--json");
    expect(code).toBe(1);
    expect(JSON.parse(out)).toEqual({
      started: 4,
      completed: 2,
      failed: 0,
      open: 2,
      elements: [
        { id: "s", entered: 4, completed: 4 },
        { id: "g", entered: 4, completed: 2 },
        { id: "a", entered: 1, completed: 1 },
        { id: "e", entered: 2, completed: 2 },
        { id: "b", entered: 1, completed: 1 },
      ],
      incidents: [{ element: "g", reason: "no condition holds, and there is no default", times: 2 }],
    });
    const spoken = lane(model, "--data", `@${data}`);
    expect(spoken.out).toContain("incident at g, 2 times: no condition holds");
    expect(spoken.out).toContain("4 cases: 2 completed, 0 failed, 2 open");
  });

  test("by chance all of them come to their end; the same seed writes the same log, byte for byte", () => {
    const [one, two] = [join(folder, "one.xes"), join(folder, "two.xes")];
    expect(lane(model, "--cases", "50", "--seed", "7", "--log", one).code).toBe(0);
    lane(model, "--cases", "50", "--seed", "7", "--log", two);
    expect(readFileSync(one, "utf8")).toBe(readFileSync(two, "utf8"));
    lane(model, "--cases", "50", "--seed", "8", "--log", two);
    expect(readFileSync(one, "utf8")).not.toBe(readFileSync(two, "utf8"));
    const read = new DOMParser().parseFromString(readFileSync(one, "utf8"), "text/xml");
    expect(read.getElementsByTagName("trace")).toHaveLength(50);
    const event = read.getElementsByTagName("event")[0];
    const strings = Array.from(event?.getElementsByTagName("string") ?? [], (one) => one.getAttribute("key"));
    expect(strings).toEqual(["concept:name", "lifecycle:transition", "org:role"].slice(0, strings.length));
    expect(event?.getElementsByTagName("date")[0]?.getAttribute("value")).toBe("2027-01-04T08:00:00.000+00:00");
  });

  test("as CSV each piece of work has its beginning and its end, with who does it", () => {
    const csv = join(folder, "log.csv");
    const data = kept("two.json", JSON.stringify([{ n: 5 }, { n: -3 }]));
    lane(model, "--data", `@${data}`, "--log", csv);
    expect(readFileSync(csv, "utf8").trim().split(/\r?\n/)).toEqual([
      "case,activity,timestamp,lifecycle,role",
      "1,a,2027-01-04T08:00:00.000Z,start,Front desk",
      "1,a,2027-01-04T08:00:00.000Z,complete,Front desk",
      "2,b,2027-01-04T08:00:00.000Z,start,",
      "2,b,2027-01-04T08:00:00.000Z,complete,",
    ]);
  });

  test("a package decides by its decisions", () => {
    const lln = 'xmlns:lln="urn:lucid-lane:bpmn:1"';
    const deciding = file(
      processOf(
        start +
          node(
            "businessRuleTask",
            "r",
            `<extensionElements ${lln}><lln:decides file="sizes" decision="size" name="size" result="size"/></extensionElements>`,
          ) +
          node("exclusiveGateway", "g", "", 'default="fl"') +
          task("a") +
          task("b") +
          end +
          chain("s", "r", "g") +
          flow("g", "a", 'size = "small"') +
          flow("g", "b", "", "fl") +
          chain("a", "e") +
          chain("b", "e"),
      ),
    );
    const sizes = dmn(
      inputData("power", "number") +
        decision("size", table(["power: number"], ["r"], ['< 10 -> "small"', '>= 10 -> "large"']), needsInput("power")),
    );
    const zip = kept(
      "package.zip",
      zipSync({
        "model.bpmn": strToU8(deciding),
        "decisions.json": strToU8(JSON.stringify([{ file: "sizes", part: "decisions/1.dmn" }])),
        "decisions/1.dmn": strToU8(sizes),
      }),
    );
    const data = kept("powers.json", JSON.stringify([{ power: 5 }, { power: 15 }, { power: 7 }]));
    const { out, code } = lane(zip, "--data", `@${data}`, "--json");
    expect(code).toBe(0);
    const counts = new Map(
      JSON.parse(out).elements.map((one: { id: string; entered: number }) => [one.id, one.entered]),
    );
    expect([counts.get("r"), counts.get("a"), counts.get("b")]).toEqual([3, 2, 1]);
    expect(lane(kept("empty.zip", zipSync({ x: strToU8("y") }))).error).toContain("no model.bpmn");
  });

  test("a case that fails is told", () => {
    const failing = kept(
      "failing.bpmn",
      file(processOf(start + node("endEvent", "x", definition("error")) + chain("s", "x"))),
    );
    const { code, out } = lane(failing, "--cases", "3", "--json");
    expect(code).toBe(1);
    expect(JSON.parse(out)).toMatchObject({ started: 3, completed: 0, failed: 3, open: 0 });
  });

  test.each([
    [["nowhere.bpmn"], /nowhere\.bpmn/],
    [[model, "--cases", "many"], /--cases many/],
    [[model, "--cases", "2", "--data", "[]"], /--cases or --data/],
    [[model, "--data", "{}"], /an object for each case/],
    [[model, "--data", "[1]"], /an object for each case/],
    [[model, "--log", "log.txt"], /\.xes or \.csv/],
    [[model, "--scenario", "None"], /no scenario "None"/],
    [[model, "--speed", "2"], /knows no --speed/],
    [[], /needs one file/],
  ])("%j is unusable", (args, message) => {
    const { code, error } = lane(...(args as string[]));
    expect(code).toBe(2);
    expect(error).toMatch(message);
  });
});
