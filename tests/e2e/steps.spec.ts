import { expect, type Page, test } from "./test";

const saved = (page: Page) => expect(page.getByTestId("saved-state")).toHaveText("Saved");
const sheet = (page: Page) => page.getByTestId("step-sheet");
const row = (page: Page, name: string | RegExp) => sheet(page).getByRole("row", { name });
const path = (page: Page, answer: string) => sheet(page).locator("[data-kind=path]").filter({ hasText: answer });
const drawn = (page: Page, name: string) => page.getByTestId("following-page").getByRole("img", { name });

async function newProcess(page: Page, name: string): Promise<string> {
  await page.goto("/");
  await page.getByRole("button", { name: "What to do with On site" }).click();
  await page.getByRole("menuitem", { name: "New process in On site" }).click();
  await page.getByRole("dialog").getByRole("textbox").fill(name);
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  const version = new URL(page.url()).pathname.split("/")[2] as string;
  await page.getByRole("link", { name: /^Steps/ }).click();
  await expect(sheet(page)).toBeVisible();
  return version;
}

async function paste(page: Page, text: string) {
  await sheet(page).focus();
  await sheet(page).evaluate((element, pasted) => {
    const data = new DataTransfer();
    data.setData("text/plain", pasted);
    element.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
}

const twelve = [
  "Step\tWho\tSystem\tOutput\tNotes",
  "Take the call\tFront desk\tCase register\t\tAsk for the meter number",
  "Open a fault case\tFront desk\tCase register\tFault case\t",
  "Look up the plant\tNetwork engineer\tNetwork map\t\t",
  "Judge the danger\tNetwork engineer\t\t\t",
  "Plan the visit\tFront desk\tCrew planner\t\t",
  "Drive to the plant\tField crew\t\t\t",
  "Switch off the inverter\tField crew\t\t\t",
  "Find the fault\tField crew\t\tVisit report\t",
  "Repair it\tField crew\t\t\t",
  "Switch on again\tField crew\tMeter platform\t\t",
  "Write the bill\tBilling\tBilling ledger\tRepair bill\t",
  "Close the fault case\tFront desk\tCase register\t\t",
].join("\r\n");

test("twelve rows of a spreadsheet become a diagram; a decision gets a path of its own; a change of the diagram is seen in the sheet", async ({
  page,
}) => {
  const version = await newProcess(page, "Repair an inverter");
  await paste(page, twelve);
  await expect(row(page, /12 Close the fault case Front desk/)).toBeVisible();
  for (const name of ["Take the call, task", "Find the fault, task", "Close the fault case, task"])
    await expect(drawn(page, name)).toBeAttached();
  await expect(drawn(page, "Field crew, lane")).toBeAttached();
  await saved(page);

  // A question behind a step, with a way out of its own.
  await row(page, /4 Judge the danger/)
    .getByRole("gridcell")
    .first()
    .click();
  await page.keyboard.press("Alt+d");
  await page.keyboard.type("Can it wait?");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(row(page, "5 Can it wait?")).toBeVisible();
  await path(page, "no").getByRole("gridcell").first().click();
  await page.keyboard.press("Enter");
  await page.keyboard.type("Switch off from afar");
  await page.keyboard.press("Tab");
  await expect(row(page, /5a1 Switch off from afar Network engineer/)).toBeVisible();
  await page.keyboard.type("field");
  await page.keyboard.press("Enter");
  await expect(row(page, /5a1 Switch off from afar Field crew/)).toBeVisible();
  await expect(drawn(page, "Can it wait?, exclusive gateway")).toBeAttached();
  await saved(page);

  // An undo takes one gesture back, with all it did to the drawing.
  await page.keyboard.press("Control+z");
  await expect(row(page, /5a1 Switch off from afar Network engineer/)).toBeVisible();
  await page.keyboard.press("Control+y");
  await expect(row(page, /5a1 Switch off from afar Field crew/)).toBeVisible();

  // The diagram changes, the sheet follows.
  const repair = await row(page, /Repair it/).getAttribute("data-row");
  await page.goto(`/v/${version}/diagram?element=${repair}`);
  await expect(page.getByTestId("tray")).toContainText("Comes from");
  await page.locator("[data-canvas]").focus();
  await page.keyboard.press("F2");
  await page.getByTestId("name-editor").fill("Replace the part");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("link", { name: /^Steps/ }).click();
  await expect(row(page, /Replace the part Field crew/)).toBeVisible();
});

test("columns that nobody can tell are asked for; a row moves by keyboard; a path leads back to an earlier step", async ({
  page,
}) => {
  await newProcess(page, "Read a letter");
  await paste(page, "Open the letter;Front desk\nRead it;Front desk\nAnswer it;Billing");
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("What do the columns mean?");
  await dialog.getByRole("combobox", { name: "Column 2" }).selectOption("by");
  await dialog.getByRole("button", { name: "Insert 3 steps" }).click();
  await expect(row(page, /3 Answer it Billing/)).toBeVisible();

  await row(page, /2 Read it/)
    .getByRole("gridcell")
    .first()
    .click();
  await page.keyboard.press("Alt+ArrowUp");
  await expect(row(page, /1 Read it/)).toBeVisible();
  await expect(row(page, /2 Open the letter/)).toBeVisible();

  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Alt+d");
  await page.keyboard.type("Legible?");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await path(page, "no").getByRole("gridcell").first().click();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("F2");
  await page.keyboard.press("Escape");
  await saved(page);
  expect(await page.evaluate(() => document.activeElement?.getAttribute("role"))).toBe("treegrid");
});

test("a sheet leaves as CSV and comes back as the same sheet", async ({ page }) => {
  const answer = await page.request.get("/api/export?version=solar-connection-as-is&format=csv");
  const csv = await answer.text();
  expect(csv.split("\r\n")[0]).toBe("No,Level,Kind,Step,By,Uses,Needs,Gives,Guidance,Time,Cost");
  await page.goto("/");
  await page
    .getByTestId("open-file")
    .setInputFiles({ name: "connection.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
  await expect(page).toHaveURL(/\/v\/.+\/diagram/);
  const version = new URL(page.url()).pathname.split("/")[2] as string;
  const again = await page.request.get(`/api/export?version=${version}&format=csv`);
  expect(await again.text()).toBe(csv);
});

test("time and cost are written in columns of their own; a row is dragged; a decision's ways are all taken", async ({
  page,
}) => {
  const version = await newProcess(page, "Estimate a repair");
  await paste(
    page,
    "Step\tWho\tTime\tCost\r\nTake the call\tFront desk\t10 min\t\r\nFind the fault\tField crew\t1,5 h\t80\r\nWrite the bill\tBilling\t\t",
  );
  await expect(row(page, /3 Write the bill/)).toBeVisible();
  await page.getByRole("button", { name: "Time and cost" }).click();
  await expect(row(page, /2 Find the fault Field crew 1.5 h 80/)).toBeVisible();
  await row(page, /3 Write the bill/)
    .locator("[data-column=time]")
    .dblclick();
  await page.getByRole("textbox", { name: "Working time" }).fill("20 min");
  await page.keyboard.press("Enter");
  await expect(row(page, /3 Write the bill Billing 20 min/)).toBeVisible();
  await row(page, /3 Write the bill/)
    .locator("[data-column=time]")
    .dblclick();
  await page.getByRole("textbox", { name: "Working time" }).fill("soon");
  await page.keyboard.press("Enter");
  await expect(page.getByText('"soon" is no duration.')).toBeVisible();

  // Dragged by its number behind the first row.
  await row(page, /3 Write the bill/)
    .getByText("3", { exact: true })
    .dragTo(row(page, /1 Take the call/));
  await expect(row(page, /2 Write the bill/)).toBeVisible();
  await expect(row(page, /3 Find the fault/)).toBeVisible();

  await row(page, /2 Write the bill/)
    .locator("[data-column=step]")
    .click();
  await page.keyboard.press("Alt+D");
  await page.keyboard.type("Paid at once?");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await row(page, /Paid at once\?/)
    .locator("[data-column=step]")
    .click();
  await page.keyboard.press("Alt+W");
  await expect(row(page, /Paid at once\?/)).toContainText("all ways");
  await saved(page);
  const file = await page.request.get(`/api/export?version=${version}&format=bpmn`);
  const text = await file.text();
  expect(text).toContain("parallelGateway");
  expect(text).toContain('value="PT1.5H"');
});
