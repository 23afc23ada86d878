// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { rolesOf } from "@/core/directory";
import { type Element, eventDefinitionsOf, outgoingOf, systemsOf } from "@/core/model";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async (element = "check") => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications");
    await run("createEntry", { id: "desk-role", kind: "role", name: "Front desk" });
    await run("createEntry", { id: "engineer-role", kind: "role", name: "Network engineer" });
    await run("createEntry", { id: "register", kind: "system", name: "Case register" });
    await send(
      version,
      { type: "tieLane", lane: "desk", role: { entry: "desk-role", name: "Front desk" } },
      { type: "tieLane", lane: "engineer", role: { entry: "engineer-role", name: "Network engineer" } },
      { type: "moveToLane", diagram: "page", ids: ["reject"], lane: "engineer" },
    );
  });
  const { name } = (await storedModel(version)).elements.get(element) as Element;
  app.goTo(`/v/${version}/diagram?element=${element}`);
  await waitFor(() => expect(tray().getByLabelText("Name")).toHaveProperty("value", name ?? ""));
};
afterEach(() => app.close());

const tray = () => within(screen.getByTestId("tray"));
const saved = () => waitFor(() => expect(screen.getByTestId("saved-state").textContent).toBe("Saved"));
const element = async (id: string) => (await storedModel(version)).elements.get(id) as Element;
const fill = async (label: string, value: string) => {
  const field = await tray().findByLabelText(label);
  await app.user.clear(field);
  await app.user.type(field, `${value}{Enter}`);
  await saved();
};
const canvas = () => screen.getByTestId("canvas");

describe("the tray", () => {
  test("a name, instructions and a type are changed, each one step to undo", async () => {
    await open();
    await fill("Name", "Look through it");
    await app.user.selectOptions(tray().getByLabelText("Type"), "serviceTask");
    await waitFor(async () => expect((await element("check")).type).toBe("serviceTask"));
    expect((await element("check")).name).toBe("Look through it");
    canvas().focus();
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await element("check")).type).toBe("userTask"));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await element("check")).name).toBe("Check application"));
    await waitFor(() => expect(tray().getByLabelText("Name")).toHaveProperty("value", "Check application"));
  });

  test("a timer is said in words; what is no time is told, and nothing is stored", async () => {
    await open("late");
    await fill("When", "10 working days");
    await waitFor(async () =>
      expect(eventDefinitionsOf(await storedModel(version), "late")[0]?.timeDuration).toMatchObject({ text: "P14D" }),
    );
    const field = tray().getByLabelText("When");
    await app.user.clear(field);
    await app.user.type(field, "soon{Enter}");
    expect(await screen.findByText(/“soon” is no time/)).toBeTruthy();
    expect(eventDefinitionsOf(await storedModel(version), "late")[0]?.timeDuration).toMatchObject({ text: "P14D" });
  });

  test("an answer that is lost and one that never comes: the name is there, once", async () => {
    await open();
    app.next("applyCommands", "lost");
    app.next("applyCommands", "unanswered");
    await fill("Name", "In the dark");
    expect((await element("check")).name).toBe("In the dark");
    const { changes } = await run<{ changes: unknown[] }>("elementHistory", { version, element: "check" });
    expect(changes).toHaveLength(1);
  });

  test("somebody else's change of another field comes in while a name is typed, and neither is lost", async () => {
    await open();
    const field = tray().getByLabelText("Name");
    await app.user.clear(field);
    await app.user.type(field, "Look thr");
    await send(version, { type: "retype", id: "check", to: "manualTask" });
    await waitFor(() => expect(tray().getByLabelText("Type")).toHaveProperty("value", "manualTask"));
    expect(field).toHaveProperty("value", "Look thr");
    await app.user.type(field, "ough it{Enter}");
    await saved();
    await waitFor(async () =>
      expect(await element("check")).toMatchObject({ name: "Look through it", type: "manualTask" }),
    );
  });

  test("the same name given here and elsewhere is not overwritten: what wins is asked", async () => {
    await open();
    // Asked again after half a second, then after one: the others come in between, however slow this machine is.
    for (let times = 0; times < 3; times++) app.next("applyCommands", "lost");
    await app.user.clear(tray().getByLabelText("Name"));
    await app.user.type(tray().getByLabelText("Name"), "Mine{Enter}");
    await send(version, { type: "rename", id: "check", name: "Theirs" });
    const dialog = within(await screen.findByRole("alertdialog").catch(() => screen.findByRole("dialog")));
    expect((await element("check")).name).toBe("Theirs");
    await app.user.click(dialog.getByRole("radio", { name: /Mine/ }));
    await app.user.click(dialog.getByRole("button", { name: "Save this" }));
    await saved();
    await waitFor(async () => expect((await element("check")).name).toBe("Mine"));
  });
});

