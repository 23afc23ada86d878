import { referenceOf } from "../../src/core/commands";
import {
  attributesOf,
  childrenOf,
  documentationIn,
  type Element,
  elementsOfType,
  eventDefinitionsOf,
  linksWith,
  type Model,
  plainOf,
  systemsOf,
} from "../../src/core/model";
import { performAll, smallModel } from "../../src/core/testing/models";
import { choose, importSmall, openDiagram, saved, stored } from "./storedModel";
import { expect, test } from "./test";

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
  await expect(async () => {
    await choose(page, "approve", "check");
    await expect(tray.getByText("2 elements")).toBeVisible({ timeout: 3_000 });
  }).toPass();
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

test("conditions in FEEL or words, instructions with emphasis in two languages, links and files are kept in the model", async ({
  page,
}) => {
  const version = await importSmall(
    page,
    "Documents",
    performAll(smallModel(), {
      type: "place",
      diagram: "page",
      id: "paper",
      kind: { type: "dataObjectReference" },
      at: { x: 300, y: 150 },
      name: "rated power",
    }),
  );
  await openDiagram(page, version);
  const tray = page.getByTestId("tray");
  await page.goto(`/v/${version}/diagram?element=f3`);
  const condition = tray.getByLabel("Condition", { exact: true });
  await condition.fill("the feeder can carry it");
  await expect(tray).toContainText("Plain words: for people; no machine can decide by this.");
  await condition.press("Enter");
  expect((await stored(page, version)).elements.get("f3")?.conditionExpression).toEqual({
    text: "the feeder can carry it",
  });
  await condition.fill("rated power <= 10 and age > 2");
  await expect(tray).toContainText("FEEL, but no data in reach is called age.");
  await condition.fill("rated power <=");
  await expect(tray).toContainText("As FEEL it breaks off behind");
  await condition.fill("rated power <= 10");
  await expect(tray).toContainText("FEEL: a machine can decide by this.");
  await expect(tray.locator("datalist option")).toHaveAttribute("value", /rated power/);
  await condition.press("Enter");
  expect((await stored(page, version)).elements.get("f3")?.conditionExpression).toMatchObject({
    text: "rated power <= 10",
    typeName: expect.stringContaining("tFormalExpression"),
    language: expect.stringContaining("FEEL"),
  });

  await page.goto(`/v/${version}/diagram?element=check`);
  await expect(tray.getByLabel("Name", { exact: true })).toHaveValue("Check application");
  await tray.getByLabel("Instructions").fill("Look at the plan");
  await tray.getByLabel("Instructions").blur();
  await saved(page);
  await tray.getByLabel("Language").selectOption("de");
  await tray.getByRole("button", { name: "format" }).click();
  const text = tray.getByRole("textbox", { name: "Instructions" });
  await text.click();
  await page.keyboard.type("Den ");
  await page.keyboard.press("Control+b");
  await page.keyboard.type("Plan");
  await page.keyboard.press("Control+b");
  await page.keyboard.press("Enter");
  await tray.getByRole("button", { name: "List", exact: true }).click();
  await page.keyboard.type("Maßstab");
  await tray.getByRole("button", { name: "done" }).click();
  await saved(page);
  const link = tray.getByLabel("Address of a page, then Enter");
  await link.fill("javascript:alert(1)");
  await link.press("Enter");
  await expect(page.getByText(/is no address/)).toBeVisible();
  await link.fill("quillmere.example/form");
  await link.press("Enter");
  await tray
    .getByLabel("Attach a file")
    .last()
    .setInputFiles({
      name: "plan.txt",
      mimeType: "text/plain",
      buffer: Buffer.from("The plan of the site"),
    });
  await expect(tray.getByRole("link", { name: "plan.txt" })).toBeVisible();
  const check = (await stored(page, version)).elements.get("check") as Element;
  expect(plainOf(documentationIn(check))).toBe("Look at the plan");
  expect(plainOf(documentationIn(check, "de"))).toBe("Den Plan\nMaßstab");
  expect(JSON.stringify(documentationIn(check, "de"))).toContain('"marks":[{"type":"bold"}]');
  expect(linksWith(check)).toMatchObject([
    { kind: "page", title: "quillmere.example/form", href: "https://quillmere.example/form" },
    { kind: "file", title: "plan.txt" },
  ]);
  const href = await tray.getByRole("link", { name: "plan.txt" }).getAttribute("href");
  const file = await page.request.get(href ?? "");
  expect(await file.text()).toBe("The plan of the site");
  expect(file.headers()["content-disposition"]).toContain("attachment");
  const refused = await page.request.post("/api/files?name=run.exe", { data: Buffer.from("x") });
  expect(refused.status()).toBe(415);
});

test("lanes are dragged in the outline; hand-overs stay drawn until they are hidden", async ({ page }) => {
  const model = performAll(
    smallModel(),
    { type: "tieLane", lane: "desk", role: { entry: "role-front-desk", name: "Front desk" } },
    { type: "tieLane", lane: "engineer", role: { entry: "role-network-engineer", name: "Network engineer" } },
    { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" },
  );
  const version = await importSmall(page, "Outline", model);
  await openDiagram(page, version);
  await page.keyboard.press("o");
  const outline = page.getByRole("tree", { name: "Outline" });
  await outline
    .getByRole("treeitem", { name: /^Network engineer/ })
    .dragTo(outline.getByRole("treeitem", { name: /^Front desk/ }));
  const lanes = (of: Model) =>
    elementsOfType(of, "lane")
      .sort((a, b) => a.order - b.order)
      .map((lane) => lane.id);
  expect(lanes(await stored(page, version))).toEqual(["engineer", "desk"]);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+k");
  await expect(page.locator("[cmdk-input]")).toBeFocused();
  await page.keyboard.type("hand-overs on the diagram");
  await page.keyboard.press("Enter");
  await expect(page.locator('[data-means="handover"]').getByRole("img")).toHaveCount(1);
  await page.keyboard.press("t");
  await saved(page);
  await expect(page.getByText(/1 hand-over between roles/)).toBeVisible();
  await page.getByRole("button", { name: "hide" }).click();
  await expect(page.locator('[data-means^="handover"]')).toHaveCount(0);
});
