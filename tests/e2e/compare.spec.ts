import { readFileSync } from "node:fs";
import { writeBpmn } from "../../src/core/bpmn";
import { counterpartsOf, laneOf } from "../../src/core/model";
import { performAll, smallModel } from "../../src/core/testing/models";
import { choose, importSmall, openDiagram, saved, stored } from "./storedModel";
import { expect, type Page, test } from "./test";

const changes = (page: Page) => page.getByTestId("changes").locator("li[data-change]");
const change = (page: Page, words: string) => changes(page).filter({ hasText: words });

/** A to-be of a small process, in which a step is in another lane and another one is put on a flow. */
async function improved(page: Page, name: string): Promise<{ asIs: string; toBe: string }> {
  const asIs = await importSmall(page, name);
  await openDiagram(page, asIs);
  await page.getByRole("button", { name: "As-is" }).click();
  await page.getByRole("menuitem", { name: "Start a to-be" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name", { exact: true }).fill("Engineer decides");
  await dialog.getByLabel("Aim").fill("One pair of eyes less.");
  await dialog.getByRole("button", { name: "Start a to-be" }).click();
  await expect(page.getByRole("button", { name: "Engineer decides" })).toBeVisible();
  const toBe = new URL(page.url()).pathname.split("/")[2] as string;
  await openDiagram(page, toBe);
  await choose(page, "approve");
  await page.keyboard.press("Control+ArrowDown");
  await expect(page.getByTestId("tray")).toContainText("Network engineer");
  await choose(page, "reject");
  await page.keyboard.press("Shift+Enter");
  await page.getByTestId("name-editor").fill("Ask a colleague");
  await page.keyboard.press("Enter");
  await saved(page);
  return { asIs, toBe };
}

test("a to-be is made, its changes are told in words and picture, lead to their counterparts, have reasons, and are taken over", async ({
  page,
}) => {
  const { asIs, toBe } = await improved(page, "Compared by hand");
  // Exactly these differences, in words.
  await page.getByRole("link", { name: /^Compare/ }).click();
  await expect(page.getByTestId("change-count")).toHaveText("2 changes");
  await expect(changes(page)).toHaveCount(2);
  await expect(change(page, "Approve design moves from Front desk to Network engineer.")).toHaveAttribute(
    "data-change",
    "moved",
  );
  await expect(
    change(page, "Ask a colleague is new: a task done by Front desk, after Check application."),
  ).toBeVisible();
  // In both pictures: what only one side has is in its own pen, and labels say what happened.
  const [left, right] = [page.getByTestId("side-from"), page.getByTestId("side-to")];
  await expect(right.locator('[data-pen="to"] [aria-label="Ask a colleague, task"]')).toBeAttached();
  await expect(left.locator('[aria-label="Ask a colleague, task"]')).toHaveCount(0);
  await expect(right.locator('[data-means="whatHappened"][data-on="approve"]')).toHaveText("from Front desk");
  await expect(left.locator('[data-means="whatHappened"][data-on="approve"]')).toHaveText("to Network engineer");
  // Both go together.
  const place = async (side: typeof left) => (await side.locator('[data-id="check"]').first().boundingBox())?.x ?? 0;
  const before = [await place(left), await place(right)] as const;
  const box = await right.boundingBox();
  if (!box) throw new Error("The side is not there.");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height - 20, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Math.round((await place(right)) - before[1])).toBe(-60);
  await expect.poll(async () => Math.round((await place(left)) - before[0])).toBe(-60);
  // By key from change to change; what the figures come to.
  await page.keyboard.press("j");
  await page.keyboard.press("k");
  await expect(page.locator('[data-effect="steps"]')).toContainText("4 → 5 +1, +25%");
  await expect(page.locator('[data-effect="warnings"]')).toBeVisible();

  // One picture: both at once, as it was, as it is to be, and each change by itself.
  await page.getByRole("radio", { name: "One picture" }).click();
  const picture = page.getByTestId("one-picture");
  const ghost = picture.locator('[data-pen="from"] [data-id="approve.was"]');
  await expect(ghost).toBeAttached();
  await expect(picture.locator('[data-arrow="approve.was approve"]')).toBeAttached();
  await page.getByRole("radiogroup", { name: "What the picture shows" }).getByRole("radio", { name: "Before" }).click();
  await expect(picture.locator('[data-id="approve.was"]')).toBeAttached();
  await expect(picture.locator('[data-id="approve"]')).toHaveCount(0);
  await expect(picture.locator('[aria-label="Ask a colleague, task"]')).toHaveCount(0);
  await page.getByRole("radiogroup", { name: "What the picture shows" }).getByRole("radio", { name: "After" }).click();
  await expect(picture.locator('[data-id="approve.was"]')).toHaveCount(0);
  await expect(picture.locator('[aria-label="Ask a colleague, task"]')).toBeAttached();
  await change(page, "Ask a colleague").getByRole("radio", { name: "Before" }).click();
  await expect(picture.locator('[aria-label="Ask a colleague, task"]')).toHaveCount(0);
  await expect(picture.locator('[data-id="approve"]')).toBeAttached();

  // Why: the reason is kept with the change, found by its words, and leaves with the list.
  await page.getByRole("radio", { name: "Side by side" }).click();
  await change(page, "Approve design").getByRole("button").first().click();
  await change(page, "Approve design").getByRole("button").first().click();
  const detail = page.getByTestId("change-detail");
  await detail.getByLabel("waiting").check();
  await detail.getByLabel("Expected effect").fill("two days less");
  await detail.getByLabel("Expected effect").press("Enter");
  await detail.getByLabel("State of the change").selectOption("agreed");
  await expect(page.getByText("1 agreed, ")).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(change(page, "Approve design")).toContainText("waiting: two days less");
  await page.getByLabel("Filter changes").fill("two days");
  await expect(changes(page)).toHaveCount(1);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Markdown" }).click(),
  ]);
  const told = readFileSync(await download.path(), "utf8");
  expect(told).toContain("- **Approve design** moves from Front desk to Network engineer.");
  expect(told).toContain("answers waiting; expected: two days less; agreed");
  await page.getByLabel("Filter changes").fill("");

  // From either side to the other, with one key.
  await page.goto(`/v/${toBe}/diagram?element=approve`);
  await expect(page.getByTestId("tray")).toContainText("As-is: Approve design");
  await page.getByTestId("canvas").focus();
  await page.keyboard.press(",");
  await expect(page).toHaveURL(new RegExp(`/v/${asIs}/diagram\\?element=approve`));
  await expect(page.getByTestId("tray")).toContainText("Engineer decides: Approve design");
  await page.getByTestId("canvas").focus();
  await page.keyboard.press(",");
  await expect(page).toHaveURL(new RegExp(`/v/${toBe}/diagram`));

  // Taken over into the as-is: then it is no difference any more.
  await page.goto(`/v/${toBe}/compare`);
  await change(page, "Approve design").getByRole("button").first().click();
  await page.keyboard.press("t");
  // The as-is is another version than the open one.
  await page.getByRole("dialog").getByRole("button", { name: "Take over into" }).press("Enter");
  // What is said stays as long as the pointer is on it.
  await page.getByRole("button", { name: "Undo", exact: true }).hover();
  await expect(page.getByTestId("change-count")).toHaveText("1 change");
  expect(laneOf(await stored(page, asIs), "approve")?.id).toBe("engineer");
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByTestId("change-count")).toHaveText("2 changes");
  expect(laneOf(await stored(page, asIs), "approve")?.id).toBe("desk");
  await change(page, "Approve design").getByRole("button").first().click();
  await page.keyboard.press("t");
  // The as-is is another version than the open one.
  await page.getByRole("dialog").getByRole("button", { name: "Take over into" }).press("Enter");
  await expect(page.getByTestId("change-count")).toHaveText("1 change");
  // Its reason stays, as that of a change that is settled.
  await expect(page.getByTestId("settled-reasons")).toContainText("taken over waiting: two days less");
  await expect(page.getByTestId("lost-reasons")).toHaveCount(0);
  await change(page, "Ask a colleague").getByRole("button").first().click();
  // And undone on the other side.
  await page.getByTestId("change-detail").getByRole("button", { name: "Undo in Engineer decides" }).click();
  await expect(page.getByTestId("change-count")).toHaveText("0 changes");
  await expect(page.getByText("Nothing differs between the two.")).toBeVisible();
  const left2 = await stored(page, toBe);
  expect([...left2.elements].some((element) => element.name === "Ask a colleague")).toBe(false);
});

