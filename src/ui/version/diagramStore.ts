import { create } from "zustand";
import type { Fragment, Kind } from "@/core/commands";

/** What a person looks at and has chosen; nothing here is part of the model. */
interface DiagramState {
  readonly selection: readonly string[];
  readonly page: string | null;
  readonly naming: string | null;
  readonly trayOpen: boolean;
  /** With nothing chosen, the tray can tell about the process itself. */
  readonly aboutOpen: boolean;
  /** In pixels, as somebody dragged it; kept in this browser. Null: as high as what it holds, at most a third of the stage. */
  readonly trayHeight: number | null;
  readonly outlineOpen: boolean;
  readonly keysOpen: boolean;
  readonly lensesOpen: boolean;
  readonly matrixOpen: boolean;
  /** A kind on its way from the strip onto the canvas. */
  readonly carrying: Kind | null;
  readonly clipboard: Fragment | null;
  /** What the pointer does on the canvas besides choosing and moving. */
  readonly tool: "room" | null;
  /** A question about what is chosen that stands open. */
  readonly asking: "replace" | "more" | "takeOut" | "leadTo" | "counterpart" | null;
  /** What is typed while a question opens, before its field has the keyboard. */
  readonly ahead: string;
  /** A closed sub-process, or a call, whose inside is shown for a moment. */
  readonly peek: string | null;
  /** Hand-overs that are drawn: all between roles or systems, or those from one hand to another. */
  readonly handovers: { readonly between: "roles" | "systems"; readonly from?: string; readonly to?: string } | null;
  /** A run that is shown: flow nodes in the order in which they are passed. */
  readonly run: readonly string[] | null;
  readonly select: (...ids: readonly string[]) => void;
  readonly toggle: (id: string) => void;
  readonly set: (
    change: Partial<
      Pick<
        DiagramState,
        | "page"
        | "naming"
        | "trayOpen"
        | "aboutOpen"
        | "trayHeight"
        | "outlineOpen"
        | "keysOpen"
        | "lensesOpen"
        | "matrixOpen"
        | "carrying"
        | "clipboard"
        | "tool"
        | "asking"
        | "ahead"
        | "peek"
        | "handovers"
        | "run"
      >
    >,
  ) => void;
}

const heightKey = "lucid-lane.trayHeight.2";

function keptHeight(): number | null {
  const kept = typeof localStorage === "undefined" ? 0 : Number(localStorage.getItem(heightKey));
  return kept > 0 ? kept : null;
}

export const useDiagram = create<DiagramState>((set) => ({
  selection: [],
  page: null,
  naming: null,
  trayOpen: true,
  aboutOpen: false,
  trayHeight: keptHeight(),
  outlineOpen: false,
  keysOpen: false,
  lensesOpen: false,
  matrixOpen: false,
  carrying: null,
  clipboard: null,
  tool: null,
  asking: null,
  ahead: "",
  peek: null,
  handovers: null,
  run: null,
  select: (...ids) => set({ selection: ids, naming: null, peek: null }),
  toggle: (id) =>
    set((state) => ({
      selection: state.selection.includes(id)
        ? state.selection.filter((other) => other !== id)
        : [...state.selection, id],
    })),
  set: (change) => {
    if (change.trayHeight !== undefined) localStorage.setItem(heightKey, String(change.trayHeight ?? ""));
    set(change.asking === undefined ? change : { ahead: "", ...change });
  },
}));
