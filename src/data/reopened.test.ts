import { sql } from "drizzle-orm";
import { afterAll, expect, test, vi } from "vitest";
import { leaveWorkspace, makeProcess, nameOfElement, openWorkspace, preparedFolder } from "@/server/testing/workspace";
import { database } from "./database";
import { LocalDatabase } from "./local/client";

afterAll(leaveWorkspace);

test("a database whose thread has died is opened anew by whoever asks next, with all that was acknowledged", async () => {
  const opened = vi.spyOn(LocalDatabase, "open");
  await openWorkspace(preparedFolder());
  const { version } = await makeProcess();
  const { ended } = await database();
  const last = (await opened.mock.results.at(-1)?.value) as unknown as { thread: { terminate(): Promise<number> } };
  await last.thread.terminate();
  await ended;
  const { db } = await database();
  await db.execute(sql`select 1`);
  expect(await nameOfElement(version, "check")).toBe("Check application");
});
