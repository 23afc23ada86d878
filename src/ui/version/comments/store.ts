import { create } from "zustand";
import type { About } from "@/contract/comments";

interface CommentsShown {
  readonly isOpen: boolean;
  readonly part: "comments" | "review";
  readonly filter: "open" | "mine" | "all";
  /** What somebody pointed at to talk about; null: what is selected on the diagram, or the version. */
  readonly about: About | null;
  readonly set: (shown: Partial<Omit<CommentsShown, "set">>) => void;
}

/** Whether the column of comments and reviews is open, and what it shows; it stays open from stage to stage. */
export const useCommentsShown = create<CommentsShown>((set) => ({
  isOpen: false,
  part: "comments",
  filter: "open",
  about: null,
  set: (shown) => set(shown),
}));

/** What a thread can be about, within what is kept of it. */
export const aboutOf = (kind: About["kind"], key: string, words: string): About => ({
  kind,
  key: key.slice(0, 2_000),
  words: words.slice(0, 500),
});

/** Opens the comments with what they are to be about. */
export const commentOn = (about: About): void =>
  useCommentsShown.getState().set({ isOpen: true, part: "comments", about });
