import {
  type Bounds,
  boundaryEventsOf,
  edgesOf,
  incomingOf,
  laneOf,
  type Model,
  outgoingOf,
  scopeOf,
  shapesOf,
} from "../../src/core/model";
import { boundsOf, choose, drag, fitPage, importSmall, middleOf, openDiagram, saved, stored } from "./storedModel";
import { expect, test } from "./test";

const named = (model: Model, name: string) => {
  const found = [...model.elements].filter((element) => element.name === name);
  if (found.length === 0) throw new Error(`Nothing is called "${name}".`);
  return found;
};
const middle = ({ y, height }: Bounds) => y + height / 2;

test.describe.configure({ mode: "parallel" });

test("steps are added, put before, put on a flow, attached, made another kind", async ({ page }) => {
  const version = await importSmall(page, "Add and change");
  await openDiagram(page, version);
  const name = async (words: string) => {
    await expect(page.getByTestId("name-editor")).toBeFocused();
    await page.keyboard.type(words);
    await page.keyboard.press("Enter");
  };
  await choose(page, "reject");
  await page.keyboard.press("Enter");
  await name("Tell the installer");
  await choose(page, "approve");
  await page.keyboard.press("Shift+Enter");
  await name("Read the design");
  // To the flow out of the first step by keyboard, and a step onto it.
  await choose(page, "check");
  await page.keyboard.press(".");
  await page.keyboard.press("t");
  await name("Weigh it");
  await choose(page, "approve");
  await page.keyboard.press("b");
  await name("Two days");
  // A kind that has no letter, by its name; its own name is asked for then.
  await choose(page, "approve");
  await page.keyboard.press("z");
  await expect(page.getByPlaceholder("Type a part of its name")).toBeFocused();
  await page.keyboard.type("signal intermediate throw");
  await page.keyboard.press("Enter");
  await name("Design approved");
  await choose(page, "reject");
  await page.keyboard.press("Shift+R");
  await expect(page.getByPlaceholder("Type a part of its name")).toBeFocused();
  await page.keyboard.type("service task");
  await page.keyboard.press("Enter");
  await saved(page);

  const model = await stored(page, version);
  const [after] = named(model, "Tell the installer");
  expect(incomingOf(model, after?.id ?? "").map((flow) => flow.sourceRef)).toEqual(["reject"]);
  const [before] = named(model, "Read the design");
  expect(outgoingOf(model, before?.id ?? "").map((flow) => flow.targetRef)).toEqual(["approve"]);
  const [weigh] = named(model, "Weigh it");
  expect(incomingOf(model, weigh?.id ?? "").map((flow) => flow.sourceRef)).toEqual(["check"]);
  expect(outgoingOf(model, weigh?.id ?? "").map((flow) => flow.targetRef)).toEqual(["decide"]);
  expect(boundaryEventsOf(model, "approve").map((event) => event.name)).toEqual(["Two days"]);
  const [signal] = named(model, "Design approved");
  expect(signal?.type).toBe("intermediateThrowEvent");
  expect(model.elements.get("reject")).toMatchObject({ type: "serviceTask", name: "Reject application" });
});

