import { createStore, del, get as read, type UseStore, set as write } from "idb-keyval";
import { nanoid } from "nanoid";
import { create } from "zustand";
import { brief } from "@/contract";
import type { BriefData, BriefLink, ToldProcess } from "@/contract/brief";
import { type BriefContent, type BriefNode, emptyBrief, type Suggestion } from "@/core/brief";
import { ask, ServerError } from "../kernel/ask";
import { wordsOf } from "../kernel/wordsOf";

/** A text that the server has not taken yet, kept in the browser so that a crash of either side loses nothing. */
interface Kept {
  readonly id: string;
  readonly base: number;
  readonly content: BriefContent;
}

interface BriefState {
  readonly process: string | null;
  readonly id: string;
  /** The revision the text here was opened or last saved at. */
  readonly revision: number;
  readonly generation: number;
  readonly content: BriefContent;
  readonly processes: readonly ToldProcess[];
  readonly links: readonly BriefLink[];
  readonly status: "loading" | "saved" | "saving" | "waiting" | "changed-elsewhere" | "failed";
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

let opened: UseStore | undefined;
const drafts = () => {
  opened ??= createStore("lucid-lane-briefs", "drafts");
  return opened;
};
// Without IndexedDB writing still works; only a crash before saving would lose something.
const keep = async (process: string, kept: Kept) => write(process, kept, drafts());
const forget = async (process: string) => del(process, drafts());
const kept = async (process: string) => read<Kept>(process, drafts());
const orNothing = () => undefined;

let timer: ReturnType<typeof setTimeout> | undefined;
let sending: Promise<void> | undefined;
let dirty = false;
/** Saves on the present revision that the server did not answer; it may hold what they wrote. */
let unanswered: string[] = [];

/** The description that is open: its text and marks, what the server holds of it, and where one is in it. */
export const useBrief = create<BriefState>((set, get) => {
  const send = async (): Promise<void> => {
    const { process, id, revision, generation, content } = get();
    if (!process || !dirty) return;
    dirty = false;
    set({ status: "saving" });
    const save = nanoid();
    try {
      const question = { process, brief: id, base: revision, generation, save, unanswered, content };
      const saved = await ask(brief.saveBrief, question);
      if (get().process !== process) return;
      unanswered = [];
      set({ revision: saved.revision, status: dirty ? "saving" : "saved" });
      if (!dirty) await forget(process).catch(orNothing);
    } catch (error) {
      // What could not be sent of a description left since is kept in the browser.
      if (get().process !== process) return;
      dirty = true;
      if (error instanceof ServerError && ["changed-elsewhere", "restored"].includes(error.code))
        set({ status: "changed-elsewhere", problem: error.message });
      else if (error instanceof ServerError && error.status >= 400 && error.status < 500)
        set({ status: "failed", problem: error.message });
      else {
        unanswered = [...unanswered, save].slice(-1000);
        set({ status: "waiting" });
        later(3000);
      }
    }
  };
  const flush = (): Promise<void> => {
    clearTimeout(timer);
    sending = (sending ?? Promise.resolve()).then(send);
    return sending;
  };
  const later = (milliseconds: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void flush(), milliseconds);
  };
  const changed = (content: BriefContent) => {
    const { process, id, revision, status } = get();
    dirty = true;
    set({ content, status: status === "changed-elsewhere" ? status : "saving" });
    if (process) keep(process, { id, base: revision, content }).catch(orNothing);
    if (status !== "changed-elsewhere") later(500);
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
      await sending;
      // Nothing of the former description stays in sight, whether this one opens or not.
      const nothing = { id: nanoid(12), revision: 0, content: emptyBrief, processes: [], links: [], problem: "" };
      set({ process, status: "loading", selected: null, suggestions: null, ...nothing });
      try {
        const data = await ask(brief.openBrief, { process });
        if (get().process !== process) return;
        dirty = false;
        unanswered = [];
        show(process, data);
        const draft = await kept(process).catch(orNothing);
        if (draft && get().process === process) {
          // What was written before the browser went is written on, as if it had just been typed.
          set((state) => ({ id: draft.id, revision: draft.base, loaded: state.loaded + 1, mode: "mark" }));
          changed(draft.content);
        }
      } catch (error) {
        if (get().process === process) set({ status: "failed", problem: wordsOf(error) });
      }
    },
    setDocument: (document) => changed({ ...get().content, document }),
    change: (change) => changed({ ...get().content, ...change }),
    set: (change) => set(change),
    settle: flush,
    resolve: async (choice) => {
      const { process, content } = get();
      if (!process) return;
      const data = await ask(brief.openBrief, { process });
      await forget(process).catch(orNothing);
      dirty = false;
      unanswered = [];
      show(process, data);
      if (choice === "keep") {
        set((state) => ({ loaded: state.loaded + 1 }));
        changed(content);
        await flush();
      }
    },
  };
});
