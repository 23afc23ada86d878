import { eq } from "drizzle-orm";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import type { Model } from "@/core/model";
import { expectOk } from "@/core/testing/models";
import { database } from "@/data/database";
import { heads, walkTests } from "@/data/schema";
import { forgetHeads } from "../kernel/heads";
import { importModel, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(() => openWorkspace());

/** A process that calls another, or does a step of its own. */
const process = (id: string, calls?: string): Model =>
  expectOk(
    readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d-${id}" targetNamespace="urn:quillmere"><process id="${id}" name="${id}">
      <startEvent id="s"/>${calls ? `<callActivity id="call" name="Call" calledElement="${calls}"/>` : '<userTask id="call" name="Do it"/>'}<endEvent id="e"/>
      <sequenceFlow id="f1" sourceRef="s" targetRef="call"/><sequenceFlow id="f2" sourceRef="call" targetRef="e"/></process></definitions>`),
  );
const content = (name: string) => ({ process: name, told: {}, outcome: "completed", path: null });
const kept = async (version: string) =>
  (await run<{ tests: { id: string; name: string }[] }>("listWalkTests", { version })).tests;
const called = async (version: string) =>
  (await run<{ called: { calls: string; version: string }[] }>("openCalled", { version })).called;

describe("kept walks", () => {
  test("stand in the order they were kept, have other names and other expectations, and go", async () => {
    const version = await importModel("main", process("main"));
    await run("keepWalkTests", { version, tests: ["A", "B"].map((name) => ({ name, content: content("main") })) });
    await run("keepWalkTests", { version, tests: [{ name: "C", content: content("main") }] });
    expect((await kept(version)).map(({ name }) => name)).toEqual(["A", "B", "C"]);
    const [first] = await kept(version);
    await run("changeWalkTest", { version, test: first?.id, name: "A, the usual way" });
    await run("changeWalkTest", { version, test: first?.id, content: { ...content("main"), outcome: "stuck" } });
    expect((await kept(version))[0]).toMatchObject({ name: "A, the usual way", content: { outcome: "stuck" } });
    await run("deleteWalkTest", { version, test: first?.id });
    expect((await kept(version)).map(({ name }) => name)).toEqual(["B", "C"]);
  });

  test("one of another version is none of this one's", async () => {
    const [version, other] = [await importModel("main", process("main")), await importModel("other", process("other"))];
    await run("keepWalkTests", { version, tests: [{ name: "A", content: content("main") }] });
    const [test] = await kept(version);
    await expect(run("changeWalkTest", { version: other, test: test?.id, name: "B" })).rejects.toMatchObject({
      status: 404,
    });
    await run("deleteWalkTest", { version: other, test: test?.id });
    expect(await kept(version)).toHaveLength(1);
  });

  test("what is no walk is refused at the door; one that was damaged stops none of the others", async () => {
    const version = await importModel("main", process("main"));
    await expect(
      run("keepWalkTests", { version, tests: [{ name: "A", content: { process: 7 } }] }),
    ).rejects.toMatchObject({
      code: "bad-input",
    });
    await run("keepWalkTests", { version, tests: ["A", "B"].map((name) => ({ name, content: content("main") })) });
    const { db } = await database();
    const [first] = await kept(version);
    await db
      .update(walkTests)
      .set({ content: { process: 7 } as never })
      .where(eq(walkTests.id, first?.id ?? ""));
    expect((await kept(version)).map(({ name }) => name)).toEqual(["B"]);
  });

  test("many kept at once by two are all there, each in a place of its own", async () => {
    const version = await importModel("main", process("main"));
    await Promise.all(
      Array.from({ length: 8 }, (_, at) =>
        run("keepWalkTests", { version, tests: [{ name: `W${at}`, content: content("main") }] }),
      ),
    );
    expect((await kept(version)).map(({ name }) => name).sort()).toEqual(
      Array.from({ length: 8 }, (_, at) => `W${at}`),
    );
  });
});

describe("what a process calls", () => {
  test("the as-is of what it names, and what that calls in turn; a circle of calls ends", async () => {
    const version = await importModel("first", process("first", "second"));
    const second = await importModel("second", process("second", "third"));
    const third = await importModel("third", process("third", "first"));
    const found = await called(version);
    expect(found.map((one) => one.calls)).toEqual(["second", "third", "first"]);
    expect([second, third].length).toBe(2);
  });

  test("nothing, where nothing has that id; and it is found once somebody makes it", async () => {
    const version = await importModel("first", process("first", "second"));
    expect(await called(version)).toEqual([]);
    await importModel("second", process("second"));
    expect((await called(version)).map(({ calls }) => calls)).toEqual(["second"]);
  });

  test("a version that is named is called, and not the as-is", async () => {
    const version = await importModel("first", process("first", "second"));
    const second = await importModel("second", process("second"));
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: second, name: "Shorter" });
    await send(toBe, { type: "rename", id: "call", name: "Do it sooner" });
    await send(version, { type: "setCalledVersion", id: "call", called: { version: toBe, name: "Shorter" } });
    const [only] = await run<{ called: { model: { elements: { id: string; name?: string }[] } }[] }>("openCalled", {
      version,
    }).then((answer) => answer.called);
    expect(only?.model.elements.find(({ id }) => id === "call")?.name).toBe("Do it sooner");
  });

  test("one that cannot be read is left out, and the caller opens all the same", async () => {
    const version = await importModel("first", process("first", "second"));
    const second = await importModel("second", process("second"));
    const { db } = await database();
    await db
      .update(heads)
      .set({ snapshot: { schemaVersion: 2 } as never })
      .where(eq(heads.version, second));
    forgetHeads();
    expect(await called(version)).toEqual([]);
    await run("openVersion", { version });
  });
});