test("a change that hangs on another is refused, and the other is offered along", async ({ page }) => {
  const { asIs, toBe } = await improved(page, "Hanging together");
  await page.request.post("/api/do/applyCommands", {
    data: {
      version: toBe,
      batch: "hang-1",
      base: 99,
      commands: [
        {
          type: "append",
          diagram: "page",
          from: "approve",
          id: "sign",
          flow: "sign-flow",
          kind: { type: "userTask" },
          name: "Sign agreement",
        },
        {
          type: "append",
          diagram: "page",
          from: "sign",
          id: "file",
          flow: "file-flow",
          kind: { type: "userTask" },
          name: "File agreement",
        },
      ],
    },
  });
  await page.goto(`/v/${toBe}/compare`);
  await change(page, "File agreement is new").getByRole("button").first().click();
  await page.keyboard.press("t");
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("“Sign agreement” is not there.");
  await expect(dialog.getByRole("listitem")).toContainText("Sign agreement is new");
  await dialog.getByRole("button", { name: /^Take over all 2/ }).click();
  await expect(page.getByTestId("change-count")).toHaveText("2 changes");
  const model = await stored(page, asIs);
  expect(model.elements.get("file")?.name).toBe("File agreement");
  expect(model.elements.get("file-flow")).toMatchObject({ sourceRef: "sign", targetRef: "file" });
});

