import { readBpmn, writeBpmn } from "../../src/core/bpmn";
import { type Bounds, type Model, shapesOf } from "../../src/core/model";
import { smallModel } from "../../src/core/testing/models";
import { expect, type Page } from "./test";

export const saved = (page: Page) => expect(page.getByTestId("saved-state")).toHaveText("Saved");

/** A process with two lanes and start → check → decide → approve | reject → ends; gives its version. */
export async function importSmall(page: Page, name: string, model: Model = smallModel()): Promise<string> {
  const answer = await page.request.post(`/api/import?area=area-accounts&name=${encodeURIComponent(name)}.bpmn`, {
    data: writeBpmn(model),
    headers: { "content-type": "application/xml" },
  });
  expect(answer.ok()).toBe(true);
  return ((await answer.json()) as { version: string }).version;
}

/** What the server holds of a version, read from its file. */
export async function stored(page: Page, version: string): Promise<Model> {
  await saved(page);
  const answer = await page.request.get(`/api/export?version=${encodeURIComponent(version)}&format=bpmn&name=x`, {
    // The server may close a connection that rested just when it is used again.
    maxRetries: 2,
  });
  const read = readBpmn(await answer.text());
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}

export function boundsOf(model: Model, id: string): Bounds {
  const [shape] = shapesOf(model, id);
  if (!shape) throw new Error(`${id} is not drawn.`);
  return shape.bounds;
}

export async function openDiagram(page: Page, version: string): Promise<void> {
  await page.goto(`/v/${version}/diagram`);
  await expect(page.locator('[data-canvas] [data-id="check"]')).toBeAttached();
  await expect(page.getByTestId("canvas")).toBeFocused();
  // The line under the page takes of its room.
  await expect(page.locator("#foot-tools button").first()).toBeVisible();
  await fitPage(page);
}

/** The whole page in sight. The tray opens under the canvas a moment after something is chosen, so until it is. */
export async function fitPage(page: Page): Promise<void> {
  await expect(async () => {
    await page.keyboard.press("0");
    const hidden = await page.getByTestId("canvas").evaluate((canvas) => {
      const frame = canvas.getBoundingClientRect();
      const faces = [...canvas.querySelectorAll("[data-id] > rect")].map((face) => face.getBoundingClientRect());
      return faces.filter((face) => face.top < frame.top || face.bottom > frame.bottom).length;
    });
    expect(hidden).toBe(0);
  }).toPass();
}

/** Chooses elements with the pointer, the first alone and the others besides. */
export async function choose(page: Page, ...ids: string[]): Promise<void> {
  await page.keyboard.press("Escape");
  for (const [at, id] of ids.entries()) {
    const point = await middleOf(page, id);
    if (at > 0) await page.keyboard.down("Shift");
    await page.mouse.click(point.x, point.y);
    if (at > 0) await page.keyboard.up("Shift");
  }
}

/** Where an element is on the screen: the middle of a shape's face, of a lane or pool its band. */
export async function middleOf(page: Page, id: string): Promise<{ x: number; y: number }> {
  const box = await page.locator(`[data-canvas] [data-id="${id}"] > rect`).first().boundingBox();
  if (!box) throw new Error(`${id} is not on the screen.`);
  const type = await page.locator(`[data-canvas] [data-id="${id}"]`).getAttribute("data-type");
  const x = type === "lane" || type === "participant" ? box.x + 10 : box.x + box.width / 2;
  return { x, y: box.y + box.height / 2 };
}

export async function drag(page: Page, from: { x: number; y: number }, by: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + by.x / 2, from.y + by.y / 2, { steps: 4 });
  await page.mouse.move(from.x + by.x, from.y + by.y, { steps: 4 });
  await page.mouse.up();
}

/** Ctrl+K on a page that was just opened: it is to be seen before it listens. */
export async function findAnything(page: Page): Promise<void> {
  await expect(async () => {
    await page.keyboard.press("Control+k");
    await expect(page.locator("[cmdk-input]")).toBeFocused({ timeout: 3_000 });
  }).toPass();
}
