import { create } from "zustand";

/**
 * What this member did in this workspace, in one order, each told by its name and taken back one after the other, wherever one is now:
 * acts of every stage, of Home and of the directory stand here; edits of the open version stand with its store, and take their place
 * among them by the moment they were made.
 */
export interface Act {
  readonly label: string;
  /** Takes it back; a refusal says why it cannot be. */
  readonly undo: () => Promise<unknown>;
  readonly redo: () => Promise<unknown>;
}

export interface Entry extends Act {
  readonly at: number;
  /** When it was begun, where its answer came later: answers may come in another order than was asked. */
  readonly begun?: number;
}

/** What an open version has to take back and bring again, the last first. */
export interface OpenEdits {
  readonly last: () => { readonly label: string; readonly at: number } | undefined;
  readonly undone: () => { readonly label: string; readonly at: number } | undefined;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Something else was done: what was taken back before is not brought again. */
  readonly forgetUndone: () => void;
}

interface History {
  readonly done: readonly Entry[];
  readonly undone: readonly Entry[];
  readonly isBusy: boolean;
}

const mostKept = 200;
export const useHistory = create<History>(() => ({ done: [], undone: [], isBusy: false }));

let moment = 0;
/** A moment after all others, for putting edits among acts. */
export const nextMoment = (): number => ++moment;

let open: OpenEdits | undefined;
/** An open version brings its edits into the order; gives a way to take them out again. */
export function joinHistory(edits: OpenEdits): () => void {
  open = edits;
  return () => {
    if (open === edits) open = undefined;
  };
}

/** Notes something that was done, so that it can be taken back: before what was begun after it, though that was answered first. */
export function did(act: Act, begun = nextMoment()): void {
  open?.forgetUndone();
  useHistory.setState(({ done }) => {
    const next = done.find((entry) => (entry.begun ?? entry.at) > begun);
    const at = next ? next.at - 2 ** -10 : nextMoment();
    return { done: inOrder([...done, { ...act, at, begun }]), undone: [] };
  });
}

const inOrder = (acts: readonly Entry[]): Entry[] => [...acts].sort((one, other) => one.at - other.at).slice(-mostKept);

/** Notes what was done before, at its moments: edits of a version that is being closed. */
export function didBefore(acts: readonly Entry[]): void {
  useHistory.setState(({ done }) => ({
    done: inOrder([...done, ...acts]),
  }));
}

/** An edit was made: acts that were taken back before are not brought again. */
export const forgetUndoneActs = (): void => {
  if (useHistory.getState().undone.length > 0) useHistory.setState({ undone: [] });
};

/** Acts that were begun and not answered yet, by the moment they were begun. */
const underWay = new Map<number, Promise<unknown>>();

/** Does something that can be taken back, and notes it. What comes of it is told to what takes it back. */
export async function doAct<Done>(
  label: string,
  forth: () => Promise<Done>,
  back: (done: Done) => Promise<unknown>,
): Promise<Done> {
  const begun = nextMoment();
  const noted = (async () => {
    let done = await forth();
    const redo = async () => {
      done = await forth();
    };
    did({ label, undo: () => back(done), redo }, begun);
    return done;
  })();
  underWay.set(begun, noted);
  try {
    return await noted;
  } finally {
    underWay.delete(begun);
  }
}

/** What was begun after all that is noted is waited for: it is that, not what was done before it, which is meant to be taken back. */
async function lastIsNoted(): Promise<void> {
  const act = useHistory.getState().done.at(-1);
  const last = Math.max(act?.begun ?? act?.at ?? 0, open?.last()?.at ?? 0);
  await Promise.allSettled([...underWay].filter(([begun]) => begun > last).map(([, noted]) => noted));
}

/** What would be taken back next, and brought again next, by name. */
export function nextInHistory(): { readonly undo: string | undefined; readonly redo: string | undefined } {
  const { done, undone } = useHistory.getState();
  return { undo: later(done.at(-1), open?.last())?.label, redo: later(undone.at(-1), open?.undone())?.label };
}

const later = <One extends { readonly at: number }, Other extends { readonly at: number }>(
  one: One | undefined,
  other: Other | undefined,
) => (one && (!other || one.at > other.at) ? one : other);

/** What was taken back or brought again, and whether it is an edit of what is open, which one sees anyway. */
export interface Turned {
  readonly label: string;
  readonly isSeen: boolean;
}

/** Takes back what was done last; gives what it was, nothing where there is nothing. */
export const undoLast = (): Promise<Turned | undefined> => turn("done", "undone");
/** Brings again what was taken back last. */
export const redoLast = (): Promise<Turned | undefined> => turn("undone", "done");

async function turn(from: "done" | "undone", to: "done" | "undone"): Promise<Turned | undefined> {
  if (useHistory.getState().isBusy) return undefined;
  if (underWay.size > 0) {
    useHistory.setState({ isBusy: true });
    await lastIsNoted();
    useHistory.setState({ isBusy: false });
  }
  const history = useHistory.getState();
  const act = history[from].at(-1);
  const edit = from === "done" ? open?.last() : open?.undone();
  if (edit && (!act || edit.at > act.at)) {
    if (from === "done") open?.undo();
    else open?.redo();
    return { label: edit.label, isSeen: true };
  }
  if (!act) return undefined;
  useHistory.setState({ isBusy: true, [from]: history[from].slice(0, -1) });
  try {
    await (from === "done" ? act.undo() : act.redo());
    useHistory.setState((now) => ({ [to]: [...now[to], { ...act, at: nextMoment() }] }));
    return { label: act.label, isSeen: false };
  } finally {
    // One that cannot be taken back any more is out of the way; what was done before it still can.
    useHistory.setState({ isBusy: false });
  }
}
