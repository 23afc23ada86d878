import { expect, test } from "./test";

/** The log of a system that calls the study otherwise: of twenty cases three skip it, two have a second visit, one asks a neighbour. */
function table(): string {
  const plain = ["Register application", "Check documents", "Study of the feeder", "Approve connection design"];
  const rest = [
    "Change the meter",
    "Book visit by telephone",
    "Check wiring and meter",
    "Switch on and verify",
    "Set feed-in tariff",
  ];
  const ways = [
    ...Array(14).fill([...plain, ...rest]),
    ...Array(3).fill([...plain.filter((name) => !name.startsWith("Study")), ...rest]),
    ...Array(2).fill([...plain, "Change the meter", "Book visit by telephone", ...rest.slice(1)]),
    [...plain.slice(0, 2), "Ask the neighbour", ...plain.slice(2), ...rest],
  ] as string[][];
  const roles: { readonly [step: string]: string } = { "Set feed-in tariff": "Billing" };
  return [
    "Vorgang;Was;Beginn;Ende;Rolle",
    ...ways.flatMap((way, number) =>
      way.map((name, place) => {
        const day = String(1 + (number % 28)).padStart(2, "0");
        const hour = String(6 + place).padStart(2, "0");
        return `K-${number + 1};${name};${day}.03.2027 ${hour}:00;${day}.03.2027 ${hour}:${10 + ((number * 7 + place * 3) % 40)};${roles[name] ?? ""}`;
      }),
    ),
  ].join("\n");
}

test("a log is imported, held against the model in sentences, repaired, judged, and taken into a scenario", async ({
  page,
  context,
  request,
}) => {
  const copied = await request.post("/api/do/copyProcess", {
    data: { id: "solar-connection", name: "Solar connection, looked into", area: "area-connections" },
  });
  const { version } = (await copied.json()) as { version: string };
  await page.goto(`/v/${version}/live?evidence`);
  await page.getByRole("button", { name: "Import a log …" }).click();
  const dialog = page.getByTestId("import-log");
  await dialog
    .locator("input[type=file]")
    .setInputFiles({ name: "register.csv", mimeType: "text/csv", buffer: Buffer.from(table()) });
  const column = (name: string) => dialog.getByLabel(`What the columns are: ${name}`);
  for (const [name, what] of [
    ["Vorgang", "Case"],
    ["Was", "Activity"],
    ["Ende", "Time, or end"],
    ["Beginn", "Beginning"],
    ["Rolle", "Role"],
  ] as const) {
    await column(name).selectOption({ label: what });
    await expect(column(name).locator("option:checked")).toHaveText(what);
  }
  await expect(dialog.getByTestId("log-found")).toContainText("20 cases, 360 events.");
  await page.getByRole("button", { name: "Keep it" }).click();

  // What the system calls otherwise is one of the steps, which is asked about and said.
  await page.getByRole("radio", { name: "Activities and steps" }).click();
  await page.getByLabel("Which step “Study of the feeder” is").selectOption({ label: "Check feeder capacity" });
  await expect(page.getByTestId("log-steps")).toContainText("said");

  await page.getByRole("radio", { name: "Differences" }).click();
  await expect(page.getByTestId("log-fits")).toHaveText("14 of 20 cases go as modelled.");
  const rows = page.getByTestId("difference");
  await expect(rows.first()).toContainText("“Check feeder capacity” is skipped in 15 % of the traces.");
  await rows.first().getByRole("button").first().click();
  // It is framed on the drawing, with the share that skips it.
  await expect(page.getByTestId("difference-page").locator('[data-means="differs"]').first()).toBeVisible();
  await expect(page.getByTestId("difference-page")).toContainText("15 % skipped");

  for (const [fits, left] of [
    ["17 of 20", 2],
    ["19 of 20", 1],
  ] as const) {
    if ((await rows.first().getByRole("button", { expanded: true }).count()) === 0)
      await rows.first().getByRole("button").first().click();
    await page.getByRole("button", { name: "Repair the model" }).click();
    await expect(page.getByTestId("repaired")).toContainText(`${fits} cases then go as modelled`);
    await page.getByRole("button", { name: "Make it so" }).click();
    await expect(page.getByTestId("log-fits")).toHaveText(`${fits} cases go as modelled.`);
    await expect(rows).toHaveCount(left);
  }

  // Somebody else looks at the same: what one judges is judged for both, and both of one thing is one judgement.
  const other = await context.newPage();
  await other.goto(`/v/${version}/live?evidence`);
  const theirs = other.getByTestId("difference");
  await expect(theirs).toHaveCount(1);
  for (const window of [other, page])
    await window.getByTestId("difference").first().getByRole("button").first().click();
  const judge = async (window: typeof page, note: string) => {
    await window.getByRole("button", { name: "Misconduct" }).click();
    await window.getByRole("dialog").getByLabel("Note").fill(note);
  };
  await Promise.all([judge(page, "Neighbours are not asked."), judge(other, "Nobody asks neighbours.")]);
  for (const window of [page, other])
    await window.getByRole("dialog").getByRole("button", { name: "Misconduct" }).click();
  await expect(rows).toHaveCount(0);
  await expect(theirs).toHaveCount(0);
  await other.close();
  await expect(page.getByText("What is left is judged, and stays.")).toBeVisible();

  await page.getByRole("radio", { name: "Figures" }).click();
  await expect(page.getByTestId("log-figures")).toContainText("Capacity on the feeder?");
  await page.getByRole("button", { name: "Into a scenario" }).click();
  await expect(page.getByText(/As measured: register: \d+ figures taken\./)).toBeVisible();
  await page.goto(`/v/${version}/forecast`);
  await expect(page.getByText("As measured: register").first()).toBeAttached();

  // What was done stands in the version, whoever looks.
  await page.goto(`/v/${version}/live?evidence`);
  await expect(page.getByTestId("log-fits")).toHaveText("19 of 20 cases go as modelled.");
});

test("a log is looked at by whoever looks, and a process is made of it", async ({ page }) => {
  await page.goto("/v/solar-connection-as-is/live?evidence");
  await expect(page.getByTestId("difference").first()).toContainText("is done after “Check feeder capacity”");
  await page.getByRole("radio", { name: "Map" }).click();
  await expect(page.getByTestId("map-page")).toContainText("420");
  await page.getByRole("radio", { name: "Dotted chart" }).click();
  await expect(page.getByTestId("log-dots").locator("canvas")).toBeVisible();
  await page.getByRole("radio", { name: "Overview" }).click();
  await page.getByRole("button", { name: "Only cases whose Channel is letter" }).click();
  await expect(page.getByTestId("filters")).toContainText("Channel is letter");
  await page.getByRole("radio", { name: "Map" }).click();
  await page.getByRole("button", { name: "Make a process of this log …" }).click();
  await page.getByRole("dialog").getByLabel("Name").fill("By letter");
  await page.getByRole("dialog").getByLabel("It becomes").selectOption("process");
  await page.getByRole("dialog").getByRole("button", { name: "Make it" }).click();
  await page.waitForURL(/\/diagram/);
  await expect(page.locator('[data-canvas] [data-type="task"]').first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "By letter" }).or(page.getByText("By letter")).first()).toBeVisible();
});
