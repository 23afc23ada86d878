import { expect, type Page, test } from "./test";

/** Fills in and completes the first piece of work of a name, as the member the window is. */
async function complete(page: Page, label: string, fields: { readonly [label: string]: string }): Promise<void> {
  await page.goto("/work");
  await page
    .getByTestId("worklist")
    .getByRole("button", { name: new RegExp(`^${label}`) })
    .last()
    .click();
  const form = page.getByTestId("work-form");
  for (const [name, value] of Object.entries(fields)) {
    const field = form.getByLabel(new RegExp(`^${name}`));
    if ((await field.evaluate((one) => one.tagName)) === "SELECT") await field.selectOption(value);
    else await field.fill(value);
  }
  await form.getByRole("button", { name: "Done" }).click();
  await expect(page.getByText(`${label}: done.`)).toBeVisible();
}

/** The window is somebody else from now on. */
async function be(page: Page, name: string): Promise<void> {
  await page.getByRole("button", { name: "Workspace" }).click();
  await page.getByRole("menuitemradio", { name }).click();
  await expect(page.getByRole("button", { name: "Workspace" })).toHaveText(
    name
      .split(" ")
      .map((part) => part[0])
      .join(""),
  );
}

test("a process is started up, members work a case by its forms and its decision, and a second window sees it", async ({
  page,
  context,
  request,
}) => {
  const copied = await request.post("/api/do/copyProcess", {
    data: { id: "plant-inspection", name: "Inspection, tried out", area: "area-on-site" },
  });
  const { version } = (await copied.json()) as { version: string };
  await page.goto(`/v/${version}/live`);
  await page.getByRole("button", { name: "Start it up" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByTestId("run-clock")).toBeVisible();

  // Another window looks on, and is not touched.
  const other = await context.newPage();
  await other.goto(`/v/${version}/live`);
  await expect(other.getByTestId("live-counts")).toHaveText("0 open of 0 cases");

  await page.getByRole("button", { name: "Begin a case" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Begin", exact: true }).click();
  await expect(page.getByTestId("live-case")).toContainText("waits for Record the plant");
  await expect(other.getByTestId("live-counts")).toHaveText("1 open of 1 case");

  // The front desk records it; the table decides; the crew inspects. Work of other roles is not in their lists.
  await be(page, "Tilda Quist");
  await complete(page, "Record the plant", {
    "Rated power": "40",
    "Distance to the transformer": "1500",
    Roof: "ground",
    "Installer certified": "no",
  });
  await expect(page.getByTestId("worklist").getByRole("button", { name: /^Inspect the plant/ })).toHaveCount(0);
  await expect(other.getByTestId("live-page")).toContainText(/1 · /);
  await be(page, "Pia Sund");
  await complete(page, "Inspect the plant", { Day: "2027-03-31", Fee: "80" });
  await expect(other.getByTestId("live-counts")).toHaveText("0 open of 1 case");
  await other.getByRole("radio", { name: "Cases" }).click();
  await other.getByRole("button", { name: "Case 1" }).click();
  const audit = other.getByTestId("audit");
  await expect(audit).toContainText("completed work Record the plant · with Tilda Quist");
  await expect(audit).toContainText("completed work Inspect the plant · with Pia Sund");
  await expect(other.getByTestId("live-case")).toContainText("on site");

  // Nobody can be done within a second: the target breaks, and somebody says that they have seen it.
  await other.getByRole("radio", { name: "Targets" }).click();
  await other.getByLabel("Within").fill("1 s");
  await other.getByRole("button", { name: "Add the target" }).click();
  const targets = other.getByTestId("targets");
  await expect(targets).toContainText("0 % of 1, broken");
  await targets.getByRole("button", { name: "I have seen it" }).click();
  await other.getByRole("dialog").getByLabel("Why").fill("it was tried out by hand");
  await other.getByRole("dialog").getByRole("button", { name: "I have seen it" }).click();
  await expect(targets.getByRole("button", { name: "I have seen it" })).toHaveCount(0);
  await other.close();
  await be(page, "Mara Aldous");
});

test("a timer fires on a clock that jumps; a service fails into an incident and is tried again; a step is repeated with a reason", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles("tests/e2e/files/meter-order.bpmn");
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  const version = new URL(page.url()).pathname.split("/")[2] as string;
  await page.goto(`/v/${version}/live`);
  await page.getByRole("button", { name: "Start it up" }).click();
  await page.getByRole("dialog").getByLabel("Pace").selectOption("0");
  await page.getByRole("dialog").getByRole("button", { name: "Start", exact: true }).click();

  // The service always fails, and is tried once.
  await page.getByRole("radio", { name: "Stand-ins" }).click();
  await page.getByLabel("Fails: Order the meter").fill("100 %");
  await page.getByLabel("Tries: Order the meter").fill("1");
  await page.getByRole("button", { name: "Save: Order the meter" }).click();
  await expect(page.getByText("The stand-in is as you said.")).toBeVisible();
  await page.getByRole("button", { name: "Begin a case" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Begin", exact: true }).click();
  await page.getByRole("button", { name: "To what comes next" }).click();
  await expect(page.getByTestId("live-case")).toContainText("cannot go on at Order the meter");
  await expect(page.getByRole("radio", { name: "Incidents 1" })).toBeVisible();

  // It answers again: tried once more, the case goes on to the work that somebody has to do within two days.
  await page.getByLabel("Fails: Order the meter").fill("0 %");
  await page.getByRole("button", { name: "Save: Order the meter" }).click();
  await page.getByRole("radio", { name: /^Incidents/ }).click();
  await page.getByRole("button", { name: "Try all again" }).click();
  await page.getByRole("button", { name: "To what comes next" }).click();
  await expect(page.getByTestId("live-case")).toContainText("waits for Fit the meter");
  await page.getByRole("button", { name: "To what comes next" }).click();
  await expect(page.getByTestId("live-case")).toContainText("waits for Remind the crew");

  // The supervisor has the fitting done once more.
  const column = page.getByTestId("live-case");
  await column
    .getByRole("listitem")
    .filter({ hasText: "Remind the crew" })
    .getByRole("button", { name: "Move to another step" })
    .click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("To", { exact: true }).selectOption({ label: "Fit the meter" });
  await expect(dialog.getByRole("button", { name: "Do it" })).toBeDisabled();
  await dialog.getByLabel("Why").fill("the wrong meter was fitted");
  await dialog.getByRole("button", { name: "Do it" }).click();
  await expect(column.getByTestId("audit")).toContainText("moved");
  await expect(column.getByTestId("audit")).toContainText("the wrong meter was fitted");
  await expect(column).toContainText("waits for Fit the meter");

  // The log opens in a spreadsheet.
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Log as CSV" }).click();
  expect((await download).suggestedFilename()).toBe("trial.csv");
});

test("another program gets a key, begins a case with it in a run that people work, and is shut out when the key is withdrawn", async ({
  page,
  request,
}) => {
  const copied = await request.post("/api/do/copyProcess", {
    data: { id: "plant-inspection", name: "Inspection by a portal", area: "area-on-site" },
  });
  const { version } = (await copied.json()) as { version: string };
  await page.goto(`/v/${version}/live`);
  await page.getByRole("button", { name: "Start it up" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByTestId("live-counts")).toHaveText("0 open of 0 cases");
  const listed = await request.post("/api/do/listRuns", { data: { version } });
  const [run] = ((await listed.json()) as { runs: { id: string }[] }).runs;

  await page.getByRole("button", { name: "Workspace" }).click();
  await page.getByRole("menuitem", { name: "Other programs" }).click();
  const dialog = page.getByRole("dialog", { name: "Other programs" });
  await dialog.getByLabel("Name of the program").fill("Customer portal");
  await dialog.getByRole("button", { name: "Make a key" }).click();
  const key = (await dialog.getByRole("status").locator("code").textContent()) ?? "";

  const begin = () =>
    request.post(`/api/programs/runs/${run?.id}/cases`, {
      data: { values: {} },
      headers: { authorization: `Bearer ${key}`, "idempotency-key": "order-1" },
    });
  expect((await begin()).status()).toBe(200);
  expect((await begin()).status()).toBe(200);
  await expect(page.getByTestId("live-counts")).toHaveText("1 open of 1 case");

  await dialog.getByRole("button", { name: "Withdraw the key of Customer portal" }).click();
  await expect(dialog.getByText("withdrawn")).toBeVisible();
  expect((await begin()).status()).toBe(401);
});
