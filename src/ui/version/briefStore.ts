import { nanoid } from "nanoid";
import { create } from "zustand";
import { brief } from "@/contract";
import type { BriefData, BriefLink, ToldProcess } from "@/contract/brief";
import { type BriefContent, type BriefNode, emptyBrief, type Suggestion } from "@/core/brief";
import { ask } from "../kernel/ask";
import { Saving, type SavingStatus } from "../kernel/saving";
import { wordsOf } from "../kernel/wordsOf";

interface BriefState {
  readonly process: string | null;
  readonly id: string;
  /** The revision the text here was opened or last saved at. */
  readonly revision: number;
  readonly generation: number;
  readonly content: BriefContent;
  readonly processes: readonly ToldProcess[];
  readonly links: readonly BriefLink[];
  readonly status: SavingStatus | "loading";
  readonly problem: string;
  /** Counts the texts put in from outside, so that the page is shown anew. */
  readonly loaded: number;
  readonly mode: "mark" | "write";
  readonly selected: string | null;
  readonly suggestions: readonly Suggestion[] | null;
  readonly current: number;
  readonly open: (process: string) => Promise<void>;
  readonly setDocument: (document: BriefNode) => void;
  readonly change: (change: Partial<BriefContent>) => void;
  readonly set: (change: Partial<Pick<BriefState, "mode" | "selected" | "suggestions" | "current">>) => void;
  /** Sends what is not saved and resolves when it is. */
  readonly settle: () => Promise<void>;
  /** After the text was changed elsewhere: take that, or put this one in its place. */
  readonly resolve: (choice: "take" | "keep") => Promise<void>;
}

/** The description that is open: its text and marks, what the server holds of it, and where one is in it. */
export const useBrief = create<BriefState>((set, get) => {
  const saving = new Saving<{ readonly id: string; readonly content: BriefContent }>({
    database: "lucid-lane-briefs",
    rest: 500,
    now: () => {
      const { process, id, content, revision } = get();
      return { key: process, held: { id, content }, revision };
    },
    send: (process, { id, content }, save) =>
      ask(brief.saveBrief, { process, brief: id, generation: get().generation, content, ...save }),
    tell: set,
  });
  const changed = (content: BriefContent) => {
    set({ content });
    saving.changed(get().status);
  };
  const show = (process: string, data: BriefData) =>
    set((state) => ({
      process,
      id: data.brief?.id ?? nanoid(12),
      revision: data.brief?.revision ?? 0,
      generation: data.generation,
      content: data.brief?.content ?? emptyBrief,
      processes: data.processes,
      links: data.links,
      status: "saved",
      loaded: state.loaded + 1,
      mode: data.brief ? "mark" : "write",
    }));

  return {
    process: null,
    id: "",
    revision: 0,
    generation: 0,
    content: emptyBrief,
    processes: [],
    links: [],
    status: "loading",
    problem: "",
    loaded: 0,
    mode: "write",
    selected: null,
    suggestions: null,
    current: 0,
    open: async (process) => {
      await saving.underWay;
      // Nothing of the former description stays in sight, whether this one opens or not.
      const nothing = { id: nanoid(12), revision: 0, content: emptyBrief, processes: [], links: [], problem: "" };
      set({ process, status: "loading", selected: null, suggestions: null, ...nothing });
      try {
        const data = await ask(brief.openBrief, { process });
        if (get().process !== process) return;
        saving.begin();
        show(process, data);
        const draft = await saving.draft(process);
        if (draft && get().process === process) {
          // What was written before the browser went is written on, as if it had just been typed.
          set((state) => ({ id: draft.id, revision: draft.base, loaded: state.loaded + 1, mode: "mark" }));
          saving.begin(draft.saves);
          changed(draft.content);
        }
      } catch (error) {
        if (get().process === process) set({ status: "failed", problem: wordsOf(error) });
      }
    },
    setDocument: (document) => changed({ ...get().content, document }),
    change: (change) => changed({ ...get().content, ...change }),
    set: (change) => set(change),
    settle: saving.flush,
    resolve: async (choice) => {
      const { process, content } = get();
      if (!process) return;
      const data = await ask(brief.openBrief, { process });
      await saving.forget(process);
      saving.begin();
      show(process, data);
      if (choice === "keep") {
        set((state) => ({ loaded: state.loaded + 1 }));
        changed(content);
        await saving.flush();
      }
    },
  };
});
