import { readBpmn } from "../../src/core/bpmn";
import { expectOk } from "../../src/core/testing/models";
import { importSmall, stored } from "./storedModel";
import { expect, test } from "./test";

test("a parallel split that meets in an exclusive join is found, shown as a run, mended, and found no more", async ({
  page,
}) => {
  const flow = (from: string, to: string) =>
    `<sequenceFlow id="${from}-to-${to}" sourceRef="${from}" targetRef="${to}"/>`;
  const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Trap">
    <startEvent id="start" name="Application received"/><parallelGateway id="part"/>
    <userTask id="order" name="Order meter"/><userTask id="book" name="Book visit"/>
    <exclusiveGateway id="meet"/><userTask id="tell" name="Notify household"/><endEvent id="end" name="Household notified"/>
    ${flow("start", "part")}${flow("part", "order")}${flow("part", "book")}${flow("order", "meet")}${flow("book", "meet")}${flow("meet", "tell")}${flow("tell", "end")}
  </process></definitions>`;
  const model = expectOk(readBpmn(new TextEncoder().encode(file)));
  const version = await importSmall(page, "Trap", model);
  await page.goto(`/v/${version}/check`);
  const finding = page.locator('[data-rule="lack-of-synchronization"]');
  await expect(finding).toContainText("After Order meter and Book visit finish, Notify household runs twice");
  await finding.getByRole("button", { name: "Show the run" }).click();
  await expect(page.locator('[data-means="runStep"]').first()).toBeAttached();
  await expect(page.getByText(/A run of \d+ steps that leads there/)).toBeVisible();
  await page.getByRole("button", { name: "hide" }).click();
  await expect(page.locator('[data-means^="run"]')).toHaveCount(0);
  await page.goto(`/v/${version}/check`);
  await finding.getByRole("button", { name: /^Let it wait for all of them/ }).click();
  await expect(finding).toHaveCount(0);
  expect((await stored(page, version)).elements.get("meet")?.type).toBe("parallelGateway");
});
