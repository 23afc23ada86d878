import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { BuildCopyRow } from "@/contract/handoff";
import { readBpmn } from "@/core/bpmn";
import { compareModels } from "@/core/compare";
import { type StoredModel, trustStored } from "@/core/model";
import { expectOk } from "@/core/testing/models";
import {
  importModel,
  leaveWorkspace,
  nameOfElement,
  openWorkspace,
  run,
  send,
  storedModel,
} from "../testing/workspace";
import { gitPlace } from "./gitPlace";

afterAll(leaveWorkspace);
/** Nothing is wrong with it, so that it may leave. */
const checked = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Connect a plant">
  <startEvent id="start" name="Application received"/><userTask id="check" name="Check application"/><endEvent id="end" name="Application checked"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="end"/></process></definitions>`;
let version: string;
let root: string;
let bare: string;
const git = (...args: string[]) => execFileSync("git", ["-C", bare, ...args], { encoding: "utf8" });
const branch = "lucid-lane/connect";

beforeEach(async () => {
  await openWorkspace();
  version = await importModel("Connect a plant", expectOk(readBpmn(checked)));
  const outer = mkdtempSync(join(tmpdir(), "lane-build-"));
  [root, bare] = [join(outer, "builds"), join(outer, "plant.git")];
  mkdirSync(root);
  mkdirSync(bare);
  git("init", "--bare", "--quiet", "--initial-branch=main");
  process.env.LANE_BUILDS = `folder:${root} git:${bare}`;
});

const tie = async (kind: "folder" | "git" = "git") =>
  (
    await run<{ copy: string }>("tieBuildCopy", {
      version,
      place: kind === "git" ? `git:${bare}` : `folder:${root}`,
      branch: kind === "git" ? branch : "",
      path: "connect.bpmn",
    })
  ).copy;
const look = async () =>
  (await run<{ copies: BuildCopyRow[] }>("lookAtBuildCopies", { version })).copies[0] as BuildCopyRow;
const state = async () => (await look()).state;
const inRepository = () => git("show", `${branch}:connect.bpmn`);
/** A developer commits and pushes, with the `git` program itself. */
function commit(change: (text: string) => string): void {
  const work = mkdtempSync(join(tmpdir(), "lane-developer-"));
  const at = (...args: string[]) =>
    execFileSync("git", ["-C", work, "-c", "user.name=D", "-c", "user.email=d@d.invalid", ...args]);
  at("clone", "--quiet", "--branch", branch, bare, ".");
  writeFileSync(join(work, "connect.bpmn"), change(readFileSync(join(work, "connect.bpmn"), "utf8")));
  at("commit", "--quiet", "-am", "technical");
  at("push", "--quiet");
  rmSync(work, { recursive: true });
}
const technical = (text: string) =>
  text
    .replace("<definitions ", '<definitions xmlns:rig="urn:rig" ')
    .replace('id="check"', 'id="check" rig:queue="desk"');
const rename = (name: string) => send(version, { type: "rename", id: "check", name });

describe.each(["git", "folder"] as const)("a build copy in a %s", (kind) => {
  const read = () => (kind === "git" ? inRepository() : readFileSync(join(root, "connect.bpmn"), "utf8"));
  const work = (change: (text: string) => string) =>
    kind === "git" ? commit(change) : writeFileSync(join(root, "connect.bpmn"), change(read()));

  test("goes there and back for rounds, and nothing of either side is lost", async () => {
    const copy = await tie(kind);
    expect(await state()).toBe("not sent yet");
    await run("sendToBuildCopy", { version, copy });
    expect(await state()).toBe("in step");
    work(technical);
    expect(await state()).toBe("build copy changed");
    await expect(run("sendToBuildCopy", { version, copy })).rejects.toMatchObject({ code: "take-over-first" });
    await run("takeOverBuildCopy", { version, copy, take: "all" });
    expect(await state()).toBe("in step");
    const before = read();
    await rename("Look at the application");
    const { state: changed, sends } = await look();
    expect([changed, sends.length]).toEqual(["model changed", 1]);
    await run("sendToBuildCopy", { version, copy });
    expect(read()).toBe(before.replace("Check application", "Look at the application"));
    expect(read()).toContain('rig:queue="desk"');
    expect((await look()).steps.map(({ what }) => what)).toEqual(["tied", "sent", "taken over", "sent"]);
  });

  test("changes of both that do not meet are both there afterwards; those that meet are decided", async () => {
    const copy = await tie(kind);
    await run("sendToBuildCopy", { version, copy });
    work((text) => technical(text).replace("Check application", "Test application"));
    await rename("Look at the application");
    const { state: both, conflicts } = await look();
    expect([both, conflicts.map(({ field }) => field)]).toEqual(["both changed", ["name"]]);
    await expect(run("sendToBuildCopy", { version, copy })).rejects.toMatchObject({ status: 409 });
    await expect(run("takeOverBuildCopy", { version, copy, take: "all" })).rejects.toMatchObject({ status: 409 });
    const decisions = { [conflicts[0]?.key ?? ""]: "theirs" };
    await run("takeOverBuildCopy", { version, copy, take: "all", decisions });
    expect(await nameOfElement(version, "check")).toBe("Test application");
    expect(await state()).toBe("in step");
  });

  test("one change is taken over alone; the rest waits", async () => {
    const copy = await tie(kind);
    await run("sendToBuildCopy", { version, copy });
    work((text) => technical(text).replace("Check application", "Test application"));
    await rename("Check application");
    const { brings } = await look();
    const [change] = brings;
    await expect(run("takeOverBuildCopy", { version, copy, take: ["gone meanwhile"] })).rejects.toMatchObject({
      code: "not-taken-over",
    });
    await run("takeOverBuildCopy", { version, copy, take: [change?.key] });
    expect(await nameOfElement(version, "check")).toBe("Test application");
    await run("takeOverBuildCopy", { version, copy, take: "all" });
    expect(await state()).toBe("in step");
  });

  test("what cannot be read says where; what is gone is gone, and can be sent again", async () => {
    const copy = await tie(kind);
    await run("sendToBuildCopy", { version, copy });
    work((text) => text.replace("</definitions>", "</definition>"));
    expect(await look()).toMatchObject({
      state: "cannot be read",
      problem: expect.stringMatching(/^Line \d+, column \d+: /),
    });
    await expect(run("sendToBuildCopy", { version, copy })).rejects.toMatchObject({ status: 409 });
    if (kind === "git") return;
    rmSync(join(root, "connect.bpmn"));
    expect(await state()).toBe("gone");
    await run("sendToBuildCopy", { version, copy });
    expect(await state()).toBe("in step");
  });
});

test("what has no id in the file is known by its place, however the developers' tool counts", async () => {
  const event = (id: string, time: string) =>
    `<intermediateCatchEvent id="${id}" name="Wait ${id}"><timerEventDefinition><timeDuration>${time}</timeDuration></timerEventDefinition></intermediateCatchEvent>`;
  const flows = ["start", "a", "b", "end"].flatMap((to, at, all) =>
    at === 0 ? [] : [`<sequenceFlow id="f${at}" sourceRef="${all[at - 1]}" targetRef="${to}"/>`],
  );
  const content = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="t"><process id="q"><startEvent id="start" name="Begun"/>${event("a", "PT1H")}${event("b", "PT2H")}<endEvent id="end" name="Done"/>${flows.join("")}</process></definitions>`;
  version = await importModel("Waits", expectOk(readBpmn(content)));
  const copy = await tie("folder");
  await run("sendToBuildCopy", { version, copy });
  const at = join(root, "connect.bpmn");
  writeFileSync(
    at,
    readFileSync(at, "utf8").replace(
      /<(\w*:?)intermediateCatchEvent id="b"/,
      `${event("new", "PT5M")}<$1intermediateCatchEvent id="b"`,
    ),
  );
  await send(version, { type: "rename", id: "b", name: "Wait" });
  const before = await storedModel(version);
  await run("takeOverBuildCopy", { version, copy, take: "all" });
  const after = await storedModel(version);
  // Only what is new came: nothing that was there is another thing now.
  expect([...after.elements].filter(({ id }) => !before.elements.has(id)).map(({ type }) => type)).toEqual([
    "intermediateCatchEvent",
    "timerEventDefinition",
  ]);
  for (const { id } of before.elements) expect(after.elements.has(id)).toBe(true);
  expect(await state()).toBe("model changed");
});

