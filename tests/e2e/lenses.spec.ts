import { expect, test } from "./test";

test("a lens marks the steps that wait over two hours, another is made as a sentence; both go out with the picture", async ({
  page,
}) => {
  await page.goto("/v/solar-connection-as-is/diagram");
  const marked = (id: string) => page.locator(`[data-means="lens"][data-on="${id}"]`);
  await page.locator("[data-canvas]").focus();
  await page.keyboard.press("Shift+Digit1");
  const legend = page.getByTestId("lens-legend");
  await expect(legend).toContainText("Waits over two hours");
  // As the forecast says: for the network engineer a case waits the better part of a day, for papers to be checked it does not.
  await expect(marked("check-capacity")).toBeVisible();
  await expect(marked("check-documents")).toHaveCount(0);
  await expect(marked("check-capacity").getByRole("img")).toHaveAttribute("aria-label", /: Waits over two hours$/);

  await page.getByRole("button", { name: "Lenses" }).click();
  await page.getByRole("button", { name: "New lens" }).click();
  await page.getByLabel("What is looked at").selectOption("role");
  await page.getByLabel("Compared with").fill("network engineer");
  await expect(page.getByTestId("lens-marks")).toHaveText("2 elements");
  await page.getByRole("button", { name: "Another condition" }).click();
  await page.getByLabel("What is looked at").nth(1).selectOption("takes");
  await page.getByLabel("Compared with").nth(1).fill("a while");
  await expect(page.getByText("This cannot be read.")).toBeVisible();
  await page.getByLabel("Compared with").nth(1).fill("5 min");
  await page.getByLabel("Colour", { exact: true }).selectOption("moss");
  await page.getByLabel("Line", { exact: true }).selectOption("solid");
  await page.getByRole("button", { name: "Keep it" }).click();
  const name = "role is network engineer and working time is more than 5 min";
  await expect(page.getByTestId("lenses")).toContainText(name);
  await page.getByRole("button", { name: "Close" }).click();
  await expect(legend.getByRole("listitem")).toHaveCount(2);
  await expect(marked("check-capacity").getByRole("img")).toHaveAttribute("aria-label", new RegExp(name));

  await page.keyboard.press("Control+k");
  await expect(page.locator("[cmdk-input]")).toBeFocused();
  await page.keyboard.type("Export a picture");
  await page.getByRole("option", { name: /^Export a picture/ }).click();
  await page.getByLabel("As", { exact: true }).selectOption("svg");
  const saved = page.waitForEvent("download");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /save|export/i })
    .last()
    .click();
  const stream = await (await saved).createReadStream();
  let svg = "";
  for await (const piece of stream) svg += piece;
  expect(svg).toContain(name);
  expect(svg).toContain('data-element="lens check-capacity"');

  await page.getByRole("button", { name: "Lenses" }).click();
  await page.getByRole("button", { name: `Delete ${name}` }).click();
  await expect(page.getByTestId("lenses")).not.toContainText(name);
  await page.getByRole("button", { name: "Close" }).click();
  await expect(legend.getByRole("listitem")).toHaveCount(1);
  await page.locator("[data-canvas]").focus();
  await page.keyboard.press("Control+z");
  await expect(legend.getByRole("listitem")).toHaveCount(2);
});
