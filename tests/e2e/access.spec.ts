import { violations } from "./accessibility";
import { expect, type Page, test } from "./test";

/** Brings the page to what is looked at. */
type Ready = (page: Page) => Promise<void>;

/** Each page by its name and path, and what is looked at in it, one after the other. */
const pages: readonly (readonly [name: string, path: string, ...looks: Ready[]])[] = [
  ["Home", "/", async (page) => expect(page.getByRole("link", { name: "Rooftop solar connection" })).toBeVisible()],
  [
    "Directory",
    "/directory?entry=role-network-engineer",
    async (page) => expect(page.getByText("Where it is used")).toBeVisible(),
  ],
  [
    "Diagram",
    "/v/solar-connection-as-is/diagram?element=check-capacity",
    async (page) => {
      await expect(page.getByTestId("tray")).toContainText("Network map");
    },
  ],
  [
    "Steps",
    "/v/solar-connection-as-is/steps",
    async (page) => {
      await page.getByTestId("step-sheet").focus();
      await expect(page.getByRole("row", { name: /^1 Register application/ })).toBeVisible();
    },
  ],
  [
    "Live",
    "/v/plant-inspection-as-is/live",
    async (page) => expect(page.getByTestId("live-page")).toContainText("Record the plant"),
    async (page) => {
      await page.getByRole("radio", { name: "Cases" }).click();
      await page.getByTestId("live-cases").getByRole("button").first().click();
      await expect(page.getByTestId("audit")).toBeVisible();
    },
    async (page) => {
      await page.getByRole("radio", { name: "Targets" }).click();
      await expect(page.getByTestId("targets")).toBeVisible();
    },
    async (page) => {
      await page.getByRole("radio", { name: "Figures" }).click();
      await expect(page.getByTestId("live-figures").getByRole("img").first()).toBeVisible();
    },
    async (page) => {
      await page.getByRole("radio", { name: "Tables" }).click();
      await expect(page.getByTestId("written")).toBeVisible();
    },
  ],
  [
    "Evidence",
    "/v/solar-connection-as-is/live?evidence",
    ...(
      [
        "Differences",
        "Overview",
        "Replay",
        "Map",
        "Variants",
        "Dotted chart",
        "Groups",
        "Activities and steps",
        "Figures",
      ] as const
    ).map((view) => async (page: Page) => {
      await page.getByRole("radio", { name: view }).click();
      if (view === "Differences") await page.getByTestId("difference").first().getByRole("button").first().click();
      await expect(page.getByRole("status").filter({ hasText: "Working" })).toHaveCount(0);
      await expect(page.locator('[data-testid="differences"], [data-testid^="log-"]').first()).toBeVisible();
    }),
  ],
  [
    "Comments",
    "/v/solar-connection-as-is/diagram?comments&element=check-capacity",
    async (page) => {
      await expect(page.getByTestId("comments")).toBeVisible();
      await expect(page.getByTestId("tray")).toContainText("Network map");
    },
  ],
  [
    "Languages",
    "/v/solar-connection-as-is/steps?part=languages",
    async (page) => {
      await page.getByLabel("Add a language").fill("de");
      await page.getByRole("button", { name: "Add", exact: true }).click();
      await expect(page.getByTestId("text-row").first()).toBeVisible();
    },
  ],
  [
    "Handbook",
    "/v/solar-connection-as-is/hand-off?part=handbook",
    async (page) => expect(page.locator("iframe")).toHaveAttribute("srcdoc", /Check feeder capacity/),
  ],
  [
    "Work",
    "/work",
    async (page) => {
      const boxes = page.getByTestId("worklist").getByRole("checkbox");
      await boxes.nth(0).check();
      await boxes.nth(1).check();
      await expect(page.getByTestId("several").getByRole("button", { name: "Done, all 2" })).toBeVisible();
    },
    async (page) => {
      await page.getByTestId("worklist").getByRole("button").first().click();
      await expect(page.getByTestId("work-form")).toBeVisible();
    },
  ],
  [
    "Members",
    "/members",
    async (page) => expect(page.getByTestId("members")).toContainText("Oran Veltri"),
    async (page) => {
      await page.getByRole("radio", { name: "What was done" }).click();
      await expect(page.getByTestId("audit-rows").or(page.getByText("Nothing was done yet."))).toBeVisible();
    },
    async (page) => {
      await page.getByRole("radio", { name: "Members" }).click();
      await page.getByRole("button", { name: "Change Oran Veltri" }).click();
      await expect(page.getByRole("dialog")).toContainText("More in single areas");
    },
  ],
  ["Check", "/v/solar-connection-as-is/check", async (page) => expect(page.getByTestId("verdict")).toBeVisible()],
  [
    "Walk",
    "/v/complaint-as-is/walk",
    async (page) => expect(page.getByTestId("kept-walks").locator("li").first()).toBeVisible(),
  ],
  [
    "Forecast",
    "/v/solar-connection-to-be/forecast",
    async (page) => expect(page.getByTestId("forecast-against")).toContainText("A case takes, mean"),
  ],
  [
    "Figures of a scenario",
    "/v/solar-connection-as-is/forecast",
    async (page) => {
      await expect(page.getByTestId("forecast-sentence")).toBeVisible();
      await page.keyboard.press("f");
      await expect(page.getByRole("group", { name: "Figures of the scenario" })).toBeVisible();
      await expect(page.getByTestId("forecast-formula")).toBeVisible();
    },
  ],
  [
    "One case",
    "/v/solar-connection-as-is/forecast",
    async (page) => {
      await expect(page.getByTestId("forecast-sentence")).toBeVisible();
      await page.keyboard.press("o");
      await expect(page.getByTestId("case-step")).toHaveText(/^Moment 0/);
      await page.keyboard.press("End");
      await expect(page.getByTestId("case-log")).toBeVisible();
    },
  ],
  [
    "Compare",
    "/v/solar-connection-to-be/compare",
    async (page) => {
      await expect(page.getByTestId("change-count")).toBeVisible();
      // The figures of both forecasts come last, and make the bar wider than the window.
      await expect(page.getByTestId("effect")).toContainText("Cost a case");
    },
  ],
  ["Decisions", "/decisions", async (page) => expect(page.getByRole("link", { name: "Inspections" })).toBeVisible()],
  [
    "A decision",
    "/decisions/decisions-inspections?decision=inspection",
    async (page) => {
      await expect(page.getByText("Every allowed input has a rule.")).toBeVisible();
      await page.getByRole("button", { name: "Column: roof", exact: true }).click();
    },
  ],
  [
    "Data",
    "/v/plant-inspection-as-is/steps?part=data",
    async (page) => expect(page.getByTestId("data-sheet")).toBeVisible(),
  ],
  [
    "Forms",
    "/v/plant-inspection-as-is/steps?part=forms",
    async (page) => {
      await page.getByTestId("form-items").getByRole("button", { name: /^Roof/ }).click();
      await expect(page.getByRole("textbox", { name: "Shown when: roof" })).toBeVisible();
    },
  ],
  [
    "Hand-off",
    "/v/solar-connection-as-is/hand-off",
    async (page) => expect(page.getByTestId("handoff-state")).toBeVisible(),
  ],
  [
    "Services",
    "/v/solar-connection-to-be/hand-off?part=services",
    async (page) => expect(page.getByTestId("weighing-sentence")).toBeVisible(),
  ],
  [
    "Who calls whom",
    "/v/meter-reading-as-is/hand-off?part=sequence",
    async (page) => expect(page.getByRole("group", { name: /take part$/ })).toBeVisible(),
  ],
];

