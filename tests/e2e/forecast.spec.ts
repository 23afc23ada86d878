import { readFile } from "node:fs/promises";
import { scenariosOf } from "../../src/core/scenario";
import { stored } from "./storedModel";
import { expect, test } from "./test";

async function copyOf(request: import("@playwright/test").APIRequestContext, process: string, name: string) {
  const answer = await request.post("/api/do/copyProcess", { data: { id: process, name, area: "area-on-site" } });
  expect(answer.ok()).toBe(true);
  return ((await answer.json()) as { version: string }).version;
}

test("the demo's forecast: the sentence, the bottleneck on the diagram, the to-be beside it, what if, how many people", async ({
  page,
}) => {
  await page.goto("/v/solar-connection-as-is/forecast");
  const sentence = page.getByTestId("forecast-sentence");
  await expect(sentence).toContainText(/9 of 10 cases are done within [\d.]+ days/);
  await expect(sentence).toContainText("Network engineer");
  await expect(page.getByTestId("forecast-against")).toContainText("A case takes, mean");
  await expect(page.getByTestId("forecast-against")).toContainText("-");
  // Another scenario of the same version.
  await page.getByLabel("Scenario", { exact: true }).selectOption({ label: "Spring rush" });
  await expect(page.getByText(/after Normal year, 1 changed/)).toBeVisible();
  // On the diagram.
  await page.keyboard.press("d");
  const drawn = page.getByTestId("forecast-page");
  await expect(drawn.locator("[data-means=forecastMost]")).toHaveCount(1);
  await page.keyboard.press("d");
  // What if.
  await page.keyboard.press("w");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Turn", { exact: true }).selectOption({ label: "Network engineer: how many" });
  await dialog.getByLabel("to", { exact: true }).fill("3");
  await dialog.getByRole("button", { name: "Look" }).click();
  await expect(dialog.getByRole("img").first()).toBeVisible({ timeout: 30_000 });
  // Two against each other, as a map.
  await dialog.getByLabel("And turn").selectOption({ label: "Front desk: how many" });
  await dialog.getByLabel("second to").fill("2");
  await dialog.getByRole("button", { name: "Look" }).click();
  await expect(dialog.getByRole("img", { name: /Network engineer, Front desk/ })).toBeVisible({ timeout: 60_000 });
  await dialog.getByRole("button", { name: "Which matters most" }).click();
  await expect(page.getByTestId("what-matters").locator("li").first()).toContainText("less:", { timeout: 60_000 });
  await page.keyboard.press("Escape");
  // How many people, searched and stopped.
  await page.keyboard.press("h");
  await dialog.getByLabel("are to be done within").fill("14 days");
  await dialog.getByRole("button", { name: "Search" }).click();
  await dialog.getByRole("button", { name: "Stop" }).click();
  await expect(dialog.getByRole("button", { name: "Search" })).toBeVisible();
  await dialog.getByRole("button", { name: "Search" }).click();
  await expect(page.getByTestId("staffings")).toContainText("%", { timeout: 60_000 });
});