test("elements are lined up, spread, given one size, tidied; each is one undo step with a name", async ({ page }) => {
  const version = await importSmall(page, "Line up");
  await openDiagram(page, version);
  // A row drawn crookedly is tidied among itself.
  await choose(page, "done");
  for (let at = 0; at < 4; at++) await page.keyboard.press("Alt+ArrowDown");
  const crooked = await stored(page, version);
  expect(middle(boundsOf(crooked, "approve"))).not.toBe(middle(boundsOf(crooked, "done")));
  await choose(page, "approve", "done");
  await page.keyboard.press("y");
  const before = await stored(page, version);
  expect(middle(boundsOf(before, "approve"))).toBe(middle(boundsOf(before, "done")));

  const three = ["check", "approve", "reject"];
  for (const [key, line] of [
    ["l", (b: Bounds) => b.x],
    ["c", (b: Bounds) => b.x + b.width / 2],
    ["r", (b: Bounds) => b.x + b.width],
    ["t", (b: Bounds) => b.y],
    ["m", middle],
    ["b", (b: Bounds) => b.y + b.height],
  ] as const) {
    await choose(page, "check", "approve");
    await page.keyboard.press(key);
    const model = await stored(page, version);
    expect(line(boundsOf(model, "check")), key).toBeCloseTo(line(boundsOf(model, "approve")), 3);
    await page.keyboard.press("Control+z");
    await expect
      .poll(async () => boundsOf(await stored(page, version), "approve"))
      .toEqual(boundsOf(before, "approve"));
  }
  await choose(page, "start", "check", "approve");
  await page.keyboard.press("h");
  const spread = await stored(page, version);
  const [a, b, c] = ["start", "check", "approve"].map((id) => boundsOf(spread, id)) as [Bounds, Bounds, Bounds];
  expect(Math.abs(b.x - a.x - a.width - (c.x - b.x - b.width))).toBeLessThanOrEqual(1);
  await choose(page, ...three);
  await page.keyboard.press("v");
  const down = await stored(page, version);
  const rows = three.map((id) => boundsOf(down, id)).sort((x, y) => x.y - y.y) as [Bounds, Bounds, Bounds];
  expect(
    Math.abs(rows[1].y - rows[0].y - rows[0].height - (rows[2].y - rows[1].y - rows[1].height)),
  ).toBeLessThanOrEqual(1);

  // A larger one, by its corner; then all of its size.
  await choose(page, "approve");
  const corner = await page.locator('[data-handle="corner"][data-corner="se"]').boundingBox();
  await drag(page, { x: (corner?.x ?? 0) + 5, y: (corner?.y ?? 0) + 5 }, { x: 40, y: 12 });
  const larger = boundsOf(await stored(page, version), "approve");
  expect(larger.width).toBeGreaterThan(112);
  await choose(page, "check", "approve");
  await page.keyboard.press("s");
  expect(boundsOf(await stored(page, version), "check")).toMatchObject({ width: larger.width, height: larger.height });
  await saved(page);

  await page.keyboard.press("Control+k");
  await expect(page.getByRole("option", { name: /^Undo: / }).first()).toBeVisible();
  await page.keyboard.type("Undo");
  await expect(page.getByRole("option", { name: /Undo: give 2 elements one size/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect.poll(async () => boundsOf(await stored(page, version), "check")).toEqual(boundsOf(down, "check"));
});

test("room is made by key and by hand; lanes change places, are split, and split inside", async ({ page }) => {
  const version = await importSmall(page, "Room and lanes");
  await openDiagram(page, version);
  const before = await stored(page, version);
  await choose(page, "decide");
  await expect(page.getByTestId("tray").getByLabel("Name", { exact: true })).toHaveValue("Complete?");
  await page.keyboard.press("j");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Escape");
  const wider = await stored(page, version);
  expect(boundsOf(wider, "decide").x).toBe(boundsOf(before, "decide").x + 80);
  expect(boundsOf(wider, "check")).toEqual(boundsOf(before, "check"));
  expect(boundsOf(wider, "pool").width).toBe(boundsOf(before, "pool").width + 80);

  await fitPage(page);
  await page.keyboard.press("j");
  const at = await middleOf(page, "engineer");
  await drag(page, { x: at.x + 300, y: at.y - 8 }, { x: 4, y: 60 });
  const higher = await stored(page, version);
  expect(boundsOf(higher, "engineer").height).toBeGreaterThan(boundsOf(wider, "engineer").height);

  await fitPage(page);
  await choose(page, "desk");
  await page.keyboard.press("Shift+ArrowDown");
  const swapped = await stored(page, version);
  expect(boundsOf(swapped, "engineer").y).toBeLessThan(boundsOf(swapped, "desk").y);
  expect(laneOf(swapped, "check")?.id).toBe("desk");
  await page.keyboard.press("Shift+ArrowUp");
  await page.keyboard.press("Shift+V");
  const split = await stored(page, version);
  expect([...split.elements].filter((element) => element.type === "lane")).toHaveLength(3);
  await choose(page, "desk");
  await page.keyboard.press("Shift+I");
  const nested = await stored(page, version);
  expect(laneOf(nested, "check")?.id).not.toBe("desk");
  expect([...nested.elements].filter((element) => element.type === "lane")).toHaveLength(5);
});

test("steps are wrapped, looked into, opened in place, closed, dissolved, taken out into a process", async ({
  page,
}) => {
  const version = await importSmall(page, "Levels");
  await openDiagram(page, version);
  await choose(page, "approve");
  await page.keyboard.press("Shift+W");
  await page.keyboard.type("Approval");
  await page.keyboard.press("Enter");
  const wrapped = await stored(page, version);
  const [sub] = named(wrapped, "Approval");
  const subId = sub?.id ?? "";
  expect(scopeOf(wrapped, "approve")?.id).toBe(subId);
  expect(incomingOf(wrapped, subId).map((flow) => flow.sourceRef)).toEqual(["decide"]);

  await page.keyboard.press(" ");
  await expect(page.getByTestId("peek").getByRole("img", { name: "Approve design, user task" })).toBeAttached();
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("peek")).toHaveCount(0);

  // A link to a step inside opens the page it is on.
  await page.goto(`/v/${version}/diagram?element=approve`);
  await expect(page.locator('[data-canvas] [data-id="approve"]')).toBeAttached();
  await expect(page.getByTestId("tray").getByLabel("Name", { exact: true })).toHaveValue("Approve design");
  await page.keyboard.press("PageUp");
  await expect(page.locator('[data-canvas] [data-id="check"]')).toBeAttached();
  await choose(page, subId);

  // Its page, and back and forth as in a browser.
  await page.keyboard.press("PageDown");
  await expect(page.locator('[data-canvas] [data-id="approve"]')).toBeAttached();
  await page.keyboard.press("[");
  await expect(page.locator('[data-canvas] [data-id="check"]')).toBeAttached();
  await page.goForward();
  await expect(page.locator('[data-canvas] [data-id="approve"]')).toBeAttached();
  await page.keyboard.press("PageUp");
  await expect(page.locator('[data-canvas] [data-id="check"]')).toBeAttached();

  await choose(page, subId);
  await page.keyboard.press("Shift+O");
  const open = await stored(page, version);
  expect(shapesOf(open, subId)[0]?.isExpanded).toBe(true);
  const [outer, inner] = [boundsOf(open, subId), boundsOf(open, "approve")];
  expect(inner.x > outer.x && inner.y > outer.y && inner.x + inner.width < outer.x + outer.width).toBe(true);
  await page.keyboard.press("Shift+O");
  expect(shapesOf(await stored(page, version), subId)[0]?.isExpanded).toBe(false);
  await page.keyboard.press("Shift+U");
  const loose = await stored(page, version);
  expect(loose.elements.has(subId)).toBe(false);
  expect(outgoingOf(loose, "decide").map((flow) => flow.targetRef)).toContain("approve");

  await fitPage(page);
  await choose(page, "approve");
  await page.keyboard.press("Shift+X");
  await page.getByRole("dialog").getByLabel("Name of the new process").fill("Approve a design");
  await page.getByRole("button", { name: "Make the process" }).click();
  await expect(page.getByText("“Approve a design” is a process of its own now.")).toBeVisible();
  const called = await stored(page, version);
  const [call] = named(called, "Approve a design");
  expect(call).toMatchObject({ type: "callActivity", calledElement: expect.stringMatching(/^process-/) });
  expect(called.elements.has("approve")).toBe(false);
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Approve a design" })).toBeVisible();
});

test("steps are copied within a process, into another, and as BPMN through the clipboard; duplicated; a path is chosen", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  const version = await importSmall(page, "Copy from");
  const other = await importSmall(page, "Copy to");
  await openDiagram(page, version);
  await choose(page, "check", "decide");
  await page.keyboard.press("Control+c");
  await expect(page.getByText("4 copied")).toBeVisible();
  await page.keyboard.press("Control+v");
  await expect.poll(async () => named(await stored(page, version), "Check application").length).toBe(2);
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain("Check application");

  await openDiagram(page, other);
  await page.keyboard.press("Control+v");
  await expect.poll(async () => named(await stored(page, other), "Check application").length).toBe(2);
  const copied = named(await stored(page, other), "Check application").find((element) => element.id !== "check");
  const model = await stored(page, other);
  const [flow] = outgoingOf(model, copied?.id ?? "");
  expect(model.elements.get(String(flow?.targetRef))?.name).toBe("Complete?");

  await fitPage(page);
  await choose(page, "reject");
  await page.keyboard.press("Control+d");
  await expect.poll(async () => named(await stored(page, other), "Reject application").length).toBe(2);

  await choose(page, "start", "approve");
  await page.keyboard.press("p");
  await expect(page.getByText("7 elements").first()).toBeVisible();
});

test("a page lies in all the room it has when it opens; nothing but the hand moves it while something is dragged", async ({
  page,
}) => {
  const version = await importSmall(page, "Under the hand");
  await openDiagram(page, version);
  const layer = page.getByTestId("canvas").locator("> :first-child");
  const place = () => layer.evaluate((element) => (element as HTMLElement).style.transform);
  // Whole when it opens, as by the key.
  await page.reload();
  await expect(page.locator("#foot-tools button").first()).toBeVisible();
  await expect(page.locator('[data-canvas] [data-id="reject"]')).toBeAttached();
  await expect(page.getByTestId("canvas")).toBeFocused();
  await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))));
  const opened = await place();
  await page.keyboard.press("0");
  expect(await place()).toBe(opened);

  // A step half under the tray is taken hold of: the tray shows it, and it stays where it is till it is let go.
  await choose(page, "decide");
  await expect(page.getByTestId("tray")).toBeVisible();
  const room = await page.getByTestId("canvas").boundingBox();
  const edge = (room?.y ?? 0) + (room?.height ?? 0);
  const before = await middleOf(page, "reject");
  await drag(page, { x: 20, y: 200 }, { x: 0, y: edge - 10 - before.y });
  await choose(page, "decide");
  await expect(page.getByTestId("tray")).toBeVisible();
  const held = await middleOf(page, "reject");
  const happened = () => page.evaluate(() => (window as unknown as { happened: string[] }).happened);
  await layer.evaluate((element) => {
    const list: string[] = [];
    let lies = (element as HTMLElement).style.transform;
    Object.assign(window, { happened: list });
    window.addEventListener("pointerup", () => list.push("let go"), true);
    const moved = () => {
      if ((element as HTMLElement).style.transform !== lies) list.push("moved");
      lies = (element as HTMLElement).style.transform;
    };
    new MutationObserver(moved).observe(element, { attributes: true, attributeFilter: ["style"] });
  });
  await page.mouse.move(held.x, held.y - 15);
  await page.mouse.down();
  await page.mouse.move(held.x + 40, held.y - 15, { steps: 3 });
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Reject application");
  await page.mouse.up();
  await expect.poll(happened).toEqual(["let go", "moved"]);
});

