import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { strFromU8, unzipSync } from "fflate";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { openDatabase } from "@/data/database";
import { FolderInUse } from "@/data/lock";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { programOf } from "../testing/peers";
import {
  closeWorkspace,
  leaveWorkspace,
  makeProcess,
  nameOfElement,
  openWorkspace,
  preparedFolder,
  run,
  send,
} from "../testing/workspace";

afterAll(leaveWorkspace);

describe("editing", () => {
  beforeEach(async () => {
    await openWorkspace();
  });

  test("a batch is stored once, however often it is sent", async () => {
    const { version } = await makeProcess();
    const request = {
      version,
      batch: "same",
      base: 1,
      commands: [{ type: "rename", id: "check", name: "Look at it" }],
    };
    const first = await run<{ sequence: number }>("applyCommands", request);
    const second = await run<{ sequence: number }>("applyCommands", request);
    expect(second.sequence).toBe(first.sequence);
  });

  test("a sender with an old base gets what came in between, and its own edit is kept", async () => {
    const { version } = await makeProcess();
    await send(version, { type: "describe", id: "check", text: "Guidance" });
    const answer = await run<{ since: { batch: string }[] }>("applyCommands", {
      version,
      batch: "late",
      base: 1,
      commands: [{ type: "rename", id: "check", name: "Late" }],
    });
    expect(answer.since).toHaveLength(2);
    expect(answer.since[1]?.batch).toBe("late");
    expect(await nameOfElement(version, "check")).toBe("Late");
  });

  test("a batch with one refused command changes nothing", async () => {
    const { version } = await makeProcess();
    await expect(
      send(version, { type: "rename", id: "check", name: "New" }, { type: "rename", id: "nobody", name: "x" }),
    ).rejects.toMatchObject({ code: "refused", status: 409 });
    expect(await nameOfElement(version, "check")).toBe("Check application");
  });

  test("what is no command is refused before anything is looked at", async () => {
    await expect(
      run("applyCommands", { version: "v", batch: "b", base: 0, commands: [{ type: "format-disk" }] }),
    ).rejects.toMatchObject({ code: "bad-input", status: 400 });
  });
});

describe("revisions", () => {
  test("a kept state is opened and put back; what was there before is kept too", async () => {
    await openWorkspace();
    const { version } = await makeProcess();
    await run("nameRevision", { version, reason: "first" });
    await send(version, { type: "rename", id: "check", name: "Changed" });
    await run("restoreRevision", { version, number: 1 });
    expect(await nameOfElement(version, "check")).toBe("Check application");
    const { revisions } = await run<{ revisions: { number: number; reason: string }[] }>("listRevisions", { version });
    expect(revisions.map(({ number, reason }) => [number, reason])).toEqual([
      [3, "revision 1 restored"],
      [2, "before restoring revision 1"],
      [1, "first"],
    ]);
  });
});

describe("the directory", () => {
  beforeEach(async () => {
    await openWorkspace();
  });

  test("a new name is the name in every head, and not in kept revisions", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "role-desk", kind: "role", name: "Front desk" });
    await send(version, {
      type: "assignRole",
      step: "check",
      role: { entry: "role-desk", name: "Front desk" },
      part: "responsible",
      id: "who",
    });
    await run("nameRevision", { version, reason: "before" });
    expect(await run("changeEntry", { id: "role-desk", name: "Service desk" })).toEqual({ versions: [version] });
    expect(await nameOfElement(version, "role-desk.role")).toBe("Service desk");
    const kept = await run<{ model: { elements: { id: string; name?: string }[] } }>("openRevision", {
      version,
      number: 1,
    });
    expect(kept.model.elements.find((element) => element.id === "role-desk.role")?.name).toBe("Front desk");
  });

  test("an entry in use is not deleted, and the uses are named", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "map", kind: "system", name: "Network map" });
    await send(version, {
      type: "useSystem",
      step: "check",
      system: { entry: "map", name: "Network map" },
      use: "reads",
    });
    await expect(run("deleteEntry", { id: "map" })).rejects.toMatchObject({
      code: "in-use",
      message: expect.stringContaining("Check application (Connect a plant)"),
    });
    expect(await run("whereUsed", { id: "map" })).toMatchObject({ uses: [{ element: "check", how: "reads" }] });
  });

  test("a name that differs only in case and blanks is the entry that is there", async () => {
    const first = await run<{ id: string }>("createEntry", { kind: "role", name: "Field crew" });
    expect(await run("createEntry", { kind: "role", name: "field  Crew" })).toMatchObject({
      id: first.id,
      existed: true,
    });
  });
});

describe("hand-off", () => {
  test("refused while an error is open, unless it is accepted; the same bytes again and again", async () => {
    await openWorkspace();
    const { version, diagram } = await makeProcess();
    await send(version, {
      type: "place",
      diagram,
      id: "start",
      kind: { type: "startEvent" },
      at: { x: 40, y: 100 },
      name: "Begun",
    });
    await expect(run("handOff", { version })).rejects.toMatchObject({ code: "errors-open" });
    await run("waive", { version, finding: "dead-element:check", reason: "To be drawn next week" });
    const { handoff, revision } = await run<{ handoff: string; revision: number }>("handOff", { version });
    const download = () =>
      runUseCase(localMember, fileUseCases.downloadPackage, { version: "v", handoff }) as Promise<{
        bytes: Uint8Array;
        name: string;
      }>;
    const first = await download();
    await send(version, { type: "rename", id: "check", name: "Changed since" });
    const sum = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
    expect(sum((await download()).bytes)).toBe(sum(first.bytes));
    expect(first.name).toBe(`connect-a-plant-revision-${revision}.zip`);
    const parts = unzipSync(first.bytes);
    expect(strFromU8(parts["report.html"] as Uint8Array)).toContain("To be drawn next week");
    expect(strFromU8(parts["model.bpmn"] as Uint8Array)).toContain('name="Check application"');
  });
});

