import { englishPatterns, lookedThrough, namesIn } from "./englishLeft";
import { expect, type Page, test } from "./test";

/** What is there when a page has come. */
const comes: { readonly [stage: string]: string } = {
  brief: ".ProseMirror p",
  steps: '[data-testid="step-sheet"] [data-row]',
  diagram: '[data-canvas] [data-type="userTask"]',
  check: '[data-testid="measures"]',
  walk: '[data-type="userTask"]',
  forecast: '[data-testid="forecast-sentence"]',
  compare: '[data-testid="changes"]',
  "hand-off": '[data-testid="handoff-state"]',
  live: '[data-testid="live-counts"]',
};

/** In these files and lists is what somebody called something: it is in the language of who wrote it. */
async function namesOf(page: Page, baseURL: string): Promise<string[]> {
  const text = async (path: string) => (await page.request.get(`${baseURL}${path}`)).text();
  const asked = async (name: string) => (await page.request.post(`${baseURL}/api/do/${name}`, { data: {} })).text();
  const files = ["solar-connection-as-is", "solar-connection-to-be", "plant-inspection-as-is"].map((of) =>
    text(`/api/export?version=${of}&format=bpmn`),
  );
  const lists = ["openDirectory", "openMap", "listMembers", "listTypes", "listDecisionFiles"].map(async (name) =>
    (await asked(name)).replace(/"(?:name|description|process|versionName|decides)":"([^"]*)"/g, ">$1<"),
  );
  return [
    ...namesIn(await Promise.all([...files, ...lists])),
    // What the demo's description and its reasons say.
    "for two hours",
    "Half of the papers are right at once, and the figures were copied from the map into the register.",
    "the engineer starts a week earlier",
  ];
}

test.use({ locale: "de-DE", viewport: { width: 1024, height: 700 } });

test("the interface in German: every page, no text left in English, none without room", async ({ page, baseURL }) => {
  const names = await namesOf(page, baseURL ?? "");
  const look = async (where: string) => {
    // What a stage asks for comes after it.
    await page.waitForLoadState("load");
    const found = async () => {
      const { english, ...room } = await lookedThrough(page, englishPatterns, names);
      // A published source is named as it is.
      return { where, english: english.filter((words) => !/[(,] ?(?:19|20)\d\d\)/.test(words)), ...room };
    };
    await expect.poll(found).toEqual({ where, english: [], cut: [], beyond: 0 });
  };
  for (const path of ["/", "/directory", "/decisions", "/gallery", "/work", "/members", "/sign-in", "/nowhere"]) {
    await page.goto(path);
    await page.locator("h1, h2, button").first().waitFor();
    await look(path);
  }
  for (const [stage, there] of Object.entries(comes)) {
    await page.goto(`/v/${stage === "live" ? "plant-inspection-as-is" : "solar-connection-as-is"}/${stage}`);
    await page.locator(there).first().waitFor();
    await look(stage);
  }
  // That the looks see what there is to be seen: the same page in English is full of it.
  await page.context().addCookies([{ name: "lane-language", value: "en", url: baseURL ?? "" }]);
  await page.goto("/v/solar-connection-as-is/diagram");
  await page
    .locator(comes.diagram ?? "")
    .first()
    .waitFor();
  expect((await lookedThrough(page, englishPatterns, names)).english.length).toBeGreaterThan(15);
});

test("a language is chosen, holds in this browser, and is chosen back", async ({ page }) => {
  await page.goto("/");
  await expect(page.locator("html")).toHaveAttribute("lang", "de");
  await expect(page.getByRole("button", { name: "Neuer Prozess" })).toBeVisible();
  await expect(page).toHaveTitle("Start");
  const item = (language: string) => page.getByRole("menuitemradio", { name: language, exact: true });
  await page.getByRole("button", { name: /^Arbeitsbereich/ }).click();
  await item("English").click();
  await expect(page.getByRole("button", { name: "New process" })).toBeVisible();
  // Who is here is told late: no item is there to be missed when others come above it.
  let tell = () => {};
  const told = new Promise<void>((resolve) => {
    tell = resolve;
  });
  await page.route("**/api/do/listMembers", async (route) => {
    await told;
    await route.fallback();
  });
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("lang", "en");
  await page.getByRole("button", { name: /^Workspace/ }).click();
  await expect(page.getByRole("menu")).toHaveAttribute("aria-busy", "true");
  await expect(page.getByRole("menuitemradio")).toHaveCount(0);
  tell();
  await item("Deutsch").click();
  await expect(page.getByRole("button", { name: "Neuer Prozess" })).toBeVisible();
});
