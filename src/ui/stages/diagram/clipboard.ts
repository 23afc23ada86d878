import { copy, type Fragment } from "@/core/commands";
import { boundsAround } from "@/core/layout";
import type { Id, Point } from "@/core/model";
import { complain, tell } from "../../controls/notices";
import { reasons, text } from "../../messages";
import { newId } from "../../version/actions";
import { useDiagram } from "../../version/diagramStore";
import type { VersionStore } from "../../version/versionStore";

// With it comes the reader and writer of files, which only the clipboard needs here.
const files = () => import("@/core/clipboard");

/** Copies what is chosen, for pasting here and, as a BPMN file, anywhere else. */
export async function copyChosen(store: VersionStore, diagram: Id, event: ClipboardEvent): Promise<void> {
  const { selection, set } = useDiagram.getState();
  if (selection.length === 0) return;
  const fragment = copy(store.getState().model, diagram, selection);
  event.preventDefault();
  if (fragment.roots.length === 0) return store.getState().say("refusal", text.diagram.nothingToCopy);
  set({ clipboard: fragment });
  if (event.type === "cut") store.getState().dispatch({ type: "delete", ids: [...selection] });
  else tell({ description: text.diagram.copied(fragment.roots.length) });
  try {
    await navigator.clipboard?.writeText((await files()).fragmentToFile(fragment));
  } catch {
    // A browser that keeps its clipboard to itself: pasting within the workspace works all the same.
  }
}

/** Pastes what stands on the clipboard: BPMN from anywhere, else what was copied here. */
export async function pasteHere(store: VersionStore, diagram: Id, centre: Point, pasted: string): Promise<void> {
  const { clipboard } = useDiagram.getState();
  if (!pasted.trim().startsWith("<")) {
    if (clipboard) put(store, diagram, clipboard, beside(clipboard));
    return;
  }
  try {
    const { fragmentOfFile, fragmentToFile, looksLikeBpmn } = await files();
    if (!looksLikeBpmn(pasted)) return store.getState().say("refusal", text.diagram.notBpmn);
    // What was copied on this very page goes beside itself; what comes from elsewhere goes where one looks.
    if (clipboard && pasted.trim() === fragmentToFile(clipboard).trim())
      return put(store, diagram, clipboard, beside(clipboard));
    const read = fragmentOfFile(pasted);
    if (!read.ok) return store.getState().say("refusal", reasons(read.problems.slice(0, 1)));
    put(store, diagram, read.value, centre);
  } catch (error) {
    complain(error);
  }
}

/** A second one of what is chosen, beside it. */
export function duplicate(store: VersionStore, diagram: Id): void {
  const { selection } = useDiagram.getState();
  if (selection.length === 0) return;
  const fragment = copy(store.getState().model, diagram, selection);
  put(store, diagram, fragment, beside(fragment));
}

function beside(fragment: Fragment): Point {
  const box = boundsAround(fragment.shapes.map((shape) => (shape as unknown as { bounds: never }).bounds));
  return box ? { x: box.x + box.width / 2 + 32, y: box.y + box.height / 2 + 32 } : { x: 0, y: 0 };
}

function put(store: VersionStore, diagram: Id, fragment: Fragment, at: Point): void {
  const before = new Set([...store.getState().model.shapes].map((shape) => shape.element));
  const mark = newId("c").replace(/[^A-Za-z0-9]/g, "");
  if (!store.getState().dispatch({ type: "paste", diagram, fragment, at, mark })) return;
  const made = [...store.getState().model.shapes].filter(
    (shape) => shape.diagram === diagram && !before.has(shape.element),
  );
  useDiagram.getState().select(...made.map((shape) => shape.element));
}
