import { readFileSync } from "node:fs";
import { expect, type Page, test } from "./test";

const saved = (page: Page) => expect(page.getByText("Saved", { exact: true }).first()).toBeVisible();
const cell = (page: Page, rule: number, column: number) =>
  page.locator(`[data-rule="${rule - 1}"][data-column="${column - 1}"]`);
const proof = (page: Page) => page.getByRole("region", { name: "What is proven" });
const cases = (page: Page) => page.getByRole("region", { name: "Test cases" });

/** Writes rules from a cell on, as one types them: Tab for the next cell, Enter for the next rule. */
async function writeRule(page: Page, rule: number, words: readonly string[]): Promise<void> {
  await cell(page, rule, 1).click();
  for (const [at, word] of words.entries()) {
    await page.keyboard.press("F2");
    await page.locator("[data-rule] input").fill(word);
    await page.keyboard.press(at === words.length - 1 ? "Enter" : "Tab");
  }
}

test("a table is typed from nothing, proven, closed by the proposal, tested, and goes out and comes back", async ({
  page,
}) => {
  const name = `Fees ${Date.now()}`;
  await page.goto("/decisions");
  await page.getByRole("textbox", { name: "Name of the new file" }).fill(name);
  await page.getByRole("button", { name: "New file" }).click();
  await expect(page).toHaveURL(/\/decisions\/.+/);
  await page.getByRole("button", { name: "+ Decision by table" }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("connection fee");
  await page.getByRole("button", { name: "add", exact: true }).click();

  // Two inputs, typed: what nobody knows becomes an input of the file.
  for (const [at, heading, type, allowed] of [
    [1, "rated power", "number", ""],
    [2, "roof", "text", "flat, pitched"],
  ] as const) {
    await page.getByRole("button", { name: "+ Input column" }).click();
    await page.getByRole("textbox", { name: `Input ${at}: what is asked` }).fill(heading);
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: `Column: ${heading}`, exact: true }).click();
    await page.getByRole("combobox", { name: `Type: ${heading}` }).selectOption({ label: type });
    if (allowed) {
      await page.getByRole("textbox", { name: `Allowed values: ${heading}` }).fill(allowed);
      await page.keyboard.press("Enter");
    }
    await page.getByRole("button", { name: `Column: ${heading}`, exact: true }).click();
  }
  await expect(page.getByTestId("requirements")).toContainText("rated power");

  // Three rules in plain words: rules 1 and 2 meet and say different things, and a corner is left open.
  await writeRule(page, 1, ["up to 10", "any", "small"]);
  await writeRule(page, 2, ["from 10 to under 30", "flat", "middle"]);
  await writeRule(page, 3, ["at least 30", "any", "large"]);
  await expect(cell(page, 2, 1)).toHaveText("from 10 to under 30");
  await expect(proof(page)).toContainText("Rules 1 and 2 both take");
  await expect(proof(page)).toContainText("and say different things");
  await expect(proof(page)).toContainText("rated power over 10 to under 30, roof pitched");
  await expect(proof(page)).toContainText(/rated power 20/);

  // The conflict is mended in its cell, the gap by what is proposed.
  await cell(page, 1, 1).click();
  await page.keyboard.press("F2");
  await page.locator("[data-rule] input").fill("under 10");
  await page.keyboard.press("Enter");
  await expect(proof(page)).not.toContainText("both take");
  await proof(page).getByRole("button", { name: "Add the missing rule" }).click();
  await expect(proof(page)).toContainText("Every allowed input has a rule");
  await expect(page.getByTestId("missing-rule")).toHaveCount(0);
  const last = (await page.locator("[data-rule]").count()) / 3 - 1;
  await cell(page, last, 3).click();
  await page.keyboard.type("middle");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Enter");
  await page.locator("[data-rule] input").fill("steep");
  await page.keyboard.press("Enter");

  // What if, kept as a test case; a change breaks it, and it says why.
  const inputs = page.getByRole("region", { name: "What if" });
  await inputs.getByRole("textbox", { name: "rated power" }).fill("12");
  await inputs.getByRole("textbox", { name: "roof" }).fill("flat");
  await expect(page.getByTestId("tried")).toContainText("middle by rule 2");
  await inputs.getByRole("button", { name: "Keep as a test case" }).click();
  await expect(cases(page).getByText("✓")).toBeVisible();
  await cell(page, 2, 3).click();
  await page.keyboard.press("F2");
  await page.locator("[data-rule] input").fill("dear");
  await page.keyboard.press("Enter");
  await expect(cases(page)).toContainText("comes to dear by rule 2");
  // Taken back, it holds again.
  await page.locator("body").press("Control+z");
  await expect(cases(page).getByText("✓")).toBeVisible();
  await saved(page);

  // The file leaves as DMN and comes back as another one, with the same table.
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "DMN file" }).click();
  const path = await (await download).path();
  expect(readFileSync(path, "utf8")).toContain("https://www.omg.org/spec/DMN/");
  await page.goto("/decisions");
  await page
    .getByTestId("decision-file")
    .setInputFiles({ name: `Back ${name}.dmn`, mimeType: "application/xml", buffer: readFileSync(path) });
  await page.getByRole("link", { name: `Back ${name}` }).click();
  await expect(cell(page, 2, 1)).toHaveText("from 10 to under 30");
  await expect(cases(page).getByText("✓")).toBeVisible();
});

