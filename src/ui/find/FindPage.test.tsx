// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { importModel, run, send } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/find", async () => {
    version = await importModel("Applications");
    await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
    await run("createEntry", { id: "register", kind: "system", name: "Case register" });
    await send(
      version,
      { type: "tieLane", lane: "desk", role: { entry: "desk", name: "Front desk" } },
      { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "reads" },
      { type: "describe", id: "approve", text: "Ask the engineer about the feeder first." },
    );
  });
  await screen.findByRole("table");
};
afterEach(() => app.close());

const found = () =>
  within(screen.getByRole("table"))
    .getAllByRole("link")
    .map((link) => link.textContent);
const words = () => screen.getByRole("searchbox");

describe("finding in all processes", () => {
  test("by a part of a name, and by what is written about an element", async () => {
    await open();
    await app.user.type(words(), "approve des");
    await waitFor(() => expect(found()).toEqual(["Approve design"]));
    await app.user.clear(words());
    await app.user.type(words(), "feeder");
    await waitFor(() => expect(screen.getByRole("table").textContent).toContain("about the feeder first"));
    expect(found()).toEqual(["Approve design"]);
    expect(within(screen.getByRole("table")).getByRole("link").getAttribute("href")).toBe(
      `/v/${version}/diagram?element=approve`,
    );
  });

  test("by type, by system and by role, together", async () => {
    await open();
    await app.user.selectOptions(
      screen.getByLabelText("System"),
      await screen.findByRole("option", { name: "Case register" }),
    );
    await waitFor(() => expect(found()).toEqual(["Check application"]));
    await app.user.selectOptions(screen.getByLabelText("Type"), screen.getByRole("option", { name: /^start event/ }));
    expect(await screen.findByText(/Nothing in any process fits/)).toBeTruthy();
    await app.user.selectOptions(screen.getByLabelText("System"), "");
    await waitFor(() => expect(found()).toEqual(["Application received"]));
    await app.user.selectOptions(screen.getByLabelText("Type"), "");
    await app.user.selectOptions(screen.getByLabelText("Role"), screen.getByRole("option", { name: "Front desk" }));
    await waitFor(() => expect(found()).toContain("Check application"));
  });

  test("letters that mean something to a database are letters", async () => {
    await open();
    for (const typed of ["%", "_", "'; drop table elements; --", "\\"]) {
      await app.user.clear(words());
      await app.user.type(words(), typed.replace(/[[{]/g, "$&$&"));
      expect(await screen.findByText(/Nothing in any process fits/)).toBeTruthy();
    }
  });

  test("what is made meanwhile is found without typing again", async () => {
    await open();
    await app.user.type(words(), "colleague");
    expect(await screen.findByText(/Nothing in any process fits/)).toBeTruthy();
    await send(version, { type: "rename", id: "reject", name: "Ask a colleague" });
    await waitFor(() => expect(found()).toEqual(["Ask a colleague"]));
  });

  test("a question that is lost says so, and asking again finds it", async () => {
    await open();
    app.next("searchElements", "lost");
    await app.user.type(words(), "approve des");
    await app.user.click(await screen.findByRole("button", { name: "Try again" }));
    await waitFor(() => expect(found()).toEqual(["Approve design"]));
  });
});
