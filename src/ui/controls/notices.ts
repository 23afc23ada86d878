import { create } from "zustand";
import { wordsOf } from "../kernel/wordsOf";

/** A short message: what was done, with a way back, or why something could not be done. */
export interface Notice {
  readonly id: number;
  readonly type?: "error";
  readonly description: string;
  readonly action?: { readonly label: string; readonly onClick: () => void };
}

/** How many stand there at once; older ones make room. */
const atMost = 3;
/** Milliseconds a message stands; why something could not be done takes longer to read. */
const stands = { done: 6_000, error: 12_000 } as const;

let last = 0;
const clocks = new Map<number, ReturnType<typeof setTimeout>>();

export const useNotices = create<{ readonly notices: readonly Notice[] }>(() => ({ notices: [] }));

/** Says something in the foot of the window for a while. Gives what it can be taken back by. */
export function tell({ duration, ...said }: Omit<Notice, "id"> & { readonly duration?: number }): number {
  const id = ++last;
  const again = useNotices.getState().notices.filter(({ description }) => description !== said.description);
  useNotices.setState({ notices: [...again, { ...said, id }].slice(-atMost) });
  clocks.set(
    id,
    setTimeout(() => untell(id), duration ?? (said.type === "error" ? stands.error : stands.done)),
  );
  return id;
}

/** Takes a message back; without one, all of them. */
export function untell(id?: number): void {
  const { notices } = useNotices.getState();
  for (const notice of notices) {
    if (id !== undefined && notice.id !== id) continue;
    clearTimeout(clocks.get(notice.id));
    clocks.delete(notice.id);
  }
  useNotices.setState({ notices: id === undefined ? [] : notices.filter((notice) => notice.id !== id) });
}

/** A message that is being read stays. */
export function hold(): void {
  for (const clock of clocks.values()) clearTimeout(clock);
}

/** Afterwards each stands for its time again. */
export function letGo(): void {
  for (const { id, type } of useNotices.getState().notices)
    clocks.set(
      id,
      setTimeout(() => untell(id), type === "error" ? stands.error : stands.done),
    );
}

export function complain(error: unknown): void {
  tell({ type: "error", description: wordsOf(error) });
}
