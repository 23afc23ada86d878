import { createStore, del, get as read, type UseStore, set as write } from "idb-keyval";
import { nanoid } from "nanoid";
import { create } from "zustand";
import { decisions } from "@/contract";
import type { OpenedDecisionFile } from "@/contract/decisions";
import { type DecisionDocument, type DecisionEdit, documentText, edited, openDocument } from "@/core/decisions";
import type { Result } from "@/core/model";
import { complain } from "../controls/notices";
import { ask, ServerError } from "../kernel/ask";
import { did } from "../kernel/history";
import { text } from "../messages";

/** A text that the server has not taken yet, kept in the browser so that a crash of either side loses nothing. */
interface Kept {
  readonly base: number;
  readonly content: string;
}

interface DecisionState {
  readonly file: string | null;
  readonly name: string;
  readonly uses: OpenedDecisionFile["uses"];
  readonly document: DecisionDocument | null;
  /** The revision the text here was opened or last saved at. */
  readonly revision: number;
  readonly status: "loading" | "saved" | "saving" | "waiting" | "changed-elsewhere" | "failed" | "gone";
  readonly problem: string;
  readonly open: (file: string) => Promise<void>;
  /** Does an edit, which can be taken back by its name; a refusal is said. */
  readonly edit: (label: string, edit: DecisionEdit) => boolean;
  /** The same for what gives a document by itself. */
  readonly change: (label: string, change: (document: DecisionDocument) => Result<DecisionDocument>) => boolean;
  /** Sends what is not saved, and resolves when it is. */
  readonly settle: () => Promise<void>;
  /** After the file was changed elsewhere: take that, or put this one in its place. */
  readonly resolve: (choice: "take" | "keep") => Promise<void>;
}

let opened: UseStore | undefined;
const drafts = () => {
  opened ??= createStore("lucid-lane-decisions", "drafts");
  return opened;
};
// Without IndexedDB writing still works; only a crash before saving would lose something.
const orNothing = () => undefined;

let timer: ReturnType<typeof setTimeout> | undefined;
let sending: Promise<void> | undefined;
let dirty = false;
/** Saves on the present revision that the server did not answer; it may hold what they wrote. */
let unanswered: string[] = [];

const parsed = (content: string): DecisionDocument | undefined => {
  const read = openDocument(new TextEncoder().encode(content));
  if (read.ok) return read.value;
  complain(new Error(read.problems[0]?.message ?? text.decisions.unreadable));
  return undefined;
};

/** The file of decisions that is open: its text whole, and what the server holds of it. */
export const useDecisions = create<DecisionState>((set, get) => {
  const send = async (): Promise<void> => {
    const { file, document, revision } = get();
    if (!file || !document || !dirty) return;
    dirty = false;
    set({ status: "saving" });
    const save = nanoid();
    try {
      const question = { id: file, base: revision, save, unanswered, content: documentText(document) };
      const saved = await ask(decisions.saveDecisionFile, question);
      if (get().file !== file) return;
      unanswered = [];
      set({ revision: saved.revision, status: dirty ? "saving" : "saved" });
      if (!dirty) await del(file, drafts()).catch(orNothing);
    } catch (error) {
      // What could not be sent of a file left since is kept in the browser.
      if (get().file !== file) return;
      dirty = true;
      if (error instanceof ServerError && error.code === "changed-elsewhere")
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
  const put = (document: DecisionDocument) => {
    const { file, revision, status } = get();
    dirty = true;
    set({ document, status: status === "changed-elsewhere" ? status : "saving" });
    if (file)
      write(file, { base: revision, content: documentText(document) } satisfies Kept, drafts()).catch(orNothing);
    if (status !== "changed-elsewhere") later(300);
  };
  /** Puts a state of a file back, also when another one is open meanwhile. */
  const putInto = async (file: string, document: DecisionDocument) => {
    if (get().file !== file) await get().open(file);
    put(document);
    await flush();
  };
  const show = (data: OpenedDecisionFile, document: DecisionDocument | null) =>
    set({
      file: data.id,
      name: data.name,
      uses: data.uses,
      document,
      revision: data.revision,
      status: "saved",
      problem: "",
    });
  return {
    file: null,
    name: "",
    uses: [],
    document: null,
    revision: 0,
    status: "loading",
    problem: "",
    open: async (file) => {
      if (get().file !== null && get().file !== file) await get().settle();
      set({ file, document: null, status: "loading" });
      dirty = false;
      unanswered = [];
      try {
        const data = await ask(decisions.openDecisionFile, { id: file });
        if (get().file !== file) return;
        const draft = await read<Kept>(file, drafts()).catch(orNothing);
        const kept = draft && draft.content !== data.content ? parsed(draft.content) : undefined;
        show(data, kept ?? parsed(data.content) ?? null);
        if (!kept || !draft) return;
        dirty = true;
        if (draft.base === data.revision) return void (await flush());
        set({ revision: draft.base, status: "changed-elsewhere", problem: text.decisions.draftBehind });
      } catch (error) {
        if (get().file === file)
          set({
            status: error instanceof ServerError && error.status === 404 ? "gone" : "failed",
            problem: (error as Error).message,
          });
      }
    },
    edit: (label, one) => get().change(label, (document) => edited(document, one)),
    change: (label, change) => {
      const { file, document } = get();
      if (!file || !document) return false;
      const next = change(document);
      if (!next.ok) {
        complain(new Error(next.problems.map(({ message }) => message).join(" ")));
        return false;
      }
      if (next.value === document) return true;
      put(next.value);
      did({
        label,
        undo: () => putInto(file, document),
        redo: () => putInto(file, next.value),
      });
      return true;
    },
    settle: () => flush(),
    resolve: async (choice) => {
      const { file, document } = get();
      if (!file) return;
      const data = await ask(decisions.openDecisionFile, { id: file });
      if (choice === "take") {
        dirty = false;
        await del(file, drafts()).catch(orNothing);
        show(data, parsed(data.content) ?? null);
      } else {
        show(data, document);
        dirty = true;
        await flush();
      }
    },
  };
});
