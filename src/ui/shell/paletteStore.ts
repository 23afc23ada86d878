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
  readonly offer: (stage: PaletteState["stage"]) => () => void;
}

const nothing: PaletteState["stage"] = () => [];

/** Commands that a stage puts into Ctrl+K beside those of the whole version. */
export const usePalette = create<PaletteState>((set, get) => ({
  stage: nothing,
  isOpen: false,
  setOpen: (isOpen) => set({ isOpen }),
  offer: (stage) => {
    set({ stage });
    return () => get().stage === stage && set({ stage: nothing });
  },
}));
