// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { descriptionIn, nameIn } from "@/core/model";
import { writeTable } from "@/core/table";
import { smallModel } from "@/core/testing/models";
import { importModel, send, storedModel } from "@/server/testing/workspace";

let app: Application;
let version: string;
const given: Blob[] = [];
beforeEach(async () => {
  given.length = 0;
  URL.createObjectURL = (blob: Blob) => {
    given.push(blob);
    return "blob:given";
  };
  URL.revokeObjectURL = () => undefined;
  app = await openApplication("/", async () => {
    version = await importModel("Applications", smallModel());
    await send(version, { type: "describe", id: "check", text: "Compare each paper." });
  });
  app.goTo(`/v/${version}/steps?part=languages`);
});
afterEach(() => app.close());

const add = async (code: string) => {
  await app.user.type(await screen.findByLabelText("Add a language"), `${code}{Enter}`);
};
const check = async () => (await storedModel(version)).elements.get("check");
const missing = async () =>
  Number(/^\d+/.exec((await screen.findByTestId("texts-missing")).textContent ?? "")?.[0] ?? 0);

describe("texts in languages", () => {
  test("a language is added by its code, names and descriptions are written beside the model's own, and taken back", async () => {
    expect(await screen.findByText(/There is no language yet/)).toBeTruthy();
    await add("German");
    expect(await screen.findByText(/A language is told by its code/)).toBeTruthy();
    await app.user.clear(screen.getByLabelText("Add a language"));
    await add("de");
    const before = await missing();
    expect(before).toBeGreaterThan(5);
    await app.user.type(await screen.findByLabelText("Name in de: Check application"), "Antrag prüfen{Enter}");
    await waitFor(async () => expect(nameIn((await check()) as never, "de")).toBe("Antrag prüfen"));
    await app.user.type(screen.getByLabelText("Description in de: Check application"), "Jedes Papier.{Enter}");
    await waitFor(async () => expect(descriptionIn((await check()) as never, "de")).toBe("Jedes Papier."));
    await expect.poll(missing).toBe(before - 2);
    await app.user.click(screen.getByRole("heading", { name: "Texts in another language" }));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(descriptionIn((await check()) as never, "de")).toBe(""));
  });

  test("Enter goes on to the same column of the next row; Escape takes the typing back", async () => {
    await add("fr");
    const first = await screen.findByLabelText("Name in fr: Check application");
    await app.user.type(first, "Vérifier{Enter}");
    expect(document.activeElement?.getAttribute("data-text-cell")).toBe("name");
    expect(document.activeElement).not.toBe(first);
    await app.user.type(document.activeElement as HTMLElement, "non{Escape}");
    expect((document.activeElement as HTMLTextAreaElement).value).toBe("");
  });

  test("only what is missing: what is filled in stays in sight while one is at it", async () => {
    await add("de");
    await app.user.click(await screen.findByRole("checkbox", { name: "Only what is missing" }));
    const rows = screen.getAllByTestId("text-row").length;
    await app.user.type(await screen.findByLabelText("Name in de: Approve design"), "Freigeben{Enter}");
    await waitFor(async () => expect((await storedModel(version)).elements.get("approve")?.extension).toBeTruthy());
    expect(screen.getAllByTestId("text-row")).toHaveLength(rows);
    await app.user.click(screen.getByRole("checkbox", { name: "Only what is missing" }));
    await app.user.click(screen.getByRole("checkbox", { name: "Only what is missing" }));
    expect(screen.getAllByTestId("text-row")).toHaveLength(rows - 1);
  });

  test("are given as a table, filled in elsewhere, and read again", async () => {
    await add("de");
    await app.user.click(await screen.findByRole("button", { name: "Save as CSV" }));
    const reader = new FileReader();
    const words = new Promise<string>((resolve) => {
      reader.onload = () => resolve(String(reader.result));
    });
    reader.readAsText(given[0] as Blob);
    expect(await words).toContain("Check application");
    const load = async (table: string) => {
      const input = screen.getByTestId("texts").querySelector("input[type=file]") as HTMLInputElement;
      await app.user.upload(input, new File([table], "de.csv", { type: "text/csv" }));
    };
    await load(
      writeTable([
        ["Id", "Name (de)"],
        ["check", "Prüfen"],
        ["gone", "Weg"],
      ]),
    );
    expect(await screen.findByText("1 text taken over; 1 row of things that are not here.")).toBeTruthy();
    await waitFor(async () => expect(nameIn((await check()) as never, "de")).toBe("Prüfen"));
    await load("a,b\n1,2");
    expect(await screen.findByText(/There is no column “Id”/)).toBeTruthy();
  });
});
