import { create } from "zustand";

interface CommentsShown {
  readonly isOpen: boolean;
  readonly filter: "open" | "mine" | "all";
  /** The thread that is looked at. */
  readonly thread: string | undefined;
  readonly set: (shown: Partial<Omit<CommentsShown, "set">>) => void;
}

/** Whether the column of comments is open, and what it shows; it stays open from stage to stage. */
export const useCommentsShown = create<CommentsShown>((set) => ({
  isOpen: false,
  filter: "open",
  thread: undefined,
  set: (shown) => set(shown),
}));
