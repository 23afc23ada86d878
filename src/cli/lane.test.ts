import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import { expectOk, performAll, smallModel } from "@/core/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-test-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const path = (name: string) => join(folder, name);
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", ...args], { encoding: "utf8" });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const base = smallModel();
const write = (name: string, model = base) => {
  writeFileSync(path(name), writeBpmn(model));
  return path(name);
};

test("lane merge takes over what each side changed; a conflict exits with 1 and stays as ours", () => {
  const from = write("base.bpmn");
  const ours = write("ours.bpmn", performAll(base, { type: "rename", id: "check", name: "Check the papers" }));
  const theirs = write("theirs.bpmn", performAll(base, { type: "rename", id: "reject", name: "Refuse" }));
  const done = lane("merge", from, ours, theirs, path("out.bpmn"), "--json");
  expect(done.code).toBe(0);
  expect(JSON.parse(done.out)).toMatchObject({ conflicts: [] });
  const merged = expectOk(readBpmn(readFileSync(path("out.bpmn"))));
  expect(merged.elements.get("check")?.name).toBe("Check the papers");
  expect(merged.elements.get("reject")?.name).toBe("Refuse");

  const other = write("other.bpmn", performAll(base, { type: "rename", id: "check", name: "Look it through" }));
  const refused = lane("merge", from, ours, other, path("out.bpmn"), "--json");
  expect(refused.code).toBe(1);
  expect(JSON.parse(refused.out).conflicts).toEqual([
    { element: "check", field: "name", ours: "Check the papers", theirs: "Look it through" },
  ]);
  expect(expectOk(readBpmn(readFileSync(path("out.bpmn")))).elements.get("check")?.name).toBe("Check the papers");
});

test("unusable input is one line with the place, and exits with 2", () => {
  writeFileSync(path("broken.bpmn"), "<definitions>\n  <process");
  const done = lane("merge", path("broken.bpmn"), path("base.bpmn"), path("base.bpmn"), path("out.bpmn"));
  expect(done.code).toBe(2);
  expect(done.error).toMatch(/^lane: .*broken\.bpmn:\d+:\d+: .+\n$/);
  expect(lane("merge", path("base.bpmn")).code).toBe(2);
});

