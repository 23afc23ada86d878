import type { Command } from "@/core/commands";
import { isExpanded } from "@/core/drawing";
import {
  type Element,
  type Id,
  isConnection,
  isFlowNode,
  isSubProcess,
  type Model,
  pathBetween,
  shapeOn,
} from "@/core/model";
import { bindingOf, boundTo } from "@/core/services";
import { text } from "../../messages";
import { newId } from "../../version/actions";
import { useDiagram } from "../../version/diagramStore";
import type { VersionStore } from "../../version/versionStore";
import { duplicate } from "./clipboard";

interface GestureContext {
  readonly store: VersionStore;
  readonly diagram: Id;
  readonly model: Model;
  readonly selection: readonly Id[];
}

/** Something that can be done with what is chosen: with its key, in the strip, and in Ctrl+K. */
export interface Gesture {
  readonly id: string;
  readonly title: string;
  /** As it is printed: one letter where several elements are chosen, "Shift" and a letter where one is. */
  readonly keys?: string;
  readonly run: () => void;
}

/** What can be done with the present choice beside adding to it. What the model does not allow is refused with its reason. */
export function gesturesFor({ store, diagram, model, selection }: GestureContext): readonly Gesture[] {
  const { dispatch } = store.getState();
  const { select, set } = useDiagram.getState();
  const ids = [...selection];
  const words = text.gestures;
  const run = (command: Command) => () => void dispatch(command);
  const chosen = ids.flatMap((id) => model.elements.get(id) ?? []);
  const nodes = chosen.filter((element) => !isConnection(element.type));
  const steps = chosen.filter((element) => isFlowNode(element.type));
  const flows = chosen.filter((element) => isConnection(element.type)).map((element) => element.id);
  const several = nodes.length > 1;
  const found: Gesture[] = [];
  const add = (id: keyof typeof words, keys: string | undefined, does: () => void) =>
    found.push({ id, title: words[id], ...(keys && { keys }), run: does });

  if (several) {
    const align = (id: keyof typeof words, keys: string, along: Extract<Command, { type: "align" }>["along"]) =>
      add(id, keys, run({ type: "align", diagram, ids, along }));
    align("left", "L", "left");
    align("centre", "C", "centre");
    align("right", "R", "right");
    align("top", "T", "top");
    align("middle", "M", "middle");
    align("bottom", "B", "bottom");
    if (nodes.length > 2) {
      add("across", "H", run({ type: "distribute", diagram, ids, axis: "across" }));
      add("down", "V", run({ type: "distribute", diagram, ids, axis: "down" }));
    }
    add("sameSize", "S", run({ type: "sameSize", diagram, ids }));
  }
  if (steps.length > 0) {
    add("wrap", several ? "W" : "Shift W", () => {
      const id = newId("subProcess");
      if (!dispatch({ type: "wrap", diagram, ids, id, page: newId("page") })) return;
      select(id);
      set({ naming: id });
    });
    add("takeOut", several ? "X" : "Shift X", () => set({ asking: "takeOut" }));
  }
  if (steps.length === 2)
    add("path", "P", () => {
      const [a, b] = steps as [Element, Element];
      const path = pathBetween(model, a.id, b.id);
      const way = path.length > 0 ? path : pathBetween(model, b.id, a.id);
      if (way.length > 0) select(...way);
      else store.getState().say("refusal", words.noPath);
    });
  if (flows.length > 0)
    add("straighten", several ? "Shift L" : "Shift L", run({ type: "straighten", diagram, connections: flows }));
  if (nodes.length > 0) add("duplicate", "Ctrl D", () => duplicate(store, diagram));
  const [only] = chosen.length === 1 ? chosen : [];
  if (only) addForOne(only);
  add("room", "J", () => set({ tool: "room" }));
  return found;

  function addForOne(element: Element): void {
    const shape = shapeOn(model, diagram, element.id);
    if (isFlowNode(element.type) || element.type.startsWith("data"))
      add("replace", "Shift R", () => set({ asking: "replace" }));
    const bound = bindingOf(model, element);
    const alike = bound ? boundTo(model, bound.operation.id) : [];
    if (alike.length > 1) add("sameOperation", "Shift B", () => select(...alike.map(({ id }) => id)));
    if (store.getState().info.siblings.length > 1) add("counterpart", ",", () => set({ asking: "counterpart" }));
    if (shape && element.type !== "lane") add("leadTo", "R", () => set({ asking: "leadTo" }));
    if (element.type === "sequenceFlow")
      add(
        "usual",
        "Shift D",
        run({ type: "setField", id: String(element.sourceRef), field: "default", value: element.id }),
      );
    if (isSubProcess(element.type) && shape) {
      if (isExpanded(element, shape))
        add("close", "Shift O", run({ type: "collapse", diagram, id: element.id, page: newId("page") }));
      else {
        add("open", "Shift O", run({ type: "expand", diagram, id: element.id }));
        add("peek", "Space", () => set({ peek: element.id }));
      }
      add("dissolve", "Shift U", run({ type: "unwrap", diagram, id: element.id }));
    }
    if (element.type === "lane") {
      add("laneUp", "Shift ↑", run({ type: "swapLanes", diagram, lane: element.id, direction: "up" }));
      add("laneDown", "Shift ↓", run({ type: "swapLanes", diagram, lane: element.id, direction: "down" }));
      add("split", "Shift V", run({ type: "splitLane", diagram, lane: element.id, ids: [newId("lane")] }));
      add(
        "splitInside",
        "Shift I",
        run({ type: "splitLane", diagram, lane: element.id, ids: [newId("lane"), newId("lane")] }),
      );
    }
    if (element.name) add("labelBack", "Shift N", run({ type: "moveLabel", diagram, id: element.id }));
  }
}

/** Whether a key press is the one printed beside a gesture. */
export function isKeyOf(
  keys: string | undefined,
  event: { key: string; shiftKey: boolean; ctrlKey: boolean; metaKey: boolean; altKey: boolean },
): boolean {
  if (!keys || event.altKey) return false;
  const parts = keys.split(" ");
  const last = parts.at(-1) as string;
  const key = { "↑": "ArrowUp", "↓": "ArrowDown", Space: " " }[last] ?? last;
  return (
    event.key.toLowerCase() === key.toLowerCase() &&
    event.shiftKey === parts.includes("Shift") &&
    (event.ctrlKey || event.metaKey) === parts.includes("Ctrl")
  );
}
