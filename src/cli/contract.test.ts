import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { smallModel } from "@/core/testing/models";

// What a pipeline relies on: exit codes, one line for what cannot be used, one document of JSON, paths from where the caller stands.

const folder = mkdtempSync(join(tmpdir(), "lane-contract-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
};

const model = "http://www.omg.org/spec/BPMN/20100524/MODEL";
const definitions = (content: string, more = "") =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${more}<definitions xmlns="${model}" id="d" targetNamespace="urn:quillmere">\n${content}\n</definitions>\n`;
const sound = `<process id="p"><startEvent id="s"/><task id="t" name="Read meter"/><endEvent id="e"/>
<sequenceFlow id="f1" sourceRef="s" targetRef="t"/><sequenceFlow id="f2" sourceRef="t" targetRef="e"/></process>`;

const files: { readonly [name: string]: string } = {
  "sound.bpmn": definitions(sound),
  "open-tag.bpmn": definitions('<process id="p">').replace("</definitions>", ""),
  "other-root.bpmn": `<process xmlns="${model}" id="p"/>`,
  "other-namespace.bpmn": definitions(sound).replace(model, "urn:something:else"),
  "no-namespace.bpmn": definitions(sound).replace(` xmlns="${model}"`, ""),
  "doctype.bpmn": definitions(sound, "<!DOCTYPE definitions>\n"),
  "entity.bpmn": definitions('<process id="p" name="&meter;"/>', '<!DOCTYPE d [<!ENTITY meter "m">]>\n'),
  "empty.bpmn": "",
  "words.bpmn": "The front desk registers the application.",
  "two-roots.bpmn": `${definitions(sound)}<more/>`,
  "broken.json": '{ "root": ',
  "other.json": '{ "root": 1 }',
  "dangling.bpmn": definitions(sound.replace('targetRef="e"', 'targetRef="nowhere"')),
  "twice.bpmn": definitions(sound.replace('id="e"', 'id="t"').replace('targetRef="e"', 'targetRef="t"')),
  "across.bpmn": definitions(
    `<collaboration id="c"><participant id="pp" processRef="p"/><participant id="qq" processRef="q"/></collaboration>
${sound.replace("</process>", '<sequenceFlow id="f3" sourceRef="t" targetRef="u"/></process>')}<process id="q"><task id="u" name="Bill"/></process>`,
  ),
  "deadlock.bpmn":
    definitions(`<process id="p"><startEvent id="s"/><exclusiveGateway id="x" default="f2"/><task id="a"/><task id="b"/>
<parallelGateway id="j"/><endEvent id="e"/><sequenceFlow id="f1" sourceRef="s" targetRef="x"/><sequenceFlow id="f2" sourceRef="x" targetRef="a"/>
<sequenceFlow id="f3" sourceRef="x" targetRef="b"/><sequenceFlow id="f4" sourceRef="a" targetRef="j"/>
<sequenceFlow id="f5" sourceRef="b" targetRef="j"/><sequenceFlow id="f6" sourceRef="j" targetRef="e"/></process>`),
  "endless.bpmn": definitions(`<process id="p"><startEvent id="s"/><exclusiveGateway id="m"/><task id="t"/>
<sequenceFlow id="f1" sourceRef="s" targetRef="m"/><sequenceFlow id="f2" sourceRef="m" targetRef="t"/>
<sequenceFlow id="f3" sourceRef="t" targetRef="m"/></process>`),
};

beforeAll(() => {
  for (const [name, content] of Object.entries(files)) writeFileSync(join(folder, name), content);
  writeFileSync(join(folder, "small.bpmn"), writeBpmn(smallModel()));
  mkdirSync(join(folder, "folder.bpmn"));
});

describe("unusable input exits with 2 and one line that says where and why", () => {
  test.each([
    ["open-tag.bpmn", true],
    ["other-root.bpmn", true],
    ["other-namespace.bpmn", true],
    ["no-namespace.bpmn", true],
    ["doctype.bpmn", true],
    ["entity.bpmn", true],
    ["words.bpmn", true],
    ["two-roots.bpmn", true],
    ["empty.bpmn", true],
    ["broken.json", false],
    ["other.json", false],
    ["nowhere.bpmn", false],
    ["folder.bpmn", false],
  ])("%s", (name, hasPlace) => {
    const done = lane("check", name, "--json");
    expect(done.code).toBe(2);
    expect(done.out).toBe("");
    const place = hasPlace ? ":\\d+:\\d+" : "";
    expect(done.error).toMatch(new RegExp(`^lane: ${name.replace(".", "\\.")}${place}: [^\\n]+\\n$`));
    expect(done.error).not.toMatch(/\bat .*\.(ts|js|mjs):\d+/);
  });

  test.each([
    [["fly", "sound.bpmn"], /there is no verb "fly"/],
    [[], /a verb is needed/],
    [["check"], /needs at least one file/],
    [["compare", "sound.bpmn"], /needs two files/],
    [["compare", "sound.bpmn", "sound.bpmn", "--match", "luck"], /counterpart|id|name/],
    [["convert", "sound.bpmn", "sound.doc"], /sound\.doc/],
  ] as const)("%j", (args, words) => {
    const done = lane(...args);
    expect(done.code).toBe(2);
    expect(done.error).toMatch(words);
  });
});

describe("what is well-formed but wrong opens, and the answer is no", () => {
  test.each([["dangling.bpmn"], ["twice.bpmn"], ["across.bpmn"], ["deadlock.bpmn"]])("%s", (name) => {
    const done = lane("check", name, "--json");
    expect(done.code).toBe(1);
    const { findings } = JSON.parse(done.out) as { findings: { severity: string; elements: string[] }[] };
    expect(findings.filter((one) => one.severity === "error")).not.toEqual([]);
  });

  test("a walk that gets stuck, or goes on for ever, exits with 1", () => {
    const stuck = lane("walk", "deadlock.bpmn", "--json");
    expect([stuck.code, JSON.parse(stuck.out).outcome]).toEqual([1, "stuck"]);
    const endless = lane("walk", "endless.bpmn", "--json");
    expect([endless.code, JSON.parse(endless.out).outcome]).toEqual([1, "stopped"]);
  });
});

describe("one document", () => {
  test("several files are answered in the order given, one after the other", () => {
    const done = lane("check", "small.bpmn", "sound.bpmn", "deadlock.bpmn", "--json");
    expect(done.code).toBe(1);
    const { files: answers } = JSON.parse(done.out) as {
      files: { file: string; processes: { sound: boolean }[] }[];
    };
    expect(answers.map(({ file, processes }) => [file, processes[0]?.sound])).toEqual([
      ["small.bpmn", true],
      ["sound.bpmn", true],
      ["deadlock.bpmn", false],
    ]);
  });

  test("a file of its own is compared with itself: nothing differs", () => {
    const done = lane("compare", "small.bpmn", "small.bpmn", "--json");
    expect(done.code).toBe(0);
    expect(JSON.parse(done.out)).toMatchObject({ added: [], removed: [], changed: [] });
  });

  test("a model leaves and comes back as our own file, and as a sheet", () => {
    expect(lane("convert", "small.bpmn", "small.json").code).toBe(0);
    expect(lane("convert", "small.json", "again.bpmn").code).toBe(0);
    expect(JSON.parse(lane("compare", "small.bpmn", "again.bpmn", "--json").out)).toMatchObject({
      added: [],
      removed: [],
      changed: [],
    });
    expect(lane("convert", "small.bpmn", "small.csv").code).toBe(0);
    expect(lane("convert", "small.csv", "from-sheet.bpmn").code).toBe(0);
    expect(lane("check", "from-sheet.bpmn").code).toBe(0);
  });
});
