// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";

let app: Application;
const open = async (more: () => Promise<unknown> = async () => {}) => {
  app = await openApplication("/directory", async () => {
    await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
    await run("createEntry", { id: "map", kind: "system", name: "Network map" });
    await more();
  });
  await screen.findByRole("button", { name: /^Front desk/ });
};
afterEach(() => app.close());

interface Entry {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly headcount: number | null;
  readonly description: string;
}
const entries = async () => (await run<{ entries: Entry[] }>("openDirectory", {})).entries;
const named = async (name: string) => (await entries()).find((entry) => entry.name === name);

describe("the directory", () => {
  test("an entry is made by its name alone, described, and its making taken back", async () => {
    await open();
    await app.user.click(screen.getByRole("button", { name: "New role" }));
    const field = within(await screen.findByRole("dialog")).getByLabelText("Name");
    await app.user.type(field, "Meter reader{Enter}");
    await waitFor(async () => expect(await named("Meter reader")).toMatchObject({ kind: "role" }));
    expect(await screen.findByRole("button", { name: /^Meter reader/ })).toBeTruthy();
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await named("Meter reader")).toBeUndefined());
  });

  test("figures are kept as numbers, whatever the comma, and what is no number is told", async () => {
    await open();
    await app.user.click(screen.getByRole("button", { name: /^Front desk/ }));
    const people = await screen.findByLabelText("People");
    await app.user.type(people, "4,5{Enter}");
    await waitFor(async () => expect((await named("Front desk"))?.headcount).toBe(4.5));
    await app.user.clear(people);
    await app.user.type(people, "several{Enter}");
    expect(await screen.findByText(/^A number from 0 to/)).toBeTruthy();
    expect((await named("Front desk"))?.headcount).toBe(4.5);
  });

  test("a new name is the name everywhere it is used", async () => {
    let version = "";
    await open(async () => {
      version = await importModel("Applications");
      await send(version, { type: "tieLane", lane: "desk", role: { entry: "desk", name: "Front desk" } });
    });
    await app.user.click(screen.getByRole("button", { name: /^Front desk/ }));
    const name = await screen.findByLabelText("Name");
    await app.user.clear(name);
    await app.user.type(name, "Customer desk{Enter}");
    await waitFor(async () => expect(await named("Customer desk")).toBeDefined());
    await waitFor(async () => expect((await storedModel(version)).elements.get("desk")?.name).toBe("Customer desk"));
  });

  test("what is used cannot be deleted, and says where it is; what is not used can, and comes back", async () => {
    let version = "";
    await open(async () => {
      version = await importModel("Applications");
      await send(version, { type: "tieLane", lane: "desk", role: { entry: "desk", name: "Front desk" } });
    });
    await app.user.click(screen.getByRole("button", { name: /^Front desk/ }));
    await app.user.click(await screen.findByRole("button", { name: "Delete" }));
    expect(await screen.findByText(/This entry is used in 1 place/)).toBeTruthy();
    expect(await named("Front desk")).toBeDefined();
    await app.user.click(screen.getByRole("button", { name: /^IT systems/ }));
    await app.user.click(await screen.findByRole("button", { name: /^Network map/ }));
    await app.user.click(await screen.findByRole("button", { name: "Delete" }));
    await waitFor(async () => expect(await named("Network map")).toBeUndefined());
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await named("Network map")).toBeDefined());
  });

  test("two spellings made one, and a file taken over, are taken back by name", async () => {
    await open(async () => {
      await run("createEntry", { id: "maps", kind: "system", name: "Network maps" });
    });
    await app.user.click(await screen.findByRole("button", { name: "Keep Network map" }));
    await waitFor(async () => expect(await named("Network maps")).toBeUndefined());
    await app.user.click(await screen.findByRole("button", { name: "Undo" }));
    await waitFor(async () => expect(await named("Network maps")).toBeDefined());
    await app.user.keyboard("{Control>}y{/Control}");
    await waitFor(async () => expect(await named("Network maps")).toBeUndefined());
    const file = new File(["Kind,Name\r\nrole,Meter fitter\r\n"], "roles.csv");
    await app.user.upload(screen.getByLabelText("Import from CSV or JSON …"), file);
    await waitFor(async () => expect(await named("Meter fitter")).toBeDefined());
    (document.activeElement as HTMLElement).blur();
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await named("Meter fitter")).toBeUndefined());
  });

  test("an entry that somebody else makes or changes is seen", async () => {
    await open();
    await run("createEntry", { id: "crew", kind: "role", name: "Field crew" });
    expect(await screen.findByRole("button", { name: /^Field crew/ })).toBeTruthy();
  });

  test("a change whose question is lost is told, and the field shows what the server holds", async () => {
    await open();
    await app.user.click(screen.getByRole("button", { name: /^Front desk/ }));
    const name = await screen.findByLabelText("Name");
    app.next("changeEntry", "lost");
    await app.user.clear(name);
    await app.user.type(name, "Counter{Enter}");
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await named("Front desk")).toBeDefined();
  });
});

describe("beside the list, until an entry is chosen", () => {
  test("stand the organisation, what is used most and what is used nowhere; pressed, an entry opens in its own list", async () => {
    await open(async () => {
      await run("createEntry", { id: "unit", kind: "unit", name: "Customer service" });
      await run("changeEntry", { id: "desk", unit: "unit" });
      const version = await importModel("Applications");
      await send(
        version,
        { type: "useSystem", step: "check", system: { entry: "map", name: "Network map" }, use: "reads" },
        { type: "useSystem", step: "approve", system: { entry: "map", name: "Network map" }, use: "reads" },
      );
    });
    const organisation = await screen.findByRole("region", { name: "The organisation" });
    expect(organisation.textContent).toContain("Customer service");
    const most = screen.getByRole("region", { name: "Used most, in places" });
    expect(within(most).getAllByRole("button")[0]?.getAttribute("aria-label")).toBe(
      "Used in 2 places: IT system Network map",
    );
    expect(screen.getByRole("region", { name: "Used nowhere" }).textContent).toContain("Front desk");
    await app.user.click(within(most).getAllByRole("button")[0] as HTMLElement);
    expect(screen.getByRole("button", { name: /^IT systems/, pressed: true })).toBeTruthy();
    expect(await screen.findByRole("region", { name: "Network map" })).toBeTruthy();
    expect(screen.queryByRole("region", { name: "Used nowhere" })).toBeNull();
  });
});
