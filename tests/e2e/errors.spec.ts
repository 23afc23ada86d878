import { violations } from "./accessibility";
import { expect, test } from "./test";

test("an address that leads nowhere says so, with ways on", async ({ page }) => {
  const answer = await page.goto("/nowhere");
  expect(answer?.status()).toBe(404);
  for (const address of ["/nowhere", "/v/solar-connection-as-is/nothing"]) {
    await page.goto(address);
    await expect(page.getByRole("heading", { name: "Nothing is here" })).toBeVisible();
    expect(await violations(page)).toEqual([]);
  }
  await page.getByRole("link", { name: "Go to Home" }).click();
  await expect(page).toHaveURL("/");
});

test("a version that is not there says so in words, with a way home", async ({ page }) => {
  await page.goto("/v/no-such-version/diagram");
  await expect(page.getByRole("alert").filter({ hasText: "is not in this workspace" })).toBeVisible();
  await page.getByRole("link", { name: "Go to Home" }).click();
  await expect(page).toHaveURL("/");
});

test("while the server cannot be reached a page says so in words, and shows what there is once it can", async ({
  page,
}) => {
  await page.route("**/api/do/openMap", (route) => route.abort());
  await page.goto("/");
  const told = page.getByRole("alert").filter({ hasText: "did not answer" });
  await expect(told).toBeVisible();
  await expect(page.locator("body")).not.toContainText(/fetch|TypeError|undefined/i);
  await page.unroute("**/api/do/openMap");
  // The page may have asked again by itself meanwhile.
  await expect(async () => {
    const retry = page.getByRole("button", { name: "Try again" });
    if (await retry.isVisible()) await retry.click({ timeout: 1_000 }).catch(() => undefined);
    await expect(page.getByRole("link", { name: "Rooftop solar connection" })).toBeVisible({ timeout: 3_000 });
  }).toPass();
});