test("only a checked model leaves: while an error is open nothing is sent", async () => {
  const copy = await tie("folder");
  const { model } = await run<{ model: { elements: { id: string; type: string }[] } }>("openVersion", { version });
  const flow = model.elements.find(({ type }) => type === "sequenceFlow")?.id;
  await send(version, { type: "delete", ids: [flow] });
  await expect(run("sendToBuildCopy", { version, copy })).rejects.toMatchObject({ code: "errors-open" });
  expect(readdirSync(root)).toEqual([]);
});

test("Home and the menu of versions say how a copy stood when it was last looked at, and look again behind it", async () => {
  type Home = { versions: { id: string; builds: string | null }[] };
  const onHome = async () => (await run<Home>("openHome", {})).versions.find(({ id }) => id === version)?.builds;
  const inMenu = async () =>
    (await run<{ siblings: { id: string; builds: string | null }[] }>("openVersion", { version })).siblings.find(
      ({ id }) => id === version,
    )?.builds;
  expect(await onHome()).toBeNull();
  const copy = await tie();
  await run("sendToBuildCopy", { version, copy });
  await look();
  expect([await onHome(), await inMenu()]).toEqual(["in step", "in step"]);
  // The model went on: Home looks again by itself.
  await rename("Look at the application");
  await expect.poll(onHome, { timeout: 20_000 }).toBe("model changed");
  commit((text) => text.replace("Check application", "Test application"));
  await look();
  expect(await inMenu()).toBe("both changed");
});