test("a scenario from nothing by keyboard, run, and read again from the exported file", async ({ page, request }) => {
  const version = await copyOf(request, "switch-on", "Switch on, forecast");
  await page.goto(`/v/${version}/forecast`);
  const sheet = page.getByRole("group", { name: "Figures of the scenario" });
  const first = sheet.getByRole("textbox", { name: /^A case comes/ }).first();
  if (!(await sheet.isVisible())) await page.keyboard.press("f");
  await first.focus();
  await page.keyboard.type("4 a day");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  // Enter goes down a column.
  const times = sheet.getByRole("textbox", { name: /^Working time/ });
  await times.first().focus();
  const count = await times.count();
  expect(count).toBeGreaterThan(2);
  for (let at = 0; at < count; at++) {
    await expect(times.nth(at)).toBeFocused();
    await page.keyboard.press("Control+A");
    await page.keyboard.type(at === 0 ? "usually 20 min, 9 of 10 within 45 min" : "10 to 30 min");
    await page.keyboard.press("Enter");
  }
  await expect(page.getByTestId("forecast-sentence")).toContainText("9 of 10 cases are done within");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  const kept = scenariosOf(await stored(page, version))[0];
  const said = [...(kept?.of.values() ?? [])].flatMap(({ times: { processing } }) => processing?.[0]?.value.kind ?? []);
  expect(said).toContain("logNormal");
  expect(said.filter((kind) => kind === "uniform").length).toBe(count - 1);
  // The sheet goes out as a table and comes in again, with what was changed in it.
  await page.getByLabel("From CSV").setInputFiles({
    name: "figures.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("What,Working time\r\nWatch the feed-in,7 min\r\nNobody,1 min\r\n"),
  });
  await expect(sheet.getByRole("textbox", { name: "Working time: Watch the feed-in" })).toHaveValue("7 min");
  await expect(page.getByText(/Line 3: there is no row “Nobody”/)).toBeVisible();
  // The file holds it in the standard's form.
  const exported = await request.get(`/api/export?version=${version}`);
  const text = await exported.text();
  expect(text).toContain("bpsim:InterTriggerTimer");
  expect(text).toContain("bpsim:LogNormalDistribution");
});

test("pictures and tables leave as files: SVG in the colours that are seen, CSV", async ({ page }) => {
  await page.goto("/v/solar-connection-as-is/forecast");
  const panel = page.getByRole("region", { name: "Some cases, from their beginning on" });
  await expect(panel.getByRole("img").first()).toBeVisible();
  const saved = async (button: string) => {
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      panel.getByRole("button", { name: button }).click(),
    ]);
    return { name: file.suggestedFilename(), text: await readFile(await file.path(), "utf8") };
  };
  const picture = await saved("SVG");
  expect(picture.name).toBe("some-cases-from-their-beginning-on.svg");
  expect(picture.text).toMatch(/^<svg[^>]+xmlns="http:\/\/www.w3.org\/2000\/svg"/);
  expect(picture.text).not.toContain("var(--");
  expect(picture.text).toContain("Case ");
  const table = await saved("CSV");
  expect(table.text.split("\n")[0]).toContain("Case,Step");
  await panel.getByRole("button", { name: "Table" }).click();
  await expect(panel.getByRole("columnheader", { name: "Step" })).toBeVisible();
  // The costs of steps are parts of what a case costs.
  const costs = page.getByRole("region", { name: "What a case costs" });
  const parts = await costs.locator("li > span").allTextContents();
  expect(parts.length).toBeGreaterThan(4);
  const whole = Number(((await costs.textContent()) ?? "").match(/([\d,]+(?:\.\d+)?) EUR/)?.[1]?.replace(",", ""));
  expect(parts.reduce((sum, part) => sum + Number(part), 0)).toBeLessThanOrEqual(whole * 1.01);
  await expect(page.getByTestId("exact-paths").getByRole("listitem").first()).toContainText("%");
});

