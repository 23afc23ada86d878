// @vitest-environment jsdom
import { createEvent, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { openDiagram } from "@/app/testing/diagram";
import { incomingOf, outgoingOf } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { run } from "@/server/testing/workspace";
import { useDiagram } from "../../version/diagramStore";

let at: Awaited<ReturnType<typeof openDiagram>>;
afterEach(() => at.app.close());
const dialog = async () => within(await screen.findByRole("dialog"));
const options = async () =>
  within(await screen.findByRole("dialog"))
    .queryAllByRole("option")
    .map(({ textContent }) => textContent);
const isClosed = () => waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
const answer = async (typed: string) => {
  const asked = await dialog();
  const field = asked.getByRole("combobox");
  await app().user.clear(field);
  await app().user.type(field, typed);
};
const app = () => at.app;

describe("leading to another element", () => {
  test("finds by the beginning of words, tells what the connection would be, and draws it", async () => {
    at = await openDiagram();
    await at.choose("remind");
    at.key("r");
    await dialog();
    expect((await options()).some((words) => words?.startsWith("Approve design"))).toBe(true);
    // Two that are called alike would be told apart by where they stand.
    expect((await options()).find((words) => words?.startsWith("Check application"))).toMatch(
      /after Application received/,
    );
    await answer("appro");
    expect((await options()).map((words) => words?.split(/task|end|user/)[0])).toEqual(["Approve design", "Approved"]);
    await app().user.keyboard("{Enter}");
    await isClosed();
    await waitFor(async () =>
      expect(incomingOf(await at.stored(), "approve").map(({ sourceRef }) => sourceRef)).toContain("remind"),
    );
    at.undo();
    await waitFor(async () => expect(outgoingOf(await at.stored(), "remind")).toEqual([]));
  });

  test("offers nothing that the standard forbids", async () => {
    at = await openDiagram();
    await at.choose("done");
    at.key("r");
    await dialog();
    // No sequence flow leaves an end; a plain end sends no message either.
    for (const words of await options()) expect(words).not.toMatch(/by sequence flow/);
    await answer("nothing is called so");
    await screen.findByText("Nothing on this page can be connected to it.");
    await app().user.keyboard("{Escape}");
    await isClosed();
  });

  test("what is typed while it opens is not lost", async () => {
    at = await openDiagram();
    await at.choose("remind");
    at.key("r");
    for (const letter of "reje") at.key(letter);
    await waitFor(async () => expect((await dialog()).getByRole("combobox")).toHaveProperty("value", "reje"));
    expect((await options())[0]).toMatch(/^Reject application/);
  });
});

describe("another kind", () => {
  test("tells what it would lose before, and keeps what it can", async () => {
    at = await openDiagram();
    await at.choose("check");
    at.key("R", { shiftKey: true });
    await answer("service");
    await app().user.keyboard("{Enter}");
    await isClosed();
    await waitFor(async () => expect((await at.element("check")).type).toBe("serviceTask"));
    expect((await at.element("check")).name).toBe("Check application");
    at.key("R", { shiftKey: true });
    await answer("no such kind at all");
    await screen.findByText("No kind of element is called that.");
    await app().user.keyboard("{Escape}");
    await isClosed();
    expect((await at.element("check")).type).toBe("serviceTask");
  });

  test("what follows is chosen from all kinds, and named at once", async () => {
    at = await openDiagram();
    await at.choose("remind");
    at.key("z");
    await answer("inclusive");
    await app().user.keyboard("{Enter}");
    await isClosed();
    await screen.findByTestId("name-editor");
    await app().user.keyboard("Which of them?{Enter}");
    await waitFor(async () => expect((await at.named("Which of them?")).type).toBe("inclusiveGateway"));
  });
});

describe("the same element in another version", () => {
  test("is gone to at once where there is one, chosen where there are several", async () => {
    at = await openDiagram(smallModel(), (version) =>
      run("createToBe", { source: version, versionId: "faster", name: "Faster" }),
    );
    await at.choose("check");
    at.key(",");
    await waitFor(() => expect(at.app.address()).toMatch(/^\/v\/faster\/diagram\?element=/));
  });

  test("of one that is new in this version it is said that it is in no other", async () => {
    at = await openDiagram(smallModel(), (version) =>
      run("createToBe", { source: version, versionId: "faster", name: "Faster" }),
    );
    await at.choose("remind");
    at.key("t");
    await screen.findByTestId("name-editor");
    await app().user.keyboard("Call them{Enter}");
    await at.saved();
    const made = await at.named("Call them");
    await at.choose(made.id);
    at.key(",");
    await screen.findByText("Call them is in no other version of this process.");
  });
});

describe("taking steps out", () => {
  test("makes a process of their own and a call of it; its answer lost, nothing is taken out", async () => {
    at = await openDiagram();
    await at.choose("remind");
    app().next("extractProcess", "lost");
    at.key("X", { shiftKey: true });
    const asked = await dialog();
    await answerName(asked, "Reminding");
    await asked.findByText(/^The server did not answer/);
    expect((await at.element("remind")).type).toBe("task");
    await app().user.click(asked.getByRole("button", { name: "Make the process" }));
    await isClosed();
    await screen.findByText("“Reminding” is a process of its own now.");
    await waitFor(async () => expect((await at.named("Reminding"))?.type).toBe("callActivity"));
    const { processes } = await run<{ processes: { name: string }[] }>("openHome", {});
    expect(processes.map(({ name }) => name).sort()).toEqual(["Plant", "Reminding"]);
  });

  const answerName = async (asked: Awaited<ReturnType<typeof dialog>>, name: string) => {
    const field = asked.getByLabelText("Name of the new process");
    await app().user.clear(field);
    await app().user.type(field, name);
    await app().user.click(asked.getByRole("button", { name: "Make the process" }));
  };
});

describe("the outline", () => {
  test("is read by arrows and by typing; Enter goes to the element, Esc back to the drawing", async () => {
    at = await openDiagram();
    at.key("o");
    const tree = await screen.findByRole("tree", { name: "Outline" });
    const here = () => document.activeElement?.textContent ?? "";
    await waitFor(() => expect(document.activeElement?.getAttribute("role")).toBe("treeitem"));
    await app().user.keyboard("{End}{ArrowDown}");
    const items = within(tree).getAllByRole("treeitem");
    expect(document.activeElement).toBe(items.at(-1));
    await app().user.keyboard("{Home}{ArrowUp}");
    expect(document.activeElement).toBe(items[0]);
    await app().user.keyboard("reject a");
    expect(here()).toMatch(/^Reject application/);
    await app().user.keyboard("{Enter}");
    expect(useDiagram.getState().selection).toEqual(["reject"]);
    expect(document.activeElement).toBe(screen.getByTestId("canvas"));
    items[2]?.focus();
    await app().user.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByRole("tree", { name: "Outline" })).toBeNull());
  });

  test("keys are one word by when they were pressed, not by when a busy page hears them", async () => {
    at = await openDiagram();
    at.key("o");
    const tree = await screen.findByRole("tree", { name: "Outline" });
    const type = (...keys: readonly (readonly [string, number])[]) => {
      for (const [key, pressed] of keys) {
        const event = createEvent.keyDown(tree, { key });
        Object.defineProperty(event, "timeStamp", { value: pressed });
        fireEvent(tree, event);
      }
      return document.activeElement?.textContent ?? "";
    };
    expect(type(["r", 10_000], ["e", 10_300], ["j", 10_600])).toMatch(/^Reject application/);
    // A word of its own, long after: not one that begins with "rejc".
    expect(type(["c", 12_000])).toMatch(/^C/);
  });

  test("follows what is drawn, and says when nothing is", async () => {
    at = await openDiagram();
    at.key("o");
    await screen.findByRole("tree", { name: "Outline" });
    useDiagram.getState().select("remind");
    at.key("Delete");
    await waitFor(() => expect(screen.queryByRole("treeitem", { name: /^Remind household/ })).toBeNull());
  });
});
