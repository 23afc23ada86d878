import { readFileSync } from "node:fs";
import { choose, importSmall, openDiagram } from "./storedModel";
import { expect, test } from "./test";

test("a page and a selection leave as PDF, PNG and SVG, as they are on the screen", async ({ page }) => {
  const version = await importSmall(page, "Export me");
  await openDiagram(page, version);
  const save = async (format: string) => {
    await page.keyboard.press("Control+k");
    await expect(page.locator("[cmdk-input]")).toBeFocused();
    await page.keyboard.type("Export a picture");
    await page.getByRole("option", { name: /^Export a picture/ }).click();
    await page.getByLabel("As", { exact: true }).selectOption(format);
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: `Save as ${format.toUpperCase()}` }).click();
    const path = await (await download).path();
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(page.getByTestId("canvas")).toBeFocused();
    return readFileSync(path);
  };
  const pdf = (await save("pdf")).toString("latin1");
  expect(pdf.startsWith("%PDF-")).toBe(true);
  expect((await save("png")).subarray(1, 4).toString("latin1")).toBe("PNG");
  const svg = (await save("svg")).toString("utf8");
  // Every figure of the screen is in the file, with the same lines.
  const shown = await page.locator("[data-canvas] [data-id] > path:first-of-type").first().getAttribute("d");
  for (const name of await page
    .locator("[data-canvas] g[data-id]")
    .evaluateAll((all) => all.map((one) => one.getAttribute("aria-label") ?? "")))
    expect(svg).toContain(`<title>${name.replace(/&/g, "&amp;")}</title>`);
  expect(svg).toContain(shown ?? "nothing");

  await choose(page, "check", "decide");
  const part = (await save("svg")).toString("utf8");
  expect(part).toContain("Check application, user task");
  expect(part).not.toContain("Reject application");
});
