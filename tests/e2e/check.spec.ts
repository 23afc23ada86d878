import { readBpmn } from "../../src/core/bpmn";
import { expectOk } from "../../src/core/testing/models";
import { importSmall } from "./storedModel";
import { expect, test } from "./test";

test("a repair is looked at before it is made; a verdict is signed, lapses with a change, and profiles ask for more or less", async ({
  page,
  request,
}) => {
  const answer = await request.post("/api/do/copyProcess", {
    data: { id: "meter-exchange", name: "Meter exchange, signed", area: "area-on-site" },
  });
  const { version } = (await answer.json()) as { version: string };
  await page.goto(`/v/${version}/check`);
  const finding = page.locator('[data-rule="lack-of-synchronization"]');
  await expect(finding).toBeVisible();
  await expect(page.getByRole("button", { name: "Sign the verdict" })).toBeDisabled();
  await expect(page.getByTestId("measures")).toContainText("at most 50");
  // The repair is shown beside what is there, with what the check would say of it.
  await finding.getByRole("button", { name: "Preview" }).click();
  await expect(page.getByTestId("repair-effect")).toHaveText("It helps: 3 findings go, none comes new.");
  await page.getByRole("button", { name: "Apply the repair" }).click();
  await expect(finding).toHaveCount(0);
  await expect(page.getByTestId("verdict")).toContainText("No error is open for");
  // Signed, with who and when.
  await page.getByRole("button", { name: "Sign the verdict" }).click();
  await expect(page.getByTestId("signed")).toContainText(
    /^Signed by Mara Aldous on \d{4}-\d\d-\d\d for review, as revision \d+\.$/,
  );
  // For a hand-off more is asked than for a draft.
  const advice = page.getByRole("button", { name: /Advice$/ });
  await page.getByLabel("checked for").selectOption("hand-off");
  await page.getByRole("button", { name: "Rules" }).click();
  const rules = page.getByRole("dialog");
  await expect(rules).toContainText("Ready to be automated");
  await rules.getByLabel("Filter rules").fill("manual nonsense");
  await expect(rules.locator("select")).toHaveCount(0);
  await rules.getByLabel("Filter rules").fill("verb");
  await expect(rules.locator("select")).toHaveCount(3);
  await rules.getByRole("button", { name: "Close" }).click();
  await page.getByLabel("checked for").selectOption("draft");
  await expect(advice).toBeVisible();
  // The next change of the process ends the signature.
  await page.goto(`/v/${version}/diagram?element=book-visit`);
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Book visit");
  await page.getByLabel("Name", { exact: true }).fill("Book the visit");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await page.goto(`/v/${version}/check`);
  await expect(page.getByTestId("signed")).toContainText("has lapsed: the process has changed since");
});

test("an accepted finding is open again once its step has another name", async ({ page }) => {
  // A step that is named by a noun.
  const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Values">
    <startEvent id="start" name="Plant switched on"/><userTask id="record-values" name="Documentation of values"/><endEvent id="end" name="Values written down"/>
    <sequenceFlow id="f1" sourceRef="start" targetRef="record-values"/><sequenceFlow id="f2" sourceRef="record-values" targetRef="end"/>
  </process></definitions>`;
  const version = await importSmall(page, "Values", expectOk(readBpmn(new TextEncoder().encode(file))));
  await page.goto(`/v/${version}/check`);
  const finding = page.locator('[data-rule="verb-and-object"]');
  await finding.getByRole("button", { name: "Accept" }).click();
  await page.getByRole("dialog").getByLabel("Reason").fill("The crew calls it so");
  await page.getByRole("dialog").getByRole("button", { name: "Accept" }).click();
  await expect(finding).toContainText("Accepted: The crew calls it so (Mara Aldous");
  await page.goto(`/v/${version}/diagram?element=record-values`);
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Documentation of values");
  await page.getByLabel("Name", { exact: true }).fill("Documentation of readings");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");
  await page.goto(`/v/${version}/check`);
  await expect(finding).toContainText("Documentation of readings");
  await expect(finding).not.toContainText("Accepted:");
});
