import { afterAll, expect, test } from "vitest";
import { UseCaseError } from "@/server";
import { hostileInputs } from "../testing/fuzz";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

test("whatever is sent is answered, or refused in words; what others have stays as it is", async () => {
  await openWorkspace();
  const { version } = await makeProcess();
  await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
  await run("nameRevision", { version, reason: "first" });
  const failed: string[] = [];
  let tries = 0;
  for (const { name, input } of hostileInputs()) {
    tries++;
    await run(name, input).catch((error: unknown) => {
      const isTold = error instanceof UseCaseError && error.status < 500;
      if (!isTold) failed.push(`${name} ${JSON.stringify(input)?.slice(0, 200)}: ${String(error).slice(0, 200)}`);
    });
  }
  expect(failed.slice(0, 10)).toEqual([]);
  expect(tries).toBeGreaterThan(4_000);
  await run("openHome", {});
  await run("createProcess", { name: "After", area: "area", processId: "after", versionId: "after-v" }).catch(
    async () => {
      await run("createArea", { id: "area-2", name: "Another", parent: null });
      await run("createProcess", { name: "After", area: "area-2", processId: "after", versionId: "after-v" });
    },
  );
  await send("after-v", { type: "setField", id: "process", field: "name", value: "x" }).catch(() => {});
  await run("openVersion", { version: "after-v" });
}, 300_000);

test.each([
  ["a NUL", "a\u0000b", "a NUL character"],
  ["half of a character", "\ud83d", "half of a character"],
])("%s in a name is refused at the door, with its place", async (_, name, what) => {
  await openWorkspace();
  const { version } = await makeProcess();
  await expect(send(version, { type: "rename", id: "check", name })).rejects.toMatchObject({
    code: "unstorable-text",
    status: 400,
    message: expect.stringContaining(`${what} in commands[0].name`),
  });
});

test("long names and notes are kept; lists show as much of them as fits", async () => {
  await openWorkspace();
  const { version } = await makeProcess();
  const long = "Check the application and everything that came with it. ".repeat(30).trim();
  await send(version, { type: "rename", id: "check", name: long });
  const { changes } = await run<{ changes: { label: string }[] }>("listHistory", { version, after: 0, upTo: 99 });
  expect(changes[0]?.label.length).toBeLessThanOrEqual(200);
  await run("applyCommands", {
    version,
    batch: "long",
    base: 2,
    label: `rename to ${long}`,
    commands: [{ type: "rename", id: "check", name: `${long} Again.` }],
  });
});
