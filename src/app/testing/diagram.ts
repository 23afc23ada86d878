import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect } from "vitest";
import { type Element, type Model, nameOf } from "@/core/model";
import { importModel, storedModel } from "@/server/testing/workspace";
import { useDiagram } from "@/ui/version/diagramStore";
import { type Application, openApplication } from "./application";

/** The stage Diagram of a version that was just imported, with what a person does there. */
export async function openDiagram(model?: Model, fill: (version: string) => Promise<unknown> = async () => {}) {
  let version = "";
  const app: Application = await openApplication("/", async () => {
    version = await importModel("Plant", model);
    await fill(version);
  });
  useDiagram.setState(useDiagram.getInitialState(), true);
  app.goTo(`/v/${version}/diagram`);
  const canvas = await screen.findByTestId("canvas");
  const stored = () => storedModel(version);
  const element = async (id: string) => (await stored()).elements.get(id) as Element;
  const named = async (name: string) => {
    const held = await stored();
    return [...held.elements].find(({ id }) => nameOf(held, id) === name) as Element;
  };
  const saved = () => waitFor(() => expect(screen.getByTestId("saved-state").textContent).toBe("Saved"));
  const tray = () => within(screen.getByTestId("tray"));
  const choose = async (...ids: readonly string[]) => {
    act(() => useDiagram.getState().select(...ids));
    await screen.findByTestId("tray");
  };
  const key = (pressed: string, more: Partial<KeyboardEventInit> = {}) =>
    act(() => void fireEvent.keyDown(canvas, { key: pressed, ...more }));
  const undo = () => key("z", { ctrlKey: true });
  return { app, version, canvas, stored, element, named, saved, tray, choose, key, undo };
}