test("flow ends, bends, names and steps are moved by hand, with lines that snap; a flow is straightened", async ({
  page,
}) => {
  const version = await importSmall(page, "By hand");
  await openDiagram(page, version);
  const before = await stored(page, version);
  // The end of the flow into the rejection goes to the approval.
  await choose(page, "decide");
  await page.keyboard.press(".");
  await page.keyboard.press(".");
  const end = await page.locator('[data-handle="end"][data-end="target"]').boundingBox();
  const to = await middleOf(page, "approve");
  const from = { x: (end?.x ?? 0) + 4, y: (end?.y ?? 0) + 4 };
  await drag(page, from, { x: to.x - from.x, y: to.y - from.y });
  expect(incomingOf(await stored(page, version), "reject")).toHaveLength(0);
  expect(incomingOf(await stored(page, version), "approve")).toHaveLength(2);

  // A bend, and straight again.
  await choose(page, "check");
  await page.keyboard.press(".");
  const piece = await page.locator('[data-handle="segment"]').first().boundingBox();
  await drag(page, { x: (piece?.x ?? 0) + 4, y: (piece?.y ?? 0) + 3 }, { x: 0, y: 30 });
  expect(edgesOf(await stored(page, version), "f2")[0]?.waypoints.length).toBeGreaterThan(2);
  await page.keyboard.press("Shift+L");
  expect(edgesOf(await stored(page, version), "f2")[0]?.waypoints).toHaveLength(2);

  // A name is put elsewhere, and back.
  const label = await page.locator('[data-id="decide"] [data-label]').boundingBox();
  await choose(page, "decide");
  await drag(page, { x: (label?.x ?? 0) + 10, y: (label?.y ?? 0) + 6 }, { x: 40, y: -10 });
  expect(shapesOf(await stored(page, version), "decide")[0]?.label?.bounds).toBeDefined();
  await page.keyboard.press("Shift+N");
  expect(shapesOf(await stored(page, version), "decide")[0]?.label).toBeUndefined();

  // A step nearly in a row with another snaps to it, and shows the line it snaps to.
  const step = await middleOf(page, "reject");
  await page.mouse.move(step.x, step.y);
  await page.mouse.down();
  const row = await middleOf(page, "approve");
  await page.mouse.move(step.x + 200, row.y + 3, { steps: 6 });
  await expect(page.locator('[data-canvas] path[stroke-dasharray="3 3"]').first()).toBeAttached();
  await page.mouse.up();
  const moved = await stored(page, version);
  expect(middle(boundsOf(moved, "reject"))).toBe(middle(boundsOf(moved, "approve")));
  expect(boundsOf(moved, "reject").x).toBeGreaterThan(boundsOf(before, "reject").x);
});
