import type { KeyboardEvent } from "react";
import { lenses } from "@/contract";
import type { Kind } from "@/core/commands";
import type { Scene } from "@/core/drawing";
import { boundsAround } from "@/core/layout";
import { boundaryEventsOf, type Id, incomingOf, isFlowNode, type Model, outgoingOf, shapeOn } from "@/core/model";
import type { CanvasHandle } from "../../canvas/Canvas";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { knownNow } from "../../kernel/queries";
import { text } from "../../messages";
import { usePalette } from "../../shell/paletteStore";
import { newId, tidyChosen } from "../../version/actions";
import { useDiagram } from "../../version/diagramStore";
import { useLensesOn } from "../../version/lenses/store";
import type { VersionStore } from "../../version/versionStore";
import { type Gesture, isKeyOf } from "./gestureList";
import { keyOfKind } from "./kindKeys";

interface KeyContext {
  readonly store: VersionStore;
  readonly diagram: Id;
  readonly kinds: readonly Kind[];
  readonly add: (kind: Kind) => void;
  readonly gestures: readonly Gesture[];
  readonly goBack: (by: 1 | -1) => void;
  readonly openPage: (id: Id) => void;
  readonly canvas: CanvasHandle | null;
  readonly scene: Scene;
  readonly model: Model;
}

/** The keys of the canvas, in the order in which they are looked for. The sheet of keys lists the same. */
export function handleKey(event: KeyboardEvent, context: KeyContext): void {
  if (event.defaultPrevented || (event.target as HTMLElement).tagName === "TEXTAREA") return;
  // What is typed while a question opens is meant for it.
  const { asking, ahead, set } = useDiagram.getState();
  if (asking && event.key.length === 1 && !event.ctrlKey && !event.metaKey) set({ ahead: ahead + event.key });
  if (asking || usePalette.getState().isOpen) return event.preventDefault();
  const handled = event.ctrlKey || event.metaKey ? withControl(event, context) : plainKey(event, context);
  if (handled) event.preventDefault();
}

function withControl(event: KeyboardEvent, { store, diagram, scene, gestures }: KeyContext): boolean {
  const { selection, select } = useDiagram.getState();
  const { dispatch } = store.getState();
  switch (event.key.toLowerCase()) {
    case "a":
      select(...scene.figures.filter((figure) => isFlowNode(figure.type as never)).map((figure) => figure.id));
      return true;
    case "arrowup":
    case "arrowdown":
      if (selection.length === 0) return false;
      dispatch({
        type: "moveToNeighbourLane",
        diagram,
        ids: [...selection],
        direction: event.key === "ArrowUp" ? "up" : "down",
      });
      return true;
    default:
      return runGesture(event, gestures);
  }
}

function runGesture(event: KeyboardEvent, gestures: readonly Gesture[]): boolean {
  const meant = gestures.find((gesture) => isKeyOf(gesture.keys, event));
  meant?.run();
  return meant !== undefined;
}

function plainKey(event: KeyboardEvent, context: KeyContext): boolean {
  const { store, diagram, kinds, add, openPage, canvas, scene, model, gestures, goBack } = context;
  const { selection, select, set, outlineOpen, tool } = useDiagram.getState();
  const { dispatch } = store.getState();
  const [only] = selection;
  if (tool === "room" && roomByKey(event, context)) return true;
  if (event.shiftKey && /^Digit[1-9]$/.test(event.code)) return toggleLens(Number(event.code.slice(-1)));
  switch (event.key) {
    case "Escape":
      if (useDiagram.getState().peek) set({ peek: null });
      else if (tool) set({ tool: null });
      else select();
      set({ carrying: null });
      return true;
    case ".": {
      const next = nextFlow(model, only);
      if (next) select(next);
      return true;
    }
    case "[":
      goBack(-1);
      return true;
    case "]":
      goBack(1);
      return true;
    case "Delete":
    case "Backspace":
      if (selection.length === 0) return false;
      dispatch({ type: "delete", ids: [...selection] });
      return true;
    case "F2":
      if (selection.length === 1 && only) set({ naming: only });
      return true;
    case "Enter": {
      if (!only) return false;
      const task = kinds.find((kind) => kind.type === "task");
      if (!task) return false;
      if (event.shiftKey) {
        const [flow] = incomingOf(model, only);
        if (!flow) return false;
        const id = newId("task");
        if (dispatch({ type: "insertOnFlow", diagram, onFlow: flow.id, id, flow: newId("flow"), kind: task })) {
          select(id);
          set({ naming: id });
        }
      } else add(task);
      return true;
    }
    case "ArrowRight":
    case "ArrowLeft":
    case "ArrowUp":
    case "ArrowDown": {
      if (event.altKey && selection.length > 0) {
        const by = {
          ArrowRight: { x: 4, y: 0 },
          ArrowLeft: { x: -4, y: 0 },
          ArrowUp: { x: 0, y: -4 },
          ArrowDown: { x: 0, y: 4 },
        }[event.key];
        dispatch({ type: "move", diagram, ids: [...selection], by });
        return true;
      }
      if (event.shiftKey) return runGesture(event, gestures);
      const next = neighbour(model, diagram, scene, only, event.key);
      if (next) {
        select(next);
        const shape = shapeOn(model, diagram, next);
        if (shape) canvas?.viewport.show(shape.bounds);
      }
      return true;
    }
    case "?":
      set({ keysOpen: true });
      return true;
    case "0":
      canvas?.viewport.fit(scene.bounds);
      return true;
    case "+":
    case "=":
      canvas?.viewport.zoomBy(1.25);
      return true;
    case "-":
      canvas?.viewport.zoomBy(0.8);
      return true;
    case "PageDown":
      if (only) openPage(only);
      return true;
    case "PageUp": {
      const [first] = [...model.diagrams].sort((a, b) => a.order - b.order);
      if (first) set({ page: first.id });
      return true;
    }
  }
  const letter = event.key.toUpperCase();
  if (runGesture(event, gestures)) return true;
  if (event.shiftKey || event.altKey) return false;
  if (letter === "Z" && selection.length < 2) {
    set({ asking: "more" });
    return true;
  }
  if (letter === "O") {
    set({ outlineOpen: !outlineOpen });
    return true;
  }
  if (letter === "Y") {
    tidyChosen(store, diagram);
    return true;
  }
  const kind = kinds.find((candidate) => keyOfKind(candidate).key === letter);
  if (!kind) return false;
  add(kind);
  return true;
}