test("a file is compared without being stored; what is the same thing is said by hand; a kept state is compared with now", async ({
  page,
}) => {
  const { asIs, toBe } = await improved(page, "Linked by hand");
  await page.goto(`/v/${toBe}/compare`);
  await expect(page.getByTestId("change-count")).toHaveText("2 changes");
  // Not the same thing: one is gone and one is new; and linked again.
  await change(page, "Approve design").getByRole("button").first().click();
  await change(page, "Approve design").getByRole("button").first().click();
  await page.getByRole("button", { name: "These two are not the same thing" }).click();
  await expect(change(page, "takes the place of Approve design")).toHaveCount(1);
  expect(counterpartsOf((await stored(page, toBe)).elements.get("approve") as never)).toEqual([]);
  // A file on one side.
  const other = performAll(smallModel(), { type: "rename", id: "check", name: "Check the application twice" });
  await page
    .locator('input[type="file"][aria-label="A BPMN file…"]')
    .first()
    .setInputFiles({ name: "theirs.bpmn", mimeType: "application/xml", buffer: Buffer.from(writeBpmn(other)) });
  await expect(page.getByTestId("side-from").getByRole("heading")).toHaveText("theirs.bpmn");
  await expect(change(page, "Check application was called “Check the application twice”.")).toBeVisible();
  await expect(page.getByText("Reasons are kept with the changes between two versions")).toBeVisible();
  // A kept state and now, from the history.
  await page.goto(`/v/${asIs}/diagram`);
  await page.request.post("/api/do/nameRevision", { data: { version: asIs, reason: "as agreed in March" } });
  await page.getByTestId("canvas").focus();
  await choose(page, "check");
  await page.keyboard.press("F2");
  await page.getByTestId("name-editor").fill("Check every page");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("button", { name: "As-is" }).click();
  await page.getByRole("menuitem", { name: "History" }).click();
  const history = page.getByRole("dialog");
  await history.getByText("Changed since then").click();
  await expect(history.getByTestId("revisions")).toContainText("Check every page");
  await history.getByLabel("Choose revision 1 for comparing").check();
  await history.getByRole("button", { name: "Compare with now" }).click();
  await expect(change(page, "Check every page was called “Check application”.")).toBeVisible();
  await expect(page.getByTestId("change-count")).toHaveText("1 change");
});

test("a to-be becomes the as-is; the old one is in the history", async ({ page }) => {
  const { asIs } = await improved(page, "Adopted at last");
  await page.getByRole("button", { name: "Engineer decides" }).click();
  await expect(page.getByRole("menuitem", { name: /Engineer decides/ })).toContainText("One pair of eyes less.");
  await page.getByRole("menuitem", { name: "Adopt as the as-is" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "Adopt as the as-is" }).click();
  await expect(page).toHaveURL(new RegExp(`/v/${asIs}/diagram`));
  await expect(page.locator('[data-canvas] [aria-label="Ask a colleague, task"]')).toBeAttached();
  const model = await stored(page, asIs);
  expect(laneOf(model, "approve")?.id).toBe("engineer");
  expect([...model.elements].flatMap(counterpartsOf)).toEqual([]);
  await page.getByRole("button", { name: "As-is" }).click();
  await page.getByRole("menuitem", { name: "History" }).click();
  await expect(page.getByLabel("Name of revision 1")).toHaveValue("before adopting “Engineer decides”");
  await page
    .getByRole("listitem")
    .filter({ has: page.getByLabel("Name of revision 1") })
    .getByRole("button", { name: "Restore" })
    .click();
  await expect(page.locator('[data-canvas] [aria-label="Ask a colleague, task"]')).toHaveCount(0);
});