test("what stands in the file is opened beside the version; while it cannot be read, why", async () => {
  const copy = await tie();
  await expect(run("openBuildCopy", { version, copy })).rejects.toMatchObject({ status: 409 });
  await run("sendToBuildCopy", { version, copy });
  commit((text) => technical(text).replace("Check application", "Test application"));
  const built = async () => run<{ title: string; model: StoredModel }>("openBuildCopy", { version, copy });
  const { title, model } = await built();
  expect(title).toBe("connect.bpmn");
  const { changes } = compareModels(await storedModel(version), trustStored(model));
  expect(changes.map(({ fields }) => fields.map(({ field }) => field))).toEqual([["name", "extension"]]);
  commit((text) => text.replace("</definitions>", "</definition>"));
  await expect(built()).rejects.toMatchObject({ status: 409 });
});

describe("between two who work at once", () => {
  test("somebody pushes between the look and the push: nothing is written, and the next look shows it", async () => {
    const copy = await tie();
    await run("sendToBuildCopy", { version, copy });
    const place = gitPlace(bare, join(root, "..", "other.git"));
    const spot = { branch, path: "connect.bpmn" };
    const { mark } = await place.read(spot);
    commit(technical);
    const late = { bytes: new TextEncoder().encode("<late/>"), mark, message: "late", author: "Late" };
    await expect(place.write(spot, late)).rejects.toMatchObject({ code: "build-moved" });
    expect(inRepository()).toContain("rig:queue");
    expect(await state()).toBe("build copy changed");
  });

  test("a sync that ended before it was recorded is found by its content", async () => {
    const copy = await tie();
    await run("sendToBuildCopy", { version, copy });
    await rename("Look at the application");
    commit((text) => text.replace("Check application", "Look at the application"));
    // A look is enough to know it from then on.
    expect(await state()).toBe("in step");
    commit((text) => technical(text).replace("Look at the application", "Test application"));
    expect(await look()).toMatchObject({ state: "build copy changed", conflicts: [] });
  });

  test("a repository that cannot be read says why, and the other copies are looked at all the same", async () => {
    const copy = await tie();
    await run("sendToBuildCopy", { version, copy });
    await tie("folder");
    rmSync(join(bare, "objects"), { recursive: true });
    rmSync(join(process.env.LANE_DATA as string, "builds"), { recursive: true });
    const { copies } = await run<{ copies: BuildCopyRow[] }>("lookAtBuildCopies", { version });
    expect(copies.map((one) => one.state).sort()).toEqual(["cannot be read", "not sent yet"]);
    expect(copies.find((one) => one.id === copy)?.problem).toMatch(/cannot be (reached|read)/);
  });

  test("the mirror is made anew where it was lost", async () => {
    const copy = await tie();
    await run("sendToBuildCopy", { version, copy });
    rmSync(join(process.env.LANE_DATA as string, "builds"), { recursive: true });
    expect(await state()).toBe("in step");
  });
});

