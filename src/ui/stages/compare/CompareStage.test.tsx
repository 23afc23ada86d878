// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { laneOf } from "@/core/model";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";

let app: Application;
let asIs: string;
let toBe: string;

/** A to-be in which an approval is done by somebody else, and a question is asked before. */
const open = async () => {
  app = await openApplication("/", async () => {
    asIs = await importModel("Applications");
    toBe = (await run<{ version: string }>("createToBe", { source: asIs, name: "Engineer decides" })).version;
    await send(
      toBe,
      { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" },
      {
        type: "append",
        diagram: "page",
        from: "check",
        id: "ask",
        flow: "f-ask",
        kind: { type: "task" },
        name: "Ask a colleague",
      },
    );
  });
  app.goTo(`/v/${toBe}/compare`);
  await screen.findByTestId("change-count");
};
afterEach(() => app.close());

const rows = () => [...document.querySelectorAll<HTMLElement>("[data-change]")];
const change = (words: string) =>
  waitFor(() => {
    const found = rows().find((row) => row.textContent?.includes(words));
    if (!found) throw new Error(`no change says ${words}: ${rows().map((row) => row.textContent)}`);
    return found;
  });
const head = async (words: string) => within(await change(words)).getAllByRole("button")[0] as HTMLElement;
const reasons = async () =>
  (
    await run<{ reasons: { reason: { effect: string; state: string } }[] }>("listReasons", {
      version: toBe,
      against: asIs,
    })
  ).reasons;
const counted = (words: string) => waitFor(() => expect(screen.getByTestId("change-count").textContent).toBe(words));

describe("the Compare stage", () => {
  test("each difference is a sentence with its names in bold, and typing narrows them", async () => {
    await open();
    await counted("2 changes");
    const moved = await change("Approve design moves from Front desk to Network engineer.");
    expect(moved.getAttribute("data-change")).toBe("moved");
    expect(moved.querySelector("b")?.textContent).toBe("Approve design");
    await change("Ask a colleague is new: a task done by Front desk, in parallel with");
    await app.user.type(screen.getByLabelText("Filter changes"), "colleague");
    await waitFor(() => expect(rows()).toHaveLength(1));
  });

  test("what only one side has is marked in its pen, and labels say what happened", async () => {
    await open();
    await counted("2 changes");
    const side = (hand: string) => screen.getByTestId(`side-${hand}`);
    await waitFor(() => expect(side("to").querySelector('[data-pen="to"] [data-id="ask"]')).toBeTruthy());
    expect(side("from").querySelector('[data-id="ask"]')).toBeNull();
    expect(side("to").querySelector('[data-means="whatHappened"][data-on="approve"]')?.textContent).toBe(
      "from Front desk",
    );
    expect(side("from").querySelector('[data-means="whatHappened"][data-on="approve"]')?.textContent).toBe(
      "to Network engineer",
    );
    // Labels stand at shapes alone.
    expect(side("to").querySelector('[data-means="whatHappened"][data-on="f-ask"]')).toBeNull();
  });

  test("a reason is given field by field, kept by the server, and taken back one step at a time", async () => {
    await open();
    await app.user.click(await head("Approve design moves"));
    await app.user.click(await head("Approve design moves"));
    const detail = await screen.findByTestId("change-detail");
    await app.user.click(await within(detail).findByLabelText("waiting"));
    await app.user.type(within(detail).getByLabelText("Expected effect"), "two days less{Enter}");
    await app.user.selectOptions(within(detail).getByLabelText("State of the change"), "agreed");
    await waitFor(async () =>
      expect((await reasons())[0]?.reason).toMatchObject({ effect: "two days less", state: "agreed" }),
    );
    expect((await change("Approve design moves")).textContent).toContain("waiting: two days less");
    (document.activeElement as HTMLElement).blur();
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await reasons())[0]?.reason.state).toBe("proposed"));
    await waitFor(() =>
      expect(within(detail).getByLabelText("State of the change")).toHaveProperty("value", "proposed"),
    );
  });

  test("a reason whose question is lost is told, and not shown as given", async () => {
    await open();
    await app.user.click(await head("Approve design moves"));
    await app.user.click(await head("Approve design moves"));
    const detail = await screen.findByTestId("change-detail");
    app.next("giveReason", "lost");
    await app.user.click(await within(detail).findByLabelText("waiting"));
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await reasons()).toEqual([]);
    await waitFor(() => expect(within(detail).getByLabelText("waiting")).toHaveProperty("checked", false));
  });

  test("a change is taken over into the as-is, is no difference any more, and comes back by undo", async () => {
    await open();
    await app.user.click(await head("Approve design moves"));
    await app.user.keyboard("t");
    await counted("1 change");
    await waitFor(async () => expect(laneOf(await storedModel(asIs), "approve")?.id).toBe("engineer"));
    await app.user.keyboard("{Control>}z{/Control}");
    await counted("2 changes");
    await waitFor(async () => expect(laneOf(await storedModel(asIs), "approve")?.id).toBe("desk"));
  });

  test("one that hangs on another is refused, and both are offered together", async () => {
    await open();
    await send(
      toBe,
      {
        type: "append",
        diagram: "page",
        from: "approve",
        id: "sign",
        flow: "f-sign",
        kind: { type: "userTask" },
        name: "Sign agreement",
      },
      {
        type: "append",
        diagram: "page",
        from: "sign",
        id: "file",
        flow: "f-file",
        kind: { type: "userTask" },
        name: "File agreement",
      },
    );
    await counted("4 changes");
    await app.user.click(await head("File agreement is new"));
    await app.user.keyboard("t");
    const dialog = await screen.findByRole("dialog");
    expect(dialog.textContent).toContain("“Sign agreement” is not there.");
    expect((await storedModel(asIs)).elements.has("file")).toBe(false);
    await app.user.click(within(dialog).getByRole("button", { name: "Take over all 2" }));
    await counted("2 changes");
    expect((await storedModel(asIs)).elements.get("f-file")).toMatchObject({ sourceRef: "sign", targetRef: "file" });
  });

  test("what somebody else changes on either side is compared anew", async () => {
    await open();
    await counted("2 changes");
    await send(asIs, { type: "rename", id: "reject", name: "Say no" });
    await counted("3 changes");
    await change("was called “Say no”");
    await send(toBe, { type: "rename", id: "reject", name: "Say no" });
    await counted("2 changes");
  });

  test("a kept state is chosen for a side by its name", async () => {
    await open();
    await run("nameRevision", { version: asIs, reason: "as agreed in March" });
    await send(asIs, { type: "rename", id: "check", name: "Check every page" });
    const [old] = screen.getAllByRole("combobox");
    await app.user.click(old as HTMLElement);
    const option = await within(old as HTMLElement).findByRole("option", { name: /as agreed in March/ });
    await app.user.selectOptions(old as HTMLElement, option);
    await counted("2 changes");
    expect(within(screen.getByTestId("side-from")).getByRole("heading").textContent).toContain("1");
  });
});
