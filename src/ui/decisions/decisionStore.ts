import { create } from "zustand";
import { decisions } from "@/contract";
import type { OpenedDecisionFile } from "@/contract/decisions";
import { type DecisionDocument, type DecisionEdit, documentText, edited, openDocument } from "@/core/decisions";
import type { Result } from "@/core/model";
import { complain } from "../controls/notices";
import { ask, ServerError } from "../kernel/ask";
import { did } from "../kernel/history";
import { Saving, type SavingStatus } from "../kernel/saving";
import { text } from "../messages";

interface DecisionState {
  readonly file: string | null;
  readonly name: string;
  readonly uses: OpenedDecisionFile["uses"];
  readonly document: DecisionDocument | null;
  /** The revision the text here was opened or last saved at. */
  readonly revision: number;
  readonly status: SavingStatus | "loading" | "gone";
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

const parsed = (content: string): DecisionDocument | undefined => {
  const read = openDocument(new TextEncoder().encode(content));
  if (read.ok) return read.value;
  complain(new Error(read.problems[0]?.message ?? text.decisions.unreadable));
  return undefined;
};

/** The file of decisions that is open: its text whole, and what the server holds of it. */
export const useDecisions = create<DecisionState>((set, get) => {
  const saving = new Saving<{ readonly content: string }>({
    database: "lucid-lane-decisions",
    rest: 300,
    now: () => {
      const { file, document, revision } = get();
      return { key: document && file, held: { content: document ? documentText(document) : "" }, revision };
    },
    send: (id, { content }, save) => ask(decisions.saveDecisionFile, { id, content, ...save }),
    tell: set,
  });
  const put = (document: DecisionDocument) => {
    set({ document });
    saving.changed(get().status);
  };
  /** Puts a state of a file back, also when another one is open meanwhile. */
  const putInto = async (file: string, document: DecisionDocument) => {
    if (get().file !== file) await get().open(file);
    put(document);
    await saving.flush();
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
      // Also where it is the same one: what is on its way would be taken for somebody else's.
      await saving.flush();
      set({ file, document: null, status: "loading" });
      saving.begin();
      try {
        const data = await ask(decisions.openDecisionFile, { id: file });
        if (get().file !== file) return;
        const draft = await saving.draft(file);
        const kept = draft && draft.content !== data.content ? parsed(draft.content) : undefined;
        show(data, parsed(data.content) ?? null);
        if (!kept || !draft || get().file !== file) return;
        // What was written before the browser went is written on, on the revision it was written on.
        set({ revision: draft.base });
        saving.begin(draft.saves);
        put(kept);
        await saving.flush();
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
    settle: saving.flush,
    resolve: async (choice) => {
      const { file, document } = get();
      if (!file) return;
      const data = await ask(decisions.openDecisionFile, { id: file });
      await saving.forget(file);
      saving.begin();
      if (choice === "take") return show(data, parsed(data.content) ?? null);
      show(data, document);
      if (document) put(document);
      await saving.flush();
    },
  };
});
