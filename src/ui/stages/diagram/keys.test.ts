import type { KeyboardEvent } from "react";
import { beforeEach, describe, expect, test, vi } from "vitest";
import type { Kind } from "@/core/commands";
import { sceneOf } from "@/core/drawing";
import { laneOf, type Model, outgoingOf, shapeOn } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { usePalette } from "../../shell/paletteStore";
import { openedVersion } from "../../testing/openedVersion";
import { useDiagram } from "../../version/diagramStore";
import type { Gesture } from "./gestureList";
import { handleKey } from "./keys";

const chosen = () => useDiagram.getState().selection;

/** A canvas with something chosen, that is given keys. */
function canvas(start: Model, ...selection: string[]) {
  const opened = openedVersion(start);
  useDiagram.getState().select(...selection);
  const added: Kind[] = [];
  const viewport = { show: vi.fn(), fit: vi.fn(), zoomBy: vi.fn() };
  const went: number[] = [];
  const entered: string[] = [];
  const run = vi.fn();
  const gestures: Gesture[] = [{ id: "one" as never, title: "", keys: "Shift L", run }];
  const press = (key: string, held: Partial<KeyboardEvent> & { tagName?: string } = {}) => {
    const preventDefault = vi.fn();
    const { tagName = "DIV", ...rest } = held;
    const released = { shiftKey: false, ctrlKey: false, metaKey: false, altKey: false };
    const event = {
      key,
      code: key,
      ...released,
      defaultPrevented: false,
      target: { tagName },
      preventDefault,
      ...rest,
    };
    const model = opened.model();
    handleKey(event as unknown as KeyboardEvent, {
      store: opened.store,
      diagram: "page",
      kinds: [{ type: "task" }, { type: "endEvent" }] as Kind[],
      add: (kind) => added.push(kind),
      gestures,
      goBack: (by) => went.push(by),
      openPage: (id) => entered.push(id),
      canvas: { viewport, centre: () => ({ x: 0, y: 0 }) } as never,
      scene: sceneOf(model, model.diagrams.get("page") as never),
      model,
    });
    return preventDefault.mock.calls.length > 0;
  };
  return { ...opened, press, added, viewport, went, entered, run };
}

beforeEach(() => {
  useDiagram.getState().select();
  useDiagram
    .getState()
    .set({ tool: null, asking: null, outlineOpen: false, keysOpen: false, naming: null, peek: null, carrying: null });
  usePalette.setState({ isOpen: false });
});

describe("finding the way", () => {
  test("with nothing chosen an arrow begins at the start; arrows follow the flows there and back", () => {
    const { press, viewport } = canvas(smallModel());
    press("ArrowRight");
    expect(chosen()).toEqual(["start"]);
    press("ArrowRight");
    expect(chosen()).toEqual(["check"]);
    press("ArrowLeft");
    expect(chosen()).toEqual(["start"]);
    expect(viewport.show).toHaveBeenCalledTimes(3);
  });

  test("from a step down to what sits at its edge, and from there back to it", () => {
    const { press } = canvas(smallModel(), "check");
    press("ArrowDown");
    expect(chosen()).toEqual(["late"]);
    press("ArrowLeft");
    expect(chosen()).toEqual(["check"]);
  });

  test("a full stop goes from a step to its flows, one after the other and round; from a flow the arrows go to its ends", () => {
    const split = [...smallModel().elements].find(
      ({ type, id }) => /Gateway$/.test(type) && outgoingOf(smallModel(), id).length === 2,
    );
    const flows = outgoingOf(smallModel(), split?.id ?? "").map(({ id }) => id);
    const { press, model } = canvas(smallModel(), split?.id ?? "");
    press(".");
    expect(chosen()).toEqual([flows[0]]);
    press(".");
    expect(chosen()).toEqual([flows[1]]);
    press(".");
    expect(chosen()).toEqual([flows[0]]);
    press("ArrowRight");
    expect(chosen()).toEqual([model().elements.get(flows[0] ?? "")?.targetRef]);
  });

  test("pages: into what is chosen, back, and to the first; all of it, nearer, further", () => {
    const { press, entered, went, viewport } = canvas(smallModel(), "check");
    press("PageDown");
    press("[");
    press("]");
    press("0");
    press("+");
    press("-");
    expect(entered).toEqual(["check"]);
    expect(went).toEqual([-1, 1]);
    expect(viewport.fit).toHaveBeenCalledOnce();
    expect(viewport.zoomBy.mock.calls).toEqual([[1.25], [0.8]]);
    press("PageUp");
    expect(useDiagram.getState().page).toBe("page");
  });
});

