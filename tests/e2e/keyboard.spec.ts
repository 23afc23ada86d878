import { expect, type Page, test } from "./test";

/** Moves the focus with Tab alone until something with this name has it. */
async function tabTo(page: Page, name: RegExp, most = 80) {
  for (let at = 0; at < most; at++) {
    await page.keyboard.press("Tab");
    const here = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement | null;
      return (
        element?.getAttribute("aria-label") ||
        (element as HTMLInputElement | null)?.placeholder ||
        element?.textContent ||
        ""
      );
    });
    if (name.test(here.trim())) return;
  }
  throw new Error(`Nothing named ${name} is reached by Tab.`);
}
const saved = (page: Page) => expect(page.getByTestId("saved-state")).toHaveText("Saved");

test("drawn, assigned, mended, improved and handed off by keyboard alone", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Rooftop solar connection" })).toBeVisible();
  await tabTo(page, /^New process/);
  await page.keyboard.press("Enter");
  await page.keyboard.type("Meter exchange");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/diagram/);
  const canvas = page.getByTestId("canvas");
  await expect(canvas).toBeFocused();

  // A pool, lanes, and the happy path: a letter adds, typing names, Enter keeps.
  const build = async (key: string, name: string) => {
    await page.keyboard.press(key);
    await expect(page.getByTestId("name-editor")).toBeFocused();
    await page.keyboard.type(name);
    await page.keyboard.press("Enter");
    await expect(canvas).toBeFocused();
  };
  await build("u", "Quillmere Power Cooperative");
  await build("l", "Front desk");
  await build("l", "Field crew");
  await page.keyboard.press("Escape");
  await build("1", "Meter is due");
  await build("Enter", "Announce the exchange");
  await build("Enter", "Exchange the meter");
  await build("i", "Seal intact?");
  await build("e", "Meter exchanged");
  await page.keyboard.press("ArrowLeft");
  await build("e", "Damage reported");
  await saved(page);
  await expect(page.getByRole("img", { name: "Exchange the meter, task" })).toBeAttached();

  // To the exchange along the flow, then into the lane below.
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await expect(page.getByTestId("tray").getByLabel("Name", { exact: true })).toHaveValue("Exchange the meter");
  await page.keyboard.press("Control+ArrowDown");
  await expect(page.getByTestId("tray")).toContainText("Field crew");

  // A system, found as one types.
  await tabTo(page, /^Systems: add/);
  await page.keyboard.press("Enter");
  await page.keyboard.type("meter pl");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("tray")).toContainText("Meter platform");
  await saved(page);

  // Check: repair by keyboard.
  await page.keyboard.press("Control+k");
  await expect(page.locator("[cmdk-input]")).toBeFocused();
  await page.keyboard.type("Check");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/check/);
  // Either answer may be the default: each is looked at before one is made.
  await tabTo(page, /^Mend: one of 2 ways/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Make “/, pressed: true })).toBeFocused();
  await tabTo(page, /^Apply the repair/);
  await page.keyboard.press("Enter");
  await expect(page.locator('[data-rule="no-default"]')).toHaveCount(0);
  await expect(page.getByTestId("verdict")).toContainText("No error is open");

  // A to-be, and what differs.
  await page.keyboard.press("Control+k");
  await expect(page.locator("[cmdk-input]")).toBeFocused();
  await page.keyboard.type("Start a to-be");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog").getByRole("textbox").first()).toBeFocused();
  await page.keyboard.type("To-be without announcement");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /To-be without announcement/ })).toBeVisible();
  await expect(canvas).toBeFocused();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("F2");
  await page.keyboard.type("Announce by message");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Control+k");
  await expect(page.locator("[cmdk-input]")).toBeFocused();
  await page.keyboard.type("Compare");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Announce by message was called “Announce the exchange”.")).toBeVisible();

  await page.keyboard.press("Control+k");
  await page.keyboard.type("Hand-off");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/hand-off/);
  await expect(page.getByTestId("handoff-state")).toBeVisible();
  await tabTo(page, /^Hand off the present state/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("link", { name: "Download" })).toBeVisible();
});
