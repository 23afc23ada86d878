import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import mammoth from "mammoth";
import { expect, test } from "./test";

const squeezed = (words: string) => words.replace(/\s+/g, "");

/** The names of all flow nodes of the demo's as-is, out of its file. */
async function stepNames(page: Page): Promise<string[]> {
  const file = await (await page.request.get("/api/export?version=solar-connection-as-is&format=bpmn")).text();
  const tags = /<(?:bpmn:)?(?:\w*[tT]ask|\w*Event|\w*Gateway|subProcess|callActivity)\b[^>]*\bname="([^"]+)"/g;
  return [...file.matchAll(tags)].map(([, name]) => name as string);
}

async function taken(page: Page, button: string): Promise<Uint8Array> {
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: button, exact: true }).click(),
  ]);
  return new Uint8Array(await readFile(await download.path()));
}

async function pdfWords(bytes: Uint8Array): Promise<string> {
  const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
  let words = "";
  for (let at = 1; at <= document.numPages; at++)
    for (const item of (await (await document.getPage(at)).getTextContent()).items)
      if ("str" in item) words += item.str;
  return squeezed(words);
}

test("the handbook holds every step, as PDF and as Word, in two languages", async ({ page }) => {
  const names = await stepNames(page);
  expect(names.length).toBeGreaterThan(20);
  await page.goto("/v/solar-connection-as-is/hand-off?part=handbook");
  const preview = page.locator("iframe");
  await expect(preview).toHaveAttribute("srcdoc", /Check feeder capacity/);
  const pdf = await pdfWords(await taken(page, "PDF"));
  const word = squeezed((await mammoth.extractRawText({ buffer: Buffer.from(await taken(page, "Word")) })).value);
  for (const name of names) {
    expect(pdf).toContain(squeezed(name));
    expect(word).toContain(squeezed(name));
  }
  // The directory describes what the model only names.
  expect(word).toContain("Steps");

  await page.getByLabel("Language").selectOption("de");
  await expect(preview).toHaveAttribute("srcdoc", /Schritte/);
  const german = await pdfWords(await taken(page, "PDF"));
  for (const words of ["Zuständigkeiten", "Netzkapazität prüfen", "Den Abgang in der Netzkarte öffnen."])
    expect(german).toContain(squeezed(words));
  const germanWord = (await mammoth.extractRawText({ buffer: Buffer.from(await taken(page, "Word")) })).value;
  expect(germanWord).toContain("Fehlende Unterlagen anfordern");
  // No step is told in English; what is called is a process of its own, which has no German.
  const steps = names.filter((one) => one.length > 12 && one !== "Switch on and verify");
  for (const name of steps) expect(german).not.toContain(squeezed(name));
});

test("what is previewed shows the drawing, and follows the parts one takes", async ({ page }) => {
  await page.goto("/v/solar-connection-as-is/hand-off?part=handbook");
  const inside = page.frameLocator("iframe");
  await expect(inside.getByRole("heading", { name: "4 Check feeder capacity" })).toBeAttached();
  await expect(inside.locator("svg").first()).toBeVisible();
  await page.getByRole("checkbox", { name: "Take in: Diagram" }).uncheck();
  await expect(inside.locator("svg")).toHaveCount(0);
});

test("what a log says is taken as a report, and played on the diagram", async ({ page }) => {
  await page.goto("/v/solar-connection-as-is/live?evidence");
  await expect(page.getByTestId("log-fits")).toBeVisible();
  await page.getByRole("button", { name: "Report …" }).click();
  const words = new TextDecoder().decode(await taken(page, "Markdown"));
  expect(words).toMatch(/of 420 cases \(\d+\.\d %\) went as the model has it/);
  expect(words).toMatch(/“Check documents” is done after “Check feeder capacity” in 7 % of the traces/);
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
  await page.getByRole("radio", { name: "Replay" }).click();
  await expect(page.getByTestId("log-bottleneck")).toContainText("cases wait for “Receive missing papers”");
  await page.getByRole("radio", { name: "Cases as they came" }).click();
  await page.getByRole("button", { name: "Play" }).click();
  await expect(page.getByTestId("replay-standing")).not.toHaveText("1 under way, 0 over");
});
