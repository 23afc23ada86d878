// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { openDiagram } from "@/app/testing/diagram";
import { largeModel } from "@/core/testing/largeModel";
import { smallModel } from "@/core/testing/models";
import { run } from "@/server/testing/workspace";
import { useLensesOn } from "../../version/lenses/store";

let at: Awaited<ReturnType<typeof openDiagram>>;
const given: { readonly blob: Blob; readonly name: string }[] = [];
beforeEach(() => {
  given.length = 0;
  useLensesOn.setState({ on: [] });
  let last: Blob | undefined;
  URL.createObjectURL = vi.fn((blob: Blob) => {
    last = blob;
    return "blob:given";
  });
  URL.revokeObjectURL = vi.fn();
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
    if (last) given.push({ blob: last, name: this.download });
  });
});
afterEach(async () => {
  vi.restoreAllMocks();
  await at.app.close();
});
const open = async (...selected: readonly string[]) => {
  if (selected.length > 0) await at.choose(...selected);
  await at.app.user.click(await screen.findByRole("button", { name: /As-is/ }));
  await at.app.user.click(await screen.findByRole("menuitem", { name: "Export a picture or PDF …" }));
  return within(await screen.findByRole("dialog"));
};
const choose = (dialog: Awaited<ReturnType<typeof open>>, label: string, words: string) =>
  at.app.user.selectOptions(dialog.getByLabelText(label), words);
const save = async (dialog: Awaited<ReturnType<typeof open>>, format: string) => {
  await at.app.user.click(dialog.getByRole("button", { name: `Save as ${format}` }));
  await waitFor(() => expect(given).toHaveLength(1));
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  return given[0] as (typeof given)[number];
};

describe("a page as a picture", () => {
  test("on paper: how many sheets and how large is told before; full size is more sheets", async () => {
    at = await openDiagram(largeModel(150));
    const dialog = await open();
    const told = () => dialog.getByText(/sheets?.*of full size\./).textContent ?? "";
    expect(told()).toMatch(/^1 sheet/);
    const percent = Number(/at (\d+) %/.exec(told())?.[1]);
    expect(percent).toBeLessThan(100);
    await choose(dialog, "Paper", "A3");
    expect(Number(/at (\d+) %/.exec(told())?.[1])).toBeGreaterThan(percent);
    await choose(dialog, "Spread", "full size, on several sheets");
    expect(told()).toMatch(/^\d+ sheets.*at 100 %/);
    dialog.getByText(/Neighbouring sheets share \d+ mm/);
    const { blob, name } = await save(dialog, "PDF");
    expect(name).toBe("Plant As-is.pdf");
    expect((await blob.text()).slice(0, 5)).toBe("%PDF-");
  });

  test("text that is too small to be read is told, with the way out", async () => {
    at = await openDiagram(largeModel(300));
    const dialog = await open();
    dialog.getByText(/The smallest text is .* pt\. Below \d+ pt it can hardly be read\./);
    await at.app.user.click(dialog.getByRole("button", { name: "Full size, on several sheets" }));
    expect(dialog.getByLabelText("Spread")).toHaveProperty("value", "tile");
    expect(dialog.queryByText(/it can hardly be read/)).toBeNull();
  });

  test("of some chosen elements only, in pixels as many as were said", async () => {
    at = await openDiagram();
    const dialog = await open("check", "approve");
    await choose(dialog, "As", "SVG picture");
    expect(dialog.getByLabelText("What")).toHaveProperty("value", "selection");
    const { blob, name } = await save(dialog, "SVG");
    expect(name).toBe("Plant As-is.svg");
    const svg = await blob.text();
    expect(svg).toContain('data-element="check"');
    expect(svg).not.toContain('data-element="reject"');
  });

  test("in so many pixels as are wanted", async () => {
    at = await openDiagram();
    const dialog = await open();
    await choose(dialog, "As", "PNG picture");
    const pixels = () => (dialog.getByText(/pixels\./).textContent ?? "").match(/\d+/g)?.map(Number) as number[];
    const [wide] = pixels();
    await choose(dialog, "Size", "4 × as large");
    expect(pixels()[0]).toBe((wide as number) * 2);
  });

  test("with the lenses that are shown, and what they mean", async () => {
    const lens = { name: "By hand", which: "all", feel: "", pen: "teal", line: "double", sign: "person" };
    const content = { ...lens, conditions: [{ field: "kind", test: "is", value: "byHand" }] };
    at = await openDiagram(smallModel(), () => run("saveLens", { id: "hand", lens: content, revision: 0 }));
    useLensesOn.setState({ on: ["hand"] });
    await waitFor(() => expect(at.canvas.querySelector('[data-means="lens"]')).toBeTruthy());
    const dialog = await open();
    await choose(dialog, "As", "SVG picture");
    const svg = await (await save(dialog, "SVG")).blob.text();
    expect(svg).toContain('data-element="lens check"');
    expect(svg).toContain("By hand");
  });

  test("an answer that is lost is told, and the window stays", async () => {
    at = await openDiagram();
    const dialog = await open();
    await choose(dialog, "As", "SVG picture");
    at.app.next("", "lost");
    await at.app.user.click(dialog.getByRole("button", { name: "Save as SVG" }));
    await screen.findByText(/^The server did not answer/);
    expect(screen.getByRole("dialog")).toBeTruthy();
    expect(given).toHaveLength(0);
    expect((await save(dialog, "SVG")).name).toBe("Plant As-is.svg");
  });
});
