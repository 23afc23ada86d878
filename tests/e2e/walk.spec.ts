import { stored } from "./storedModel";
import { expect, test } from "./test";

/** A copy of a demo process, so that other tests find the demo as it was. */
async function copyOf(request: import("@playwright/test").APIRequestContext, process: string, name: string) {
  const answer = await request.post("/api/do/copyProcess", { data: { id: process, name, area: "area-on-site" } });
  expect(answer.ok()).toBe(true);
  return ((await answer.json()) as { version: string }).version;
}

test("the trap in the meter exchange is found, played, repaired, and proven by the walk that was kept", async ({
  page,
  request,
}) => {
  const version = await copyOf(request, "meter-exchange", "Meter exchange, mended");
  // Found.
  await page.goto(`/v/${version}/check`);
  const finding = page.locator('[data-rule="lack-of-synchronization"]');
  await expect(finding).toContainText("Notify household runs twice");
  // Played: both tokens come to the join, and each goes on.
  await page.goto(`/v/${version}/walk`);
  await expect(page.getByTestId("walk-now")).toContainText("Meter exchange due");
  for (let step = 1; step <= 4; step++) {
    await page.keyboard.press("ArrowRight");
    await expect(page.getByTestId("walk-outcome")).toContainText(`Step ${step}.`);
  }
  await expect(page.getByTestId("walk-now")).toContainText("an exclusive join waits for nobody");
  await page.getByLabel("How fast").selectOption("fast");
  await page.keyboard.press("p");
  await expect(page.getByTestId("walk-outcome")).toContainText("The case has come to its end.", { timeout: 15_000 });
  await page.getByLabel("Filter").fill("notify");
  await expect(page.getByTestId("walk-log").locator("tr")).toHaveCount(2);
  // Kept, as it should be, and not as it is.
  await page.getByRole("button", { name: "Keep this walk" }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Household told once");
  await page.getByRole("dialog").getByRole("button", { name: "Keep this walk" }).click();
  await expect(page.getByTestId("kept-walks").locator("li")).toHaveAttribute("data-verdict", "passes");
  // Repaired, after a look at what the repair would do.
  await page.goto(`/v/${version}/check`);
  await finding.getByRole("button", { name: /^Let it wait for all of them/ }).click();
  await expect(finding).toHaveCount(0);
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  expect((await stored(page, version)).elements.get("meet")?.type).toBe("parallelGateway");
  // Proven: the walk goes otherwise, once and not twice.
  await page.goto(`/v/${version}/walk`);
  const kept = page.getByTestId("kept-walks").locator("li");
  await expect(kept).toHaveAttribute("data-verdict", "differs");
  await expect(kept).toContainText("“Notify household” is passed once; it was twice.");
  await kept.getByRole("button", { name: "expect this from now on" }).click();
  await expect(kept).toHaveAttribute("data-verdict", "passes");
});

test("a case is walked by hand: choices, data, events at edges, breaks, called processes, suggested walks", async ({
  page,
  request,
}) => {
  const version = await copyOf(request, "solar-connection", "Solar, walked");
  await page.goto(`/v/${version}/walk`);
  const now = page.getByTestId("walk-now");
  const outcome = page.getByTestId("walk-outcome");
  await expect(now).toContainText("Application received");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(outcome).toContainText("Choose how it goes on.");
  await expect(now).toContainText("Takes exactly one of 2 ways: a decision.");
  // Nothing goes on before a way is chosen.
  await page.keyboard.press("ArrowRight");
  await expect(outcome).toContainText("Step 2.");
  // A way is chosen on the drawing as well: at the middle of its line.
  const middle = await page.locator('[data-means="way"][data-on="complete-to-request-papers"] path').evaluate((way) => {
    const line = way as unknown as SVGPathElement;
    const { x, y } = line.getPointAtLength(line.getTotalLength() / 2).matrixTransform(line.getScreenCTM() ?? undefined);
    return { x, y };
  });
  await page.mouse.click(middle.x, middle.y);
  await expect(outcome).toContainText("Step 3.");
  await page.keyboard.press("ArrowLeft");
  await expect(now.getByRole("button", { name: "no" })).toHaveAttribute("aria-keyshortcuts", "2");
  await page.keyboard.press("2");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(now).toContainText("it is finished, or an event at its edge goes off");
  await now.getByRole("button", { name: "10 working days: goes off" }).click();
  await page.keyboard.press("ArrowRight");
  await expect(outcome).toContainText("The case has come to its end.");
  await page.keyboard.press("ArrowLeft");
  await expect(outcome).toContainText("Step 6 of 7.");
  await page.keyboard.press("Home");
  await expect(outcome).toContainText("Step 0 of 7.");
  // Suggested walks go along every flow, and are kept at once.
  await page.getByRole("button", { name: "Suggest walks" }).click();
  await page.getByRole("button", { name: /^Keep these \d+ walks$/ }).click();
  await expect(page.getByTestId("kept-walks").locator("li").first()).toHaveAttribute("data-verdict", "passes");
  const kept = page.getByTestId("kept-walks").locator("li");
  expect(await kept.count()).toBeGreaterThan(2);
  await expect(page.getByRole("navigation").getByRole("link", { name: /^Walk ?, done/ })).toBeVisible();
  // A step that is clicked on the drawing stops the playing when the case comes to it.
  await page.keyboard.press("Home");
  await page.getByLabel("take the usual way").check();
  const study = page.locator('[data-testid="walk-page"] [data-id="check-capacity"]').first();
  await page.getByRole("button", { name: /^Fit/ }).click();
  const place = await study.boundingBox();
  if (!place) throw new Error("The step is not drawn.");
  await page.mouse.click(place.x + place.width / 2, place.y + 12);
  await page.getByLabel("How fast").selectOption("fast");
  await page.getByTestId("kept-walks").getByRole("button", { name: "Main path" }).click();
  await page.getByRole("button", { name: /^Play P/ }).click();
  await expect(now).toContainText("Check feeder capacity");
  await expect(page.getByRole("button", { name: /^Play P/ })).toHaveAttribute("aria-pressed", "false");
  // On the main path the called process is entered, on a page of its own, and a break stops the playing there.
  await page.getByTestId("kept-walks").getByRole("button", { name: "Main path" }).click();
  const download = page.waitForEvent("download");
  await page.keyboard.press("ArrowRight");
  await page.getByRole("button", { name: "CSV" }).click();
  expect((await download).suggestedFilename()).toBe("walk.csv");
  for (
    let step = 0;
    step < 40 && !(await page.getByTestId("walk-log").textContent())?.includes("Close the breaker");
    step++
  ) {
    await page.keyboard.press("ArrowRight");
  }
  await expect(page.getByRole("navigation", { name: "Where the case is" })).toContainText("Switch on and verify");
});
