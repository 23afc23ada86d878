import { type Figure, sceneOf } from "../../drawing";
import { emptyModel, isActivity, type Model } from "../../model";
import { type Command, perform } from "../kernel/command";
import { kindWords } from "./everyKind";
import type { Kind } from "./kinds";

const diagram = "page";
const at = { x: 300, y: 200 };
const kindId = "kind";

/**
 * The smallest model an element of a kind can stand in; its id is "kind".
 * @param isShown pools and open sub-processes no larger than they have to be to look like one, notes with a word in them
 */
export function modelOfKind(kind: Kind, isShown = false): Model {
  const start = emptyModel({ definitions: "definitions", process: "process", diagram }, "Kinds");
  return [...commandsFor(kind), ...(isShown ? shownSmaller(kind) : [])].reduce<Model>((model, command) => {
    const done = perform(model, command);
    if (!done.ok) throw new Error(`A ${kindWords(kind)} cannot be drawn: ${done.problems[0]?.message}`);
    return done.value.model;
  }, start);
}

function commandsFor(kind: Kind): Command[] {
  const place = (id: string, what: Kind): Command => ({ type: "place", diagram, id, kind: what, at });
  if (kind.type === "boundaryEvent") {
    const host: Kind = { type: kind.trigger === "cancelEventDefinition" ? "transaction" : "task" };
    return [place("host", host), { type: "attach", diagram, host: "host", id: kindId, kind }];
  }
  if (kind.type === "startEvent" && kind.isInterrupting !== undefined)
    return [place("host", { type: "subProcess", triggeredByEvent: true, expanded: true }), place(kindId, kind)];
  if (kind.type === "endEvent" && kind.trigger === "cancelEventDefinition")
    return [place("host", { type: "transaction", expanded: true }), place(kindId, kind)];
  if (kind.type === "lane")
    return [
      place("pool", { type: "participant" }),
      { type: "addLane", diagram, id: kindId, beside: "pool" },
      { type: "addLane", diagram, id: "second", beside: kindId },
    ];
  return [place(kindId, kind)];
}

function shownSmaller(kind: Kind): Command[] {
  const resized = (id: string, width: number, height: number): Command => ({
    type: "resize",
    diagram,
    id,
    bounds: { x: 200, y: 140, width, height },
  });
  if (kind.type === "participant") return [resized(kindId, 240, kind.closed ? 36 : 120)];
  if (kind.type === "lane") return [resized("pool", 240, 224)];
  if (kind.expanded) return [resized(kindId, 200, 112)];
  if (kind.type === "textAnnotation") return [{ type: "rename", id: kindId, name: "note" }];
  return [];
}

const drawn = new Map<string, Figure>();
/** So small, an activity's markers fill it, and it can still be read in a list. */
const compactSize = { width: 60, height: 40 };

/**
 * How an element of a kind is drawn, by the same code as in a diagram. Remembered, since a list shows the same kinds again.
 * @param isCompact activities as small as they can be drawn, for lists
 */
export function pictureOfKind(kind: Kind, isCompact = false): Figure {
  const key = JSON.stringify([kind, isCompact]);
  let figure = drawn.get(key);
  if (!figure) {
    let model = modelOfKind(kind);
    if (isCompact && isActivity(kind.type)) {
      const bounds = { x: 0, y: 0, ...compactSize };
      const done = perform(model, { type: "resize", diagram, id: kindId, bounds });
      if (done.ok) model = done.value.model;
    }
    const page = model.diagrams.get(diagram);
    figure = page && sceneOf(model, page).figures.find((one) => one.id === kindId);
    if (!figure) throw new Error(`A ${kindWords(kind)} is not drawn.`);
    drawn.set(key, figure);
  }
  return figure;
}
