import { expect, type Page, test } from "./test";

/**
 * Five set tasks, with the keys and clicks that each costs besides the names that are typed. The numbers are the most that a task may
 * cost; `docs/speed-of-hand.md` tells them with what they were before.
 */
class Hand {
  count = 0;
  constructor(readonly page: Page) {}

  /** One press, however many keys are held with it. */
  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.count += 1;
      await this.page.keyboard.press(key);
    }
  }
  /** A name: its letters are not counted. */
  async name(words: string): Promise<void> {
    await this.page.keyboard.insertText(words);
  }
  async click(target: ReturnType<Page["locator"]>): Promise<void> {
    this.count += 1;
    await target.click();
  }
}

const sheet = (page: Page) => page.getByTestId("step-sheet");
const row = (page: Page, name: string | RegExp) => sheet(page).getByRole("row", { name });
const rowCell = (page: Page, name: string | RegExp, column: string) =>
  row(page, name).first().locator(`[data-column=${column}]`);
const drawn = (page: Page, name: string | RegExp) => page.locator("[data-canvas]").getByRole("img", { name });

let made = 0;
async function newVersion(page: Page, stage: "steps" | "diagram"): Promise<string> {
  const id = `hand-${Date.now()}-${++made}`;
  const answer = await page.request.post("/api/do/createProcess", {
    data: { name: `By hand ${id}`, area: "area-connections", processId: `process-${id}`, versionId: id },
  });
  expect(answer.ok()).toBe(true);
  await page.goto(`/v/${id}/${stage}`);
  return id;
}

const names = [
  "Take the call",
  "Open a case",
  "Look up the plant",
  "Judge the danger",
  "Plan the visit",
  "Drive there",
  "Find the fault",
  "Repair it",
  "Write the bill",
  "Close the case",
];

test("ten steps with a decision and a loop, by keyboard: 2 keys a step at most, 3 the decision, 3 the loop", async ({
  page,
}) => {
  await newVersion(page, "steps");
  await expect(sheet(page)).toBeFocused();
  const hand = new Hand(page);
  await hand.press("Enter");
  for (const name of names) {
    await hand.name(name);
    await hand.press("Enter");
  }
  await hand.press("Escape");
  expect(hand.count).toBeLessThanOrEqual(2 * names.length);
  await expect(row(page, /10 Close the case/)).toBeVisible();

  // Behind the last step: a question with two answers, the usual one marked.
  const decision = new Hand(page);
  await row(page, /8 Repair it/)
    .first()
    .locator("[data-column=step]")
    .click();
  await decision.press("Alt+d");
  await decision.name("Does it work?");
  await decision.press("Enter");
  expect(decision.count).toBeLessThanOrEqual(3);
  await page.keyboard.press("Escape");
  await expect(row(page, "9 Does it work?")).toBeVisible();

  const loop = new Hand(page);
  await sheet(page).locator("[data-kind=path]").filter({ hasText: "no" }).locator("[data-column=step]").click();
  await loop.press("Alt+l");
  await loop.name("find");
  await loop.press("Enter");
  expect(loop.count).toBeLessThanOrEqual(3);
  await expect(row(page, /back to 7 Find the fault/)).toBeVisible();
});

test("the same in the diagram by keyboard, a decision with its answers on the way", async ({ page }) => {
  await newVersion(page, "diagram");
  await expect(page.locator("[data-canvas]")).toBeFocused();
  const hand = new Hand(page);
  await hand.press("1");
  await hand.name("Fault reported");
  for (const name of names.slice(0, 8)) {
    await hand.press("Alt+t");
    await hand.name(name);
  }
  await hand.press("Alt+d");
  await hand.name("Does it work?");
  for (const name of names.slice(8)) {
    await hand.press("Alt+t");
    await hand.name(name);
  }
  await hand.press("Enter");
  // A start, ten steps and a decision with two answers.
  expect(hand.count).toBeLessThanOrEqual(2 * 11 + 3);
  for (const name of [...names, "Does it work?"])
    await expect(drawn(page, new RegExp(`^${name.replace("?", "\\?")}`))).toBeAttached();

  const loop = new Hand(page);
  await page.keyboard.press("0");
  await expect(async () => {
    const diamond = await page.locator('[data-canvas] [data-type="exclusiveGateway"] path').first().boundingBox();
    if (!diamond) throw new Error("The decision is not drawn.");
    await page.mouse.click(diamond.x + diamond.width / 2, diamond.y + diamond.height / 2);
    const name = page.getByTestId("tray").getByLabel("Name", { exact: true });
    await expect(name).toHaveValue("Does it work?", { timeout: 3_000 });
  }).toPass();
  await loop.press("r");
  // Typed at once, while the list still opens.
  await page.keyboard.type("find");
  await expect(page.getByRole("option", { name: /^Find the fault/ })).toBeVisible();
  await loop.press("Enter");
  expect(loop.count).toBeLessThanOrEqual(3);
  // The answer that was still open goes back now; there is one end.
  await expect(page.locator('[data-canvas] [data-type="endEvent"]')).toHaveCount(1);
});