describe("nothing else is ever reached", () => {
  const refused = (place: string, path = "connect.bpmn", named = "") =>
    expect(run("tieBuildCopy", { version, place, branch: named, path })).rejects.toMatchObject({
      status: expect.any(Number),
    });

  test("than what the operator allows", async () => {
    await refused("folder:/etc");
    await refused(`folder:${root}/..`);
    await refused("git:ext::sh -c true", "connect.bpmn", "main");
  });

  test.each(["../connect.bpmn", "/etc/passwd.bpmn", "a/../../b.bpmn", "-x.bpmn", "a\nb.bpmn", "connect.txt"])(
    "by the path %j",
    (path) => refused(`folder:${root}`, path),
  );

  test.each(["-main", "a..b", "a//b", "main.lock", "a b", "@{x}"])("by the branch %j", (name) =>
    refused(`git:${bare}`, "connect.bpmn", name),
  );

  test("by a link", async () => {
    writeFileSync(join(root, "..", "secret.bpmn"), "secret");
    symlinkSync(join(root, "..", "secret.bpmn"), join(root, "connect.bpmn"));
    const copy = await tie("folder");
    expect(await state()).toBe("cannot be read");
    await expect(run("sendToBuildCopy", { version, copy })).rejects.toMatchObject({ status: 409 });
    expect(readFileSync(join(root, "..", "secret.bpmn"), "utf8")).toBe("secret");
  });

  test("a file is tied once; untied, it stays as it is", async () => {
    const copy = await tie("folder");
    await expect(tie("folder")).rejects.toMatchObject({ status: 409 });
    await run("sendToBuildCopy", { version, copy });
    await run("untieBuildCopy", { version, copy });
    expect(readdirSync(root)).toEqual(["connect.bpmn"]);
    expect((await run<{ copies: unknown[] }>("lookAtBuildCopies", { version })).copies).toEqual([]);
  });
});

test("the simulated developer works on the demo's repository", async () => {
  process.env.LANE_DEMO = "yes";
  try {
    const places = (await run<{ places: { id: string; isDemo: boolean }[] }>("lookAtBuildCopies", { version })).places;
    const place = places.find(({ isDemo }) => isDemo)?.id;
    // Making its repository was cut off.
    mkdirSync((place ?? "").slice(4), { recursive: true });
    const { copy } = await run<{ copy: string }>("tieBuildCopy", { version, place, branch, path: "connect.bpmn" });
    await run("sendToBuildCopy", { version, copy });
    await run("askDeveloper", { version, copy });
    const { state: after, brings } = await look();
    expect(after).toBe("build copy changed");
    expect(brings.map(({ words }) => words).join(" ")).toContain("Write audit record");
    await run("takeOverBuildCopy", { version, copy, take: "all" });
    expect([...(await storedModel(version)).elements].some(({ name }) => name === "Record is missing")).toBe(true);
    await run("askDeveloper", { version, copy });
    expect(await state()).toBe("build copy changed");
  } finally {
    process.env.LANE_DEMO = "none";
  }
});
