import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { type BrowserContext, test as base } from "@playwright/test";
import { aside } from "../../scripts/aside";

export { expect, type Page } from "@playwright/test";

/** The first of the servers' ports; each runner of tests has a server and a workspace of its own. */
export const firstPort = 4399;
const addressOf = (runner: number) => `http://localhost:${firstPort + runner}`;

/** What a test has that asks for nothing else. */
const usual = { locale: "en-US", viewport: { width: 1280, height: 800 } };

/** What pages keep in a browser, by the names of its tools' protocol; not the scripts. */
const kept = "cookies,local_storage,indexeddb,file_systems,service_workers,cache_storage";

/** Fixtures of a runner: the browser that its tests share. */
interface OfARunner {
  readonly ownBrowser: BrowserContext;
}

/**
 * The tests of a runner share a browser as one has it at home, which holds the scripts of the last visit and has read them: to fetch and
 * read them anew for each test is half of what opening a page takes. What pages keep goes with each test: cookies, storage, databases,
 * what was allowed.
 */
export const test = base.extend<object, OfARunner>({
  // biome-ignore lint/correctness/noEmptyPattern: the runner reads from the pattern what is needed.
  baseURL: async ({}, use, { parallelIndex }) => use(addressOf(parallelIndex)),
  ownBrowser: [
    async ({ playwright, launchOptions }, use, { parallelIndex }) => {
      const profile = mkdtempSync(join(aside(), "lane-browser-"));
      const options = {
        // What moves in is waited for and drawn frame by frame; browsers that tests open besides this one show it.
        reducedMotion: "reduce" as const,
        ...launchOptions,
        ...usual,
        baseURL: addressOf(parallelIndex),
      };
      const own = await playwright.chromium.launchPersistentContext(profile, options);
      await use(own);
      await own.close();
      rmSync(profile, { recursive: true, force: true, maxRetries: 3 });
    },
    { scope: "worker" },
  ],
  browser: [
    async ({ ownBrowser }, use) => {
      const browser = ownBrowser.browser();
      if (!browser) throw new Error("The shared browser has no browser behind it.");
      await use(browser);
    },
    { scope: "worker" },
  ],
  locale: usual.locale,
  viewport: usual.viewport,
  context: async ({ ownBrowser, browser, locale, viewport, baseURL }, use) => {
    const isUsual = locale === usual.locale && viewport?.width === usual.viewport.width;
    if (!isUsual || viewport.height !== usual.viewport.height) {
      const other = await browser.newContext({ locale, viewport, baseURL });
      await use(other);
      return other.close();
    }
    await use(ownBrowser);
    const last = await ownBrowser.newPage();
    for (const page of ownBrowser.pages()) if (page !== last) await page.close();
    const session = await ownBrowser.newCDPSession(last);
    await session.send("Storage.clearDataForOrigin", { origin: baseURL ?? "", storageTypes: kept });
    await session.detach();
    await ownBrowser.clearCookies();
    await ownBrowser.clearPermissions();
  },
});
