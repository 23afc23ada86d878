import { readFileSync } from "node:fs";
import { strFromU8, unzipSync } from "fflate";
import { expect, type Page, test } from "./test";

const file = "tests/e2e/files/inverter-check.bpmn";
const figure = (page: Page, id: string) => page.locator(`[data-canvas] [data-id="${id}"]`).locator("rect").last();
const saved = (page: Page) => expect(page.getByTestId("saved-state")).toHaveText("Saved");

/** Picks an entry in the tray as a person does: type a part of its name, Enter. */
async function pick(page: Page, label: string, typed: string) {
  await page.getByRole("button", { name: label }).click();
  await page.getByRole("combobox", { name: label }).fill(typed);
  await page.keyboard.press("Enter");
}

test("a file from elsewhere becomes a checked, improved, handed-off process", async ({ page }) => {
  // Open the file.
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles(file);
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  await expect(page.locator('[data-canvas] [data-id="record"]')).toHaveAttribute(
    "aria-label",
    "Record the fault, user task",
  );
  const asIs = new URL(page.url()).pathname.split("/")[2] as string;

  // Edit it: a step behind another, named where it stands.
  await figure(page, "record").click();
  await page.getByRole("button", { name: "Task T", exact: false }).first().click();
  await page.getByTestId("name-editor").fill("Look up the plant");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("img", { name: "Look up the plant, task" })).toBeVisible();
  await saved(page);

  // Roles and systems.
  await figure(page, "record").click();
  await expect(page.getByTestId("tray")).toContainText("from its lane");
  await pick(page, "Systems: add", "case");
  await expect(page.getByTestId("tray")).toContainText("Case register");
  await pick(page, "Consulted: add", "network eng");
  await expect(page.getByTestId("tray")).toContainText("Network engineer");
  await pick(page, "Systems: add", "Fault archive");
  await expect(page.getByTestId("tray")).toContainText("Fault archive");
  await saved(page);

  // Mend what the check finds.
  await page.getByRole("link", { name: /^Check/ }).click();
  await expect(page.getByTestId("verdict")).toContainText("to mend");
  await page.getByRole("button", { name: "Call it “Urgent?”" }).click();
  await expect(page.locator('[data-rule="decision-not-a-question"]')).toHaveCount(0);
  await page.locator('[data-rule="no-way-in"]').getByRole("button", { name: "Delete this element" }).click();
  await expect(page.locator('[data-rule="no-way-in"]')).toHaveCount(0);
  for (
    let left = 6;
    left > 0 && (await page.locator("li[data-rule]").filter({ hasText: "Error" }).count()) > 0;
    left--
  ) {
    await page.locator("li[data-rule]").filter({ hasText: "Error" }).first().getByRole("button").nth(1).click();
  }
  await expect(page.getByTestId("verdict")).toContainText("No error is open");
  await saved(page);

  // Improve it: one step into another lane.
  await page.getByRole("button", { name: "As-is" }).click();
  await page.getByRole("menuitem", { name: "Start a to-be" }).click();
  await page.getByLabel("Name", { exact: true }).last().fill("To-be: desk looks first");
  await page.getByLabel("Aim").fill("No crew goes out for what the desk can tell.");
  await page.getByRole("button", { name: "Start a to-be" }).click();
  await expect(page.getByRole("button", { name: "To-be: desk looks first" })).toBeVisible();
  await figure(page, "visit").click();
  await page.keyboard.press("Control+ArrowUp");
  await expect(page.getByTestId("tray")).toContainText("Front desk");
  await saved(page);

  // The change list says so, and leads to both sides.
  await page.getByRole("link", { name: /^Compare/ }).click();
  await expect(page.getByText("Inspect the inverter moves from Field crew to Front desk.")).toBeVisible();
  await expect(page.locator('[data-change="moved"]')).toHaveCount(1);
  await page.getByText("Inspect the inverter moves from Field crew to Front desk.").click();
  await page.getByRole("button", { name: "Open in To-be: desk looks first" }).click();
  await expect(page).toHaveURL(/element=visit/);
  await expect(page.getByTestId("tray").getByLabel("Name", { exact: true })).toHaveValue("Inspect the inverter");

  // Hand it off, and read the package again: the same model.
  await page.getByRole("link", { name: /^Hand-off/ }).click();
  await page.getByRole("button", { name: "Hand off the present state" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download" }).first().click(),
  ]);
  const parts = unzipSync(readFileSync(await download.path()));
  const model = strFromU8(parts["model.bpmn"] as Uint8Array);
  expect(model).toContain('dev:form="fault-form"');
  expect(model).toContain('name="Look up the plant"');
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles({
    name: "again.bpmn",
    mimeType: "application/xml",
    buffer: Buffer.from(parts["model.bpmn"] as Uint8Array),
  });
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  await expect(page.locator('[data-canvas] [data-id="visit"]')).toHaveAttribute(
    "aria-label",
    "Inspect the inverter, manual task",
  );
  const again = await page.request.get(`/api/export?version=${new URL(page.url()).pathname.split("/")[2]}&format=bpmn`);
  expect(await again.text()).toBe(model);
  expect(asIs).not.toBe("");
});

