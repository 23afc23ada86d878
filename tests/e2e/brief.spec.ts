import { strToU8, zipSync } from "fflate";
import { violations } from "./accessibility";
import { expect, type Page, test } from "./test";

const notes = [
  "When a household moves into a new flat, the front desk registers the move in the case register. The desk then checks whether the meter number is known. If the number is missing, the desk asks the household for it.",
  "Every night at 3:00, billing prints the final bills. For each household, billing sends a final bill.",
  "As soon as the field crew reports a broken seal, the network engineer inspects the meter. The case is closed.",
  "People say that it takes too long.",
];

/** A process of its own for a test, opened at its brief. */
async function newBrief(page: Page, name: string): Promise<string> {
  // A second attempt gets a process of its own.
  const process = `brief-${name.toLowerCase().replace(/\W+/g, "-")}-${test.info().retry}`;
  const version = `${process}-as-is`;
  await page.goto("/");
  await page.evaluate(
    async ([process, version, name]) => {
      await fetch("/api/do/createProcess", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ name, area: "area-connections", processId: process, versionId: version }),
      });
    },
    [process, version, name] as const,
  );
  await page.goto(`/v/${version}/brief`);
  await page.getByTestId("brief-page").click();
  return version;
}

/** Pastes as a person does: text on the clipboard, put in at the cursor. */
async function paste(page: Page, text: string): Promise<void> {
  await page.getByTestId("brief-page").evaluate((element, pasted) => {
    const data = new DataTransfer();
    data.setData("text/plain", pasted);
    element.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
}

/** What stands in the text and is no part of it. */
const signs = ".word-letter, .process-badge, .question-sign";

/** Chooses words on the page, and looks whether they are chosen still when it has drawn itself: a script is quicker than any hand. */
const choose = (page: Page, words: string) =>
  expect(async () => {
    await select(page, words);
    const chosen = await page.evaluate(async (signs) => {
      for (let frames = 0; frames < 2; frames++) await new Promise((drawn) => requestAnimationFrame(drawn));
      const selection = getSelection();
      const part = selection?.rangeCount ? selection.getRangeAt(0).cloneContents() : new DocumentFragment();
      for (const sign of part.querySelectorAll(signs)) sign.remove();
      return part.textContent;
    }, signs);
    expect(chosen).toBe(words);
  }).toPass({ timeout: 45_000 });

const select = (page: Page, words: string) =>
  page.getByTestId("brief-page").evaluate(
    (element, { words: wanted, signs }) => {
      const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
      const nodes: { node: Text; from: number }[] = [];
      let text = "";
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        if ((node.parentElement as Element).closest(signs)) continue;
        nodes.push({ node: node as Text, from: text.length });
        text += node.textContent;
      }
      const at = text.indexOf(wanted);
      if (at < 0) throw new Error(`"${wanted}" is not on the page.`);
      const place = (offset: number, atEnd: boolean) => {
        const found = nodes.findLast(({ from }) => (atEnd ? from < offset : from <= offset));
        return found as { node: Text; from: number };
      };
      const [start, end] = [place(at, false), place(at + wanted.length, true)];
      const range = document.createRange();
      range.setStart(start.node, at - start.from);
      range.setEnd(end.node, at + wanted.length - end.from);
      const selection = getSelection();
      selection?.removeAllRanges();
      selection?.addRange(range);
      (element as HTMLElement).focus();
    },
    { words, signs },
  );

const saved = (page: Page) => expect(page.getByTestId("brief-state")).toHaveText("saved");

test("a text is pasted, marked by suggestions and by key, and becomes three processes with ways back to its sentences", async ({
  page,
}) => {
  const version = await newBrief(page, "Moving house");
  await paste(page, notes.join("\n\n"));
  await expect(page.getByTestId("brief-page").locator("p")).toHaveCount(4);
  await page.keyboard.press("F2");

  // Suggestions: one refused, one accepted, then the rest.
  await page.keyboard.press("g");
  const suggestion = page.getByTestId("suggestion");
  await expect(suggestion).toContainText("Suggestion 1 of");
  await expect(suggestion).toContainText("Trigger");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("frame")).toHaveCount(1);
  await expect(suggestion).toContainText("Suggestion 1 of");
  await page.getByRole("button", { name: "Accept all" }).click();
  await expect(page.getByTestId("frame")).toHaveCount(3);
  await expect(page.getByTestId("frame").nth(1)).toContainText("Every night at 3:00");

  // By hand: a mark off and on again by its key.
  await choose(page, "inspects the meter");
  await page.keyboard.press("a");
  await expect(page.getByRole("button", { name: /^Activity: inspects the meter/ })).toHaveCount(0);
  await choose(page, "inspects the meter");
  await page.keyboard.press("a");
  await expect(page.getByRole("button", { name: /^Activity: inspects the meter/ })).toHaveCount(1);
  await expect(page.getByTestId("advice")).toContainText("People say that it takes too long.");
  await page.getByLabel("Organisation").fill("Quillmere Power Cooperative");
  await page.getByLabel("Organisation").blur();
  await saved(page);

  await page.getByRole("button", { name: "Build 3 processes" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();
  await expect(page.getByTestId("coverage")).toContainText("of 8 sentences");
  await expect(page.getByTestId("frame").getByRole("link", { name: "open" })).toHaveCount(3);

  // From the words to the element …
  await page.getByRole("button", { name: /^Activity: Register move, in a model/ }).click();
  await page.getByTestId("mark-detail").getByRole("link", { name: "Register move" }).click();
  await expect(page).toHaveURL(/diagram\?element=/);
  // … and from the element to its sentence.
  await page.getByRole("link", { name: /registers the move in the case register/ }).click();
  await expect(page).toHaveURL(/brief\?mark=/);
  await expect(page.locator(".word-selected")).toContainText("registers the move");

  // The sheet has the decision; the nightly process starts by a timer.
  await page.goto(`/v/${version}/steps`);
  await expect(page.getByRole("treegrid")).toContainText("Meter number known?");
  await page.goto(`/v/${version}/brief`);
  await page.getByTestId("frame").nth(1).getByRole("link", { name: "open" }).click();
  await expect(page.getByRole("treegrid")).toContainText("Every night at 3:00");
});

test("after the text grew, building adds what is new and leaves the analyst's names alone", async ({ page }) => {
  const version = await newBrief(page, "Growing text");
  await paste(
    page,
    "When a household complains, the front desk records the complaint. The desk answers the household.",
  );
  await page.keyboard.press("F2");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Accept all" }).click();
  await page.getByRole("button", { name: "Build 1 process" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();

  await page.goto(`/v/${version}/steps`);
  const record = page.getByRole("gridcell", { name: "Record complaint" });
  await record.dblclick();
  await page.getByRole("textbox", { name: "Step" }).fill("Write down the complaint");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("saved-state")).toHaveText("Saved");

  await page.goto(`/v/${version}/brief`);
  await choose(page, "The desk answers");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("F2");
  await page.keyboard.type("Billing checks the bill. ");
  await page.keyboard.press("F2");
  await choose(page, "Billing");
  await page.keyboard.press("r");
  await expect(page.locator("span.word[data-kind=role]").filter({ hasText: "Billing" })).toBeVisible();
  await choose(page, "checks the bill");
  await page.keyboard.press("a");
  await expect(page.locator("span.word[data-kind=activity]").filter({ hasText: "checks the bill" })).toBeVisible();
  await page.getByRole("button", { name: "Add 1 new step to the processes" }).click();
  // What will be added is shown first; the name given by hand is no matter of the text.
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("checkbox")).toHaveCount(1);
  await expect(dialog.getByRole("checkbox", { name: "Check bill (Billing)" })).toBeChecked();
  await dialog.getByRole("button", { name: "Build what is taken" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();
  await page.goto(`/v/${version}/steps`);
  const steps = page.locator("[data-row] [data-column=step]");
  await expect(steps.filter({ hasText: "Write down the complaint" })).toHaveCount(1);
  await expect(steps.filter({ hasText: "Check bill" })).toHaveCount(1);
  const names = (await steps.allTextContents()).map((name) => name.trim());
  expect(names.indexOf("Check bill")).toBe(names.indexOf("Write down the complaint") + 1);
});

test("what the text leaves open is asked beside its sentence, marked in the drawing, and settled by a key", async ({
  page,
}) => {
  const version = await newBrief(page, "Left open");
  await paste(
    page,
    "When a household complains, the front desk checks the complaint. If the complaint is late, the desk rejects the complaint. Billing corrects the bill.",
  );
  await page.keyboard.press("F2");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Accept all" }).click();
  const question = page.locator("[data-question]");
  await expect(question).toContainText('Does "Reject complaint" end the case?');
  await expect(page.locator(".question-sign")).toHaveCount(1);
  await page.getByRole("button", { name: "Build 1 process" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();
  // All sentences are accounted for, and yet the stage is not done.
  await expect(page.getByTestId("coverage")).toContainText("100 % covered");
  await expect(page.getByRole("link", { name: /^Brief.*begun/i })).toBeVisible();
  await saved(page);

  await page.goto(`/v/${version}/diagram`);
  await expect(page.locator("[data-means=asked]")).toHaveCount(1);
  await page.goto(`/v/${version}/brief`);
  await page.locator(".question-sign").click();
  await page.keyboard.press("1");
  await expect(question).toHaveCount(0);
  await page.getByRole("button", { name: /Look for changes/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Build what is taken" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();
  await expect(page.getByRole("link", { name: /^Brief.*done/i })).toBeVisible();

  await page.goto(`/v/${version}/diagram`);
  await expect(page.locator("[data-means=asked]")).toHaveCount(0);
  const text = await (await page.request.get(`/api/export?version=${version}&format=bpmn`)).text();
  expect(text).toMatch(/<endEvent [^>]*name="Complaint rejected"/);
});

test("an empty page has the caret; Alt with a letter marks while one writes, and keeps the keyboard on the page", async ({
  page,
}) => {
  const version = await newBrief(page, "Alt and letters");
  await page.goto(`/v/${version}/brief`);
  await expect(page.getByTestId("brief-page")).toBeFocused();
  await expect(page.getByRole("button", { name: "From a file" })).toBeInViewport({ ratio: 1 });
  await page.keyboard.type("A household complains.");
  await choose(page, "A household complains");
  await page.keyboard.press("Alt+t");
  await expect(page.getByTestId("frame")).toHaveCount(1);
  await expect(page.getByTestId("brief-page")).toBeFocused();
  await page.keyboard.press("End");
  await page.keyboard.type(" The desk answers.");
  await expect(page.getByTestId("brief-page")).toContainText("A household complains. The desk answers.");
});

test("a Markdown file becomes a page; a mark survives writing before it; advice is followed", async ({ page }) => {
  const version = await newBrief(page, "From a file");
  await page.setInputFiles("input[type=file][accept*=docx]", {
    name: "notes.md",
    mimeType: "text/markdown",
    buffer: Buffer.from(
      "# Letters\n\nWhen a letter arrives, the customer signs it. <script>document.title='x'</script>\n\n- Every week the clerk counts the letters.",
    ),
  });
  await expect(page.getByTestId("brief-page").locator("h1")).toHaveText("Letters");
  expect(await page.title()).not.toBe("x");
  // The page has just been filled, and what is chosen in it at once may be forgotten again.
  await expect(async () => {
    await choose(page, "customer");
    await page.keyboard.press("r");
    await expect(page.locator(".word-role")).toHaveText("customer", { timeout: 5_000 });
  }).toPass();
  await expect(page.locator("[data-advice=party-as-lane]")).toContainText("outside party");
  await page.getByRole("button", { name: "Make it an outside party" }).click();
  await expect(page.locator("[data-advice=party-as-lane]")).toHaveCount(0);
  await choose(page, "When a letter");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("F2");
  await page.keyboard.type("Here is more. ");
  await saved(page);
  await page.goto(`/v/${version}/brief`);
  await expect(page.locator(".word-party")).toHaveText("customer");
});

test("advice is followed: work of two processes is called from both, a long paragraph becomes a sub-process", async ({
  page,
}) => {
  const version = await newBrief(page, "Follow advice");
  const verbs = ["opens", "reads", "stamps", "scans", "copies", "files", "weighs"];
  await paste(
    page,
    [
      "When a household writes a letter, the front desk sorts the mail. The desk checks the address.",
      verbs.map((verb) => `The desk ${verb} the letter.`).join(" "),
      "Every week, the front desk counts the letters. The desk checks the address.",
    ].join("\n\n"),
  );
  await page.keyboard.press("F2");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Accept all" }).click();
  await expect(page.getByTestId("frame")).toHaveCount(2);
  await page.locator("[data-advice=same-work]").getByRole("button", { name: "Draw it once, call it twice" }).click();
  await expect(page.getByTestId("frame")).toHaveCount(3);
  await page.locator("[data-advice=too-much]").getByRole("button", { name: "As a sub-process" }).click();
  await expect(page.locator("[data-advice=too-much]")).toHaveCount(0);
  await expect(page.getByTestId("frame").first()).toContainText("Sub-process “Open letter”");
  await page.getByRole("button", { name: "Build 3 processes" }).click();
  await expect(page.getByText(/^Built: /)).toBeVisible();

  await page.goto(`/v/${version}/steps`);
  const sheet = page.getByTestId("step-sheet");
  await expect(sheet.getByRole("row", { name: /Open letter/ }).first()).toBeVisible();
  await expect(sheet.getByRole("row", { name: /\d\.7 Weigh letter/ })).toBeVisible();
  const text = await (await page.request.get(`/api/export?version=${version}&format=bpmn`)).text();
  const called = /<callActivity [^>]*calledElement="([^"]+)"/.exec(text)?.[1];
  expect(called).toBeTruthy();
  await page.goto(`/v/${version}/brief`);
  await page.getByTestId("frame").nth(2).getByRole("link", { name: "open" }).click();
  await expect(page.getByRole("row", { name: /1 Check address/ })).toBeVisible();
});

test("a Word document becomes a page; one that is damaged says so", async ({ page }) => {
  await newBrief(page, "From Word");
  const word = (body: string) =>
    `<?xml version="1.0" encoding="UTF-8"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`;
  const docx = zipSync({
    "[Content_Types].xml": strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    ),
    "_rels/.rels": strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    ),
    "word/document.xml": strToU8(
      word(
        "<w:p><w:r><w:t>When a meter fails, the field crew changes it.</w:t></w:r></w:p><w:p><w:r><w:t>Billing is told.</w:t></w:r></w:p>",
      ),
    ),
  });
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: "application/octet-stream", buffer });
  const input = page.locator("input[type=file][accept*=docx]");
  await input.setInputFiles(file("note.docx", Buffer.from(docx)));
  await expect(page.getByTestId("brief-page").locator("p").first()).toHaveText(
    "When a meter fails, the field crew changes it.",
  );
  await input.setInputFiles(file("broken.docx", Buffer.from("no document")));
  await expect(page.getByText("broken.docx cannot be read")).toBeVisible();
});

test("a text changed in two windows is not overwritten: one takes the other or keeps its own", async ({
  page,
  context,
}) => {
  const version = await newBrief(page, "Two windows");
  await page.keyboard.type("First text.");
  await saved(page);
  const other = await context.newPage();
  await other.goto(`/v/${version}/brief`);
  await other.getByTestId("brief-page").click();
  await other.keyboard.press("F2");
  await other.keyboard.press("End");
  await other.keyboard.type(" From the other window.");
  await saved(other);
  await page.keyboard.type(" From here.");
  await expect(page.getByText("The description was changed elsewhere")).toBeVisible();
  await page.getByRole("button", { name: "Take that text" }).click();
  await expect(page.getByTestId("brief-page")).toContainText("From the other window.");
});

for (const theme of ["light", "dark"] as const)
  test(`the demo's brief can be read by everybody, ${theme}`, async ({ page }) => {
    await page.addInitScript((wanted) => localStorage.setItem("theme", wanted), theme);
    await page.goto("/v/solar-connection-as-is/brief");
    await expect(page.getByTestId("coverage")).toContainText("% covered");
    // Colours that are still fading would be measured half way.
    await page.evaluate(() => Promise.all(document.getAnimations().map((one) => one.finished)));
    expect(await violations(page)).toEqual([]);
  });
