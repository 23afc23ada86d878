import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "vitest";

const folder = mkdtempSync(join(tmpdir(), "lane-handbook-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", "handbook", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const file = (name: string) => join(folder, name);

writeFileSync(
  file("model.bpmn"),
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:lln="urn:lucid-lane:bpmn:1" id="d" targetNamespace="t"><process id="p" name="Meter exchange">
<laneSet id="ls"><lane id="crew" name="Field crew"><flowNodeRef>swap</flowNodeRef></lane></laneSet>
<startEvent id="s" name="Meter too old"/><userTask id="swap" name="Change the meter"><documentation>Read it first.</documentation><extensionElements><lln:text language="de" name="Zähler tauschen"/></extensionElements></userTask><endEvent id="e"/>
<sequenceFlow id="f" sourceRef="s" targetRef="swap"/><sequenceFlow id="g" sourceRef="swap" targetRef="e"/></process></definitions>`,
);
writeFileSync(
  file("empty.bpmn"),
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t"/>`,
);

describe("lane handbook", () => {
  test("writes the kind of file that the ending says, and exits with 0", () => {
    const begins = { pdf: "%PDF-1.7", docx: "PK", html: "<!doctype html>", md: "# Meter exchange" } as const;
    for (const [ending, beginning] of Object.entries(begins)) {
      const done = lane("model.bpmn", `out.${ending}`);
      expect([done.code, done.out, done.error]).toEqual([0, "", ""]);
      expect(readFileSync(file(`out.${ending}`), "latin1").startsWith(beginning)).toBe(true);
    }
  });

  test("every flow node with its number, its role and its instruction; the same file gives the same text", () => {
    lane("model.bpmn", "one.md");
    lane("model.bpmn", "two.md");
    const words = readFileSync(file("one.md"), "utf8");
    expect(words).toBe(readFileSync(file("two.md"), "utf8"));
    for (const wanted of [
      "S1 Meter too old",
      "1 Change the meter",
      "E1 end event",
      "**Who:** Field crew",
      "Read it first.",
    ])
      expect(words).toContain(wanted);
  });

  test("in a language: what is kept in it, and on standard error how much is not", () => {
    const done = lane("model.bpmn", "de.md", "--language", "de");
    expect(done.code).toBe(0);
    expect(done.error).toMatch(/^lane: 4 texts are not told in de/);
    const words = readFileSync(file("de.md"), "utf8");
    expect(words).toContain("1 Zähler tauschen");
    expect(words).toContain("**Wer:** Field crew");
    const told = JSON.parse(lane("model.bpmn", "de.md", "--language", "de", "--json").out);
    expect(told).toMatchObject({ language: "de", languages: ["de"] });
    expect(told.missing).toContainEqual({ element: "swap", what: "description" });
  });

  test("English is the model's own where it keeps no other English", () => {
    const done = lane("model.bpmn", "en.md", "--language", "en");
    expect([done.code, done.error]).toEqual([0, ""]);
    expect(readFileSync(file("en.md"), "utf8")).toContain("1 Change the meter");
  });

  test.each([
    [["model.bpmn", "out.txt"], /ending must be one of \.pdf, \.docx, \.html, \.md/],
    [["model.bpmn", "out"], /ending/],
    [["model.bpmn"], /needs the model to read and the file to write/],
    [["none.bpmn", "out.md"], /no such file/],
    [["empty.bpmn", "none.md"], /no process with steps/],
    [["model.bpmn", "nowhere/out.md"], /cannot be written/],
    [["model.bpmn", "out.md", "--language", "../x"], /no language/],
    [["model.bpmn", "out.md", "--colour"], /colour/],
  ])("%j is refused in one line, with 2", (args, why) => {
    const done = lane(...args);
    expect(done.code).toBe(2);
    expect(done.error).toMatch(why);
    expect(
      done.error
        .trim()
        .split("\n")
        .filter((one) => one.startsWith("lane:")),
    ).toHaveLength(1);
    expect(existsSync(file("none.md"))).toBe(false);
  });
});
