// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { openLive } from "@/app/testing/live";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { run, send } from "@/server/testing/workspace";

const model = modelOf(
  file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e"))),
);
let live: Awaited<ReturnType<typeof openLive>>;
afterEach(() => live.app.close());

const twoCases = async () => {
  live = await openLive(model);
  await live.start();
  await live.beginCase();
  await live.beginCase();
  await live.counts("2 open of 2 cases");
};
const openDialog = async () => {
  await live.press("Newer package");
  return within(await screen.findByTestId("renew"));
};

describe("a newer package of a run", () => {
  test("is refused in words where there is none, and taken where there is one; cases are moved with a reason", async () => {
    await twoCases();
    const dialog = await openDialog();
    expect(dialog.getByText("No case under way runs by an earlier package.")).toBeTruthy();
    await live.press("Take what was handed off last", dialog);
    await waitFor(() => expect(dialog.getByRole("alert").textContent).toMatch(/^Nothing newer was handed off/));
    await send(live.version, { type: "rename", id: "first", name: "first of all" });
    await live.press("Take what was handed off last", dialog);
    await dialog.findByText(/Case 2, package 1: can be moved/);
    expect(dialog.queryByRole("alert")).toBeNull();
    const move = await screen.findByRole("button", { name: "Move 2 cases" });
    expect(move).toHaveProperty("disabled", true);
    await live.app.user.click(dialog.getAllByRole("checkbox")[0] as HTMLElement);
    await live.app.user.type(dialog.getByLabelText("Why"), "one name for all");
    await live.press("Move 1 case");
    await waitFor(() => expect(dialog.getAllByRole("listitem")).toHaveLength(1));
    expect((await live.held(1)).row.edition).toBe(1);
    const moved = await live.held(2);
    expect(moved.row).toMatchObject({ edition: 2, at: ["first of all"] });
    expect(moved.audit.find(({ kind }) => kind === "moved to a newer package")?.reason).toBe("one name for all");
  });

  test("a case that cannot be moved says why, and cannot be chosen", async () => {
    await twoCases();
    await send(live.version, { type: "retype", id: "first", to: "serviceTask" });
    const dialog = await openDialog();
    await live.press("Take what was handed off last", dialog);
    const lines = await dialog.findAllByText(/is of another kind now: service task, before user task/);
    expect(lines).toHaveLength(2);
    for (const box of dialog.getAllByRole("checkbox")) expect(box).toHaveProperty("disabled", true);
    expect(screen.getByRole("button", { name: "Move 0 cases" })).toHaveProperty("disabled", true);
  });
});

describe("what follows", () => {
  test("is told before a supervisor leaves a step out, and that nothing follows from what is no JSON", async () => {
    await twoCases();
    const column = within(await screen.findByTestId("live-case"));
    await live.press("Leave out", column);
    const dialog = await live.dialog();
    await waitFor(() =>
      expect(dialog.getByTestId("follows").textContent).toBe("What follows: ends: first; comes: second"),
    );
    await live.app.user.type(dialog.getByLabelText(/as JSON/), "much");
    expect(dialog.queryByTestId("follows")).toBeNull();
    await live.app.user.clear(dialog.getByLabelText(/as JSON/));
    await live.app.user.type(dialog.getByLabelText("Why"), "on paper");
    await live.press("Do it", dialog);
    await waitFor(async () => expect((await live.held(2)).row.at).toEqual(["second"]));
  });

  test("of a move is where the token goes then; of cancelling that the case is over", async () => {
    await twoCases();
    const column = within(await screen.findByTestId("live-case"));
    await live.press("Cancel the case", column);
    let dialog = await live.dialog();
    await waitFor(() =>
      expect(dialog.getByTestId("follows").textContent).toBe("What follows: ends: first; the case is cancelled"),
    );
    await live.press("Cancel", dialog);
    await live.press("Suspend", column);
    dialog = await live.dialog();
    await waitFor(() => expect(dialog.getByTestId("follows").textContent).toContain("it stands where it stands"));
  });

  test("work is handed to somebody by a supervisor, with a reason that stands in the audit", async () => {
    await twoCases();
    await run("setMember", { id: "ines", name: "Ines Orr", roles: [] });
    const column = within(await screen.findByTestId("live-case"));
    await live.press("Hand to somebody", column);
    const dialog = await live.dialog();
    await waitFor(() => expect(within(dialog.getByLabelText("To")).getAllByRole("option").length).toBeGreaterThan(1));
    await live.app.user.selectOptions(dialog.getByLabelText("To"), "Ines Orr");
    expect(dialog.getByRole("button", { name: "Do it" })).toHaveProperty("disabled", true);
    await live.app.user.type(dialog.getByLabelText("Why"), "she knows the plant");
    await live.press("Do it", dialog);
    await waitFor(async () => expect((await live.held(2)).waits[0]?.memberName).toBe("Ines Orr"));
    await waitFor(() => expect(screen.getByTestId("audit").textContent).toContain("“she knows the plant”"));
  });
});