test("lane convert draws SVG, PNG and PDF; sizes and paper are as asked for", () => {
  const from = write("drawn.bpmn");
  const made = (name: string, ...options: string[]) => {
    const done = lane("convert", from, path(name), ...options);
    expect(done.error).toBe("");
    expect(done.code).toBe(0);
    return readFileSync(path(name));
  };
  const svg = made("one.svg").toString("utf8");
  expect(svg).toContain("Check application, user task");
  const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(svg) ?? [];
  // A PNG's size stands behind its first eight bytes and the head of its first chunk.
  const png = (name: string, scale: string) => {
    const bytes = made(name, "--scale", scale);
    expect(bytes.subarray(1, 4).toString("latin1")).toBe("PNG");
    return [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
  };
  expect(png("one.png", "1")).toEqual([Number(width), Number(height)]);
  expect(png("two.png", "2")).toEqual([Number(width) * 2, Number(height) * 2]);
  const pdf = (name: string, ...options: string[]) => made(name, ...options).toString("latin1");
  const fitted = pdf("one.pdf");
  expect(fitted.startsWith("%PDF-")).toBe(true);
  expect(fitted).toContain("/MediaBox [0 0 841.89 595.28]");
  expect(pdf("large.pdf", "--paper", "A3", "--tile")).toContain("/MediaBox [0 0 1190.55 841.89]");
  expect(lane("convert", from, path("one.png"), "--scale", "9").code).toBe(2);
});

test("lane check says whether a process is sound, and gives the run that leads to a fault", () => {
  const sound = lane("check", write("sound.bpmn"), "--json");
  expect(JSON.parse(sound.out).processes).toMatchObject([{ sound: true, complete: true }]);
  const model = performAll(base, { type: "delete", ids: ["f1"] });
  const dead = lane("check", write("dead.bpmn", model), "--json");
  expect(dead.code).toBe(1);
  expect(JSON.parse(dead.out).findings).toContainEqual(
    expect.objectContaining({ rule: "dead-element", severity: "error", elements: expect.arrayContaining(["check"]) }),
  );
});

test("lane walk plays a case; ways that are named are taken, and unknown ones are refused", () => {
  const file = write("walked.bpmn");
  const plain = lane("walk", file, "--json");
  expect(plain.code).toBe(0);
  const first = JSON.parse(plain.out);
  expect(first.outcome).toBe("completed");
  expect(first.log[0]).toEqual({ step: 1, element: "start", event: "entered" });
  const ids = first.entered.map((one: { element: string }) => one.element);
  const other = ["f3", "f4"].map((flow) => JSON.parse(lane("walk", file, "--choose", `decide=${flow}`, "--json").out));
  expect(new Set(other.map((one) => JSON.stringify(one.entered))).size).toBe(2);
  expect(ids).toContain("decide");
  expect(lane("walk", file, "--choose", "decide=none").code).toBe(2);
  expect(lane("walk", file, "--times", "check=often").error).toContain("write ACTIVITY=N");
  expect(lane("walk", file, "--data", "power=12", "--together").code).toBe(0);
  expect(lane("walk", file, "--start", "nowhere").error).toContain('there is no element "nowhere"');
});

test("lane brief names what a description holds: triggers, roles, parties, and a process for each trigger", () => {
  writeFileSync(
    path("note.txt"),
    "# Solar connection\n\nWhen a household applies, the front desk registers the application. The network engineer checks the feeder.\n\nEvery night, the meter platform reads the meters. Billing writes the bills.\n",
  );
  const done = lane("brief", path("note.txt"), "--json");
  expect(done.error).toBe("");
  const { found, processes, advice } = JSON.parse(done.out);
  expect(found.trigger).toHaveLength(2);
  expect(found.role.join(" ")).toContain("front desk");
  expect(processes).toHaveLength(2);
  expect(processes[0].sentences[0]).toContain("When a household applies");
  expect(Array.isArray(advice)).toBe(true);
  expect(processes.map((one: { start: string }) => one.start)).toEqual(["message", "timer"]);
  expect(done.out).not.toContain("undefined");
  expect(lane("brief", path("missing.txt")).code).toBe(2);
  writeFileSync(path("open.txt"), "The [role: front desk answers");
  expect(lane("brief", path("open.txt")).code).toBe(2);
});

test("lane brief writes the processes as they would be built, and says what the text leaves open", () => {
  writeFileSync(
    path("deadline.txt"),
    "When a household applies, the front desk asks the household for the plan. The household sends the plan within ten days. Otherwise the front desk calls the household.\n\nEvery night, billing prints the bills.\n",
  );
  const out = path("told.bpmn");
  const { processes, open } = JSON.parse(lane("brief", path("deadline.txt"), out, "--json").out);
  const { processes: checked, findings } = JSON.parse(lane("check", out, "--json").out);
  expect(checked.map((one: { id: string }) => one.id)).toEqual(processes.map((one: { id: string }) => one.id));
  expect(checked.every((one: { sound: boolean }) => one.sound)).toBe(true);
  expect(findings.filter((one: { severity: string }) => one.severity === "error")).toEqual([]);
  const file = readFileSync(out, "utf8");
  expect(file.match(/<bpmndi:BPMNDiagram /g)).toHaveLength(2);
  expect(file).toContain("<timeDuration");
  expect(open).toMatchObject([{ question: 'What comes after "Call household"?' }]);
  expect(open[0].sentence).toContain("Otherwise");
  expect(file).toContain(`id="${open[0].elements[0]}"`);
  expect(lane("brief", path("deadline.txt"), path("told.svg")).error).toContain("ends in .bpmn");
  expect(lane("brief", path("deadline.txt"), path("nowhere/told.bpmn")).code).toBe(2);
});

test("lane compare tells differences element by element, and as a person calls them", () => {
  const from = write("before.bpmn");
  const to = write(
    "after.bpmn",
    performAll(
      base,
      { type: "moveToNeighbourLane", diagram: "page", ids: ["approve"], direction: "down" },
      { type: "insertOnFlow", diagram: "page", onFlow: "f4", id: "ask", flow: "f4b", kind: { type: "userTask" } },
      { type: "rename", id: "ask", name: "Ask a colleague" },
    ),
  );
  const told = JSON.parse(lane("compare", from, to, "--json").out);
  expect(told.added.map(({ id }: { id: string }) => id).sort()).toEqual(["ask", "f4b"]);
  expect(told.removed).toEqual([]);
  expect(told.changed).toContainEqual({
    from: { id: "approve" },
    to: { id: "approve" },
    fields: [{ field: "lane", from: "Front desk", to: "Network engineer" }],
  });
  expect(told.changes.map(({ words }: { words: string }) => words).sort()).toEqual([
    "Approve design moves from Front desk to Network engineer.",
    "Ask a colleague is new: a user task done by Front desk, after Check application.",
  ]);
  expect(lane("compare", from, to).out).toContain("2 changes of 4 elements");
  expect(lane("compare", from, to, "--match", "guess").code).toBe(2);
});
