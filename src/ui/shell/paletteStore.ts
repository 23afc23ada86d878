import { create } from "zustand";

export interface PaletteCommand {
  readonly id: string;
  readonly title: string;
  readonly keys?: string;
  /** Stands before everything else. */
  readonly isFirst?: boolean;
  readonly run: () => void;
}

interface PaletteState {
  /** What the stage on the screen can do now, asked when the palette opens. */
  readonly stage: () => readonly PaletteCommand[];
  /** From the key that opens the palette on: what is typed then is meant for it, even before it is drawn. */
  readonly isOpen: boolean;
  readonly setOpen: (isOpen: boolean) => void;
  readonly typed: string;
  readonly setTyped: (typed: string) => void;
  readonly offer: (stage: PaletteState["stage"]) => () => void;
}

const nothing: PaletteState["stage"] = () => [];

/** Commands that a stage puts into Ctrl+K beside those of the whole version. */
export const usePalette = create<PaletteState>((set, get) => ({
  stage: nothing,
  isOpen: false,
  setOpen: (isOpen) => {
    if (isOpen && !get().isOpen) catchTyping();
    set({ isOpen, typed: "" });
  },
  typed: "",
  setTyped: (typed) => set({ typed }),
  offer: (stage) => {
    set({ stage });
    return () => get().stage === stage && set({ stage: nothing });
  },
}));

/** Keeps what is typed between the key that opens the palette and the moment its field has the focus: it is meant for the field. */
function catchTyping(): void {
  let entered = false;
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    const { typed, setTyped, setOpen } = usePalette.getState();
    if (event.key === "Escape") {
      stop();
      setOpen(false);
    } else if (event.key === "Enter") entered = true;
    else if (event.key === "Backspace") setTyped(typed.slice(0, -1));
    else if (event.key.length === 1) setTyped(typed + event.key);
  };
  const onFocus = (event: FocusEvent) => {
    const field = event.target as HTMLElement;
    if (!field.matches?.("[cmdk-input]")) return;
    stop();
    const again = () => field.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
    // What is typed has to become the list before its first row can be taken.
    if (entered) setTimeout(again, 300);
  };
  const stop = () => {
    window.removeEventListener("keydown", onKey, true);
    document.removeEventListener("focusin", onFocus);
  };
  window.addEventListener("keydown", onKey, true);
  document.addEventListener("focusin", onFocus);
  // A palette that does not come must not keep the keyboard.
  setTimeout(stop, 10_000);
}
