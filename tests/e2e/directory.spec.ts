import { roleOfLane } from "../../src/core/directory";
import type { Element } from "../../src/core/model";
import { performAll, smallModel } from "../../src/core/testing/models";
import { findAnything, importSmall, stored } from "./storedModel";
import { expect, test } from "./test";

test("a role has people and cost; two spellings become one everywhere; the directory goes out and comes in as a file", async ({
  page,
}) => {
  await page.goto("/directory");
  const main = page.locator("#content");
  await main.getByRole("button", { name: /^Front desk/ }).click();
  await page.getByLabel("People").fill("4,5");
  await page.getByLabel("People").press("Enter");
  await page.getByLabel("Hours per week").fill("200");
  await expect(page.getByText("A number from 0 to 168.")).toBeVisible();
  await page.getByLabel("Hours per week").press("Escape");

  // A second spelling, used by a process.
  const made = (await (
    await page.request.post("/api/do/createEntry", { data: { kind: "role", name: "Network enigneers" } })
  ).json()) as { id: string };
  const model = performAll(smallModel(), {
    type: "tieLane",
    lane: "engineer",
    role: { entry: made.id, name: "Network enigneers" },
  });
  const version = await importSmall(page, "Two spellings", model);
  await page.reload();
  const note = page.getByRole("region", { name: "Two spellings of one thing?" });
  await expect(note).toContainText("Network engineer and Network enigneers");
  await main.getByRole("button", { name: /^Network enigneers/ }).click();
  await page.getByRole("button", { name: "Delete" }).click();
  await expect(page.getByText(/This entry is used in 1 place: Network enigneers/)).toBeVisible();
  await note.getByRole("button", { name: "Keep Network engineer", exact: true }).click();
  await expect(page.getByText(/Network enigneers is Network engineer now, in 1 version too/)).toBeVisible();
  await expect(note).toHaveCount(0);
  await page.goto(`/v/${version}/diagram`);
  const now = await stored(page, version);
  expect(roleOfLane(now, now.elements.get("engineer") as Element)).toEqual({
    name: "Network engineer",
    entry: "role-network-engineer",
  });

  // Out, and in again with one more and a change.
  const csv = await (await page.request.get("/api/directory?format=csv")).text();
  expect(csv).toContain("role,Front desk,");
  expect(csv).toContain(",Customer office,#3B7BB5,4.5,38,38");
  await page.goto("/directory");
  await page.getByLabel("Import from CSV or JSON …").setInputFiles({
    name: "roles.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("Kind,Name,Headcount,Part of\r\nrole,Meter reader,2,Accounts\r\nrole,Billing,3,\r\n"),
  });
  await expect(page.getByText("1 new, 1 known already and brought up to date.")).toBeVisible();
  await page.getByRole("button", { name: /^Organisation units/ }).click();
  const tree = page.getByRole("tree", { name: "Organisation units" });
  await expect(tree.getByRole("treeitem", { name: /Meter reader/ })).toHaveAttribute("aria-level", "3");
  await expect(tree.getByRole("treeitem", { name: /^Accounts/ })).toContainText("5 people");
  await page.getByLabel("Import from CSV or JSON …").setInputFiles({
    name: "bad.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("Kind,Name,Headcount\r\nrole,Clerk,many\r\n"),
  });
  await expect(page.getByText(/Row 2: headcount.*Nothing was taken over/)).toBeVisible();
});

test("elements are found in all processes by word, type, role and system; the map shows who calls whom", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Rooftop solar connection" })).toBeVisible();
  await findAnything(page);
  await page.keyboard.type("breaker");
  await page.getByRole("option", { name: /Find “breaker” in all processes/ }).click();
  await expect(page).toHaveURL(/\/find\?text=breaker/);
  const rows = page.locator("tbody tr");
  await expect(rows.filter({ hasText: "Open the breaker" })).toHaveCount(1);
  await page.getByLabel("Words in a name, instruction, condition …").fill("");
  await page.getByLabel("Role", { exact: true }).selectOption({ label: "Field crew" });
  await page.getByLabel("Type", { exact: true }).selectOption("call activity");
  await expect(rows.filter({ hasText: "Switch on and verify" }).first()).toBeVisible();
  await expect(rows.filter({ hasText: "user task" })).toHaveCount(0);
  await rows.first().getByRole("link").click();
  await expect(page.getByTestId("tray")).toContainText("Call activity");

  await page.goto("/");
  await expect(page.getByRole("img", { name: "Rooftop solar connection calls Switch on and verify" })).toBeAttached();
  await page.getByRole("link", { name: "Switch on and verify" }).click();
  await expect(page.getByTestId("canvas")).toBeFocused();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "About the process" }).click();
  // The other side of the call knows who calls.
  await expect(page.getByTestId("tray")).toContainText("Called from");
  await page
    .getByTestId("tray")
    .getByRole("link", { name: /Rooftop solar connection, As-is/ })
    .click();
  await expect(page).toHaveURL(/solar-connection-as-is\/diagram\?element=/);
});
