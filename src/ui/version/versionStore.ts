import { nanoid } from "nanoid";
import { createStore } from "zustand/vanilla";
import { type Command, perform, undoOf } from "@/core/commands";
import { applyEdits, type Edit, type Model, type StoredModel, trustStored } from "@/core/model";
import { ask, ServerError } from "../api";
import { type PendingBatch, readOutbox, writeOutbox } from "./outbox";

export interface VersionInfo {
  readonly version: {
    readonly id: string;
    readonly name: string;
    readonly kind: "as-is" | "to-be";
    readonly source: string | null;
  };
  readonly process: { readonly id: string; readonly name: string };
  readonly trail: readonly string[];
  readonly siblings: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: "as-is" | "to-be";
    readonly source: string | null;
  }[];
  readonly sequence: number;
  readonly handedOff: number;
  /** How much of the description the models account for; null where the process has none. */
  readonly brief: { readonly sentences: number; readonly accounted: number } | null;
  readonly model: StoredModel;
}

/** Commands and what they came to. */
interface Plan {
  readonly commands: readonly Command[];
  readonly edits: readonly Edit[];
  readonly label: string;
  readonly remarks: readonly string[];
  readonly model: Model;
}

interface Step {
  readonly edits: readonly Edit[];
  readonly label: string;
}

export interface VersionState {
  readonly info: VersionInfo;
  /** The model as the person sees it: acknowledged and pending commands alike. */
  readonly model: Model;
  readonly pending: readonly PendingBatch[];
  readonly failing: boolean;
  readonly undoStack: readonly Step[];
  readonly redoStack: readonly Step[];
  /** A "no" to be shown, with a number so that the same one can be shown again. */
  readonly notice: { readonly count: number; readonly kind: "refusal" | "remark"; readonly message: string } | null;
}

export interface VersionActions {
  /** Performs commands here at once and sends them. Says whether they were accepted. */
  readonly dispatch: (...commands: readonly Command[]) => boolean;
  /** Takes over commands that were planned on the model as it is now, without performing them again. */
  readonly take: (plan: Plan) => void;
  /** The same as a part of the last gesture: undo takes both back. */
  readonly amend: (...commands: readonly Command[]) => boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly say: (kind: "refusal" | "remark", message: string) => void;
  readonly reload: () => Promise<void>;
  /** The description was changed or accounted for: the stage's sign follows. */
  readonly noteBrief: (brief: VersionInfo["brief"]) => void;
  /** Resolves when everything is acknowledged. */
  readonly settled: () => Promise<void>;
}

