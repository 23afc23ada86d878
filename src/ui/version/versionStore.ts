import { nanoid } from "nanoid";
import { createStore } from "zustand/vanilla";
import { inVersion } from "@/contract";
import { concerns } from "@/contract/events";
import type { Since, VersionData } from "@/contract/version";
import { type Command, perform, undoOf } from "@/core/commands";
import { type MergeConflict, meet, mergeModels, replacementEdits } from "@/core/merge";
import { applyEdits, type Edit, type Model, trustStored } from "@/core/model";
import { ask, ServerError } from "../kernel/ask";
import { onHappened } from "../kernel/events";
import { didBefore, forgetUndoneActs, joinHistory, nextMoment } from "../kernel/history";
import { reasons, text } from "../messages";

import { editElsewhere } from "./editElsewhere";

import { openOutbox, type PendingBatch } from "./outbox";
import type { Joined, Step, VersionActions, VersionState } from "./versionState";

/** Milliseconds within which a browser has painted what changed: two frames. */
const paintedIn = 30;

/**
 * The state of one open version: its model, what is not saved yet, and what can be undone. `isLate`: something was done to it while it
 * was on its way, which may not be in it.
 */
export function createVersionStore(info: VersionData, isLate = false) {
  // The acknowledged state, which pending batches are performed on.
  let base = { model: trustStored(info.model), sequence: info.sequence, generation: info.generation };
  let sending = false;
  let closed = false;
  /** Whether somebody may have changed the version since what is known. */
  let lookIsDue = false;
  let retryIn = 500;
  const waiting: { readonly resolve: () => void; readonly reject: (reason: Error) => void }[] = [];
  const outbox = openOutbox(info.version.id);
  const writeOutbox = (pending: readonly PendingBatch[]) => void outbox.write(pending);

  const store = createStore<VersionState & VersionActions>((set, get) => {
    const say: VersionActions["say"] = (kind, message) =>
      set((state) => ({ notice: { count: (state.notice?.count ?? 0) + 1, kind, message } }));

    const mayChange = (): boolean => {
      const may = get().info.rights.includes("edit");
      if (!may) say("refusal", text.lacking.edit);
      return may;
    };

    const accept = (commands: readonly Command[]): { model: Model; step: Step; remarks: string[] } | undefined => {
      if (!mayChange()) return undefined;
      let { model } = get();
      const edits: Edit[] = [];
      const remarks: string[] = [];
      let label = "";
      for (const command of commands) {
        const done = perform(model, command);
        if (!done.ok) {
          say("refusal", reasons(done.problems));
          return undefined;
        }
        model = done.value.model;
        edits.push(...done.value.edits);
        remarks.push(...done.value.remarks);
        label ||= done.value.label;
      }
      return { model, step: { edits, label, at: nextMoment() }, remarks };
    };

    const send = (commands: readonly Command[], label: string, keep?: string) => {
      const pending = [...get().pending, { batch: nanoid(), label, commands, ...(keep && { keep }) }];
      set({ pending });
      writeOutbox(pending);
      // After the change has been painted: to ask takes as long as to draw a good part of it.
      setTimeout(() => void flush(), paintedIn);
    };

    const tellSettled = () => {
      for (const { resolve } of waiting.splice(0)) resolve();
      if (closed) outbox.close();
    };
    /** Whoever waits until all is saved is told why it is not, instead of waiting for ever. */
    const tellUnsettled = (reason: string) => {
      for (const { reject } of waiting.splice(0)) reject(new Error(reason));
    };
    const fail = () => {
      set({ failing: true });
      tellUnsettled(text.saved.noAnswer);
      setTimeout(() => void flush(), retryIn);
      retryIn = Math.min(retryIn * 2, 15_000);
    };

    const flush = async (): Promise<void> => {
      const next = get().pending[0];
      if (sending || !next || get().disagreement) return;
      sending = true;
      try {
        const answer = await ask(inVersion.applyCommands, {
          version: info.version.id,
          batch: next.batch,
          base: base.sequence,
          generation: base.generation,
          commands: next.commands,
          label: next.label,
          ...(next.keep && { keep: next.keep }),
        });
        takeOver(answer, next);
        retryIn = 500;
        sending = false;
        if (get().pending.length > 0) void flush();
        else {
          tellSettled();
          if (lookIsDue) void follow();
        }
      } catch (error) {
        if (error instanceof ServerError && error.status >= 400 && error.status < 500) {
          // Until it is clear what to do, nothing else is sent or taken over.
          if (error.code === "restored") await openAnew();
          else if (error.status === 409) await rejoin(next, error.message);
          else drop(next, error.message);
          sending = false;
          if (!get().failing) void flush();
        } else {
          sending = false;
          fail();
        }
      }
    };

    /** Takes over what others did: now, or as soon as nothing stands against it. */
    const follow = async (): Promise<void> => {
      lookIsDue = true;
      if (closed || sending || get().disagreement || document.visibilityState === "hidden") return;
      lookIsDue = false;
      const { sequence } = base;
      try {
        const { generation } = base;
        const answer = await ask(inVersion.changesSince, { version: info.version.id, base: sequence, generation });
        // A batch of our own is being sent, or was acknowledged meanwhile with the others' changes: then it is looked again.
        if (sending || base.sequence !== sequence) {
          lookIsDue = true;
          if (!sending) void follow();
          return;
        }
        if (answer.since.length === 0) return;
        takeOver(answer);
        if (get().pending.length === 0) tellSettled();
      } catch (error) {
        // Sending says when the server does not answer.
        if (error instanceof ServerError && error.code === "restored" && !sending) {
          sending = true;
          await openAnew();
          sending = false;
          void flush();
        }
      }
    };

    /**
     * The workspace was replaced by a backup: what is here is of another past. The version is opened anew, and what was not saved is
     * made on it as far as it fits; what does not is set aside.
     */
    const openAnew = async () => {
      try {
        await get().reload();
        say("remark", text.saved.restored);
      } catch {
        fail();
      }
    };

    /**
     * What the server did since comes into the base: others' batches, and our own, whose answer may have been lost on its way. What
     * is still pending is performed on top, or joined.
     */
    const takeOver = (answer: Since, sent?: PendingBatch): void => {
      const { model: common } = base;
      let model = common;
      for (const { edits } of answer.since) {
        const applied = applyEdits(model, edits);
        // Where that cannot be had, what others do is asked for again, and this comes up again.
        if (!applied.ok)
          return void get()
            .reload()
            .catch(() => undefined);
        model = applied.value;
      }
      const ours = get();
      const done = new Set(answer.since.map(({ batch }) => batch));
      const isOwn = (batch: string) => ours.pending.some((one) => one.batch === batch);
      const own = ours.pending.filter(({ batch }) => done.has(batch)).length;
      // Not even ours, where the state one started from held the batch already.
      const onlyOurs = own === done.size && (!sent || done.has(sent.batch));
      if (sent) done.add(sent.batch);
      const pending = ours.pending.filter(({ batch }) => !done.has(batch));
      // What others did and what is not saved yet may be about the same thing: then nobody's goes over the other's without a word.
      const others = answer.since.filter(({ batch }) => !isOwn(batch)).flatMap(({ edits }) => edits);
      const meeting = others.length > 0 && meet(editsOf(pending, common, ours.pending), others);
      base = { ...base, model, sequence: answer.sequence };
      if (pending.length < ours.pending.length) writeOutbox(pending);
      if (onlyOurs) return set({ pending, failing: false });
      const ahead = meeting ? undefined : pendingOn(model, pending);
      if (ahead) return set({ pending, failing: false, model: ahead });
      set({ pending });
      join({ common, ours: ours.model, theirs: model, sequence: answer.sequence, label: pending[0]?.label ?? "" });
    };

    /** What is here and what is there become one, change by change; what both changed is asked, and until then nothing is given up. */
    const join = (joined: Joined) => {
      const merged = mergeModels(joined.common, joined.ours, joined.theirs);
      if (merged.conflicts.length > 0) {
        tellUnsettled(text.saved.undecided);
        return set({ disagreement: { ...joined, conflicts: merged.conflicts } });
      }
      sendJoined(joined, merged.model);
      say("remark", text.saved.joined(joined.label));
    };

    /** The server says no to a batch. Where the model has moved on, both states are joined; else the change cannot be. */
    const rejoin = async (refused: PendingBatch, message: string) => {
      const { model: common, sequence } = base;
      const fresh = await ask(inVersion.openVersion, { version: info.version.id }).catch(() => null);
      if (!fresh) return fail();
      if (fresh.generation !== base.generation) return openAnew();
      if (fresh.sequence === sequence) return drop(refused, message);
      const theirs = trustStored(fresh.model);
      join({ common, ours: get().model, theirs, sequence: fresh.sequence, label: refused.label });
    };

    const sendJoined = ({ theirs, sequence, label }: Joined, model: Model, keep?: string) => {
      base = { ...base, model: theirs, sequence };
      const edits = replacementEdits(theirs, model);
      // The server has answered since; whether it goes on answering, the next question shows.
      set({ model, pending: [], failing: false, disagreement: null, undoStack: [], redoStack: [] });
      if (edits.length > 0) send([{ type: "edits", label, edits: edits as never }], label, keep);
      else {
        writeOutbox([]);
        tellSettled();
      }
    };

    /** The server will never take a batch: it is set aside with its reason, and the rest is performed without it. */
    const drop = (refused: PendingBatch, message: string) => {
      const pending = get().pending.filter((batch) => batch.batch !== refused.batch);
      const { batch, label } = refused;
      set((state) => ({
        pending,
        model: performedOn(base.model, pending),
        failing: false,
        undoStack: [],
        redoStack: [],
        setAside: [...state.setAside, { batch, label, reason: message }],
      }));
      writeOutbox(pending);
      say("refusal", text.saved.setAside(label, message));
      if (pending.length === 0) tellSettled();
    };

    /** What some of the pending batches did on the state they all were made on. */
    const editsOf = (some: readonly PendingBatch[], model: Model, all: readonly PendingBatch[]): Edit[] => {
      let current = model;
      return all.flatMap((batch) =>
        batch.commands.flatMap((command) => {
          const done = perform(current, command);
          if (!done.ok) return [];
          current = done.value.model;
          return some.includes(batch) ? done.value.edits : [];
        }),
      );
    };

    /** Pending batches performed on a model; undefined where one of them no longer fits. */
    const pendingOn = (model: Model, pending: readonly PendingBatch[]): Model | undefined => {
      let current = model;
      for (const command of pending.flatMap((batch) => batch.commands)) {
        const done = perform(current, command);
        if (!done.ok) return undefined;
        current = done.value.model;
      }
      return current;
    };
    /** The same as far as they fit: for what an earlier window left, which the server will say no to. */
    const performedOn = (model: Model, pending: readonly PendingBatch[]): Model =>
      pending.reduce((current, batch) => pendingOn(current, [batch]) ?? current, model);

    const stopHearing = onHappened(({ things, sequences }) => {
      if (!concerns([{ kind: "version", id: info.version.id }], things)) return;
      const reached = sequences?.[info.version.id];
      if (reached === undefined || reached > base.sequence) void follow();
    });
    if (isLate) void Promise.resolve().then(follow);
    const onShown = () => void (lookIsDue && follow());
    document.addEventListener("visibilitychange", onShown);
    const leaveHistory = joinHistory({
      last: () => get().undoStack.at(-1),
      undone: () => get().redoStack.at(-1),
      undo: () => get().undo(),
      redo: () => get().redo(),
      forgetUndone: () => set({ redoStack: [] }),
    });

    void outbox.read().then((kept) => {
      if (kept.length === 0) return;
      writeOutbox([...kept, ...get().pending]);
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
      setAside: [],
      undoStack: [],
      redoStack: [],
      notice: null,
      disagreement: null,
      say,
      dispatch: (...commands) => get().dispatchKeeping("", ...commands),
      dispatchKeeping: (keep, ...commands) => {
        const accepted = accept(commands);
        if (!accepted) return false;
        if (accepted.step.edits.length === 0) return true;
        set((state) => ({
          model: accepted.model,
          undoStack: [...state.undoStack.slice(-199), accepted.step],
          redoStack: [],
        }));
        forgetUndoneActs();
        for (const remark of accepted.remarks) say("remark", remark);
        send(commands, accepted.step.label, keep);
        return true;
      },
      take: ({ commands, edits, label, remarks, model }) => {
        if (edits.length === 0 || !mayChange()) return;
        set((state) => ({
          model,
          undoStack: [...state.undoStack.slice(-199), { edits, label, at: nextMoment() }],
          redoStack: [],
        }));
        forgetUndoneActs();
        for (const remark of remarks) say("remark", remark);
        send(commands, label);
      },
      amend: (...commands) => {
        const accepted = accept(commands);
        if (!accepted) return false;
        if (accepted.step.edits.length === 0) return true;
        set((state) => {
          const last = state.undoStack.at(-1) ?? { ...accepted.step, edits: [] };
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
        // What somebody else has changed since cannot be taken back; what was done before it still can.
        if (!accepted) return set((state) => ({ undoStack: state.undoStack.slice(0, -1) }));
        set((state) => ({
          model: accepted.model,
          undoStack: state.undoStack.slice(0, -1),
          redoStack: [...state.redoStack, { ...accepted.step, label: step.label }],
        }));
        send([command], `undo: ${step.label}`);
      },
      redo: () => {
        const step = get().redoStack.at(-1);
        if (!step) return;
        const command = { ...undoOf(step), label: step.label } as Command;
        const accepted = accept([command]);
        if (!accepted) return set((state) => ({ redoStack: state.redoStack.slice(0, -1) }));
        set((state) => ({
          model: accepted.model,
          redoStack: state.redoStack.slice(0, -1),
          undoStack: [...state.undoStack, { ...accepted.step, label: step.label }],
        }));
        send([command], step.label);
      },
      noteVersion: (told) =>
        set(({ info: known }) => ({
          info: {
            ...known,
            version: { ...known.version, ...told },
            siblings: known.siblings.map((one) => (one.id === known.version.id ? { ...one, ...told } : one)),
          },
        })),
      reload: async () => {
        const fresh = await ask(inVersion.openVersion, { version: info.version.id });
        base = { model: trustStored(fresh.model), sequence: fresh.sequence, generation: fresh.generation };
        set((state) => ({
          info: fresh,
          model: performedOn(base.model, state.pending),
          failing: false,
          undoStack: [],
          redoStack: [],
        }));
        void flush();
      },
      decide: (side) => {
        const { disagreement } = get();
        if (!disagreement) return;
        const { common, theirs } = disagreement;
        const merged = mergeModels(common, get().model, theirs, { decide: side });
        // What was done while the question stood may meet theirs too: nobody has decided that yet.
        const keyOf = ({ element, field, ours }: MergeConflict) => JSON.stringify([element, field, ours]);
        const asked = new Set(disagreement.conflicts.map(keyOf));
        if (merged.conflicts.some((conflict) => !asked.has(keyOf(conflict))))
          return set({ disagreement: { ...disagreement, conflicts: merged.conflicts } });
        sendJoined(disagreement, merged.model, text.saved.keptBefore);
      },
      close: () => {
        stopHearing();
        leaveHistory();
        // What was done here can be taken back from wherever one goes next.
        didBefore(get().undoStack.map((step) => ({ ...editElsewhere(info.version.id, step), at: step.at })));
        document.removeEventListener("visibilitychange", onShown);
        closed = true;
        // What is not acknowledged yet is sent all the same; until then its outbox stays this one's.
        if (get().pending.length === 0) outbox.close();
      },
      forgetAside: () => set({ setAside: [] }),
      noteBrief: (brief) => set((state) => ({ info: { ...state.info, brief } })),
      settled: () => {
        const { pending, disagreement, failing } = get();
        if (pending.length === 0) return Promise.resolve();
        if (disagreement) return Promise.reject(new Error(text.saved.undecided));
        if (failing) {
          retryIn = 500;
          void flush();
        }
        return new Promise((resolve, reject) => waiting.push({ resolve, reject }));
      },
    };
  });
  return store;
}

export type VersionStore = ReturnType<typeof createVersionStore>;