const looks = [
  { scheme: "light", width: 1280, height: 800 },
  { scheme: "dark", width: 1024, height: 700 },
] as const;
/** Each page in one look, every other one in the other; `LANE_LOOKS=all` for both of each, which takes minutes longer. */
const looksOf = (at: number) => looks.filter((_, look) => process.env.LANE_LOOKS === "all" || look === at % 2);

for (const [at, [name, path, ...parts]] of pages.entries())
  for (const { scheme, width, height } of looksOf(at))
    test(`${name}, ${scheme}, ${width} wide and shown twice as large: nothing keeps people out`, async ({ page }) => {
      await page.addInitScript((theme) => localStorage.setItem("theme", theme), scheme);
      await page.setViewportSize({ width, height });
      await page.goto(path);
      for (const ready of parts) {
        await page.setViewportSize({ width, height });
        await ready(page);
        expect(await violations(page)).toEqual([]);
        expect(await smallType(page)).toEqual([]);
        await page.setViewportSize(twiceAsLarge);
        expect(await lost(page)).toEqual([]);
      }
    });

/** Words that are set smaller than eleven pixels; a drawing is as small as it is zoomed. */
const smallType = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("body *")].flatMap((element) => {
      const words = [...element.childNodes].filter(
        (node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim(),
      );
      const isDrawn = element.closest("svg") !== null;
      const size = Number.parseFloat(getComputedStyle(element).fontSize);
      return words.length > 0 && !isDrawn && size < 11 ? [`${size} px: ${element.textContent}`] : [];
    }),
  );

/** 200 % of a window of 1280 × 800: half as many pixels each way. */
const twiceAsLarge = { width: 640, height: 400 };

/** What cannot be brought into view by scrolling, or that what the page is about has no room. */
const lost = (page: Page) =>
  page.locator("main").evaluate(async (main) => {
    // The page has taken up the new size and drawn itself in it.
    for (let frames = 0; frames < 3; frames++) await new Promise((drawn) => requestAnimationFrame(drawn));
    const hidden = [...main.querySelectorAll<HTMLElement>("button, a, input, select")].flatMap((one) => {
      const isShown = one.checkVisibility({ visibilityProperty: true }) && !one.closest("[aria-hidden=true]");
      if (!isShown || one.closest("svg, [data-canvas]") || one.hidden) return [];
      one.scrollIntoView({ block: "nearest", inline: "nearest" });
      const { left, top, right, bottom } = one.getBoundingClientRect();
      const isSeen = right > 0 && bottom > 0 && left < innerWidth && top < innerHeight;
      return isSeen && right - left > 0 ? [] : [one.getAttribute("aria-label") ?? one.textContent ?? one.tagName];
    });
    return main.clientHeight > 200 ? hidden : [`only ${main.clientHeight} px for the page itself`, ...hidden];
  });

test("an unreadable file says where it is wrong, and Home stays", async ({ page }) => {
  await page.goto("/");
  await page.getByTestId("open-file").setInputFiles({
    name: "broken.bpmn",
    mimeType: "application/xml",
    buffer: Buffer.from("<definitions>\n <broken"),
  });
  await expect(page.getByText(/broken\.bpmn \(line 1, column \d+\): This is not a BPMN 2.0 file/)).toBeVisible();
  await expect(page).toHaveURL("/");
});

test("a deleted process comes back with undo", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "What to do with Nightly meter reading" }).click();
  await page.getByRole("menuitem", { name: "Delete" }).click();
  await expect(page.getByRole("link", { name: "Nightly meter reading" })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("link", { name: "Nightly meter reading" })).toBeVisible();
});
