import type { APIRequestContext } from "@playwright/test";
import { expect, test } from "./test";

/** A process of the test's own, so that what others find and count stays as it is. */
async function ownProcess(request: APIRequestContext, name: string): Promise<string> {
  const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="${name.replace(/\W/g, "-")}" name="${name}"><startEvent id="s" name="Crew on site"/><userTask id="t" name="Lift the panel"/><endEvent id="e" name="Panel lifted"/><sequenceFlow id="f" sourceRef="s" targetRef="t"/><sequenceFlow id="g" sourceRef="t" targetRef="e"/></process></definitions>`;
  const into = new URLSearchParams({ name: `${name}.bpmn`, area: "area-on-site" });
  const made = await request.post(`/api/import?${into}`, {
    headers: { "content-type": "application/octet-stream" },
    data: Buffer.from(file),
  });
  return ((await made.json()) as { version: string }).version;
}

test("somebody is mentioned at a step, answers in another browser, and resolves it", async ({
  page,
  browser,
  request,
}) => {
  const { members } = (await (await request.post("/api/do/listMembers", { data: {} })).json()) as {
    members: { id: string; name: string }[];
  };
  const other = members.find(({ name }) => name === "Oran Veltri");
  if (!other) throw new Error("The demo has no such member.");
  const version = await ownProcess(request, "Switch on, talked about");

  await page.goto(`/v/${version}/diagram`);
  await page.locator('[data-canvas] [data-type="userTask"]').first().click();
  await page.getByRole("button", { name: "Comments: none is open" }).click();
  const column = page.getByTestId("comments");
  const field = column.getByRole("textbox").first();
  await field.fill("Is this done twice? ");
  await field.pressSequentially("@Ora");
  await field.press("Tab");
  await expect(field).toHaveValue("Is this done twice? @Oran Veltri ");
  await field.press("Control+Enter");
  await expect(column.getByTestId("thread")).toContainText("Is this done twice?");

  const context = await browser.newContext();
  await context.addCookies([{ name: "lane-member", value: other.id, url: new URL(page.url()).origin }]);
  const theirs = await context.newPage();
  await theirs.goto(new URL("/work", page.url()).href);
  await theirs
    .getByTestId("my-comments")
    .getByRole("link", { name: /^Switch on, talked about/ })
    .click();
  const answering = theirs.getByTestId("comments");
  await answering.getByPlaceholder("Answer …").fill("Only on the first day.");
  await answering.getByRole("button", { name: "Answer" }).click();
  // It arrives where the question was asked, without anybody looking again.
  await expect(column.getByTestId("thread")).toContainText("Only on the first day.", { timeout: 10_000 });
  await answering.getByRole("button", { name: "Resolve" }).click();
  await expect(column.getByText("Nothing is open.")).toBeVisible({ timeout: 10_000 });

  // Then it is reviewed: approved in the other browser, and lapsed with the next change.
  await column.getByRole("radio", { name: "Review" }).click();
  await column.getByRole("checkbox", { name: "Oran Veltri" }).check();
  await column.getByLabel("Question").fill("Is it as you do it?");
  await column.getByRole("button", { name: "Ask for a review" }).click();
  await expect(column.getByTestId("review")).toContainText("has not answered yet");
  await theirs.goto(new URL("/work", page.url()).href);
  await theirs
    .getByTestId("my-reviews")
    .getByRole("link", { name: /^Switch on, talked about/ })
    .click();
  await theirs.getByTestId("reviews").getByRole("button", { name: "Approve", exact: true }).click();
  const round = column.getByTestId("review");
  await expect(round).toContainText("holds for what is here now", { timeout: 10_000 });
  await page.getByTestId("tray").getByRole("textbox", { name: "Name", exact: true }).fill("Switch on, at last");
  await page.getByTestId("tray").getByRole("textbox", { name: "Name", exact: true }).press("Enter");
  await expect(round).toContainText("changed since, so that it holds no more", { timeout: 10_000 });
  await expect(round.getByRole("link", { name: "What has changed since" })).toBeVisible();
  await context.close();
});

test("texts are kept in another language, and the handbook is told in it", async ({ page, request }) => {
  const version = await ownProcess(request, "Switch on, in German");
  await page.goto(`/v/${version}/steps?part=languages`);
  await page.getByLabel("Add a language").fill("de");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  const first = page.getByTestId("text-row").filter({ hasText: "user task" }).first().getByRole("textbox").first();
  await first.fill("Anlage einschalten");
  await first.press("Enter");
  await expect(page.getByTestId("texts-missing")).toContainText("missing");
  await page.goto(`/v/${version}/hand-off?part=handbook`);
  await page.getByLabel("Language").selectOption("de");
  await expect(page.locator("iframe")).toHaveAttribute("srcdoc", /1 Anlage einschalten|\d Anlage einschalten/);
});