test("edits that were not acknowledged survive in the browser and are sent when the server answers again", async ({
  page,
}) => {
  await page.goto("/v/complaint-as-is/diagram");
  await figure(page, "record").click();
  await page.route("**/api/do/applyCommands", (route) => route.abort());
  await page.keyboard.press("F2");
  await page.getByTestId("name-editor").fill("Record every complaint");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toContainText("Not saved yet");
  await page.unroute("**/api/do/applyCommands");
  await page.reload();
  await expect(page.getByRole("img", { name: "Record every complaint, user task" })).toBeAttached();
  await saved(page);
  await page.getByRole("link", { name: /^Check/ }).click();
  const answer = await page.request.post("/api/do/openVersion", { data: { version: "complaint-as-is" } });
  expect(JSON.stringify(await answer.json())).toContain("Record every complaint");
});

test("undo and redo take back and bring again, across lanes and deletions", async ({ page }) => {
  await page.goto("/v/switch-on-as-is/diagram");
  const node = page.getByRole("img", { name: "Watch the feed-in, user task" });
  await expect(node).toBeAttached();
  await figure(page, "watch-feed-in").click();
  await page.keyboard.press("Delete");
  await expect(node).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(node).toBeAttached();
  await page.keyboard.press("Control+y");
  await expect(node).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(node).toBeAttached();
  await saved(page);
});

test("a step is dragged into another lane, a flow pulled from its stub, a kind dropped on a flow", async ({ page }) => {
  await page.goto("/v/meter-reading-as-is/diagram");
  const store = figure(page, "store");
  await store.click();
  // Pull the stub onto empty ground: the next task comes there.
  const stub = await page.getByTestId("connect-stub").boundingBox();
  if (!stub) throw new Error("no stub");
  await page.mouse.move(stub.x + stub.width - 6, stub.y + stub.height / 2);
  await page.mouse.down();
  const from = await store.boundingBox();
  if (!from) throw new Error("not drawn");
  await page.mouse.move(from.x + 20, from.y + from.height + 60, { steps: 6 });
  await page.mouse.up();
  await page.getByTestId("name-editor").fill("Tell the network engineer");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("img", { name: "Tell the network engineer, task" })).toBeVisible();
  // Drag a kind from the strip onto a flow.
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("tray")).toHaveCount(0);
  const strip = await page.getByRole("toolbar").getByRole("button", { name: /^Task/ }).boundingBox();
  const a = await figure(page, "list-meters").boundingBox();
  const b = await figure(page, "read-meter").boundingBox();
  if (!strip || !a || !b) throw new Error("not drawn");
  await page.mouse.move(strip.x + 20, strip.y + 10);
  await page.mouse.down();
  await page.mouse.move(strip.x + 40, strip.y - 40, { steps: 4 });
  await page.mouse.move((a.x + a.width + b.x) / 2, a.y + a.height / 2, { steps: 6 });
  await page.mouse.up();
  await page.getByTestId("name-editor").fill("Sort the list");
  await page.keyboard.press("Enter");
  const sort = page.getByRole("img", { name: "Sort the list, task" });
  await expect(sort).toBeVisible();
  await expect(page.getByTestId("tray")).toContainText("List the meters due");
  await expect(page.getByTestId("tray")).toContainText("Read one meter");
  await saved(page);
});
