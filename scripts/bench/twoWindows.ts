import type { Browser, Page } from "@playwright/test";
import { type BenchRow, ms, percentile } from "./measure";
import { largeFile } from "./models";

/** When a page has a step under a name in its document, as a moment of the machine's clock. One behind another paints once a second. */
const shows = (page: Page, name: string): Promise<number> =>
  page.evaluate(`new Promise((resolve) => {
    const look = () => document.querySelector('[data-canvas] [data-id="task-0"]')?.getAttribute("aria-label")?.startsWith("${name},")
      ? resolve(Date.now())
      : setTimeout(look, 4);
    look();
  })`);

/** Two windows on a version of 500 elements: how long after a key one shows what the other did. */
export async function twoWindowsRow(browser: Browser, address: string): Promise<BenchRow> {
  const answer = await fetch(`${address}/api/import?area=area-accounts&name=two-windows.bpmn`, {
    method: "POST",
    body: largeFile(500),
  });
  const { version } = (await answer.json()) as { version: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const [one, other] = [await context.newPage(), await context.newPage()];
  for (const page of [one, other]) {
    await page.goto(`${address}/v/${version}/diagram`);
    await page.waitForSelector('[data-canvas] [data-id="task-0"]', { timeout: 60_000 });
    await page.waitForTimeout(3_000);
  }
  await one.bringToFront();
  await one.locator('[data-canvas] [data-id="task-0"]').click({ force: true });
  const times: number[] = [];
  for (let at = 0; at < 20; at++) {
    const name = `Another name ${at}`;
    await one.keyboard.press("F2");
    await one.getByTestId("name-editor").fill(name);
    const shown = shows(other, name);
    const pressed = await one.evaluate("Date.now()");
    await one.keyboard.press("Enter");
    times.push((await shown) - (pressed as number));
    await one.waitForTimeout(300);
  }
  await context.close();
  const [middle, worst] = [percentile(times, 0.5), Math.max(...times)];
  return {
    what: "a change made in one window, seen in another, at 500 elements",
    measured: `median ${ms(middle)}, worst ${ms(worst)}`,
    goal: "each ≤ 1 s",
    met: worst <= 1_000,
  };
}
