import { expect, type Page, test } from "./test";

/** A process of its own for a test: start, a step, a way to its end. */
async function makeProcess(page: Page, key: string): Promise<{ version: string; diagram: string }> {
  const process = `promises-${key}-${test.info().retry}`;
  const version = `${process}-v`;
  await ask(page, "createProcess", { name: key, area: "area-accounts", processId: process, versionId: version });
  const { model } = await ask(page, "openVersion", { version });
  const diagram = model.diagrams[0].id;
  await edit(page, version, 0, [
    {
      type: "place",
      diagram,
      id: "s",
      kind: { type: "startEvent" },
      at: { x: 100, y: 200 },
      name: "Application received",
    },
    {
      type: "append",
      diagram,
      from: "s",
      id: "split",
      flow: "f1",
      kind: { type: "exclusiveGateway" },
      name: "Small plant?",
    },
    {
      type: "append",
      diagram,
      from: "split",
      id: "papers",
      flow: "f2",
      kind: { type: "userTask" },
      name: "Check papers",
    },
    {
      type: "append",
      diagram,
      from: "split",
      id: "feeder",
      flow: "f3",
      kind: { type: "userTask" },
      name: "Check feeder",
    },
    { type: "append", diagram, from: "papers", id: "join", flow: "f4", kind: { type: "exclusiveGateway" } },
    { type: "connect", diagram, id: "f5", source: "feeder", target: "join" },
    {
      type: "append",
      diagram,
      from: "join",
      id: "e",
      flow: "f6",
      kind: { type: "endEvent" },
      name: "Application checked",
    },
    { type: "tidy", diagram },
  ]);
  return { version, diagram };
}

// biome-ignore lint/suspicious/noExplicitAny: answers of many use cases
async function ask(page: Page, useCase: string, data: object): Promise<any> {
  const answer = await page.request.post(`/api/do/${useCase}`, { data });
  return answer.json();
}
let batches = 0;
const edit = (page: Page, version: string, base: number, commands: object[]) =>
  ask(page, "applyCommands", { version, base, batch: `promises-${test.info().retry}-${batches++}`, commands });
const nameOf = async (page: Page, version: string, id: string): Promise<string> => {
  const { model } = await ask(page, "openVersion", { version });
  return model.elements.find((element: { id: string }) => element.id === id)?.name;
};
async function rename(page: Page, name: string): Promise<void> {
  await page.keyboard.press("F2");
  const field = page.locator("textarea:focus, input:focus");
  await expect(field).toBeVisible();
  await field.fill(name);
  await page.keyboard.press("Enter");
}
const openAt = async (page: Page, version: string, element: string) => {
  await page.goto(`/v/${version}/diagram?element=${element}`);
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await expect(page.getByLabel("Name", { exact: true })).toBeVisible();
};

test("a name given without a connection is asked about, when somebody else gave another meanwhile", async ({
  page,
}) => {
  const { version } = await makeProcess(page, "offline");
  await openAt(page, version, "papers");
  await page.route("**/api/do/**", (route) => route.abort());
  await rename(page, "Named without a connection");
  await expect(page.getByTestId("saved-state")).toContainText("Not saved yet");
  const elsewhere = await page.request.post("/api/do/applyCommands", {
    data: {
      version,
      base: 1,
      batch: `else-${test.info().retry}`,
      commands: [{ type: "rename", id: "papers", name: "Saved meanwhile" }],
    },
  });
  expect(elsewhere.ok()).toBe(true);
  await page.unroute("**/api/do/**");
  const question = page.getByRole("alertdialog");
  await expect(question).toContainText("Named without a connection");
  await expect(question).toContainText("Saved meanwhile");
  await question.getByRole("radio", { name: /Theirs/ }).check();
  await question.getByRole("button", { name: "Save this" }).click();
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  expect(await nameOf(page, version, "papers")).toBe("Saved meanwhile");
});

test("what the server cannot take is set aside with its reason; what comes after it is saved", async ({ page }) => {
  const { version } = await makeProcess(page, "aside");
  await openAt(page, version, "papers");
  await page.route("**/api/do/applyCommands", (route) => {
    const text = route.request().postData() ?? "";
    return route.continue({ postData: text.replace("Cannot be kept", "Cannot\\u0000be kept") });
  });
  await rename(page, "Cannot be kept");
  await expect(page.getByRole("button", { name: "1 set aside" })).toBeVisible();
  await rename(page, "After it");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await expect.poll(() => nameOf(page, version, "papers")).toBe("After it");
  await page.getByRole("button", { name: "1 set aside" }).click();
  await expect(page.getByRole("dialog")).toContainText("NUL");
  await page.getByRole("button", { name: "Understood" }).click();
  await expect(page.getByRole("button", { name: "1 set aside" })).toHaveCount(0);
});

test("a split taken over without its join is told before, and both come together", async ({ page }) => {
  const { version } = await makeProcess(page, "takeover");
  const toBe = `${version}-to-be`;
  await ask(page, "createToBe", { source: version, name: "Both at once", versionId: toBe });
  await edit(page, toBe, 0, [
    { type: "retype", id: "split", to: "parallelGateway" },
    { type: "retype", id: "join", to: "parallelGateway" },
  ]);
  await page.goto(`/v/${toBe}/compare`);
  await page.getByText("is a parallel gateway instead of an exclusive gateway").first().click();
  await page.keyboard.press("t");
  const told = page.getByRole("dialog");
  await expect(told).toContainText("that neither side has");
  await told.getByRole("button", { name: /^Take over all \d/ }).click();
  await expect(told).toHaveCount(0);
  const { revisions } = await ask(page, "listRevisions", { version });
  expect(revisions.map(({ reason }: { reason: string }) => reason)).toContainEqual(
    expect.stringMatching(/^before take over/),
  );
  const { model } = await ask(page, "openVersion", { version });
  const types = ["split", "join"].map(
    (id) => model.elements.find((element: { id: string }) => element.id === id)?.type,
  );
  expect(types).toEqual(["parallelGateway", "parallelGateway"]);
});

test("a restore is noticed by an open window, which opens the version anew", async ({ page }) => {
  const { version } = await makeProcess(page, "restore");
  const backup = await (await page.request.get("/api/backup")).body();
  await openAt(page, version, "papers");
  await rename(page, "After the backup");
  await expect.poll(() => nameOf(page, version, "papers")).toBe("After the backup");
  const restored = await page.request.post("/api/restore", {
    data: backup,
    headers: { "content-type": "application/octet-stream" },
  });
  expect(restored.ok()).toBe(true);
  await expect(page.getByText("The workspace was replaced by a backup")).toBeVisible();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Check papers");
});
