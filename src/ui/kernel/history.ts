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

/** Notes something that was done, so that it can be taken back. */
export function did(act: Act): void {
  open?.forgetUndone();
  useHistory.setState(({ done }) => ({
    done: [...done.slice(1 - mostKept), { ...act, at: nextMoment() }],
    undone: [],
  }));
}

/** Notes what was done before, at its moments: edits of a version that is being closed. */
export function didBefore(acts: readonly Entry[]): void {
  useHistory.setState(({ done }) => ({
    done: [...done, ...acts].sort((one, other) => one.at - other.at).slice(-mostKept),
  }));
}

/** An edit was made: acts that were taken back before are not brought again. */
export const forgetUndoneActs = (): void => {
  if (useHistory.getState().undone.length > 0) useHistory.setState({ undone: [] });
};

/** Does something that can be taken back, and notes it. What comes of it is told to what takes it back. */
export async function doAct<Done>(
  label: string,
  forth: () => Promise<Done>,
  back: (done: Done) => Promise<unknown>,
): Promise<Done> {
  let done = await forth();
  did({
    label,
    undo: () => back(done),
    redo: async () => {
      done = await forth();
    },
  });
  return done;
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
  const history = useHistory.getState();
  if (history.isBusy) return undefined;
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
