// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { writeBpmn } from "@/core/bpmn";
import { laneOf } from "@/core/model";
import { performAll } from "@/core/testing/models";
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

/** Enter does what the dialog asks, once it has the keyboard. */
const sayYes = async () => {
  await waitFor(() => {
    // The button that asked for it says the same, and had the keyboard before.
    const here = document.activeElement?.closest("[role=dialog]") && document.activeElement;
    expect(here?.textContent).toMatch(/^Take over into/);
  });
  await app.user.keyboard("{Enter}");
};

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
    // The as-is is not the version that is open: nothing is done before that was said.
    const asked = await screen.findByRole("dialog", { name: /^Change .+\?$/ });
    expect(asked.textContent).toContain("Approve design moves");
    expect(laneOf(await storedModel(asIs), "approve")?.id).toBe("desk");
    await sayYes();
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
    await app.user.click(within(dialog).getByRole("button", { name: /^Take over all 2 into/ }));
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

  test("each change says that a reason can be given; a taken-over one keeps its reason as settled", async () => {
    await open();
    const row = await change("Approve design moves");
    await app.user.click(await within(row).findByRole("button", { name: /^say why: Approve design/ }));
    const detail = await screen.findByTestId("change-detail");
    await waitFor(() => expect(document.activeElement).toBe(within(detail).getByLabelText("waiting")));
    await app.user.keyboard(" ");
    await app.user.type(within(detail).getByLabelText("Expected effect"), "two days less{Enter}");
    await waitFor(async () => expect((await reasons())[0]?.reason.effect).toBe("two days less"));
    await app.user.click(within(detail).getByRole("button", { name: /^Take over into/ }));
    await screen.findByRole("dialog", { name: /^Change/ });
    await sayYes();
    await counted("1 change");
    const settled = await screen.findByTestId("settled-reasons");
    expect(settled.textContent).toContain("taken over");
    expect(settled.textContent).toContain("waiting: two days less");
    expect(screen.queryByTestId("lost-reasons")).toBeNull();
    // Undone, the change is a proposal again, with its reason.
    await app.user.click(document.body);
    await app.user.keyboard("{Control>}z{/Control}");
    await counted("2 changes");
    expect((await change("Approve design moves")).textContent).toContain("waiting: two days less");
    expect(screen.queryByTestId("settled-reasons")).toBeNull();
  });

  test("a reason whose change went otherwise is given to another change, or deleted", async () => {
    await open();
    await app.user.click(await within(await change("Approve design moves")).findByRole("button", { name: /^say why/ }));
    const detail = await screen.findByTestId("change-detail");
    await app.user.type(within(detail).getByLabelText("Expected effect"), "two days less{Enter}");
    await waitFor(async () => expect((await reasons())[0]?.reason.effect).toBe("two days less"));
    await send(toBe, { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "desk" });
    await counted("1 change");
    expect((await screen.findByTestId("lost-reasons")).textContent).toContain("two days less");
    await app.user.click(await screen.findByRole("button", { name: "Give it to the change chosen" }));
    expect((await change("Ask a colleague")).textContent).toContain("two days less");
    await waitFor(() => expect(screen.queryByTestId("lost-reasons")).toBeNull());
    await send(toBe, { type: "delete", ids: ["ask"] });
    await counted("0 changes");
    await app.user.click(within(await screen.findByTestId("lost-reasons")).getByRole("button", { name: "Delete" }));
    await waitFor(async () => expect(await reasons()).toEqual([]));
  });

  test("two files that are dropped are compared with each other; one that cannot be read changes neither side", async () => {
    await open();
    const model = await storedModel(asIs);
    const file = (name: string, words: string) => new File([words], name);
    const drop = (...files: File[]) =>
      fireEvent.drop(screen.getByTestId("side-to"), { dataTransfer: { files, types: ["Files"] }, clientX: 900 });
    const titles = () => ["from", "to"].map((hand) => screen.getByTestId(`side-${hand}`).getAttribute("aria-label"));
    const before = titles();
    drop(file("old.bpmn", writeBpmn(model)), file("broken.bpmn", "<definitions"));
    expect(await screen.findByText(/broken\.bpmn/)).toBeTruthy();
    expect(titles()).toEqual(before);
    const renamed = performAll(model, { type: "rename", id: "reject", name: "Say no" });
    drop(file("old.bpmn", writeBpmn(model)), file("new.bpmn", writeBpmn(renamed)));
    await counted("1 change");
    expect(titles()).toEqual(["old.bpmn", "new.bpmn"]);
    await change("was called");
    // What is no version of the workspace has no reasons, and nothing asks for one.
    expect(screen.queryByRole("button", { name: /^say why/ })).toBeNull();
  });
});
