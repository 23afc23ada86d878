// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { importModel, send } from "@/server/testing/workspace";

let app: Application;
let version: string;
afterEach(() => app.close());

test("what others do while a version is on its way to a window is seen in it", async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications");
  });
  await screen.findByText("Applications");
  const way = globalThis.fetch;
  let isDone = false;
  vi.stubGlobal("fetch", async (...asked: Parameters<typeof fetch>) => {
    const answer = await way(...asked);
    if (!isDone && String(asked[0]).endsWith("/openVersion")) {
      isDone = true;
      await send(version, { type: "rename", id: "check", name: "Look through the application" });
      // Long enough for the window to have heard of it.
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return answer;
  });
  app.goTo(`/v/${version}/steps`);
  const sheet = await screen.findByRole("treegrid");
  await waitFor(() => expect(sheet.textContent).toContain("Look through the application"));
  expect(isDone).toBe(true);
});