describe("building", () => {
  test("Enter adds the next task, with Shift one before; a letter adds its kind", () => {
    const { press, added, done, model } = canvas(smallModel(), "check");
    press("Enter");
    press("e");
    expect(added.map(({ type }) => type)).toEqual(["task", "endEvent"]);
    press("Enter", { shiftKey: true });
    expect(done).toMatchObject([{ type: "insertOnFlow", onFlow: "f1" }]);
    const [before] = chosen();
    expect(outgoingOf(model(), "start")[0]?.targetRef).toBe(before);
    expect(useDiagram.getState().naming).toBe(before);
  });

  test("Delete takes away what is chosen, Alt with an arrow nudges it, Ctrl with an arrow changes its lane", () => {
    const { press, model } = canvas(smallModel(), "check");
    const at = shapeOn(model(), "page", "check")?.bounds.x ?? 0;
    press("ArrowRight", { altKey: true });
    expect(shapeOn(model(), "page", "check")?.bounds.x).toBe(at + 4);
    press("ArrowDown", { ctrlKey: true });
    expect(laneOf(model(), "check")?.id).toBe("engineer");
    press("Delete");
    expect(model().elements.has("check")).toBe(false);
  });

  test("what cannot be is said, and what means nothing is left to the browser", () => {
    const { press, said } = canvas(smallModel(), "check");
    press("ArrowUp", { ctrlKey: true });
    expect(said[0]).toMatch(/no lane above/);
    expect(press("q")).toBe(false);
    expect(canvas(smallModel()).press("Delete")).toBe(false);
    expect(canvas(smallModel()).press("ArrowUp", { ctrlKey: true })).toBe(false);
    expect(canvas(smallModel()).press("Enter")).toBe(false);
  });

  test("Ctrl+A chooses every step and event, no lane and no flow", () => {
    const { press, model } = canvas(smallModel());
    press("a", { ctrlKey: true });
    expect(chosen()).toContain("check");
    expect(
      chosen().every((id) => !["lane", "participant", "sequenceFlow"].includes(model().elements.get(id)?.type ?? "")),
    ).toBe(true);
  });

  test("room is made by keyboard where it is wanted, and Enter puts the tool away", () => {
    const { press, model, said } = canvas(smallModel(), "approve");
    const at = shapeOn(model(), "page", "approve")?.bounds.x ?? 0;
    useDiagram.getState().set({ tool: "room" });
    press("ArrowRight");
    expect(shapeOn(model(), "page", "approve")?.bounds.x).toBeGreaterThan(at);
    press("Enter");
    expect(useDiagram.getState().tool).toBeNull();
    useDiagram.getState().select();
    useDiagram.getState().set({ tool: "room" });
    press("ArrowDown");
    expect(said).toHaveLength(1);
  });
});

describe("questions and panels", () => {
  test("Z asks for a kind, O opens the outline and closes it, ? shows the keys, F2 names, Escape lets go", () => {
    const { press } = canvas(smallModel(), "check");
    press("z");
    expect(useDiagram.getState().asking).toBe("more");
    useDiagram.getState().set({ asking: null });
    press("o");
    expect(useDiagram.getState().outlineOpen).toBe(true);
    press("o");
    expect(useDiagram.getState().outlineOpen).toBe(false);
    press("?");
    expect(useDiagram.getState().keysOpen).toBe(true);
    press("F2");
    expect(useDiagram.getState().naming).toBe("check");
    press("Escape");
    expect(chosen()).toEqual([]);
  });

  test("what is typed while a question or the palette opens does nothing to the model, and is kept from the page", () => {
    const { press, done } = canvas(smallModel(), "check");
    useDiagram.getState().set({ asking: "leadTo" });
    expect(press("Delete")).toBe(true);
    useDiagram.getState().set({ asking: null });
    usePalette.setState({ isOpen: true });
    expect(press("Delete")).toBe(true);
    usePalette.setState({ isOpen: false });
    expect(press("Delete", { tagName: "TEXTAREA" })).toBe(false);
    expect(press("Delete", { defaultPrevented: true })).toBe(false);
    expect(done).toEqual([]);
  });

  test("a gesture has its own key, and letters held with Shift are no kinds", () => {
    const { press, run, added } = canvas(smallModel(), "check", "approve");
    press("L", { shiftKey: true });
    expect(run).toHaveBeenCalledOnce();
    press("E", { shiftKey: true });
    expect(added).toEqual([]);
    // With several chosen there is nothing that could follow.
    press("z");
    expect(useDiagram.getState().asking).toBeNull();
  });
});