test("data comes from an example, a form from the data; a field is moved, and shown only when", async ({ page }) => {
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles("tests/e2e/files/inverter-check.bpmn");
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  const version = new URL(page.url()).pathname.split("/")[2] as string;
  await page.goto(`/v/${version}/steps?part=data`);
  await page.getByRole("button", { name: "From an example…" }).click();
  await page.getByRole("textbox", { name: "What it is called" }).fill("inverter");
  await page
    .getByRole("textbox", { name: /^JSON, or lines/ })
    .fill(
      '[{"maker": "Sunfold", "rated power": 8, "installed on": "2027-03-01"}, {"maker": "Helio", "rated power": 5}]',
    );
  await expect(page.getByRole("status").last()).toContainText("Makes 3 fields");
  await page.getByRole("button", { name: "Make the data" }).click();
  await expect(page.getByRole("textbox", { name: "Name of inverter.rated power" })).toHaveValue("rated power");
  await expect(page.getByRole("combobox", { name: "Kind: inverter.installed on" })).toHaveValue("date");
  // A part is renamed by keyboard, and stays where it stood.
  await page.getByRole("textbox", { name: "Name of inverter.maker" }).fill("made by");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Name of inverter.made by" })).toBeVisible();

  await page.getByRole("radio", { name: "Forms" }).click();
  await page.getByRole("list", { name: "Steps that are filled in" }).getByRole("button").first().click();
  await page.getByRole("button", { name: "Make it from the data" }).click();
  const items = page.getByTestId("form-items").locator("li");
  await expect(items).toHaveCount(3);
  await items.filter({ hasText: "Installed on" }).locator("[data-form-item]").press("Alt+ArrowUp");
  await expect(items.nth(1)).toContainText("Installed on");
  await items.nth(1).locator("[data-form-item]").click();
  await page.getByRole("textbox", { name: "Shown when: inverter.installed on" }).fill("inverter.rated power > 20");
  await page.keyboard.press("Enter");
  const preview = page.getByRole("region", { name: "As it will look" });
  await expect(preview.getByLabel("Made by")).toBeVisible();
  await expect(preview.getByLabel("Installed on")).toHaveCount(0);
  await preview.getByLabel("Rated power").fill("25");
  await expect(preview.getByLabel("Installed on")).toBeVisible();
  await preview.getByLabel("Rated power").fill("much");
  await preview.getByRole("button", { name: "Complete" }).click();
  await expect(preview.getByRole("alert").first()).toContainText("A number is asked for here");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await page.reload();
  await expect(items.nth(1)).toContainText("shown when inverter.rated power > 20");
});

test("a walk asks by form and follows the table; another table, another way", async ({ page }) => {
  await page.goto("/v/plant-inspection-as-is/walk");
  await expect(page.getByRole("button", { name: /^Step/ })).toBeEnabled();
  await page.getByRole("button", { name: /^Step/ }).click();
  const form = page.getByTestId("walk-form");
  await expect(form).toContainText("Record the plant");
  await form.getByLabel("Rated power").fill("8");
  await form.getByLabel("Distance to the transformer in m").fill("400");
  await form.getByLabel("Roof").selectOption("flat");
  await form.getByLabel("Installer certified").selectOption("no");
  await page.getByRole("heading", { name: "What happened" }).click();
  const log = page.getByTestId("walk-log");
  for (const name of ["Record the plant", "Choose the inspection", "Which inspection?", "Look at the photos"]) {
    await page.keyboard.press("ArrowRight");
    await expect(log).toContainText(name);
  }
  await expect(log).toContainText("by photo (rule 2)");
  await expect(log).toContainText("Look at the photos");
});
