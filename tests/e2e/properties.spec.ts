import { expect, test } from "@playwright/test";
import { referenceOf } from "../../src/core/commands";
import {
  attributesOf,
  childrenOf,
  type Element,
  elementsOfType,
  eventDefinitionsOf,
  systemsOf,
} from "../../src/core/model";
import { choose, importSmall, openDiagram, saved, stored } from "./storedModel";

test("timers in words, messages by name, repetition, own attributes, and several at once are kept in the model", async ({
  page,
}) => {
  const version = await importSmall(page, "Properties");
  await openDiagram(page, version);
  const tray = page.getByTestId("tray");
  const fill = async (label: string, value: string) => {
    const field = tray.getByLabel(label, { exact: true });
    await field.fill(value);
    await field.press("Enter");
    await saved(page);
  };
  await choose(page, "late");
  await fill("When", "10 working days");
  await expect(tray).toContainText("P14D");
  await fill("When", "every Monday at 8:00");
  await expect(tray.getByLabel("When", { exact: true })).toHaveValue("every Monday at 8:00");
  await fill("When", "soon");
  await expect(page.getByText(/“soon” is no time/)).toBeVisible();

  await choose(page, "start");
  await fill("Message", "Application");
  await choose(page, "check");
  await tray.getByLabel("Repeats", { exact: true }).selectOption("loop");
  await fill("Again if", "not(complete)");
  await fill("At most", "3");
  await tray.getByLabel("Name of a new one, then Enter").fill("risk");
  await tray.getByLabel("Name of a new one, then Enter").press("Enter");
  await fill("risk", "high");

  // Two steps at once: their type, who is consulted, which system they use.
  await choose(page, "approve", "check");
  await tray.getByLabel("Type", { exact: true }).selectOption("serviceTask");
  await tray.getByRole("button", { name: "Systems: add" }).click();
  await page.getByRole("option", { name: /Case register/ }).click();
  await saved(page);

  const model = await stored(page, version);
  const element = (id: string) => model.elements.get(id) as Element;
  expect(eventDefinitionsOf(model, "late")[0]?.timeCycle).toMatchObject({
    text: expect.stringMatching(/^R\/.*T08:00:00\/P7D$/),
  });
  expect(referenceOf(model, element("start"))?.name).toBe("Application");
  expect(elementsOfType(model, "message")).toHaveLength(1);
  expect(childrenOf(model, "check", "loopCharacteristics")[0]).toMatchObject({ loopMaximum: 3 });
  expect(attributesOf(element("check"))).toEqual([{ name: "risk", value: "high" }]);
  for (const id of ["approve", "check"]) {
    expect(element(id).type).toBe("serviceTask");
    expect(systemsOf(element(id)).map((system) => system.name)).toEqual(["Case register"]);
  }
});

test("the gallery names every symbol, and finds one", async ({ page }) => {
  await page.goto("/gallery");
  await expect(page.getByRole("img", { name: "timer boundary event, non-interrupting" })).toBeVisible();
  expect(await page.getByRole("listitem").count()).toBeGreaterThan(110);
  await page.getByLabel("Type a part of its name").fill("escalation end");
  await expect(page.getByRole("listitem")).toHaveCount(1);
});
