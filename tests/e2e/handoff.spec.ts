import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, type Page, test } from "./test";

const file = "tests/e2e/files/inverter-check.bpmn";
const builds = (page: Page) => page.getByTestId("build-copy");
const state = (page: Page) => builds(page).getByTestId("build-state");
const saved = (page: Page) => expect(page.getByTestId("saved-state")).toHaveText("Saved");
const press = (page: Page, name: string | RegExp) => builds(page).getByRole("button", { name }).click();

test("a model goes to developers and back for rounds, and nothing of either side is lost", async ({ page }, {
  parallelIndex,
}) => {
  const repository = join("test-results", `data-${parallelIndex}`, "developers.git");
  // A file is tied once: each attempt has a branch of its own.
  const branch = `lucid-lane/inverter-check-${Date.now()}`;
  const inRepository = () =>
    execFileSync("git", ["-C", repository, "show", `${branch}:processes/inverter-check-as-is.bpmn`], {
      encoding: "utf8",
    });

  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles(file);
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  const version = new URL(page.url()).pathname.split("/")[2] as string;
  const toBuilds = async () => {
    await page.getByRole("link", { name: /^Hand-off/ }).click();
    await page.getByRole("radio", { name: "Build copies" }).click();
  };
  const toDiagram = async () => {
    await page.getByRole("link", { name: /^Diagram/ }).click();
    await expect(page.locator('[data-canvas] [data-id="record"]')).toBeVisible();
  };
  const rename = async (from: string, to: string) => {
    await toDiagram();
    await page.getByRole("img", { name: from }).first().click();
    await page.keyboard.press("F2");
    await page.getByTestId("name-editor").fill(to);
    await page.keyboard.press("Enter");
    await saved(page);
    await toBuilds();
  };

  // Only a checked model leaves: what is wrong is mended first.
  await page.getByRole("link", { name: /^Check/ }).click();
  await page.locator('[data-rule="no-way-in"]').getByRole("button", { name: "Delete this element" }).click();
  await expect(page.locator('[data-rule="no-way-in"]')).toHaveCount(0);
  const errors = page.locator("li[data-rule]").filter({ hasText: "Error" });
  for (let left = 6; left > 0 && (await errors.count()) > 0; left--)
    await errors.first().getByRole("button").nth(1).click();
  await expect(page.getByTestId("verdict")).toContainText("No error is open");
  await saved(page);

  // Tie, and send: the file is there on a branch of its own.
  await toBuilds();
  await page.getByRole("button", { name: /^Tie to a developers/ }).click();
  await page.getByLabel("Path of the file").fill("processes/inverter-check-as-is.bpmn");
  await page.getByLabel("Branch", { exact: true }).fill(branch);
  await page.getByRole("button", { name: "Tie", exact: true }).click();
  await expect(state(page)).toHaveText("Not sent yet");
  await press(page, "Send what changed");
  await expect(state(page)).toHaveText("In step");

  // The developer works; the analyst sees it, takes one change over, and then all.
  await press(page, "Ask the developer to work");
  await expect(state(page)).toHaveText("Build copy changed");
  const technical = [...inRepository().matchAll(/rig:\w+="[^"]*"/g)].map(([found]) => found);
  expect(technical.length).toBeGreaterThan(3);
  await builds(page).getByRole("link", { name: "Look at both side by side" }).click();
  await expect(page.getByText(/Write audit record/).first()).toBeVisible();
  await page.goBack();
  await toBuilds();
  await press(page, /^Take over: Write audit record/);
  await expect(builds(page).getByRole("button", { name: /^Take over: Write audit record/ })).toHaveCount(0);
  await press(page, "Take all over");
  // What was taken over alone stands at another place here than there, which is sent back.
  await expect(state(page)).toHaveText("Model changed");
  await press(page, "Send what changed");
  await expect(state(page)).toHaveText("In step");

  // The analyst changes the model and sends again: what is technical is still there, and only that line differs.
  const before = inRepository();
  await rename("Record the fault, user task", "Note the fault");
  await expect(state(page)).toHaveText("Model changed");
  await press(page, "Send what changed");
  await expect(state(page)).toHaveText("In step");
  const after = inRepository();
  for (const mark of technical) expect(after).toContain(mark);
  const changed = after.split("\n").filter((line, at) => line !== before.split("\n")[at]);
  expect(changed).toHaveLength(1);
  expect(changed[0]).toContain("Note the fault");

  // Both change the same name: a person decides.
  await rename("Note the fault, user task", "Write the fault down");
  const work = test.info().outputPath("developer");
  const at = (...args: string[]) =>
    execFileSync("git", ["-C", work, "-c", "user.name=D", "-c", "user.email=d@d.invalid", ...args]);
  execFileSync("git", ["clone", "--quiet", "--branch", branch, repository, work]);
  execFileSync("sed", ["-i", "s/Note the fault/File the fault/", join(work, "processes/inverter-check-as-is.bpmn")]);
  at("commit", "--quiet", "-am", "another name");
  at("push", "--quiet");
  await press(page, "Look again");
  await expect(state(page)).toHaveText("Both changed");
  await expect(builds(page).getByRole("button", { name: "Take all over" })).toBeDisabled();
  await builds(page).getByRole("radio", { name: "The developers’" }).click();
  await press(page, "Take all over");
  await expect(state(page)).toHaveText("In step");
  await toDiagram();
  await expect(page.getByRole("img", { name: "File the fault, user task" })).toBeVisible();
  expect(version).not.toBe("");
});

test("what a machine needs is listed, and leads to the step", async ({ page }) => {
  await page.goto("/v/solar-connection-as-is/hand-off");
  await page.getByRole("radio", { name: "Ready for automation" }).click();
  await expect(page.getByTestId("ready-share")).toHaveText(/^\d+ %$/);
  await page.getByLabel("Role or pool").selectOption("Billing");
  const row = page.getByTestId("checklist").getByRole("row", { name: /Set feed-in tariff/ });
  await expect(row).toContainText("the operation it calls");
  await row.getByRole("link").click();
  await expect(page).toHaveURL(/\/diagram\?element=/);
});

test("a description is imported, a manual task becomes a service task bound to it, a newer one breaks it", async ({
  page,
}) => {
  const described = (parameters: string) => ({
    name: "meters.yaml",
    mimeType: "application/yaml",
    buffer: Buffer.from(
      `openapi: 3.1.0\ninfo: { title: Meter platform, version: "1" }\npaths:\n  /faults:\n    post:\n      operationId: recordFault\n      parameters: [${parameters}]\n      responses: { "200": { description: ok } }\n`,
    ),
  });
  const asked = (name: string) => `{ name: ${name}, in: query, required: true, schema: { type: string } }`;
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles(file);
  await expect(page.locator('[data-canvas] [data-id="record"]')).toBeVisible();
  const toServices = async () => {
    await page.getByRole("link", { name: /^Hand-off/ }).click();
    await page.getByRole("radio", { name: "Services" }).click();
  };

  // A lane is a candidate; a skeleton of it is given.
  await toServices();
  await page
    .getByTestId("candidates")
    .getByRole("button", { name: /^Keep .* as a candidate$/ })
    .first()
    .click();
  const kept = page.getByTestId("kept-candidate");
  await expect(kept).toContainText("recordTheFault");
  await page.getByRole("button", { name: /^Name \d+ by rule$/ }).click();
  await expect(kept.getByLabel("Name of recordTheFault")).toHaveValue("recordTheFault");
  await kept.getByRole("link", { name: "Record the fault" }).click();
  await expect(page).toHaveURL(/\/diagram\?element=record/);
  // And back, from the step.
  await page
    .getByTestId("tray")
    .getByRole("link", { name: /^recordTheFault of / })
    .click();
  await expect(kept).toBeVisible();
  // A second one, and they are weighed.
  await page.getByLabel("Derive a candidate from").selectOption({ label: "Record the fault" });
  await expect(page.getByTestId("weighing").getByRole("row")).toHaveCount(3);
  await expect(page.getByTestId("weighing-sentence")).not.toBeEmpty();
  const download = page.waitForEvent("download");
  await page
    .getByTestId("candidates")
    .getByRole("button", { name: /^OpenAPI skeleton/ })
    .first()
    .click();
  expect((await download).suggestedFilename()).toMatch(/\.json$/);

  // The task is done by a service from now on.
  await page.getByTestId("description-file").setInputFiles(described(asked("plant")));
  await expect(page.getByText("Meter platform: 1 operation")).toBeVisible();
  await page.getByRole("link", { name: /^Diagram/ }).click();
  await page.getByRole("img", { name: "Record the fault, user task" }).first().click();
  await page.getByLabel("Type", { exact: true }).selectOption({ label: "Service task" });
  await expect(page.getByRole("img", { name: "Record the fault, service task" })).toBeVisible();
  await saved(page);
  await toServices();
  await page.getByRole("button", { name: "Bind Record the fault to recordFault" }).click();
  await saved(page);
  await expect(page.getByRole("button", { name: "Operation of Record the fault: recordFault" })).toBeVisible();
  await page.getByRole("radio", { name: "Ready for automation" }).click();
  await page.getByLabel("Only what is missing").uncheck();
  await expect(page.getByTestId("checklist")).toContainText("recordFault of Meter platform");

  // Who calls whom shows the call, and is given as a file.
  await page.getByRole("radio", { name: "Who calls whom" }).click();
  await expect(page.getByTestId("sequence").getByRole("link", { name: "recordFault(plant)" })).toBeVisible();
  const picture = page.waitForEvent("download");
  await page.getByTestId("sequence").getByRole("button", { name: "SVG" }).click();
  expect((await picture).suggestedFilename()).toMatch(/sequence\.svg$/);

  // A newer description asks for more.
  await page.getByRole("radio", { name: "Services" }).click();
  await page.getByTestId("description-file").setInputFiles(described(`${asked("plant")}, ${asked("serial")}`));
  await expect(page.getByText("recordFault now asks for serial.")).toBeVisible();
});