test("one case is played with its clock: by itself, led by hand at a choice, back, and another one", async ({
  page,
}) => {
  await page.goto("/v/solar-connection-as-is/forecast");
  await expect(page.getByTestId("forecast-sentence")).toContainText("9 of 10");
  await page.keyboard.press("o");
  const step = page.getByTestId("case-step");
  await expect(step).toHaveText(/^Moment 0 of \d+/);
  const clock = page.getByTestId("case-clock");
  const began = await clock.textContent();
  // To the first choice, by itself; there it asks.
  await page.getByLabel("ask me at choices").check();
  await page.getByLabel("How fast").selectOption({ label: "fast" });
  await page.getByRole("button", { name: "Play P" }).click();
  const ways = page.getByTestId("case-ways").getByRole("listitem");
  await expect(ways).toHaveCount(2, { timeout: 15_000 });
  await expect(page.getByRole("button", { name: "Play P" })).toBeVisible();
  const at = Number(/Moment (\d+)/.exec((await step.textContent()) ?? "")?.[1]);
  const other = ways.filter({ hasNotText: "by chance" });
  const answer = (await other.getByRole("button").textContent())?.replace(/\d$/, "");
  const number = (await ways.allTextContents()).findIndex((words) => !words.includes("by chance")) + 1;
  await page.keyboard.press(String(number));
  await expect(step).toHaveText(new RegExp(`^Moment ${at + 1} of \\d+\\. Led by hand\\.`));
  const log = page.getByTestId("case-log");
  await expect(log).toContainText(`→ ${answer}`);
  // To its end, back to its beginning by the log and the keys.
  await page.keyboard.press("End");
  await expect(step).toHaveText(/^\d+ moments/);
  await expect(log.getByRole("row").last()).toContainText("EUR");
  await log.getByRole("button").first().click();
  await expect(step).toHaveText(/^Moment 1 of/);
  await page.keyboard.press("ArrowLeft");
  await expect(clock).toHaveText(began ?? "");
  // Another case is another story; one that never comes is none.
  await page.getByRole("button", { name: "The case after" }).click();
  await expect(step).toHaveText(/^Moment 0 of \d+\.\s*$/);
  await expect(clock).not.toHaveText(began ?? "");
});

test("figures are said in the tray of the diagram; sites, what lies between them, a proposal of how it is run", async ({
  page,
  request,
}) => {
  const version = await copyOf(request, "switch-on", "Switch on, sites");
  await page.goto(`/v/${version}/diagram`);
  const step = page.locator('[data-canvas] [data-type="userTask"], [data-canvas] [data-type="task"]').first();
  await step.click();
  const tray = page.getByTestId("tray-figures");
  const time = tray.getByRole("textbox", { name: /^Working time/ });
  await time.fill("usually 20 min, 9 of 10 within 45 min");
  await page.keyboard.press("Enter");
  await expect(tray.locator("[data-curve]")).toBeVisible();
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await page.goto(`/v/${version}/forecast`);
  const sheet = page.getByRole("group", { name: "Figures of the scenario" });
  // A page that was just opened may not listen to keys yet.
  await expect(async () => {
    if (!(await sheet.isVisible())) await page.keyboard.press("f");
    await expect(sheet).toBeVisible({ timeout: 2_000 });
  }).toPass();
  const times = sheet.getByRole("textbox", { name: /^Working time/ });
  await expect
    .poll(async () => Promise.all((await times.all()).map((one) => one.inputValue())))
    .toContain("usually 20 min, 9 of 10 within 45 min");
  const say = async (name: RegExp, words: string, at = 0) => {
    const cell = sheet.getByRole("textbox", { name }).nth(at);
    await cell.fill(words);
    await cell.press("Enter");
  };
  await say(/^A case comes/, "4 a day");
  await say(/^Site/, "Town hall", 0);
  const people = await sheet.getByRole("region", { name: "People" }).getByRole("textbox", { name: /^Site/ }).count();
  if (people > 1) {
    await say(/^Site/, "Harbour", 1);
    await say(/^On the way/, "4 h");
    await expect(sheet.getByRole("textbox", { name: /^On the way/ })).toHaveValue("4 h");
  }
  await expect(page.getByTestId("forecast-sentence")).toContainText("9 of 10 cases are done within");
  await page.getByRole("button", { name: "Propose" }).click();
  await expect(page.getByTestId("run-proposal")).toContainText(/runs? (is|are) enough/, { timeout: 30_000 });
  await page.getByRole("button", { name: "Take both" }).click();
  await expect(page.getByLabel("Runs")).not.toHaveValue("");
  // A zone that is none is told; one that is, is kept with the file.
  await page.getByLabel("Time zone").fill("Nowhere");
  await page.getByLabel("Time zone").press("Enter");
  await expect(page.getByText(/“Nowhere” is no known time zone/)).toBeVisible();
  await page.getByLabel("Time zone").fill("Europe/Lisbon");
  await page.getByLabel("Time zone").press("Enter");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  expect(scenariosOf(await stored(page, version))[0]?.zone).toBe("Europe/Lisbon");
});
