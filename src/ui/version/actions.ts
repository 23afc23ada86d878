import { nanoid } from "nanoid";
import { addNext, type Draft, giveAnswers, leadOn, plan } from "@/core/capture";
import { canHoldBoundaryEvents, type Kind, spotFor } from "@/core/commands";
import { type Element, type Id, isFlowNode, type Point, shapeOn } from "@/core/model";
import { complain } from "../controls/notices";
import { reasons, text } from "../messages";
import { useDiagram } from "./diagramStore";
import { tidyPage } from "./tidyPage";
import type { VersionStore } from "./versionStore";

/** A new id that is legal in a file and says what it is of. */
export function newId(type: string): Id {
  return `${type}-${nanoid(8).replace(/[^A-Za-z0-9]/g, "x")}`;
}

const named = (kind: Kind) =>
  !kind.type.endsWith("Gateway") || kind.type === "exclusiveGateway" || kind.type === "inclusiveGateway";

/** Does several commands as one step that is taken back as one. Gives what they were about, or undefined where one was refused. */
function sketch(store: VersionStore, make: (draft: Draft) => Id): Id | undefined {
  const { model, say, take } = store.getState();
  const made = plan(model, newId, make);
  if (made.ok) take(made.value);
  else say("refusal", reasons(made.problems));
  return made.ok ? made.value.focus : undefined;
}

/** Connects two elements; a way of the first that was still open is led there instead. */
export function connectTo(store: VersionStore, diagram: Id, from: Id, to: Id): void {
  const made = sketch(store, (draft) => leadOn(draft, { diagram, from }, to));
  if (made) useDiagram.getState().select(made);
}

/** What comes next behind an element, and for a question its two answers. */
function goOn(store: VersionStore, diagram: Id, selected: Element, kind: Kind): Id | undefined {
  return sketch(store, (draft) => {
    let id: Id;
    if (selected.type === "sequenceFlow") {
      id = newId(kind.type);
      draft.do({ type: "insertOnFlow", diagram, onFlow: selected.id, id, flow: newId("flow"), kind });
    } else id = addNext(draft, { diagram, from: selected.id }, kind);
    if (kind.type === "exclusiveGateway")
      giveAnswers(draft, { diagram, from: id }, { usual: text.steps.yes, other: text.steps.no });
    return id;
  });
}

/** Adds a kind where it belongs: behind the selected element, on the selected flow, at its edge, or at a point. */
export function addKind(
  store: VersionStore,
  diagram: Id,
  selected: Element | undefined,
  kind: Kind,
  at?: Point,
  centre?: Point,
): void {
  const { dispatch } = store.getState();
  const { select, set } = useDiagram.getState();
  let id = newId(kind.type);
  let done = false;
  const follows = selected && !at && isFlowNode(kind.type) && kind.type !== "boundaryEvent";
  if (follows && (selected.type === "sequenceFlow" || isFlowNode(selected.type))) {
    const made = goOn(store, diagram, selected, kind);
    done = made !== undefined;
    id = made ?? id;
  } else if (selected?.type === "sequenceFlow" && kind.type !== "textAnnotation") {
    done = dispatch({ type: "insertOnFlow", diagram, onFlow: selected.id, id, flow: newId("flow"), kind });
  } else if (selected && kind.type === "boundaryEvent" && canHoldBoundaryEvents(selected)) {
    done = dispatch({ type: "attach", diagram, host: selected.id, id, kind, ...(at && { at }) });
  } else if (selected && (selected.type === "participant" || selected.type === "lane")) {
    done =
      kind.type === "lane"
        ? dispatch({ type: "addLane", diagram, id, beside: selected.id })
        : placeInside(store, diagram, selected, id, kind, at);
  } else if (selected && !["participant", "lane"].includes(kind.type)) {
    done = dispatch({ type: "append", diagram, from: selected.id, id, flow: newId("flow"), kind, ...(at && { at }) });
  } else {
    const { model } = store.getState();
    const page = model.diagrams.get(diagram);
    const near = at ?? centre ?? { x: 200, y: 160 };
    const holds = kind.type === "participant" || kind.type === "lane";
    done = dispatch({
      type: "place",
      diagram,
      id,
      kind,
      at: at || holds || !page ? near : spotFor(model, page, kind, near),
    });
  }
  if (!done) return;
  select(id);
  if (named(kind)) set({ naming: id });
}

/** Into the chosen pool or lane, where there is room in it. */
function placeInside(store: VersionStore, diagram: Id, holder: Element, id: Id, kind: Kind, at?: Point): boolean {
  const { model, dispatch } = store.getState();
  const page = model.diagrams.get(diagram);
  const bounds = shapeOn(model, diagram, holder.id)?.bounds;
  if (!page || !bounds) return false;
  const middle = { x: bounds.x + Math.min(bounds.width / 2, 160), y: bounds.y + bounds.height / 2 };
  return dispatch({ type: "place", diagram, id, kind, at: at ?? spotFor(model, page, kind, middle) });
}

/** Splits a flow, or attaches, or places: what a drop of a kind at a point means. */
export function dropKind(store: VersionStore, diagram: Id, kind: Kind, at: Point, onFlow?: Id, onEdge?: Id): void {
  const { dispatch } = store.getState();
  const { select, set } = useDiagram.getState();
  const id = newId(kind.type);
  const done = onEdge
    ? dispatch({ type: "attach", diagram, host: onEdge, id, kind: { ...kind, type: "boundaryEvent" }, at })
    : onFlow
      ? dispatch({ type: "insertOnFlow", diagram, onFlow, id, flow: newId("flow"), kind, at })
      : dispatch({ type: "place", diagram, id, kind, at });
  if (!done) return;
  select(id);
  if (named(kind)) set({ naming: id });
}

/** Tidies what is chosen, if that is several steps, else the whole page. */
export function tidyChosen(store: VersionStore, diagram: Id): void {
  const { selection } = useDiagram.getState();
  if (selection.length > 1) store.getState().dispatch({ type: "tidy", diagram, ids: [...selection] });
  else void tidyPage(store, diagram).catch(complain);
}
