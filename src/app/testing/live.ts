import { screen, within } from "@testing-library/react";
import { expect } from "vitest";
import type { OpenCase, RunRow } from "@/contract/live";
import type { Model } from "@/core/model";
import { importModel, run } from "@/server/testing/workspace";
import { type Application, openApplication } from "./application";

/** The stage Live of a version that was just imported, with what a person does there. */
export async function openLive(model: Model) {
  let version = "";
  const app: Application = await openApplication("/", async () => {
    version = await importModel("Plant", model);
  });
  app.goTo(`/v/${version}/live`);
  const press = async (name: string | RegExp, inside: Pick<typeof screen, "findByRole"> = screen) =>
    app.user.click(await inside.findByRole("button", { name }));
  const dialog = async () => within(await screen.findByRole("dialog"));
  /** Starts it up with a clock that stands. */
  const start = async () => {
    await press("Start it up");
    const asked = await dialog();
    await app.user.selectOptions(asked.getByLabelText("Pace"), "0");
    await press("Start", asked);
    await screen.findByTestId("run-clock");
  };
  const beginCase = async () => {
    await press("Begin a case");
    await press("Begin", await dialog());
    return within(await screen.findByTestId("live-case"));
  };
  const theRun = async () => (await run<{ runs: RunRow[] }>("listRuns", { version })).runs[0] as RunRow;
  const at = async () => ({ version, run: (await theRun()).id });
  const held = async (number = 1) => run<OpenCase>("openCase", { ...(await at()), number });
  const choose = async (view: string | RegExp) => app.user.click(await screen.findByRole("radio", { name: view }));
  const counts = async (words: string) => {
    const found = await screen.findByTestId("live-counts");
    await expect.poll(() => found.textContent).toBe(words);
  };
  return { app, version, press, dialog, start, beginCase, theRun, at, held, choose, counts };
}
