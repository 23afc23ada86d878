import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { SameProcess } from "@/contract/files";
import { fileUseCases, localMember, runUseCase } from "..";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

const file = (id: string, step = "Check the meter", name = "") =>
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="${id}"${name && ` name="${name}"`}><startEvent id="s"/><task id="t" name="${step}"/><endEvent id="e"/><sequenceFlow id="f" sourceRef="s" targetRef="t"/><sequenceFlow id="g" sourceRef="t" targetRef="e"/></process></definitions>`;
const open = (name: string, content: string) =>
  runUseCase(localMember, fileUseCases.importFile, {
    name,
    area: "area",
    bytes: new TextEncoder().encode(content),
  }) as Promise<{ version: string; process: string; same: SameProcess | null }>;

describe("a file that is opened", () => {
  beforeEach(async () => {
    await openWorkspace();
    await run("createArea", { id: "area", name: "Connections", parent: null });
  });

  test("for the first time is like none that is there", async () => {
    expect((await open("meter.bpmn", file("process-meter"))).same).toBeNull();
    expect((await open("other.bpmn", file("process-other"))).same).toBeNull();
  });

  test.each([
    ["under the same name", "meter.bpmn"],
    ["under another name", "meter (1).bpmn"],
  ])("a second time %s says where it was opened before", async (_, name) => {
    const first = await open("meter.bpmn", file("process-meter"));
    const { same } = await open(name, file("process-meter"));
    expect(same).toMatchObject({ version: first.version, isEqual: true });
  });

  test("and was changed since, on either side, is told from one that holds the very same", async () => {
    const first = await open("meter.bpmn", file("process-meter"));
    expect((await open("meter.bpmn", file("process-meter", "Read the meter"))).same).toMatchObject({
      version: first.version,
      isEqual: false,
    });
    await send(first.version, { type: "rename", id: "t", name: "Look at the meter" });
    expect((await open("meter.bpmn", file("process-meter"))).same).toMatchObject({ isEqual: false });
    expect((await open("meter.bpmn", file("process-meter", "Look at the meter"))).same).toMatchObject({
      version: first.version,
      isEqual: true,
    });
  });

  test("of an id that many files have is like another one only where all is the same", async () => {
    await open("meter.bpmn", file("Process_1"));
    expect((await open("other.bpmn", file("Process_1", "Read the meter"))).same).toBeNull();
    expect((await open("again.bpmn", file("Process_1"))).same).toMatchObject({ isEqual: true });
  });

  test("is not held against what was deleted", async () => {
    const first = await open("meter.bpmn", file("process-meter"));
    await run("deleteProcess", { id: first.process });
    expect((await open("meter.bpmn", file("process-meter"))).same).toBeNull();
  });

  test("by two at once is there twice, and one of them says so", async () => {
    const both = await Promise.all([
      open("meter.bpmn", file("process-meter")),
      open("meter.bpmn", file("process-meter")),
    ]);
    expect(both.filter(({ same }) => same === null)).toHaveLength(1);
    expect(both.filter(({ same }) => same?.isEqual)).toHaveLength(1);
  });
});