const roomStep = 40;

/** While room is made by keyboard, right and down open it before and above what is chosen. */
function roomByKey(event: KeyboardEvent, { store, diagram, model }: KeyContext): boolean {
  const { selection, set } = useDiagram.getState();
  if (event.key === "Enter") {
    set({ tool: null });
    return true;
  }
  const direction = event.key === "ArrowRight" ? "right" : event.key === "ArrowDown" ? "down" : undefined;
  if (!direction) return false;
  const box = boundsAround(selection.flatMap((id) => shapeOn(model, diagram, id)?.bounds ?? []));
  if (box)
    store.getState().dispatch({
      type: "makeRoom",
      diagram,
      direction,
      line: (direction === "right" ? box.x : box.y) - 2,
      by: roomStep,
    });
  else store.getState().say("refusal", text.diagram.roomHint);
  return true;
}

/** From a step to the first flow that leaves it, from there to the next one of the same step, and round. */
function nextFlow(model: Model, from: Id | undefined): Id | undefined {
  const element = from === undefined ? undefined : model.elements.get(from);
  const node = element?.type === "sequenceFlow" ? (element.sourceRef as Id) : from;
  if (node === undefined) return undefined;
  const flows = outgoingOf(model, node);
  return (flows[flows.findIndex((flow) => flow.id === from) + 1] ?? flows[0])?.id;
}

/** Arrows follow the flows; where none leads that way, they go to what lies there. */
function neighbour(model: Model, diagram: Id, scene: Scene, from: Id | undefined, key: string): Id | undefined {
  const nodes = scene.figures.filter(
    (figure) => !figure.line && figure.type !== "participant" && figure.type !== "lane",
  );
  if (!from) return (nodes.find((figure) => figure.type === "startEvent") ?? nodes[0])?.id;
  const element = model.elements.get(from);
  if (!element) return undefined;
  if (!isFlowNode(element.type)) {
    const ends = { ArrowLeft: element.sourceRef, ArrowRight: element.targetRef } as { [key: string]: unknown };
    if (typeof ends[key] === "string") return ends[key] as Id;
  }
  if (key === "ArrowRight") {
    const [flow] = outgoingOf(model, from);
    if (flow) return flow.targetRef as Id;
  }
  if (key === "ArrowLeft") {
    if (element.type === "boundaryEvent") return element.attachedToRef as Id;
    const [flow] = incomingOf(model, from);
    if (flow) return flow.sourceRef as Id;
  }
  if (key === "ArrowDown") {
    const [event] = boundaryEventsOf(model, from);
    if (event) return event.id;
  }
  const here = shapeOn(model, diagram, from)?.bounds;
  if (!here) return undefined;
  const middle = (bounds: typeof here) => ({ x: bounds.x + bounds.width / 2, y: bounds.y + bounds.height / 2 });
  const origin = middle(here);
  let best: { id: Id; distance: number } | undefined;
  for (const figure of nodes) {
    if (figure.id === from) continue;
    const point = middle(figure.bounds);
    const dx = point.x - origin.x;
    const dy = point.y - origin.y;
    const along = { ArrowRight: dx, ArrowLeft: -dx, ArrowDown: dy, ArrowUp: -dy }[key] ?? 0;
    const across = key === "ArrowRight" || key === "ArrowLeft" ? Math.abs(dy) : Math.abs(dx);
    if (along <= 4) continue;
    const distance = along + across * 2;
    if (!best || distance < best.distance) best = { id: figure.id, distance };
  }
  return best?.id;
}

/** Shows or hides the lens at a place in the list; pressed before the list is there, as soon as it is. */
function toggleLens(place: number): boolean {
  const known = knownNow(lenses.listLenses, {});
  const toggle = (rows: readonly { readonly id: string }[]) => {
    const row = rows[place - 1];
    if (row) useLensesOn.getState().toggle(row.id);
    return row !== undefined;
  };
  if (known) return toggle(known.lenses);
  ask(lenses.listLenses, {}).then((answer) => toggle(answer.lenses), complain);
  return true;
}
