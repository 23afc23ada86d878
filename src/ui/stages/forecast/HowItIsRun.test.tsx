// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { exponential, modelOf, station } from "@/core/forecast/testing/models";
import { type Scenario, scenariosOf } from "@/core/scenario";
import { importModel, storedModel } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Queue", modelOf(station(exponential(60), exponential(40), 1)));
  });
  app.goTo(`/v/${version}/forecast`);
  await screen.findByTestId("forecast-sentence");
  await app.user.click(await screen.findByRole("button", { name: /^Figures/ }));
  return within(await screen.findByRole("region", { name: "How it is run" }));
};
afterEach(() => app.close());
const kept = async (): Promise<Scenario> => scenariosOf(await storedModel(version))[0] as Scenario;
const type = async (label: string, words: string) => {
  const field = screen.getByRole("textbox", { name: label });
  await app.user.clear(field);
  await app.user.type(field, `${words}{Enter}`);
};

describe("how a scenario is run", () => {
  test("the clock on the wall stays when the scenario moves to another zone; one that is none is told", async () => {
    const panel = await open();
    await type("Begins", "2027-07-05 08:00");
    await waitFor(async () => expect((await kept()).start).toBe(Date.UTC(2027, 6, 5, 8)));
    await type("Time zone", "Nowhere/Else");
    expect((await panel.findByRole("alert")).textContent).toContain("“Nowhere/Else” is no known time zone");
    await type("Time zone", "Europe/Lisbon");
    await waitFor(async () => expect((await kept()).zone).toBe("Europe/Lisbon"));
    // In July an hour before Greenwich's.
    expect((await kept()).start).toBe(Date.UTC(2027, 6, 5, 7));
    expect((screen.getByRole("textbox", { name: "Begins" }) as HTMLInputElement).value).toBe("2027-07-05 08:00");
    expect(panel.queryByRole("alert")).toBeNull();
  });

  test("times and numbers that cannot be read leave what was said; an empty one takes it off", async () => {
    await open();
    await type("Lasts", "3 weeks");
    await waitFor(async () => expect((await kept()).duration).toBe(3 * 7 * 86_400));
    await type("Runs", "many");
    await type("Seed", "7");
    await waitFor(async () => expect(await kept()).toMatchObject({ seed: 7 }));
    expect((await kept()).replications).toBeUndefined();
    await app.user.clear(screen.getByRole("textbox", { name: "Lasts" }));
    await app.user.type(screen.getByRole("textbox", { name: "Lasts" }), "{Enter}");
    await waitFor(async () => expect((await kept()).duration).toBeUndefined());
  });

  test("what not to count and how often to run is proposed, and taken in one gesture", async () => {
    const panel = await open();
    const proposal = within(panel.getByTestId("run-proposal"));
    await app.user.clear(proposal.getByRole("textbox"));
    await app.user.type(proposal.getByRole("textbox"), "0");
    await app.user.click(proposal.getByRole("button", { name: "Propose" }));
    expect((await proposal.findByRole("alert")).textContent).toContain("is no share");
    await app.user.clear(proposal.getByRole("textbox"));
    await app.user.type(proposal.getByRole("textbox"), "8");
    await app.user.click(proposal.getByRole("button", { name: "Propose" }));
    await proposal.findByText(/runs? (?:is|are) enough; 10 leave .* either way/);
    await app.user.click(proposal.getByRole("button", { name: "Take both" }));
    await waitFor(async () => expect((await kept()).replications).toBeGreaterThanOrEqual(10));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await kept()).replications).toBeUndefined());
  });
});
