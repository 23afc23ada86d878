import { afterAll, expect, test } from "vitest";
import type { AnswerOf, home } from "@/contract";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

const file = (process: string, inside: string) =>
  new TextEncoder().encode(
    `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t"><process id="${process}">${inside}</process></definitions>`,
  );
const read = async (name: string, process: string, inside: string) =>
  (await runUseCase(localMember, fileUseCases.importFile, { name, area: "area", bytes: file(process, inside) })) as {
    process: string;
    version: string;
  };

test("of processes whose files use one id, a call leads to the one it names, else to the one that was made first", async () => {
  await openWorkspace();
  await run("createArea", { id: "area", name: "Connections", parent: null });
  const first = await read("First.bpmn", "same", '<task id="one" name="Of the first"/>');
  const second = await read("Second.bpmn", "same", '<task id="two" name="Of the second"/>');
  const caller = await read("Caller.bpmn", "caller", '<callActivity id="call" calledElement="same"/>');
  const callersOf = async (version: string) =>
    (await run<{ callers: { version: string }[] }>("listCallers", { version })).callers.map((one) => one.version);
  const lines = async () =>
    (await run<AnswerOf<typeof home.openMap>>("openMap", {})).links.map(({ from, to }) => [from.id, to.id]);
  const reached = async () =>
    (
      await run<{ called: { model: { elements: { id: string }[] } }[] }>("openCalled", { version: caller.version })
    ).called.map(({ model }) => model.elements.some(({ id }) => id === "two"));

  expect([await callersOf(first.version), await callersOf(second.version)]).toEqual([[caller.version], []]);
  expect(await lines()).toEqual([[caller.process, first.process]]);
  expect(await reached()).toEqual([false]);

  await send(caller.version, {
    type: "setCalled",
    id: "call",
    called: { id: "same", process: second.process, name: "Second" },
  });
  expect([await callersOf(first.version), await callersOf(second.version)]).toEqual([[], [caller.version]]);
  expect(await lines()).toEqual([[caller.process, second.process]]);
  expect(await reached()).toEqual([true]);

  // A process that is gone is called by nobody's record; the id still says which.
  await run("deleteProcess", { id: second.process });
  expect(await lines()).toEqual([[caller.process, first.process]]);
});
