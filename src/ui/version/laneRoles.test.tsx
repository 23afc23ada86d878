// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { roleOfLane } from "@/core/directory";
import type { Element } from "@/core/model";
import { importModel, run, storedModel } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async (element?: string) => {
  localStorage.clear();
  app = await openApplication("/", async () => {
    version = await importModel("Applications");
    await run("createEntry", { id: "crew-role", kind: "role", name: "Field crew" });
  });
  app.goTo(`/v/${version}/diagram${element ? `?element=${element}` : ""}`);
  await screen.findByTestId("canvas");
};
afterEach(() => app.close());

const saved = () => waitFor(() => expect(screen.getByTestId("saved-state").textContent).toBe("Saved"));
const roleOf = async (lane: string) => {
  await saved();
  const model = await storedModel(version);
  return roleOfLane(model, model.elements.get(lane) as Element);
};
const rename = async (to: string) => {
  const tray = within(await screen.findByTestId("tray"));
  const field = await tray.findByLabelText("Name");
  await app.user.clear(field);
  await app.user.type(field, `${to}{Enter}`);
};

test("lanes that came with a file become roles in one question, once", async () => {
  await open();
  await screen.findByText(/2 lanes stand for no role of the directory: Front desk, Network engineer/);
  await app.user.click(screen.getByRole("button", { name: "Make them roles" }));
  await waitFor(async () => expect((await roleOf("desk"))?.entry).toBeDefined());
  expect((await roleOf("engineer"))?.entry).toBeDefined();
  const { entries } = await run<{ entries: { kind: string; name: string }[] }>("openDirectory", {});
  expect(
    entries
      .filter(({ kind }) => kind === "role")
      .map(({ name }) => name)
      .sort(),
  ).toEqual(["Field crew", "Front desk", "Network engineer"]);
  app.goTo(`/v/${version}/steps`);
  app.goTo(`/v/${version}/diagram`);
  await screen.findByTestId("canvas");
  expect(screen.queryByRole("button", { name: "Make them roles" })).toBeNull();
});

test("a lane that is called like a role stands for it; for another name the role is offered", async () => {
  await open("desk");
  await rename("field CREW");
  await waitFor(async () => expect(await roleOf("desk")).toEqual({ name: "Field crew", entry: "crew-role" }));
  await rename("Night shift");
  await screen.findByText(/No role of the directory is called “Night shift” yet/);
  // Until it is made, the lane stands for nobody by mistake.
  expect((await roleOf("desk"))?.entry).toBeUndefined();
  await app.user.click(screen.getByRole("button", { name: "Make the role" }));
  await waitFor(async () => expect((await roleOf("desk"))?.entry).toBeDefined());
  expect((await roleOf("desk"))?.name).toBe("Night shift");
});
