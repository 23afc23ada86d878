import {
  boundaryEventsOf,
  eventDefinitionsOf,
  laneOf,
  type Model,
  nameOf,
  outgoingOf,
  participantsOf,
  triggerOf,
} from "../../src/core/model";
import { findAnything, saved, stored } from "./storedModel";
import { expect, type Page, test } from "./test";

const canvas = (page: Page) => page.getByTestId("canvas");

/** A key that adds something, and its name. */
async function build(page: Page, key: string, name: string): Promise<void> {
  await page.keyboard.press(key);
  await expect(page.getByTestId("name-editor")).toBeFocused();
  await page.keyboard.insertText(name);
  await page.keyboard.press("Enter");
  await expect(canvas(page)).toBeFocused();
}

/** Names what is chosen anew, or for the first time. */
async function name(page: Page, words: string): Promise<void> {
  await build(page, "F2", words);
}

/** To an element by the outline, typing the beginning of its name. */
async function go(page: Page, words: string): Promise<void> {
  await page.keyboard.press("o");
  await expect(page.getByRole("tree")).toBeVisible();
  // A machine that rests between two letters makes two words of them.
  await expect(async () => {
    await page.keyboard.press("Home");
    await page.keyboard.type(words.toLowerCase());
    const found = page.locator("[role=treeitem]:focus");
    await expect(found).toContainText(words, { timeout: 1_000 });
  }).toPass();
  await page.keyboard.press("Enter");
  await expect(canvas(page)).toBeFocused();
  await page.keyboard.press("o");
  await expect(page.getByRole("tree")).toHaveCount(0);
}

/** From a list that a key opens, by typing. */
async function pick(page: Page, key: string, words: string): Promise<void> {
  await page.keyboard.press(key);
  await expect(page.getByPlaceholder("Type a part of its name")).toBeFocused();
  await page.keyboard.insertText(words);
  await page.keyboard.press("Enter");
  await expect(canvas(page)).toBeFocused();
}
const leadTo = (page: Page, words: string) => pick(page, "r", words);
const become = (page: Page, words: string) => pick(page, "Shift+R", words);

const lanes = ["Front desk", "Network engineer", "Field crew", "Billing"];

/** Down or up to a lane, from whichever it is in. */
async function intoLane(page: Page, version: string, step: string, lane: string): Promise<void> {
  const model = await stored(page, version);
  const by = lanes.indexOf(lane) - lanes.indexOf(nameOf(model, laneOf(model, element(model, step))?.id ?? ""));
  for (let at = 0; at < Math.abs(by); at++) await page.keyboard.press(by > 0 ? "Control+ArrowDown" : "Control+ArrowUp");
}

const element = (model: Model, words: string) =>
  [...model.elements].find((one) => one.name === words && one.type !== "sequenceFlow")?.id ?? `no ${words}`;

