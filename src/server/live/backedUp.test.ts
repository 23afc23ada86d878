import { afterAll, beforeEach, expect, test } from "vitest";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

test("a backup holds runs, their cases and keys, and is restored to the same", async () => {
  const model = modelOf(file(processOf(start + task("first") + end + chain("s", "first", "e"))));
  const version = await importModel("Process", model);
  await run("startRun", { version, run: "r", name: "Trial", pace: 0 });
  await run("beginLiveCase", { version, run: "r", act: "b", values: { order: 7 } });
  await run("makeKey", { id: "portal", name: "Portal" });
  const asked = { version, run: "r", number: 1 };
  const before = await run("openCase", asked);
  const { bytes } = (await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array };
  await runUseCase(localMember, fileUseCases.restore, { bytes });
  expect(await run("openCase", asked)).toEqual(before);
});
