// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { cellsOf, stepSheetOf } from "@/core/capture";
import { outgoingOf, processesOf } from "@/core/model";
import { sheetText } from "@/core/testing/sheetReading";
import { run, storedModel } from "@/server/testing/workspace";
import { untell } from "../../controls/notices";
import { useSheetStore } from "./sheetStore";

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    await run("createArea", { id: "area", name: "Connections", parent: null });
    await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
    version = (await run<{ version: string }>("createProcess", { name: "Repair", area: "area" })).version;
  });
  app.goTo(`/v/${version}/steps`);
  await screen.findByRole("treegrid");
};
afterEach(async () => {
  await app.close();
  // What one looks at and is told belongs to the window, which these tests share.
  useSheetStore.getState().showEstimates(false);
  untell();
});

const type = (keys: string) => app.user.keyboard(keys);
const rows = () => within(screen.getByRole("treegrid")).getAllByRole("row");
const row = (words: string) =>
  waitFor(() => {
    const found = rows().find((one) => one.textContent?.includes(words));
    if (!found) throw new Error(`no row says ${words}`);
    return found;
  });
const press = async (words: string, column = "step") =>
  app.user.click((await row(words)).querySelector(`[data-column=${column}]`) as HTMLElement);
const saved = () => waitFor(() => expect(screen.getByTestId("saved-state").textContent).toBe("Saved"));
/** Where the keyboard is: that is where one pastes. */
const paste = (text: string) =>
  fireEvent.paste(document.activeElement ?? document.body, {
    clipboardData: { getData: () => text, types: ["text/plain"], files: [] },
  });
const stored = async () => {
  await saved();
  const model = await storedModel(version);
  return { model, text: sheetText(model, stepSheetOf(model, processesOf(model)[0]?.id ?? "")) };
};
const idOf = async (name: string) => [...(await stored()).model.elements].find((one) => one.name === name)?.id ?? "";

const list = (...names: string[]) => `Step\r\n${names.join("\r\n")}`;

describe("writing begins", () => {
  test("by typing on an empty sheet; the first letter is part of the name", async () => {
    await open();
    await waitFor(() => expect(document.activeElement?.getAttribute("role")).toBe("treegrid"));
    await type("Take the call{Enter}Find the fault{Enter}{Escape}");
    expect((await stored()).text).toBe("- startEvent\n1 Take the call\n2 Find the fault\n- endEvent");
  });

  test("with Enter in every column, with Tab across", async () => {
    await open();
    await type("Take the call{Tab}Front{Enter}");
    await row("Front desk");
    await type("{Enter}Find the fault{Tab}{Tab}{Tab}{Tab}{Tab}Ask first{Enter}Write the bill{Enter}{Escape}");
    const { model, text } = await stored();
    expect(text).toContain("1 Take the call\n2 Find the fault\n3 Write the bill");
    expect(cellsOf(model, await idOf("Find the fault")).guidance).toBe("Ask first");
  });
});

describe("pasting", () => {
  test("into the first step being written: lines become steps, one undo takes them back", async () => {
    await open();
    await app.user.click(await screen.findByText("Write the first step"));
    paste("Take the call\r\nFind the fault\r\nWrite the bill\r\n");
    await row("Write the bill");
    expect((await stored()).text).toBe("- startEvent\n1 Take the call\n2 Find the fault\n3 Write the bill\n- endEvent");
    await type("{Control>}z{/Control}");
    await waitFor(async () => expect((await stored()).text).toBe(""));
  });

  test("into a cell being written: what was typed stays, the lines stand behind it", async () => {
    await open();
    await type("Take the call{Enter}Write the bill{Enter}{Escape}");
    await press("Take the call");
    await type("{Enter}Look it up");
    paste("Find the fault\nRepair it");
    await row("Repair it");
    expect((await stored()).text).toContain(
      "1 Take the call\n2 Look it up\n3 Find the fault\n4 Repair it\n5 Write the bill",
    );
  });

  test("a single value on a cell takes its place once it is kept", async () => {
    await open();
    await type("Take the call{Enter}{Escape}");
    await press("Take the call");
    paste("Answer the phone\r\n");
    await waitFor(() => expect((document.activeElement as HTMLInputElement).value).toBe("Answer the phone"));
    await type("{Enter}{Escape}");
    expect((await stored()).text).toContain("1 Answer the phone");
  });

  test("a column of roles fills downwards, and makes those the directory does not know", async () => {
    await open();
    paste(list("Take the call", "Find the fault", "Write the bill"));
    await press("Take the call", "by");
    paste("Front desk\r\nField crew\r\nBilling");
    await row("Billing");
    const { model } = await stored();
    const doer = async (name: string) => cellsOf(model, await idOf(name)).by.map((one) => one.name);
    expect(await doer("Take the call")).toEqual(["Front desk"]);
    expect(await doer("Find the fault")).toEqual(["Field crew"]);
    expect(await doer("Write the bill")).toEqual(["Billing"]);
    await type("{Control>}z{/Control}");
    await waitFor(async () => expect(cellsOf((await stored()).model, await idOf("Find the fault")).by).toEqual([]));
  });

  test("more lines than there are steps: says how many found one", async () => {
    await open();
    paste(list("Take the call", "Find the fault"));
    await press("Find the fault", "by");
    paste("Field crew\r\nBilling\r\nFront desk");
    await screen.findByText(/1 step filled; the other 2 of the pasted lines found no step below/);
  });
});