test("the solar connection is drawn from nothing by keyboard alone", async ({ page }) => {
  test.setTimeout(600_000);
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Rooftop solar connection" })).toBeVisible();
  await findAnything(page);
  await page.keyboard.insertText("New process");
  await page.keyboard.press("Enter");
  await page.getByRole("dialog").getByRole("textbox").waitFor();
  await page.keyboard.insertText("Solar by hand");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/diagram/);
  await expect(canvas(page)).toBeFocused();
  const version = decodeURIComponent(/\/v\/([^/]+)/.exec(page.url())?.[1] ?? "");

  await build(page, "u", "Quillmere Power Cooperative");
  for (const lane of lanes) await build(page, "l", lane);
  for (const party of ["Household", "Installer"]) {
    await page.keyboard.press("Escape");
    await build(page, "x", party);
  }

  // The happy path first.
  await go(page, "Front desk");
  await build(page, "1", "Application received");
  await intoLane(page, version, "Application received", "Front desk");
  await become(page, "message start");
  const path = [
    ["Enter", "Register application", "Front desk", "user task"],
    ["d", "Application complete?", "Front desk", ""],
    ["Enter", "Check feeder capacity", "Network engineer", "user task"],
    ["d", "Capacity on the feeder?", "Network engineer", ""],
    ["Enter", "Approve connection design", "Network engineer", "user task"],
    ["i", "What is needed on site?", "Network engineer", ""],
    ["Enter", "Change the meter", "Field crew", "manual task"],
    ["i", "All is ready", "Network engineer", ""],
    ["Enter", "Book visit by telephone", "Front desk", "user task"],
    ["s", "Inspect on site", "Field crew", ""],
    ["c", "Switch on and verify", "Field crew", ""],
    ["Enter", "Set feed-in tariff", "Billing", "service task"],
    ["e", "Plant connected", "Billing", "message end"],
  ] as const;
  for (const [key, step, lane, kind] of path) {
    await build(page, key, step);
    await intoLane(page, version, step, lane);
    if (kind) await become(page, kind);
  }

  // Then the other ways.
  await go(page, "Application complete?");
  await build(page, "Enter", "Request missing papers");
  await intoLane(page, version, "Request missing papers", "Front desk");
  await become(page, "send task");
  await build(page, "Enter", "Receive missing papers");
  await become(page, "receive task");
  await leadTo(page, "Register application");
  await go(page, "Receive missing papers");
  await build(page, "b", "10 working days");
  await build(page, "e", "Application lapsed");
  await go(page, "Capacity on the feeder?");
  await build(page, "Enter", "Explain the rejection");
  await intoLane(page, version, "Explain the rejection", "Front desk");
  await become(page, "send task");
  await build(page, "e", "Application rejected");
  await go(page, "What is needed on site?");
  await build(page, "Enter", "Upgrade the fuse");
  await intoLane(page, version, "Upgrade the fuse", "Field crew");
  await become(page, "manual task");
  await leadTo(page, "All is ready");
  await go(page, "What is needed on site?");
  await leadTo(page, "All is ready");

  // Answers, and which is the usual one.
  await go(page, "Application complete?");
  await page.keyboard.press(".");
  await name(page, "yes");
  await page.keyboard.press("Shift+D");
  await page.keyboard.press(".");
  await name(page, "no");
  await go(page, "Capacity on the feeder?");
  await page.keyboard.press(".");
  await name(page, "yes");
  await page.keyboard.press(".");
  await name(page, "no");

  // Messages with those outside.
  for (const [from, to] of [
    ["Household", "Application received"],
    ["Request missing papers", "Household"],
    ["Household", "Receive missing papers"],
    ["Explain the rejection", "Household"],
    ["Installer", "Inspect on site"],
    ["Plant connected", "Installer"],
  ] as const) {
    await go(page, from);
    await leadTo(page, to);
  }
  await page.keyboard.press("Escape");
  await page.keyboard.press("y");
  await saved(page);

  const model = await stored(page, version);
  const id = (words: string) => element(model, words);
  const next = (words: string) => outgoingOf(model, id(words)).map((flow) => nameOf(model, String(flow.targetRef)));
  expect(participantsOf(model).map((pool) => pool.name)).toEqual([
    "Quillmere Power Cooperative",
    "Household",
    "Installer",
  ]);
  for (const [, step, lane] of path) expect(nameOf(model, laneOf(model, id(step))?.id ?? ""), step).toBe(lane);
  for (const [at, [, step]] of path.slice(0, -1).entries()) expect(next(step)).toContain(path[at + 1]?.[1]);
  expect(next("Application received")).toEqual(["Register application"]);
  expect(next("Receive missing papers")).toEqual(["Register application"]);
  expect(next("What is needed on site?").sort()).toEqual(["All is ready", "Change the meter", "Upgrade the fuse"]);
  const late = boundaryEventsOf(model, id("Receive missing papers"))[0];
  expect(late && triggerOf(model, late)).toBe("timerEventDefinition");
  expect(eventDefinitionsOf(model, id("Application received")).map((one) => one.type)).toEqual([
    "messageEventDefinition",
  ]);
  const answers = outgoingOf(model, id("Application complete?")).map((flow) => flow.name);
  expect(answers).toEqual(["yes", "no"]);
  const usual = model.elements.get(String(model.elements.get(id("Application complete?"))?.default));
  expect(usual?.name).toBe("yes");
  expect([...model.elements].filter((one) => one.type === "messageFlow")).toHaveLength(6);
  expect([...model.elements].find((one) => one.name === "Explain the rejection")?.type).toBe("sendTask");
});
