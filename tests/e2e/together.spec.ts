import { boundsOf, choose, importSmall, openDiagram, saved, stored } from "./storedModel";
import { expect, type Page, test } from "./test";

const rename = async (page: Page, id: string, name: string) => {
  await choose(page, id);
  await page.keyboard.press("F2");
  await page.getByTestId("name-editor").fill(name);
  await page.keyboard.press("Enter");
};

test("two windows on one version see each other's changes without looking for them, and neither loses any", async ({
  page,
  context,
}) => {
  const version = await importSmall(page, "Two at once");
  const other = await context.newPage();
  await openDiagram(page, version);
  await openDiagram(other, version);
  await page.bringToFront();
  // It never looks by itself, and what it puts off for a second or longer never comes: it is told, and shows it without waiting. How
  // soon it is seen, the bench measures.
  await other.evaluate(() => {
    const later = window.setTimeout;
    for (let timer = later(() => undefined); timer > 0; timer--) window.clearTimeout(timer);
    const soon = (act: TimerHandler, after = 0, ...more: unknown[]) =>
      after < 1_000 ? later(act, after, ...more) : later(() => undefined);
    Object.assign(window, { setTimeout: soon, setInterval: () => later(() => undefined) });
  });
  await rename(page, "check", "Check the papers");
  await expect(other.locator('[data-id="check"]')).toHaveAttribute("aria-label", "Check the papers, user task");
  await saved(page);
  // Both at once, on different things.
  await Promise.all([rename(page, "approve", "Approve it"), rename(other, "reject", "Refuse it")]);
  for (const window of [page, other]) {
    await expect(window.locator('[data-id="approve"]')).toHaveAttribute("aria-label", "Approve it, user task");
    await expect(window.locator('[data-id="reject"]')).toHaveAttribute("aria-label", "Refuse it, send task");
  }
  const model = await stored(page, version);
  expect(model.elements.get("approve")?.name).toBe("Approve it");
  expect(model.elements.get("reject")?.name).toBe("Refuse it");
});

test("a page that opens asks each question once, and hears what was done since it was made", async ({
  page,
  context,
}) => {
  const version = await importSmall(page, "Asked once");
  const other = await context.newPage();
  // It never looks by itself, as it would where a stream took very long to open: what it hears is by the stream.
  await other.addInitScript(() => Object.assign(window, { setInterval: () => 0 }));
  const asked: string[] = [];
  const count = (useCase: string) => asked.filter((one) => one.startsWith(`${useCase} `)).length;
  other.on("request", (request) => {
    const [, useCase] = /\/api\/do\/(\w+)$/.exec(request.url()) ?? [];
    // Where one is is said again and again.
    if (useCase && useCase !== "sayWhereIAm") asked.push(`${useCase} ${request.postData()}`);
  });
  await openDiagram(other, version);
  await expect.poll(() => count("openDirectory")).toBe(1);
  // Had anything been missed, all would be asked for once more before what is told of now.
  const made = await page.request.post("/api/do/createEntry", {
    data: { id: `desk-${version}`, kind: "role", name: `Front desk of ${version}` },
  });
  expect(made.status()).toBe(200);
  await expect.poll(() => count("openDirectory")).toBe(2);
  const ofVersion = asked.filter((one) => one.includes(version));
  expect(ofVersion.length).toBeGreaterThan(3);
  expect(ofVersion).toEqual([...new Set(ofVersion)]);
});

test("what was changed while the server was away is joined with what others did; what both changed is asked", async ({
  page,
  context,
}) => {
  const version = await importSmall(page, "Away");
  const other = await context.newPage();
  await openDiagram(page, version);
  await openDiagram(other, version);
  // The first window loses its connection and works on.
  await page.route("**/api/do/**", (route) => route.abort());
  await page.bringToFront();
  const before = boundsOf(await stored(other, version), "reject");
  await rename(page, "reject", "Refuse it");
  await rename(page, "check", "Check all papers");
  await choose(page, "reject");
  await page.keyboard.press("Enter");
  await page.getByTestId("name-editor").fill("Tell the household");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toContainText("Not saved yet");

  await other.bringToFront();
  await choose(other, "reject");
  await other.keyboard.press("Delete");
  await rename(other, "check", "Check the papers");
  await saved(other);

  await page.bringToFront();
  await page.unroute("**/api/do/**");
  const dialog = page.getByRole("alertdialog");
  await expect(dialog).toContainText("Refuse it: whether it is there");
  // Side by side; one of the two, or what neither said.
  const named = dialog.getByRole("group", { name: "Check all papers: name" });
  await expect(named.getByLabel("Mine")).toBeChecked();
  await expect(named).toContainText("Check the papers");
  await named.getByLabel("Write it here").fill("Check each paper");
  await expect(named.getByLabel("Another text")).toBeChecked();
  await dialog.getByRole("button", { name: "Save this" }).click();
  await saved(page);
  const model = await stored(page, version);
  expect(model.elements.get("reject")?.name).toBe("Refuse it");
  expect(boundsOf(model, "reject")).toEqual(before);
  expect([...model.elements].some((element) => element.name === "Tell the household")).toBe(true);
  expect(model.elements.get("check")?.name).toBe("Check each paper");
  await expect(other.locator('[data-id="reject"]')).toHaveAttribute("aria-label", "Refuse it, send task");
});

test("who else is here is seen, with what they have chosen; a click goes where they go", async ({
  page,
  browser,
  baseURL,
}) => {
  const version = await importSmall(page, "Looked at by two");
  const { members } = (await (await page.request.post("/api/do/listMembers", { data: {} })).json()) as {
    members: { id: string; name: string }[];
  };
  const oran = members.find(({ name }) => name === "Oran Veltri")?.id ?? "";
  const context = await browser.newContext({ viewport: { width: 1024, height: 700 }, ...(baseURL && { baseURL }) });
  await context.addCookies([{ name: "lane-member", value: oran, url: baseURL ?? "" }]);
  const other = await context.newPage();
  await openDiagram(page, version);
  await openDiagram(other, version);
  const seen = page.getByTestId("others");
  await expect(seen.getByRole("button", { name: /^Oran Veltri is here too, at Diagram/ })).toBeVisible();
  await expect(other.getByTestId("others").getByRole("button", { name: /^Mara Aldous is here too/ })).toBeVisible();

  await choose(other, "check");
  await expect(page.locator('[data-means="othersChoice"][data-on="check"]')).toContainText("Oran Veltri");
  await expect(other.locator('[data-means="othersChoice"]')).toHaveCount(0);

  await seen.getByRole("button", { name: /^Oran Veltri is here too/ }).click();
  await expect(page.getByText("You see what Oran Veltri looks at.")).toBeVisible();
  await other.getByRole("link", { name: /^Check/ }).click();
  await expect(page).toHaveURL(new RegExp(`/v/${version}/check`));
  await page.getByTestId("others").getByRole("button", { name: "Stop following Oran Veltri" }).click();
  await other.getByRole("link", { name: /^Steps/ }).click();
  await expect(page.getByTestId("others").getByRole("button", { name: /at Steps/ })).toBeVisible();
  await expect(page).toHaveURL(new RegExp(`/v/${version}/check`));

  await other.goto("/");
  await expect(page.getByTestId("others")).toHaveCount(0);
  await context.close();
});