describe("paths", () => {
  const withDecision = async () => {
    await open();
    await type("Register{Enter}Check{Enter}File{Enter}{Escape}");
    await press("Check");
    await type("{Alt>}d{/Alt}Complete?{Enter}{Escape}");
    await row("Complete?");
  };

  test("an answer is led back by looking up the row", async () => {
    await withDecision();
    await press("no");
    await type("{Alt>}l{/Alt}reg");
    await screen.findByText("↺ back to 1 Register");
    await type("{Enter}");
    await row("back to 1 Register");
    expect((await stored()).text).toBe(
      "- startEvent\n1 Register\n2 Check\n3 Complete?\n> no\n   back to Register\n> yes [main]\n4 File\n- endEvent",
    );
  });

  test("a step just written on a path leads on with the next keys; its end goes", async () => {
    await withDecision();
    await press("no");
    await type("{Enter}Ask again{Alt>}l{/Alt}2{Enter}");
    await row("back to 2 Check");
    await waitFor(async () =>
      expect([...(await stored()).model.elements].filter(({ type }) => type === "endEvent")).toHaveLength(1),
    );
  });

  test("an end's row takes its name, and another goal", async () => {
    await withDecision();
    await press("no");
    await type("{ArrowDown}Turned away{Enter}");
    await row("Turned away");
    await type("{F2}{Control>}a{/Control}file{ArrowDown}{ArrowDown}{Enter}");
    await waitFor(async () => expect((await stored()).text).not.toContain("Turned away"));
    const { model } = await stored();
    const question = await idOf("Complete?");
    expect(outgoingOf(model, question).map((flow) => model.elements.get(String(flow.targetRef))?.name)).toEqual([
      "File",
      "File",
    ]);
  });

  test("what happens meanwhile gets its path; deleting the step says what goes along", async () => {
    await withDecision();
    await press("Check");
    await type("{Alt>}m{/Alt}2 days{Enter}");
    await row("2 days");
    await type("{Enter}Remind{Enter}{Escape}");
    await row("Remind");
    expect((await stored()).text).toContain("2 Check\n   - 2 days [edge]\n   2a1 Remind\n   - endEvent");
    await press("Check");
    await type("{Delete}");
    await screen.findByText(/1 step that only this led to went along: Remind/);
    expect((await stored()).text).not.toContain("Remind");
  });
});

describe("times", () => {
  test("a duration that cannot be read stays in its cell with the reason, until it is put right", async () => {
    await open();
    await type("Take the call{Enter}{Escape}");
    await app.user.click(screen.getByRole("button", { name: "Time and cost" }));
    await press("Take the call", "time");
    await type("soon{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain('"soon" is no duration');
    // Pressing elsewhere keeps what is typed, and writes nothing.
    await press("Take the call");
    expect((await row("Take the call")).querySelector("[data-column=time]")?.textContent).toContain("⚠ soon");
    expect(cellsOf((await stored()).model, await idOf("Take the call")).time).toBe("");
    await press("Take the call", "time");
    await type("{F2}{Control>}a{/Control}20 min{Enter}{Escape}");
    expect(cellsOf((await stored()).model, await idOf("Take the call")).time).toBe("20 min");
    expect((await row("Take the call")).textContent).not.toContain("soon");
  });

  test("a timer's row says how long it waits, and takes another time", async () => {
    await open();
    await type("Take the call{Enter}{Escape}");
    await press("Take the call");
    await type("{Alt>}m{/Alt}2 days{Enter}");
    await app.user.click(screen.getByRole("button", { name: "Time and cost" }));
    await press("2 days", "time");
    expect((await row("waits 2 days")).textContent).toContain("2 days");
    await type("3 hours{Enter}{Escape}");
    await row("waits 3 h");
    expect(cellsOf((await stored()).model, await idOf("2 days")).waits).toBe("3 h");
  });
});

test("what several rows say together is read in the head and written in its own row", async () => {
  await open();
  await type("Register{Enter}{Escape}");
  await press("Register");
  await type("{Alt>}d{/Alt}Complete?{Enter}{Escape}");
  const summed = await screen.findByRole("button", { name: "something is reached" });
  expect(summed.getAttribute("title")).toContain("There are 2 ends");
  await app.user.click(summed);
  await waitFor(() => expect(rows().find((one) => one.getAttribute("aria-selected") === "true")).toBeTruthy());
});
