import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { AnswerOf, home } from "@/contract";
import { fileUseCases, localMember, runUseCase } from "..";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

type MapAnswer = AnswerOf<typeof home.openMap>;
const map = (unfolded?: string[]) => run<MapAnswer>("openMap", unfolded ? { unfolded } : {});

/** A process that calls another one, or sends a message that others wait for. */
const file = (id: string, more: { calls?: string; sends?: string; waits?: string } = {}) => {
  const { calls, sends, waits } = more;
  const message = sends ?? waits;
  const step = calls
    ? `<callActivity id="t" name="Have it done" calledElement="${calls}"/>`
    : message
      ? `<intermediate${sends ? "Throw" : "Catch"}Event id="t" name="${message}"><messageEventDefinition messageRef="m"/></intermediate${sends ? "Throw" : "Catch"}Event>`
      : `<userTask id="t" name="Do it"/>`;
  return `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere">${message ? `<message id="m" name="${message}"/>` : ""}<process id="${id}"><startEvent id="s"/>${step}<endEvent id="e"/><sequenceFlow id="f" sourceRef="s" targetRef="t"/><sequenceFlow id="g" sourceRef="t" targetRef="e"/></process></definitions>`;
};
const add = async (area: string, id: string, more?: Parameters<typeof file>[1]) =>
  (await runUseCase(localMember, fileUseCases.importFile, {
    name: `${id}.bpmn`,
    area,
    bytes: new TextEncoder().encode(file(id, more)),
  })) as { process: string; version: string };
const told = ({ links }: MapAnswer) =>
  links.map(({ from, to, kind, count, names }) => [from.of, to.of, kind, count, names.join()].join(" ")).sort();

describe("the map of Home", () => {
  beforeEach(async () => {
    await openWorkspace();
    await run("createArea", { id: "area", name: "Connections", parent: null });
    await run("createArea", { id: "inner", name: "On site", parent: "area" });
    await run("createArea", { id: "other", name: "Accounts", parent: null });
  });

  test("of nothing shows the areas there are", async () => {
    const { areas, total, attention, links, processes } = await map();
    expect(areas.map(({ id, parent, processes: count }) => [id, parent, count])).toEqual([
      ["other", null, 0],
      ["area", null, 0],
      ["inner", "area", 0],
    ]);
    expect([total, attention, links, processes]).toEqual([0, 0, [], []]);
  });

  test("leads from process to process by calls and by messages, as the models say now", async () => {
    const caller = await add("area", "process-caller", { calls: "process-called" });
    const called = await add("inner", "process-called");
    await add("area", "process-sender", { sends: "Plant on" });
    await add("other", "process-waiter", { waits: "plant on" });
    const first = await map();
    expect(told(first)).toEqual(["process process calls 1 ", "process process messages 1 Plant on"]);
    expect(first.links.find(({ kind }) => kind === "calls")).toMatchObject({
      from: { id: caller.process },
      to: { id: called.process },
    });
    await send(caller.version, { type: "delete", ids: ["t"] });
    expect(told(await map())).toEqual(["process process messages 1 Plant on"]);
    await run("deleteProcess", { id: called.process });
    expect((await map()).processes).toHaveLength(3);
  });

  test("of folded areas counts what leads out of them and into them, and nothing of what stays inside", async () => {
    await add("area", "process-caller-1", { calls: "process-called" });
    await add("area", "process-caller-2", { calls: "process-called" });
    await add("area", "process-inside", { calls: "process-caller-1" });
    await add("other", "process-called");
    expect(told(await map([]))).toEqual(["area area calls 2 "]);
    expect(told(await map(["other"]))).toEqual(["area process calls 2 "]);
    expect(told(await map(["area"]))).toEqual([
      "process area calls 1 ",
      "process area calls 1 ",
      "process process calls 1 ",
    ]);
  });

  test("opens by itself what is one look, and draws of an area no more than that", async () => {
    for (let at = 0; at < 45; at++) await run("createProcess", { name: `Process ${at}`, area: "area" });
    const first = await map();
    expect(first.unfolded).toContain("area");
    expect([first.total, first.processes.length]).toEqual([45, 40]);
    for (let at = 0; at < 20; at++) await run("createProcess", { name: `Bill ${at}`, area: "other" });
    const second = await map();
    expect([second.total, second.unfolded, second.processes]).toEqual([65, [], []]);
    const opened = await map(["other"]);
    expect(opened.processes).toHaveLength(20);
    expect(opened.versions).toHaveLength(20);
  });

  test("says how many need attention, and agrees with the table", async () => {
    const one = await add("area", "process-one");
    await add("other", "process-two");
    await send(one.version, { type: "delete", ids: ["g"] });
    // Counted behind what people do.
    let counted = await map();
    for (let at = 0; at < 50 && (counted.counting > 0 || counted.attention === 0); at++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      counted = await map();
    }
    const needing = await run<AnswerOf<typeof home.openHome>>("openHome", { needing: true });
    expect(counted.attention).toBe(needing.total);
    expect(counted.areas.reduce((sum, { attention }) => sum + attention, 0)).toBe(counted.attention);
    expect(
      counted.processes
        .filter(({ need }) => need !== "nothing")
        .map(({ id }) => id)
        .sort(),
    ).toEqual(needing.processes.map(({ id }) => id).sort());
    expect(needing.processes.map(({ id }) => id)).toContain(one.process);
  });
});