describe("the canvas by keyboard", () => {
  test("a step is appended with a letter, named, deleted and brought back", async () => {
    await open("check");
    canvas().focus();
    await app.user.keyboard("t");
    await waitFor(() => expect(screen.getByTestId("name-editor")).toBeTruthy());
    await app.user.keyboard("Ask a colleague{Enter}");
    await saved();
    const made = [...(await storedModel(version)).elements].find(({ name }) => name === "Ask a colleague") as Element;
    expect(outgoingOf(await storedModel(version), "check").some((flow) => flow.targetRef === made.id)).toBe(true);
    app.goTo(`/v/${version}/diagram?element=${made.id}`);
    await waitFor(() => expect(tray().getByLabelText("Name")).toHaveProperty("value", "Ask a colleague"));
    canvas().focus();
    await app.user.keyboard("{Delete}");
    await waitFor(async () => expect(await element(made.id)).toBeUndefined());
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await element(made.id)).toBeTruthy());
  });

  test("what is drawn follows what somebody else draws", async () => {
    await open();
    await send(version, {
      type: "append",
      diagram: "page",
      from: "check",
      id: "ask",
      flow: "f-ask",
      kind: { type: "task" },
      name: "Ask",
    });
    await waitFor(() => expect(canvas().querySelector('[data-id="ask"]')).toBeTruthy());
    await send(version, { type: "delete", ids: ["ask"] });
    await waitFor(() => expect(canvas().querySelector('[data-id="ask"]')).toBeNull());
  });

  test("an error of the check is a sign at its element, and goes when it is mended", async () => {
    await open();
    await send(version, { type: "delete", ids: ["f1"] });
    await waitFor(() => expect(canvas().querySelector('[data-means="error"]')).toBeTruthy());
    await send(version, { type: "connect", diagram: "page", id: "f1", source: "start", target: "check" });
    await waitFor(() => expect(canvas().querySelector('[data-means="error"][data-on="check"]')).toBeNull());
  });
});

describe("the matrix", () => {
  test("letters give parts and take them away; a system is used as it is said", async () => {
    await open();
    await app.user.click(screen.getByRole("button", { name: /^Matrix/ }));
    const matrix = within(await screen.findByTestId("matrix"));
    const cell = await matrix.findByRole("gridcell", { name: /^Approve design, Network engineer/ });
    cell.focus();
    await app.user.keyboard("c");
    await saved();
    const parts = async () =>
      rolesOf(await storedModel(version), "approve").flatMap((role) =>
        role.from === "step" ? [`${role.name} ${role.part}`] : [],
      );
    await waitFor(async () => expect(await parts()).toEqual(["Network engineer consulted"]));
    await app.user.keyboard("c");
    await waitFor(async () => expect(await parts()).toEqual([]));
    await app.user.click(matrix.getByRole("tab", { name: "Steps × systems" }));
    await app.user.click(matrix.getByRole("button", { name: "another system" }));
    await app.user.click(await screen.findByRole("option", { name: /Case register/ }));
    (await matrix.findByRole("gridcell", { name: /^Approve design, Case register/ })).focus();
    await app.user.keyboard("w");
    await waitFor(async () =>
      expect(systemsOf(await element("approve"))).toMatchObject([{ name: "Case register", use: "writes" }]),
    );
  });
});
