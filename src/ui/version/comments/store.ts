import { create } from "zustand";

interface CommentsShown {
  readonly isOpen: boolean;
  readonly part: "comments" | "review";
  readonly filter: "open" | "mine" | "all";
  readonly set: (shown: Partial<Omit<CommentsShown, "set">>) => void;
}

/** Whether the column of comments and reviews is open, and what it shows; it stays open from stage to stage. */
export const useCommentsShown = create<CommentsShown>((set) => ({
  isOpen: false,
  part: "comments",
  filter: "open",
  set: (shown) => set(shown),
}));