describe("areas and files", () => {
  beforeEach(async () => {
    await openWorkspace();
  });

  test("what is deleted with an area comes back with it", async () => {
    await makeProcess();
    const { at } = await run<{ at: string }>("deleteArea", { id: "area" });
    expect(await run("openHome", {})).toMatchObject({ areas: [], processes: [] });
    await run("undelete", { at });
    expect(await run("openHome", {})).toMatchObject({ areas: [{ id: "area" }], processes: [{ id: "connect" }] });
  });

  test("an area cannot go into itself", async () => {
    await run("createArea", { id: "a", name: "A", parent: null });
    await run("createArea", { id: "b", name: "B", parent: "a" });
    await expect(run("moveArea", { id: "a", parent: "b" })).rejects.toMatchObject({ code: "area-in-itself" });
  });

  test("an unreadable file says where, and makes nothing", async () => {
    await run("createArea", { id: "a", name: "A", parent: null });
    const bytes = new TextEncoder().encode("<definitions>\n<broken");
    await expect(
      runUseCase(localMember, fileUseCases.importFile, { name: "x.bpmn", area: "a", bytes }),
    ).rejects.toMatchObject({
      code: "unreadable",
      message: expect.stringMatching(/^x\.bpmn \(line 1, column \d+\): /),
    });
    expect(await run("openHome", {})).toMatchObject({ processes: [] });
  });

  test("a to-be is a copy linked to its source", async () => {
    const { version } = await makeProcess();
    const made = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    const opened = await run<{ version: { source: string }; model: { elements: { id: string }[] } }>("openVersion", {
      version: made.version,
    });
    expect(opened.version.source).toBe(version);
    expect(JSON.stringify(opened.model.elements.find((element) => element.id === "check"))).toContain("counterpart");
  });
});

describe("backup", () => {
  test("restored elsewhere and backed up again it is the same bytes", async () => {
    await openWorkspace();
    const { version } = await makeProcess();
    await run("nameRevision", { version, reason: "first" });
    await run("handOff", { version });
    const make = async () => ((await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array }).bytes;
    const first = await make();
    await openWorkspace();
    await runUseCase(localMember, fileUseCases.restore, { bytes: first });
    expect(Buffer.from(await make()).equals(Buffer.from(first))).toBe(true);
    expect(await nameOfElement(version, "check")).toBe("Check application");
  });

  test("a file that is no backup changes nothing", async () => {
    await openWorkspace();
    await makeProcess();
    await expect(
      runUseCase(localMember, fileUseCases.restore, { bytes: new Uint8Array([1, 2, 3]) }),
    ).rejects.toMatchObject({ code: "not-a-backup" });
    expect(await nameOfElement("v", "check")).toBe("Check application");
  });
});

describe("the data folder", () => {
  test("a second process on it is refused", async () => {
    const folder = preparedFolder();
    const child = startEditing(folder);
    await child.acknowledged(1);
    await closeWorkspace();
    await expect(openDatabase({ folder })).rejects.toBeInstanceOf(FolderInUse);
    await child.kill();
  }, 180_000);

  test("killed in the middle of editing, every acknowledged edit is there afterwards", async () => {
    const folder = preparedFolder();
    {
      const child = startEditing(folder);
      await child.acknowledged(45);
      const done = await child.kill();
      await openWorkspace(folder);
      for (const id of done) expect(await nameOfElement("edited-as-is", id)).toBe(id);
      const { model } = await run<{ model: unknown }>("openVersion", { version: "edited-as-is" });
      expect(model).toBeDefined();
    }
  }, 180_000);
});

function startEditing(folder: string) {
  const child = spawn(process.execPath, programOf("editForever"), {
    env: { ...process.env, LANE_DATA: folder, LANE_DEMO: "none" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  let text = "";
  let wake = () => {};
  child.stdout.on("data", (chunk: Buffer) => {
    text += chunk.toString();
    wake();
  });
  const lines = () => text.split("\n").slice(0, -1);
  return {
    acknowledged: async (count: number) => {
      while (lines().length < count)
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
    },
    kill: async () => {
      const gone = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGKILL");
      await gone;
      return lines();
    },
  };
}

test("a package's model is the model that was handed off", async () => {
  await openWorkspace();
  const { version } = await makeProcess();
  const { handoff } = await run<{ handoff: string }>("handOff", { version });
  const { bytes } = (await runUseCase(localMember, fileUseCases.downloadPackage, { version: "v", handoff })) as {
    bytes: Uint8Array;
  };
  const read = readBpmn(unzipSync(bytes)["model.bpmn"] as Uint8Array);
  expect(read.ok && read.value.elements.get("check")?.name).toBe("Check application");
});
