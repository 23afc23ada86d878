// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { inspectionDecisions } from "@/demo/decisions";
import { makeProcess, run, send } from "@/server/testing/workspace";
import { useDecisions } from "./decisionStore";

let app: Application;
const open = async (fill: () => Promise<unknown> = async () => {}) => {
  app = await openApplication("/decisions", fill);
  await screen.findByRole("heading", { name: "Decisions" });
};
afterEach(async () => {
  await useDecisions.getState().settle();
  // The next window has nothing open.
  useDecisions.setState({ file: null, document: null });
  await app.close();
});
const files = async () =>
  (await run<{ files: { name: string }[] }>("listDecisionFiles", {})).files.map(({ name }) => name);
const give = (name: string, text: string) =>
  app.user.upload(screen.getByTestId("decision-file"), new File([text], name, { type: "application/xml" }));

describe("the files of decisions", () => {
  test("none: what they are for, and the first step", async () => {
    await open();
    expect(await screen.findByText(/No decisions yet/)).toBeTruthy();
  });
  test("one is begun by its name and opened, with something to add", async () => {
    await open();
    await app.user.type(await screen.findByLabelText("Name of the new file"), "Fees{Enter}");
    expect(await screen.findByRole("button", { name: "+ Decision by table" })).toBeTruthy();
    expect(app.address()).toMatch(/^\/decisions\/.+/);
    expect(await files()).toEqual(["Fees"]);
  });
  test("one of another program is taken over as it is; what is none changes nothing and says why", async () => {
    await open();
    await give("Theirs.dmn", inspectionDecisions());
    expect(await screen.findByRole("link", { name: "Theirs" })).toBeTruthy();
    await give("Broken.dmn", "<definitions><open></definitions>");
    expect(await screen.findByText(/not well-formed/)).toBeTruthy();
    expect(await files()).toEqual(["Theirs"]);
  });
  test("one that a step decides by stays; another is deleted and comes back", async () => {
    await open(async () => {
      const { version } = await makeProcess();
      for (const id of ["used", "free"])
        await run("createDecisionFile", { id, name: id, content: inspectionDecisions() });
      await send(
        version,
        { type: "retype", id: "check", to: "businessRuleTask" },
        { type: "decideBy", id: "check", to: { file: "used", decision: "inspection", name: "inspection" } },
      );
    });
    const row = (name: string) => screen.getByRole("link", { name }).closest("tr") as HTMLElement;
    await screen.findByRole("link", { name: "used" });
    expect(row("used").textContent).toContain("1 step");
    await app.user.click(within(row("used")).getByRole("button", { name: "Delete: used" }));
    expect(await screen.findByText(/is used in 1 place/)).toBeTruthy();
    await app.user.click(within(row("free")).getByRole("button", { name: "Delete: free" }));
    await waitFor(async () => expect(await files()).toEqual(["used"]));
    await app.user.click(await screen.findByRole("button", { name: "Undo" }));
    await waitFor(async () => expect(await files()).toEqual(["free", "used"]));
  });
});

describe("a step that decides", () => {
  test("gets a table of its own in one choice, and is tied to it", async () => {
    await open(async () => {
      const { version } = await makeProcess();
      await send(version, { type: "retype", id: "check", to: "businessRuleTask" });
    });
    app.goTo("/v/v/diagram?element=check");
    await app.user.selectOptions(await screen.findByRole("combobox", { name: "Decides by" }), "new");
    await waitFor(() => expect(app.address()).toMatch(/^\/decisions\/.+decision=decision/));
    expect(await screen.findByRole("grid", { name: "Rules of check application" })).toBeTruthy();
    expect(await files()).toEqual(["Check application"]);
    expect((await run<{ files: { uses: number }[] }>("listDecisionFiles", {})).files[0]?.uses).toBe(1);
  });
});