test("the same by mouse: a click a step, besides the key that ends its name", async ({ page }) => {
  await newVersion(page, "diagram");
  const strip = (kind: RegExp) => page.getByRole("toolbar").first().getByRole("button", { name: kind });
  const hand = new Hand(page);
  await hand.click(strip(/^Start/));
  await hand.name("Fault reported");
  for (const name of names.slice(0, 8)) {
    await hand.click(strip(/^Task/));
    await hand.name(name);
  }
  await hand.click(strip(/^Decision/));
  await hand.name("Does it work?");
  for (const name of names.slice(8)) {
    await hand.click(strip(/^Task/));
    await hand.name(name);
  }
  await hand.press("Enter");
  expect(hand.count).toBeLessThanOrEqual(2 * 11 + 3);
  for (const name of names) await expect(drawn(page, new RegExp(`^${name}`))).toBeAttached();
});

test("a list of twelve rows is pasted with one key", async ({ page }) => {
  await newVersion(page, "steps");
  await expect(sheet(page)).toBeFocused();
  const rows = [
    "Step\tWho",
    ...[...names, "File it", "Report it"].map((name, at) => `${name}\t${at % 2 ? "Billing" : "Front desk"}`),
  ];
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData("text/plain", text);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, rows.join("\r\n"));
  await expect(row(page, /12 Report it Billing/)).toBeVisible();
});

test("six steps get another role: three keys a step, none to find the next", async ({ page }) => {
  await newVersion(page, "steps");
  await expect(sheet(page)).toBeFocused();
  await page.evaluate(
    (text) => {
      const data = new DataTransfer();
      data.setData("text/plain", text);
      document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
    },
    `Step\tWho\r\n${names
      .slice(0, 6)
      .map((name) => `${name}\tFront desk`)
      .join("\r\n")}`,
  );
  await expect(row(page, /6 Drive there Front desk/)).toBeVisible();
  await rowCell(page, /1 Take the call/, "by").click();
  const hand = new Hand(page);
  for (let at = 0; at < 6; at++) {
    await hand.name("");
    await page.keyboard.type("field");
    await hand.press("Enter");
    if (at < 5) await hand.press("ArrowDown");
  }
  expect(hand.count).toBeLessThanOrEqual(12);
  await expect(row(page, /6 Drive there Field crew/)).toBeVisible();
  await expect(row(page, /1 Take the call Field crew/)).toBeVisible();
});

test("a rejection path with its end: a question, its answer's step, its end", async ({ page }) => {
  await newVersion(page, "steps");
  await expect(sheet(page)).toBeFocused();
  const hand = new Hand(page);
  await hand.press("Enter");
  await hand.name("Check the request");
  await hand.press("Enter");
  await hand.name("Approve it");
  await hand.press("Enter", "Escape");
  await rowCell(page, /1 Check the request/, "step").click();
  const rejection = new Hand(page);
  await rejection.press("Alt+d");
  await rejection.name("Acceptable?");
  await rejection.press("Enter", "Escape");
  await rejection.click(
    sheet(page).locator("[data-kind=path]").filter({ hasText: "no" }).locator("[data-column=step]"),
  );
  await rejection.press("Enter");
  await rejection.name("Explain why not");
  await rejection.press("Alt+e");
  await rejection.press("ArrowDown");
  await rejection.name("");
  await page.keyboard.type("Rejected");
  await rejection.press("Enter");
  expect(rejection.count).toBeLessThanOrEqual(9);
  await expect(row(page, /2a1 Explain why not/)).toBeVisible();
  await expect(row(page, /Rejected/)).toBeVisible();
});
