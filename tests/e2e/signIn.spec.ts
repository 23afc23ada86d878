import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { firstPort } from "./test";

/** A server of its own, to which members sign in. */
let server: ChildProcess;
let folder = "";
let code = "";
const port = firstPort + 20;
const address = `http://localhost:${port}`;

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "lane-sign-in-"));
  server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", String(port)], {
    env: { ...process.env, LANE_SIGN_IN: "on", LANE_DATA: folder, NEXT_TELEMETRY_DISABLED: "1" },
    stdio: ["ignore", "ignore", "pipe"],
  });
  server.stderr?.on("data", (said) => {
    code = /the code is (\S+)/.exec(String(said))?.[1] ?? code;
  });
  const answers = async () => (await fetch(`${address}/api/session`).catch(() => undefined))?.status;
  // A workspace is made before the first answer.
  await expect.poll(answers, { timeout: 240_000 }).toBe(200);
  await expect.poll(() => code).not.toBe("");
});
test.afterAll(async () => {
  server.kill("SIGKILL");
  rmSync(folder, { recursive: true, force: true });
});

/** Rows of a spreadsheet, pasted into the step sheet. */
const paste = (page: Page, text: string) =>
  page.getByTestId("step-sheet").evaluate((sheet, pasted) => {
    const data = new DataTransfer();
    data.setData("text/plain", pasted);
    sheet.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);

test("somebody owns the workspace, another comes in by a link, reads, may more in one area, and loses nothing when the session ends", async ({
  browser,
}) => {
  const owner = await (await browser.newContext()).newPage();
  await owner.goto(`${address}/directory`);
  await expect(owner).toHaveURL(/\/sign-in\?to=%2Fdirectory$/);
  await owner.getByLabel("Code").fill(code);
  await owner.getByLabel("Your name").fill("Ines Orr");
  await owner.getByLabel("E-mail").fill("ines@quillmere.example");
  await owner.getByLabel("Password").fill("under the north meter");
  await owner.getByRole("button", { name: "Own it" }).click();
  await owner.getByRole("button", { name: "New process" }).click();
  await owner.getByLabel("Name").fill("Solar connection");
  await owner.getByRole("dialog").getByRole("button", { name: "New process" }).click();
  await expect(owner).toHaveURL(/\/v\//);
  const process = new URL(owner.url()).pathname.replace(/\/[^/]+$/, "");

  await owner.goto(`${address}/members`);
  await owner.getByRole("button", { name: "Add a member" }).click();
  await owner.getByLabel("Name").fill("Tilda Quist");
  await owner.getByLabel("E-mail, to sign in with").fill("tilda@quillmere.example");
  await owner.getByLabel("Seat").selectOption("reader");
  await owner.getByRole("button", { name: "Save" }).click();
  await owner.getByRole("button", { name: "Make Tilda Quist a link to set a password" }).click();
  const link = (await owner.locator("code").textContent()) ?? "";

  const reader = await (await browser.newContext()).newPage();
  await reader.goto(link);
  await reader.getByLabel("Password").fill("four legs and a ladder");
  await reader.getByRole("button", { name: "Set it and sign in" }).click();
  await expect(reader.getByRole("link", { name: "Solar connection" }).first()).toBeVisible();
  await expect(reader.getByRole("button", { name: "New process" })).toHaveCount(0);
  await reader.goto(`${address}${process}/steps`);
  await expect(reader.getByTestId("reads-only")).toBeVisible();
  await paste(reader, "Check application");
  await expect(reader.getByText("You may look at this, not change it.").first()).toBeVisible();

  // More in the area that the process is in.
  await owner.getByRole("button", { name: "Change Tilda Quist" }).click();
  await owner.getByLabel("Add an area").selectOption({ index: 1 });
  await owner.getByRole("button", { name: "Save" }).click();
  await expect(owner.getByText(/^Analyst in/)).toBeVisible();
  await reader.reload();
  await expect(reader.getByTestId("saved-state")).toHaveText("Saved");
  await paste(reader, "Check application");
  await expect(reader.getByTestId("saved-state")).toHaveText("Saved");

  // The session is ended while something is written: it is saved in the next one.
  await owner.getByRole("button", { name: "End all sessions of Tilda Quist" }).click();
  await expect
    .poll(async () => reader.evaluate(() => fetch("/api/session").then((answer) => answer.json())))
    .toMatchObject({ member: null });
  await paste(reader, "Answer household");
  const door = reader.getByTestId("signed-out");
  await door.getByLabel("E-mail").fill("tilda@quillmere.example");
  await door.getByLabel("Password").fill("four legs and a ladder");
  await door.getByRole("button", { name: "Sign in" }).click();
  await expect(door).toHaveCount(0);
  await expect(reader.getByTestId("saved-state")).toHaveText("Saved");
  await reader.reload();
  await expect(reader.getByTestId("step-sheet")).toContainText("Answer household");

  await owner.getByRole("radio", { name: "What was done" }).click();
  const did = owner.getByTestId("audit-rows");
  await expect(did.getByRole("row", { name: /Tilda Quist changed the model Solar connection, As-is/ })).toHaveCount(2);
  await expect(did.getByRole("row", { name: /Ines Orr ended a member's sessions Tilda Quist/ })).toBeVisible();
});
