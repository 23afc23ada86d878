// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { openDiagram } from "@/app/testing/diagram";
import type { LensRow } from "@/contract/lenses";
import type { Lens } from "@/core/lens";
import { run } from "@/server/testing/workspace";
import { useDiagram } from "../../../version/diagramStore";
import { useLensesOn } from "../../../version/lenses/store";

let at: Awaited<ReturnType<typeof openDiagram>>;
beforeEach(() => useLensesOn.setState({ on: [] }));
afterEach(() => at.app.close());
const kept = async () => (await run<{ lenses: LensRow[] }>("listLenses", {})).lenses;
const open = async (...ready: readonly Lens[]) => {
  at = await openDiagram(undefined, async () => {
    for (const [place, lens] of ready.entries()) await run("saveLens", { id: `lens-${place}`, lens, revision: 0 });
  });
  useDiagram.getState().set({ lensesOpen: true });
  return within(await screen.findByRole("dialog"));
};
type Dialog = Awaited<ReturnType<typeof open>>;
const press = async (dialog: Dialog, name: string | RegExp) =>
  at.app.user.click(await dialog.findByRole("button", { name }));
const condition = (dialog: Dialog, place = 0) => within(dialog.getAllByTestId("lens-condition")[place] as HTMLElement);
const choose = (line: Dialog, label: string, words: string) =>
  at.app.user.selectOptions(line.getByLabelText(label), words);
const marks = (dialog: Dialog, words: string) =>
  waitFor(() => expect(dialog.getByTestId("lens-marks").textContent).toBe(words));
const steps: Lens = {
  name: "By hand",
  conditions: [{ field: "kind", test: "is", value: "byHand" }],
  which: "all",
  feel: "",
  pen: "teal",
  line: "double",
  sign: "person",
};
const called = (name: string): Lens => ({ ...steps, name });

describe("a lens", () => {
  test("is made as a sentence; how many it marks is told while one does; its name is what it says", async () => {
    const dialog = await open();
    dialog.getByText(/There is no lens yet/);
    await press(dialog, "New lens");
    const form = within(await screen.findByRole("dialog"));
    await choose(condition(form), "What is looked at", "name");
    await choose(condition(form), "How", "contains");
    await at.app.user.type(condition(form).getByLabelText("Compared with"), "application");
    await marks(form, "3 elements");
    await press(form, "Another condition");
    await choose(condition(form, 1), "What is looked at", "kind");
    await choose(condition(form, 1), "Compared with", "a step");
    await marks(form, "2 elements");
    await choose(form, "Of several conditions", "one is enough");
    await marks(form, "5 elements");
    await at.app.user.click(condition(form, 1).getByRole("button", { name: "Without this condition" }));
    await choose(form, "Colour", "moss");
    await choose(form, "Sign", "eye");
    await press(form, "Keep it");
    await waitFor(async () =>
      expect((await kept()).map(({ lens }) => lens.name)).toEqual(["name contains application"]),
    );
    // A new one is shown at once.
    const list = within(await screen.findByTestId("lenses"));
    expect(list.getByRole("checkbox", { name: "Show name contains application" })).toHaveProperty("checked", true);
    await list.findByText("name contains application · 3 elements");
    expect((await kept())[0]?.lens).toMatchObject({ pen: "moss", sign: "eye", line: "dashed" });
  });

  test("a value that cannot be read is told, and such a lens cannot be kept", async () => {
    const dialog = await open();
    await press(dialog, "New lens");
    const form = within(await screen.findByRole("dialog"));
    const field = condition(form).getByLabelText("Compared with");
    await at.app.user.clear(field);
    await at.app.user.type(field, "long");
    condition(form).getByText("This cannot be read.");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(form.getByRole("button", { name: "Keep it" })).toHaveProperty("disabled", true);
    await at.app.user.clear(field);
    await at.app.user.type(field, "2,5 h");
    expect(form.queryByText("This cannot be read.")).toBeNull();
    expect(form.getByRole("button", { name: "Keep it" })).toHaveProperty("disabled", false);
  });

  test("FEEL narrows further; what is no FEEL marks nothing and says so", async () => {
    const dialog = await open(steps);
    await press(dialog, "Change By hand");
    const form = within(await screen.findByRole("dialog"));
    await marks(form, "3 elements");
    const feel = form.getByLabelText("Besides, in FEEL");
    fireEvent.change(feel, { target: { value: 'starts with(name, "Approve")' } });
    await marks(form, "1 element");
    fireEvent.change(feel, { target: { value: "name ==" } });
    await form.findByText("This is not FEEL yet; it marks nothing.");
    await marks(form, "0 elements");
  });

  test("is changed by one while another changes it: the later one is told, and nothing is overwritten", async () => {
    const dialog = await open(steps);
    await press(dialog, "Change By hand");
    const form = within(await screen.findByRole("dialog"));
    const [row] = await kept();
    await run("saveLens", { id: row?.id, lens: { ...steps, pen: "plum" }, revision: row?.revision });
    await choose(form, "Colour", "slate");
    await press(form, "Keep it");
    await form.findByRole("alert");
    expect((await kept())[0]?.lens.pen).toBe("plum");
  });

  test("is deleted and brought again by undo; the answer lost, it is kept once", async () => {
    const dialog = await open(steps);
    await press(dialog, "Delete By hand");
    await dialog.findByText(/There is no lens yet/);
    await press(dialog, "Close");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    at.undo();
    await waitFor(async () => expect(await kept()).toHaveLength(1));
    at.app.next("saveLens", "unanswered");
    useDiagram.getState().set({ lensesOpen: true });
    const again = within(await screen.findByRole("dialog"));
    await press(again, "New lens");
    const form = within(await screen.findByRole("dialog"));
    await at.app.user.type(form.getByLabelText("Name"), "Slow ones");
    await press(form, "Keep it");
    await form.findByRole("alert");
    await waitFor(async () =>
      expect((await kept()).map(({ lens }) => lens.name).sort()).toEqual(["By hand", "Slow ones"]),
    );
  });
});

describe("on the drawing", () => {
  const marked = () =>
    [...at.canvas.querySelectorAll<HTMLElement>('[data-means="lens"]')].map(({ dataset }) => dataset.on ?? "");

  test("a key shows and hides each of the first nine; the legend says what is shown", async () => {
    const dialog = await open(called("One"), called("Two"));
    await press(dialog, "Close");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(marked()).toEqual([]);
    at.key('"', { code: "Digit2", shiftKey: true });
    await waitFor(() => expect(new Set(marked())).toEqual(new Set(["check", "approve", "remind"])));
    expect(useLensesOn.getState().on).toEqual(["lens-1"]);
    await screen.findByText("Two");
    // A place without a lens does nothing.
    at.key("(", { code: "Digit9", shiftKey: true });
    expect(useLensesOn.getState().on).toEqual(["lens-1"]);
    at.key('"', { code: "Digit2", shiftKey: true });
    await waitFor(() => expect(marked()).toEqual([]));
  });

  test("follows what is drawn: a step that becomes another kind is marked no longer", async () => {
    const dialog = await open(steps);
    await at.app.user.click(await dialog.findByRole("checkbox", { name: "Show By hand" }));
    await press(dialog, "Close");
    await waitFor(() => expect(new Set(marked())).toEqual(new Set(["check", "approve", "remind"])));
    await at.choose("check");
    await at.app.user.selectOptions(await at.tray().findByLabelText("Type"), "serviceTask");
    await waitFor(() => expect(new Set(marked())).toEqual(new Set(["approve", "remind"])));
  });
});
