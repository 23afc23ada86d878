// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { openDiagram } from "@/app/testing/diagram";
import type { HomeData } from "@/contract/home";
import { rolesOf } from "@/core/directory";
import { attributesOf, childrenOf, documentationIn, linksWith, plainOf, systemsOf } from "@/core/model";
import { performAll, smallModel, startModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";

let at: Awaited<ReturnType<typeof openDiagram>>;
afterEach(() => at.app.close());
const press = async (name: string | RegExp) => at.app.user.click(await at.tray().findByRole("button", { name }));
/** How many acts can be taken back: each is one key. */
const undoUntil = async (isBack: () => Promise<boolean>) => {
  for (let times = 1; times < 9; times++) {
    at.undo();
    await at.saved();
    if (
      await waitFor(async () => expect(await isBack()).toBe(true), { timeout: 600 }).then(
        () => true,
        () => false,
      )
    )
      return times;
  }
  return Number.NaN;
};

describe("the tray of several", () => {
  const both = ["check", "approve"] as const;

  test("one type for all that are of one family, told to be different before", async () => {
    at = await openDiagram();
    await at.choose("check", "reject");
    const type = await at.tray().findByLabelText("Type");
    expect(type).toHaveProperty("value", "");
    expect(at.tray().getByText("2 elements")).toBeTruthy();
    expect(at.tray().getByText("Check application · Reject application")).toBeTruthy();
    await at.app.user.selectOptions(type, "manualTask");
    await waitFor(async () => expect((await at.element("reject")).type).toBe("manualTask"));
    expect((await at.element("check")).type).toBe("manualTask");
    await waitFor(() => expect(at.tray().getByLabelText("Type")).toHaveProperty("value", "manualTask"));
    expect(await undoUntil(async () => (await at.element("check")).type === "userTask")).toBeLessThanOrEqual(2);
    expect((await at.element("reject")).type).toBe("sendTask");
  });

  test("people and systems of the directory, and ones that are made on the spot", async () => {
    at = await openDiagram(smallModel(), () => run("createEntry", { id: "r", kind: "role", name: "Planner" }));
    await at.choose(...both);
    await press("Accountable: add");
    await at.app.user.type(at.tray().getByRole("combobox", { name: "Accountable: add" }), "plan{Enter}");
    await waitFor(async () =>
      expect(rolesOf(await at.stored(), "approve")).toContainEqual(
        expect.objectContaining({ part: "accountable", name: "Planner", entry: "r" }),
      ),
    );
    expect(rolesOf(await at.stored(), "check")).toContainEqual(expect.objectContaining({ part: "accountable" }));
    await press("Systems: add");
    await at.app.user.type(at.tray().getByRole("combobox", { name: "Systems: add" }), "Grid map{Enter}");
    await waitFor(async () => expect(systemsOf(await at.element("check"))).toMatchObject([{ name: "Grid map" }]));
    expect(systemsOf(await at.element("approve"))).toHaveLength(1);
    const { entries } = await run<{ entries: { kind: string; name: string }[] }>("openDirectory", {});
    expect(entries.filter(({ kind }) => kind === "system").map(({ name }) => name)).toEqual(["Grid map"]);
  });

  test("how often they are done", async () => {
    at = await openDiagram();
    await at.choose(...both);
    await at.app.user.selectOptions(await at.tray().findByLabelText("Repeats"), "parallel");
    const repeats = async (id: string) =>
      childrenOf(await at.stored(), id, "loopCharacteristics").map(({ type }) => type);
    for (const id of both)
      await waitFor(async () => expect(await repeats(id)).toEqual(["multiInstanceLoopCharacteristics"]));
    await at.app.user.selectOptions(at.tray().getByLabelText("Repeats"), "once");
    for (const id of both) await waitFor(async () => expect(await repeats(id)).toEqual([]));
  });

  test("of elements that have nothing in common it says what can be done with them", async () => {
    at = await openDiagram();
    await at.choose("start", "decide");
    await at.tray().findByText("Several elements are selected. Move, copy or delete them together.");
  });
});

describe("links and files", () => {
  const links = async () => linksWith(await at.element("check"));
  const type = async (words: string) => {
    await at.app.user.type(await at.tray().findByLabelText("Address of a page, then Enter"), `${words}{Enter}`);
  };

  test("a page without a scheme is one of the web; what could run as a program is refused", async () => {
    at = await openDiagram();
    await at.choose("check");
    await type("rules.example/connections");
    await waitFor(async () =>
      expect(await links()).toEqual([
        { kind: "page", title: "rules.example/connections", href: "https://rules.example/connections" },
      ]),
    );
    const link = await at.tray().findByRole("link", { name: "rules.example/connections" });
    expect(link.getAttribute("rel")).toBe("noreferrer");
    await type("javascript:alert(1)");
    await at.saved();
    for (const shown of at.tray().queryAllByRole("link")) expect(shown.getAttribute("href")).toMatch(/^https:/);
    await type("   ");
    expect((await links()).filter(({ kind }) => kind === "page")).toHaveLength((await links()).length);
    await press("Take rules.example/connections off");
    await waitFor(async () =>
      expect((await links()).map(({ title }) => title)).not.toContain("rules.example/connections"),
    );
  });

  test("a file is kept with the workspace; one that could not be sent is told, and nothing is linked", async () => {
    at = await openDiagram();
    await at.choose("check");
    const [input] = at
      .tray()
      .getAllByLabelText("Attach a file")
      .filter((one) => one.tagName === "INPUT");
    const attach = (file: File) => fireEvent.change(input as HTMLElement, { target: { files: [file] } });
    attach(new File(["how to check"], "how to.txt", { type: "text/plain" }));
    await waitFor(async () => expect(await links()).toMatchObject([{ kind: "file", title: "how to.txt" }]));
    const file = (await links())[0] as { file: string };
    const shown = await at.tray().findByRole("link", { name: "how to.txt" });
    expect(shown.getAttribute("href")).toBe(`/api/files?id=${encodeURIComponent(file.file)}`);
    attach(new File([], "empty.txt"));
    await screen.findByText(/empty/);
    expect(await links()).toHaveLength(1);
  });
});

describe("what somebody has to know", () => {
  test("is kept for each language, told by a tick, and the other one stays", async () => {
    at = await openDiagram();
    await at.choose("check");
    const write = async (words: string) => {
      const field = await at.tray().findByLabelText("Instructions");
      await at.app.user.clear(field);
      await at.app.user.type(field, words);
      fireEvent.blur(field);
      await at.saved();
    };
    await write("Look at the plan.");
    await at.app.user.selectOptions(at.tray().getByLabelText("Language"), "de");
    // At once, before the page has come to rest.
    await waitFor(() => expect(at.tray().getByLabelText("Instructions")).toHaveProperty("value", ""));
    await write("Den Plan ansehen.");
    await waitFor(async () =>
      expect(plainOf(documentationIn(await at.element("check"), "de"))).toBe("Den Plan ansehen."),
    );
    expect(plainOf(documentationIn(await at.element("check")))).toBe("Look at the plan.");
    expect([...(at.tray().getByLabelText("Language") as HTMLSelectElement).options].map(({ text }) => text)).toContain(
      "German ✓",
    );
  });

  test("own attributes are added, filled, and taken off", async () => {
    at = await openDiagram();
    await at.choose("check");
    await at.app.user.type(await at.tray().findByLabelText("Name of a new one, then Enter"), "Norm{Enter}");
    const field = await at.tray().findByLabelText("Norm");
    await at.app.user.type(field, "LL 12-3{Enter}");
    await waitFor(async () =>
      expect(attributesOf(await at.element("check"))).toMatchObject([{ name: "Norm", value: "LL 12-3" }]),
    );
    await press("Take Norm off");
    await waitFor(async () => expect(attributesOf(await at.element("check"))).toEqual([]));
  });
});

describe("a call", () => {
  const calling = performAll(
    startModel(),
    { type: "place", diagram: "page", id: "s", kind: { type: "startEvent" }, at: { x: 100, y: 100 }, name: "Asked" },
    {
      type: "append",
      diagram: "page",
      from: "s",
      id: "c",
      flow: "f",
      kind: { type: "callActivity" },
      name: "Have it inspected",
    },
  );

  test("is given the process it calls, and one of its versions; there, it is told who calls", async () => {
    at = await openDiagram(calling, () => importModel("Inspection"));
    const home = await run<HomeData>("openHome", {});
    const { id: process } = home.processes.find(({ name }) => name === "Inspection") as { id: string };
    const inspection = home.versions.find((version) => version.process === process)?.id ?? "";
    await run("createToBe", { from: inspection, processId: null, version: "faster", name: "Faster" }).catch(
      () => undefined,
    );
    await at.choose("c");
    const called = await at.tray().findByLabelText("Calls");
    const option = await waitFor(() => {
      const found = [...(called as HTMLSelectElement).options].find(({ text }) => text.includes("Inspection"));
      if (!found) throw new Error("not offered yet");
      return found;
    });
    await at.app.user.selectOptions(called, option.value);
    await waitFor(async () => expect((await at.element("c")).calledElement).toBeTruthy());
    await press("Open its page");
    await waitFor(() => expect(at.app.address()).toContain(`/v/${inspection}/`));
    await waitFor(() => expect(screen.getByTestId("canvas").querySelector('[data-id="check"]')).toBeTruthy());
    await at.app.user.click(await screen.findByRole("button", { name: "About the process" }));
    await screen.findByTestId("tray");
    expect((await at.tray().findByRole("link", { name: /Have it inspected/ })).getAttribute("href")).toBe(
      `/v/${at.version}/diagram?element=c`,
    );
    // Taken away at the caller, it is gone here as well.
    await send(at.version, { type: "setCalled", id: "c", called: null });
    await at.tray().findByText("no other process");
  });
});
