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
  await other.getByRole("textbox", { name: "Within" }).fill("1 s");
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
  await page.getByRole("button", { name: "Log", exact: true }).click();
  await page
    .getByRole("dialog")
    .getByLabel(/Replace the names/)
    .check();
  await page.getByRole("dialog").getByRole("link", { name: "As CSV" }).click();
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

/** A run of its own of the demo's inspections, with so many cases. */
async function tried(page: Page, name: string, cases: number): Promise<string> {
  const copied = await page.request.post("/api/do/copyProcess", {
    data: { id: "plant-inspection", name, area: "area-on-site" },
  });
  const { version } = (await copied.json()) as { version: string };
  await page.goto(`/v/${version}/live`);
  await page.getByRole("button", { name: "Start it up" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Start", exact: true }).click();
  for (let count = 1; count <= cases; count++) {
    await page.getByRole("button", { name: "Begin a case" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Begin", exact: true }).click();
    await expect(page.getByTestId("live-counts")).toHaveText(`${count} open of ${count} case${count === 1 ? "" : "s"}`);
  }
  return version;
}

test("a run takes a newer package; cases under way stay with theirs, and are moved with a reason", async ({ page }) => {
  const version = await tried(page, "Inspection, renewed", 2);
  await page.getByRole("button", { name: "Newer package" }).click();
  const dialog = page.getByRole("dialog", { name: "A newer package" });
  await dialog.getByRole("button", { name: "Take what was handed off last" }).click();
  await expect(dialog.getByRole("alert")).toHaveText("Nothing newer was handed off. Hand the version off first.");
  const opened = await page.request.post("/api/do/openVersion", { data: { version } });
  const { sequence } = (await opened.json()) as { sequence: number };
  await page.request.post("/api/do/applyCommands", {
    data: {
      version,
      batch: "renamed",
      base: sequence,
      commands: [{ type: "rename", id: "record", name: "Record and photograph the plant" }],
    },
  });
  await dialog.getByRole("button", { name: "Take what was handed off last" }).click();
  await expect(dialog).toContainText("package 2");
  await expect(dialog.getByRole("listitem")).toHaveText([
    "Case 1, package 1: can be moved",
    "Case 2, package 1: can be moved",
  ]);
  await dialog.getByRole("checkbox").nth(1).uncheck();
  await dialog.getByLabel("Why").fill("photographs are wanted from now on");
  await dialog.getByRole("button", { name: "Move 1 case" }).click();
  await expect(dialog.getByRole("listitem")).toHaveText(["Case 2, package 1: can be moved"]);
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("radio", { name: "Cases" }).click();
  const table = page.getByTestId("live-cases");
  await expect(table.getByRole("row", { name: /Case 1/ })).toContainText("package 2");
  await expect(table.getByRole("row", { name: /Case 1/ })).toContainText("Record and photograph the plant");
  await expect(table.getByRole("row", { name: /Case 2/ })).not.toContainText("package");
});

test("what follows is told before a supervisor does it", async ({ page }) => {
  await tried(page, "Inspection, supervised", 1);
  await page.getByTestId("live-case").getByRole("button", { name: "Leave out" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByTestId("follows")).toContainText("ends: Record the plant");
  const outcome = {
    "rated power": 40,
    roof: "ground",
    "installer certified": false,
    "distance to the transformer": 900,
  };
  await dialog.getByLabel(/as JSON/).fill(JSON.stringify(outcome));
  await expect(dialog.getByTestId("follows")).toContainText("comes: Inspect the plant");
  await dialog.getByLabel("Why").fill("it was recorded on paper");
  await dialog.getByRole("button", { name: "Do it" }).click();
  await expect(page.getByTestId("live-case")).toContainText("waits for Inspect the plant");
});

test("several pieces of work are done at once by one form; one gets a date, and what was done is listed", async ({
  page,
}) => {
  await tried(page, "Inspection, by the dozen", 3);
  await page.goto("/work");
  const list = page.getByTestId("worklist");
  const own = list.getByRole("listitem").filter({ hasText: "Inspection, by the dozen" });
  await expect(own).toHaveCount(3);
  await own.nth(2).getByRole("button").click();
  const form = page.getByTestId("work-form");
  await expect(form.getByTestId("due-by")).toContainText("due in");
  await form.getByLabel("Until").fill("2020-01-01T08:00");
  await form.getByRole("button", { name: "Set", exact: true }).click();
  await expect(form.getByTestId("due-by")).toContainText("overdue");
  // What is overdue longest stands first.
  await expect(list.getByRole("listitem").first()).toContainText("Inspection, by the dozen");
  for (let at = 0; at < 3; at++) await own.nth(at).getByRole("checkbox").check();
  const several = page.getByTestId("several");
  await several.getByLabel(/^Rated power/).fill("8");
  await several.getByLabel(/^Roof/).selectOption("flat");
  await several.getByLabel(/^Installer certified/).selectOption("yes");
  const distance = several.getByLabel(/^Distance to the transformer/);
  if ((await distance.count()) > 0) await distance.fill("500");
  await several.getByRole("button", { name: "Done, all 3" }).click();
  await expect(page.getByText("3 pieces of work done.")).toBeVisible();
  await expect(own.filter({ hasText: "Record the plant" })).toHaveCount(0);
  await expect(own.filter({ hasText: "Inspect the plant" })).toHaveCount(0);
  await page.getByTestId("done-today").getByText("What I did in the last day").click();
  await expect(page.getByTestId("done-today")).toContainText("Record the plant · Inspection, by the dozen, case 3");
});

test("figures of a run are held against the forecast, and become a scenario", async ({ page }) => {
  const copied = await page.request.post("/api/do/copyProcess", {
    data: { id: "plant-inspection", name: "Inspection, measured", area: "area-on-site" },
  });
  const { version } = (await copied.json()) as { version: string };
  await page.goto(`/v/${version}/live`);
  await page.getByRole("button", { name: "Start it up" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Start", exact: true }).click();
  await page.getByRole("button", { name: "Let people work" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Let people work" }).click();
  await expect(page.getByTestId("live-counts")).not.toHaveText("0 open of 0 cases");
  await page.getByRole("radio", { name: "Figures" }).click();
  const figures = page.getByTestId("live-figures");
  await expect(figures).toContainText(/cases came to an end in 30 days/);
  await expect(figures.getByRole("img", { name: "Durations, one case after the other" })).toBeVisible();
  await expect(figures.getByRole("region", { name: "Who did the work" })).toContainText("Tilda Quist");
  await figures.getByRole("button", { name: "Forecast it" }).click();
  const against = figures.getByTestId("against");
  await expect(against.getByRole("row", { name: /^Duration of a case/ })).toBeVisible({ timeout: 30_000 });
  await expect(against).toContainText(/longer than forecast|times as long/);
  await figures.getByRole("button", { name: "Take these figures into a scenario" }).click();
  await expect(page.getByText(/Measured in Trial: \d+ figures taken over/)).toBeVisible();
  await page.getByRole("radio", { name: "Tables" }).click();
  await expect(page.getByTestId("written")).toContainText("Record the plant");
  await page.goto(`/v/${version}/forecast`);
  await expect(
    page.getByRole("combobox", { name: "Scenario" }).getByRole("option", { name: /Measured in Trial/ }),
  ).toHaveCount(1);
});
