// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { ThreadRow } from "@/contract/comments";
import { smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";
import { useCommentsShown } from "../../version/comments/store";

let app: Application;
let version: string;
beforeEach(async () => {
  useCommentsShown.setState({ isOpen: false, part: "comments", filter: "open" });
  app = await openApplication("/", async () => {
    version = await importModel("Applications", smallModel());
    await run("setMember", { id: "oran", name: "Oran Veltri", roles: [] });
  });
});
afterEach(() => app.close());

const open = async (path = "diagram?element=check") => {
  app.goTo(`/v/${version}/${path}`);
  await app.user.click(await screen.findByRole("button", { name: /^Comments/ }));
  return within(await screen.findByTestId("comments"));
};
const threads = async () => (await run<{ threads: ThreadRow[] }>("listThreads", { version })).threads;

describe("comments beside a stage", () => {
  test("are about what is selected, mention people, and stand at the element on the diagram", async () => {
    const column = await open();
    const field = await column.findByPlaceholderText(/^Comment on Check application/);
    await app.user.type(field, "Why twice? @Or");
    await app.user.click(await column.findByRole("button", { name: "Mention Oran Veltri" }));
    await app.user.click(column.getByRole("button", { name: "Send" }));
    await column.findByTestId("thread");
    const [thread] = await threads();
    expect(thread?.about).toEqual({ kind: "element", key: "check", words: "Check application" });
    expect(thread?.said[0]).toMatchObject({ text: "Why twice? @Oran Veltri", mentions: ["oran"] });
    expect((field as HTMLTextAreaElement).value).toBe("");
    expect(await screen.findByRole("button", { name: "Comments: 1 thread open" })).toBeTruthy();
    await expect.poll(() => document.querySelector('[data-means="commented"]')).toBeTruthy();
  });

  test("are answered, resolved and opened again; each act is taken back", async () => {
    const column = await open();
    await app.user.type(await column.findByPlaceholderText(/^Comment on/), "Why?{Control>}{Enter}{/Control}");
    const thread = within(await column.findByTestId("thread"));
    await app.user.type(thread.getByPlaceholderText("Answer …"), "Because.{Control>}{Enter}{/Control}");
    await thread.findByText("Because.");
    await app.user.click(thread.getByRole("button", { name: "Resolve" }));
    await expect.poll(() => column.queryAllByTestId("thread")).toHaveLength(0);
    expect(column.getByText("Nothing is open.")).toBeTruthy();
    await app.user.click(column.getByRole("radio", { name: "All" }));
    expect((await column.findByTestId("thread")).textContent).toContain("Resolved by Mara Aldous");
    await app.user.click(column.getByRole("heading", { name: "Comments" }));
    await app.user.keyboard("{Control>}z{/Control}");
    await expect.poll(async () => (await threads())[0]?.resolved).toBeNull();
  });

  test("what somebody else says arrives without being asked for; a thread whose element is gone says so", async () => {
    const column = await open("diagram");
    const about = { kind: "element", key: "check", words: "Check application" };
    const said = { version, thread: "t", said: "s", about, text: "From elsewhere", mentions: [], assigned: null };
    await run("startThread", said);
    await column.findByText("From elsewhere");
    await send(version, { type: "delete", ids: ["check"] });
    await column.findByText("Check application (is not there any more)");
  });

  test("of nothing in particular it is about the version; what could not be sent stays written", async () => {
    const column = await open("steps");
    const field = (await column.findByPlaceholderText(/^Comment on this version/)) as HTMLTextAreaElement;
    app.next("startThread", "lost");
    await app.user.type(field, "All of it{Control>}{Enter}{/Control}");
    await screen.findByText(/could not be reached|did not answer|no connection/i);
    expect(field.value).toBe("All of it");
    const send = column.getByRole("button", { name: "Send" });
    await waitFor(() => expect(send).toHaveProperty("disabled", false));
    await app.user.click(send);
    await waitFor(async () => expect((await threads()).map(({ about }) => about.kind)).toEqual(["version"]));
  });

  test("what one said oneself is changed; the thread is deleted and brought again", async () => {
    const column = await open();
    await app.user.type(await column.findByPlaceholderText(/^Comment on/), "Wy?{Control>}{Enter}{/Control}");
    const thread = within(await column.findByTestId("thread"));
    await app.user.click(thread.getByRole("button", { name: "Change" }));
    const field = thread.getByRole("textbox", { name: "Change" });
    await app.user.clear(field);
    await app.user.type(field, "Why?{Control>}{Enter}{/Control}");
    await thread.findByText("changed");
    expect(thread.getByText("Why?")).toBeTruthy();
    await app.user.selectOptions(thread.getByRole("combobox", { name: /^Who sees to it/ }), "Oran Veltri");
    await expect.poll(async () => (await threads())[0]?.assigned).toBe("oran");
    await app.user.click(thread.getByRole("button", { name: "Delete the thread" }));
    await expect.poll(threads).toEqual([]);
  });
});

test("what asks for somebody stands on the page of work, and leads to where it is", async () => {
  const about = { kind: "element", key: "check", words: "Check application" };
  const mentions = ["member-local"];
  await run("startThread", { version, thread: "t", said: "s", about, text: "Mara, why?", mentions, assigned: null });
  app.goTo("/work");
  const mine = within(await screen.findByTestId("my-comments"));
  expect(mine.getByText("1 comment for you")).toBeTruthy();
  const link = mine.getByRole("link", { name: "Applications: Check application" });
  expect(link.getAttribute("href")).toBe(`/v/${version}/diagram?comments&element=check`);
});
