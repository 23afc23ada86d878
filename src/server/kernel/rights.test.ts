import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  brief,
  check,
  comments,
  compare,
  decisions,
  directory,
  evidence,
  files,
  finding,
  handbook,
  handoff,
  home,
  inVersion,
  lenses,
  links,
  live,
  membership,
  presence,
  review,
  walk,
} from "@/contract";
import { rights } from "@/contract/contract";
import { rightsOfSeat, seats } from "@/contract/seats";
import { fileUseCases, localMember, runUseCase, type UseCase, useCases } from "@/server";
import { usualInputs } from "../testing/fuzz";
import { leaveWorkspace, makeProcess, openWorkspace, run } from "../testing/workspace";
import { needsRight, seated } from "./rights";

const every: readonly (readonly [string, UseCase<unknown, unknown>])[] = Object.entries({
  ...useCases,
  ...fileUseCases,
}) as never;
const bytes = new Uint8Array([1]);
/** Inputs of use cases that take or give files. */
const fileInputs: { readonly [name: string]: unknown } = {
  backup: {},
  downloadLog: { version: "v", run: "r", as: "xes" },
  downloadPackage: { version: "v", handoff: "h" },
  exportBpmn: { version: "v" },
  exportDirectory: { format: "csv" },
  exportPicture: { version: "v", format: "svg" },
  exportSheet: { version: "v" },
  handbookFile: { about: { kind: "version", version: "v" }, kind: "md", parts: ["steps"], language: null, title: "" },
  importFile: { name: "a.bpmn", area: "area", bytes },
  importToBe: { source: "v", name: "As told", bytes },
  keepFile: { name: "a.txt", bytes },
  keepLog: { version: "v", log: "l", name: "Log", facts: { cases: 1, events: 1, first: null, last: null }, bytes },
  logContent: { version: "v", log: "l" },
  openFile: { id: "file" },
  reportFile: { version: "v", log: "l", kind: "md", filters: [] },
  restore: { bytes },
};
const inputOf = (name: string): unknown => ({ ...usualInputs, ...fileInputs })[name as keyof typeof usualInputs];

beforeAll(async () => {
  await openWorkspace();
  await makeProcess();
});
afterAll(leaveWorkspace);

describe("who may", () => {
  test("every use case has a contract, by its own name, and every contract a use case", () => {
    const contracts = {
      ...brief,
      ...check,
      ...comments,
      ...compare,
      ...decisions,
      ...directory,
      ...evidence,
      ...files,
      ...finding,
      ...handbook,
      ...handoff,
      ...home,
      ...inVersion,
      ...review,
      ...walk,
      ...lenses,
      ...links,
      ...live,
      ...membership,
      ...presence,
    };
    expect(every.map(([name]) => name).sort()).toEqual(Object.keys(contracts).sort());
    for (const [name, useCase] of every) {
      expect(useCase.contract.name).toBe(name);
      expect(useCase.contract).toBe(contracts[name as keyof typeof contracts]);
    }
  });

  test.each(every)("%s says what it needs, and on what", (name, { contract }) => {
    const given = contract.input.safeParse(inputOf(name));
    expect(given.error?.message).toBeUndefined();
    expect(rights).toContain(contract.right);
    expect(contract.on(given.data as never).length).toBeGreaterThan(0);
  });

  test.each(every)(
    "%s is refused to a member without that right, before anything is looked at",
    async (name, useCase) => {
      const member = {
        id: "guest",
        name: "A guest",
        rights: rights.filter((right) => right !== useCase.contract.right),
      };
      await expect(runUseCase(member, useCase, inputOf(name))).rejects.toMatchObject({
        code: "not-allowed",
        status: 403,
      });
    },
  );

  test.each(seats)("as %s, of all use cases those of its rights are let through, and no other", async (seat) => {
    const member = seated({ id: `is-${seat}`, name: "A member", seat, areas: [] });
    for (const [name, useCase] of every) {
      const { right } = useCase.contract;
      // What would do something is not done: only whether it is let through is asked here.
      const given = useCase.contract.input.parse(inputOf(name));
      const asked = needsRight(member, useCase.contract as never, given);
      if (rightsOfSeat[seat].includes(right)) await expect(asked, name).resolves.toBeUndefined();
      else await expect(asked, name).rejects.toMatchObject({ code: "not-allowed", status: 403 });
    }
  });

  test("a seat in an area counts in it and in what it holds, and nowhere else", async () => {
    await run("createArea", { id: "inner", name: "On site", parent: "area" });
    await run("createArea", { id: "other", name: "Billing", parent: null });
    for (const [id, area] of [
      ["within", "inner"],
      ["beside", "other"],
    ])
      await run("createProcess", { name: id, area, processId: id, versionId: `${id}-v` });
    const member = seated({ id: "m", name: "Tilda", seat: "reader", areas: [{ area: "area", seat: "analyst" }] });
    const asked = (name: keyof typeof useCases, input: unknown) => runUseCase(member, useCases[name] as never, input);
    const refused = { code: "not-allowed" };
    await asked("renameProcess", { id: "within", name: "Within, renamed" });
    await asked("describeVersion", { id: "within-v", name: "As-is", aim: "" });
    await expect(asked("renameProcess", { id: "beside", name: "x" })).rejects.toMatchObject(refused);
    await expect(asked("deleteVersion", { id: "beside-v" })).rejects.toMatchObject(refused);
    // Both where it comes from and where it goes.
    await expect(asked("moveProcess", { id: "within", area: "other" })).rejects.toMatchObject(refused);
    await expect(asked("moveProcess", { id: "beside", area: "inner" })).rejects.toMatchObject(refused);
    await expect(asked("createArea", { id: "top", name: "Top", parent: null })).rejects.toMatchObject(refused);
    await expect(asked("createEntry", usualInputs.createEntry)).rejects.toMatchObject(refused);
    await expect(asked("renameProcess", { id: "not-there", name: "x" })).rejects.toMatchObject(refused);
    const { rights: here } = (await asked("openVersion", { version: "within-v" })) as { rights: string[] };
    expect(here).toContain("edit");
    const { rights: there } = (await asked("openVersion", { version: "beside-v" })) as { rights: string[] };
    expect(there).toEqual(["read"]);
    // What is moved out of the area is out of reach.
    await run("moveProcess", { id: "within", area: "other" });
    await expect(asked("renameProcess", { id: "within", name: "x" })).rejects.toMatchObject(refused);
  });

  test("who may only look sees everything and changes nothing", async () => {
    const reader = { id: "reader", name: "A reader", rights: ["read"] as const };
    const state = async () => JSON.stringify(await run("openVersion", { version: "v" }));
    const before = await state();
    for (const [name, useCase] of every) {
      const asked = runUseCase(reader, useCase, inputOf(name));
      if (useCase.contract.right === "read") await asked.catch((error) => expect(error.code).not.toBe("not-allowed"));
      else await expect(asked).rejects.toMatchObject({ code: "not-allowed" });
    }
    expect(await state()).toBe(before);
    expect(localMember.rights).toEqual(rights);
  });
});