/** The state of one open version: its model, what is not saved yet, and what can be undone. */
export function createVersionStore(info: VersionInfo) {
  // The acknowledged state, which pending batches are performed on.
  let base = { model: trustStored(info.model), sequence: info.sequence };
  let sending = false;
  let retryIn = 500;
  const waiting: (() => void)[] = [];

  const store = createStore<VersionState & VersionActions>((set, get) => {
    const say: VersionActions["say"] = (kind, message) =>
      set((state) => ({ notice: { count: (state.notice?.count ?? 0) + 1, kind, message } }));

    const accept = (commands: readonly Command[]): { model: Model; step: Step; remarks: string[] } | undefined => {
      let { model } = get();
      const edits: Edit[] = [];
      const remarks: string[] = [];
      let label = "";
      for (const command of commands) {
        const done = perform(model, command);
        if (!done.ok) {
          say("refusal", done.problems.map((problem) => problem.message).join(" "));
          return undefined;
        }
        model = done.value.model;
        edits.push(...done.value.edits);
        remarks.push(...done.value.remarks);
        label ||= done.value.label;
      }
      return { model, step: { edits, label }, remarks };
    };

    const send = (commands: readonly Command[], label: string) => {
      const pending = [...get().pending, { batch: nanoid(), label, commands }];
      set({ pending });
      void writeOutbox(info.version.id, pending);
      // After the change has been painted.
      setTimeout(() => void flush());
    };

    const flush = async (): Promise<void> => {
      const next = get().pending[0];
      if (sending || !next) return;
      sending = true;
      try {
        const answer = await ask<{ sequence: number; since: { batch: string; edits: Edit[] }[] }>("applyCommands", {
          version: info.version.id,
          batch: next.batch,
          base: base.sequence,
          commands: next.commands,
          label: next.label,
        });
        acknowledge(next, answer);
        retryIn = 500;
        sending = false;
        if (get().pending.length > 0) void flush();
        else for (const resolve of waiting.splice(0)) resolve();
      } catch (error) {
        sending = false;
        if (error instanceof ServerError && error.status >= 400 && error.status < 500) await drop(next, error.message);
        else {
          set({ failing: true });
          setTimeout(() => void flush(), retryIn);
          retryIn = Math.min(retryIn * 2, 15_000);
        }
      }
    };

    const acknowledge = (
      sent: PendingBatch,
      answer: { sequence: number; since: { batch: string; edits: Edit[] }[] },
    ) => {
      let { model } = base;
      for (const { edits } of answer.since) {
        const applied = applyEdits(model, edits);
        if (!applied.ok) {
          void get().reload();
          return;
        }
        model = applied.value;
      }
      base = { model, sequence: answer.sequence };
      const pending = get().pending.filter((batch) => batch.batch !== sent.batch);
      void writeOutbox(info.version.id, pending);
      // Somebody else's edits came along: what is still pending is performed on top of them.
      const onlyOurs = answer.since.every(({ batch }) => batch === sent.batch);
      set({ pending, failing: false, ...(!onlyOurs && { model: performedOn(model, pending) }) });
    };

    /** The server says no to a batch: it goes, and the model is what the server holds, with the rest on top. */
    const drop = async (refused: PendingBatch, message: string) => {
      const pending = get().pending.filter((batch) => batch.batch !== refused.batch);
      set({ pending });
      await writeOutbox(info.version.id, pending);
      say("refusal", message);
      await get().reload();
    };

    const performedOn = (model: Model, pending: readonly PendingBatch[]): Model => {
      let current = model;
      for (const command of pending.flatMap((batch) => batch.commands)) {
        const done = perform(current, command);
        if (done.ok) current = done.value.model;
      }
      return current;
    };

    void readOutbox(info.version.id).then((kept) => {
      if (kept.length === 0) return;
      set((state) => ({
        pending: [...kept, ...state.pending],
        model: performedOn(performedOn(base.model, kept), state.pending),
      }));
      void flush();
    });

    return {
      info,
      model: base.model,
      pending: [],
      failing: false,
      undoStack: [],
      redoStack: [],
      notice: null,
      say,
      dispatch: (...commands) => {
        const accepted = accept(commands);
        if (!accepted) return false;
        if (accepted.step.edits.length === 0) return true;
        set((state) => ({
          model: accepted.model,
          undoStack: [...state.undoStack.slice(-199), accepted.step],
          redoStack: [],
        }));
        for (const remark of accepted.remarks) say("remark", remark);
        send(commands, accepted.step.label);
        return true;
      },
      take: ({ commands, edits, label, remarks, model }) => {
        if (edits.length === 0) return;
        set((state) => ({ model, undoStack: [...state.undoStack.slice(-199), { edits, label }], redoStack: [] }));
        for (const remark of remarks) say("remark", remark);
        send(commands, label);
      },
      amend: (...commands) => {
        const accepted = accept(commands);
        if (!accepted) return false;
        if (accepted.step.edits.length === 0) return true;
        set((state) => {
          const last = state.undoStack.at(-1) ?? { edits: [], label: accepted.step.label };
          const joined = { ...last, edits: [...last.edits, ...accepted.step.edits] };
          return { model: accepted.model, undoStack: [...state.undoStack.slice(0, -1), joined] };
        });
        send(commands, accepted.step.label);
        return true;
      },
      undo: () => {
        const step = get().undoStack.at(-1);
        if (!step) return;
        const command = { ...undoOf(step), label: `undo: ${step.label}` } as Command;
        const accepted = accept([command]);
        if (!accepted) return;
        set((state) => ({
          model: accepted.model,
          undoStack: state.undoStack.slice(0, -1),
          redoStack: [...state.redoStack, { ...step, edits: accepted.step.edits }],
        }));
        send([command], `undo: ${step.label}`);
      },
      redo: () => {
        const step = get().redoStack.at(-1);
        if (!step) return;
        const command = { ...undoOf(step), label: step.label } as Command;
        const accepted = accept([command]);
        if (!accepted) return;
        set((state) => ({
          model: accepted.model,
          redoStack: state.redoStack.slice(0, -1),
          undoStack: [...state.undoStack, { label: step.label, edits: accepted.step.edits }],
        }));
        send([command], step.label);
      },
      reload: async () => {
        const fresh = await ask<VersionInfo>("openVersion", { version: info.version.id });
        base = { model: trustStored(fresh.model), sequence: fresh.sequence };
        set((state) => ({
          info: fresh,
          model: performedOn(base.model, state.pending),
          failing: false,
          undoStack: [],
          redoStack: [],
        }));
        void flush();
      },
      noteBrief: (brief) => set((state) => ({ info: { ...state.info, brief } })),
      settled: () => (get().pending.length === 0 ? Promise.resolve() : new Promise((resolve) => waiting.push(resolve))),
    };
  });
  return store;
}

export type VersionStore = ReturnType<typeof createVersionStore>;
