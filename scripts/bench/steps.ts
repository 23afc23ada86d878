import type { Browser, Page } from "@playwright/test";
import { type BenchRow, ms, percentile } from "./measure";

const roles = ["Front desk", "Network engineer", "Field crew", "Billing"];

function sheetFile(rows: number): string {
  const lines = ["Step,By,Uses,Needs,Gives,Guidance"];
  for (let at = 1; at <= rows; at++) lines.push(`Do piece ${at},${roles[Math.floor(at / 4) % 4]},Case register,,,`);
  return lines.join("\r\n");
}

/** From the key to when a step's words, and then its figure, are in a painted frame. */
async function writeRows(page: Page, presses: number): Promise<{ words: number[]; drawn: number[] }> {
  await page.evaluate(`
    window.seen = [];
    window.watch = (name) => {
      const entry = { words: 0, drawn: 0 };
      window.seen.push(entry);
      const started = performance.now();
      const has = (part) => document.querySelector('[data-testid="' + part + '"]').textContent.includes(name);
      const look = () => requestAnimationFrame(() => {
        const shown = performance.now() - started;
        if (!entry.words && has("step-sheet") && document.activeElement.tagName === "INPUT") entry.words = shown;
        if (has("following-page")) entry.drawn = shown; else look();
      });
      look();
    };
    window.addEventListener("keydown", (event) => {
      if (event.key === "Enter" && event.target.value) window.watch(event.target.value);
    }, true);
  `);
  await page.getByTestId("step-sheet").focus();
  await page.keyboard.press("Home");
  for (let at = 0; at < 40; at++) await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  for (let at = 0; at < presses; at++) {
    await page.keyboard.type(`Zx${at}`);
    await page.waitForTimeout(300);
    await page.keyboard.press("Enter");
    await page.waitForTimeout(700);
  }
  const seen = (await page.evaluate("window.seen")) as { words: number; drawn: number }[];
  return { words: seen.map((one) => one.words), drawn: seen.map((one) => one.drawn) };
}

/** The step sheet under the keyboard: a hundred rows with their drawing, two thousand rows for the words. */
export async function stepRows(browser: Browser, address: string): Promise<BenchRow[]> {
  const rows: BenchRow[] = [];
  for (const [count, goal] of [
    [90, 100],
    [2000, 100],
  ] as const) {
    const answer = await fetch(`${address}/api/import?area=area-accounts&name=list.csv`, {
      method: "POST",
      body: sheetFile(count),
    });
    const { version } = (await answer.json()) as { version: string };
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/v/${version}/steps`);
    await page.waitForSelector('[data-testid="step-sheet"] [data-row]', { timeout: 60_000 });
    await page.waitForTimeout(1500);
    const { words, drawn } = await writeRows(page, 12);
    await page.close();
    const measured = count > 100 ? words : drawn;
    rows.push({
      what: `steps, ${count} rows: Enter to ${count > 100 ? "the words" : "the tidied drawing"}, median`,
      measured: `${ms(percentile(measured, 0.5))}; words ${ms(percentile(words, 0.5))}, p95 ${ms(percentile(measured, 0.95))}`,
      goal: `≤ ${goal} ms`,
      met: percentile(measured, 0.5) <= goal,
    });
  }
  return rows;
}
