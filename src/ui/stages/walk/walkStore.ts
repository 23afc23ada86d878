import { create } from "zustand";
import { caseDataOf } from "@/core/feel";
import type { Id } from "@/core/model";
import { type Act, beginPlaying, dataAsked, type Next, nextAct, type Playing, played, type World } from "@/core/tokens";
import type { Pace } from "../../canvas/playing/PlayButtons";

/** Values as a person types them, by name. */
export type TypedData = { readonly [name: string]: string };

interface WalkState {
  /** What is played; the walk begins anew when it is another one. */
  readonly world: World | null;
  readonly process: Id | null;
  readonly start: Id | null;
  /** Every standing of the case so far, and those taken back, which can be gone through again. */
  readonly past: readonly Playing[];
  readonly at: number;
  /** Case data as typed, by name. It counts from where the case stands, and is kept when the case goes back or begins anew. */
  readonly data: TypedData;
  /** The standing at which data was changed last: what was decided up to there was decided by other data. */
  readonly dataSince: number;
  readonly breaks: ReadonlySet<Id>;
  readonly isPlaying: boolean;
  readonly pace: Pace;
  /** Where nobody chooses, the default flow is taken, or else the first. */
  readonly goesUsualWay: boolean;
  /** Other pools of the model are played along, so that their messages come when they are sent. */
  readonly together: boolean;
  /** The scope whose page is looked at, where a person picked one; otherwise the page follows the case. */
  readonly looksAt: string | null;
  readonly begin: (world: World, process: Id, start: Id | null) => void;
  readonly act: (act: Act, times?: number) => void;
  /** One step by itself; false where a person has to choose, or nothing can happen. */
  readonly stepOn: () => boolean;
  /** Shows a case that was played before, with the data it was decided by. */
  readonly load: (playing: readonly Playing[], data?: TypedData) => void;
  /** Goes to a standing. One before the last change of data leaves what followed: it was decided by data that no longer holds. */
  readonly goTo: (at: number) => void;
  /** Gives a value of the case a name; what was gone through after this standing was decided without it, and goes. */
  readonly give: (name: string, value: string) => void;
  /** Whether the case is to stop when it comes to a node. */
  readonly toggleBreak: (node: Id) => void;
  readonly set: (
    change: Partial<Pick<WalkState, "isPlaying" | "pace" | "goesUsualWay" | "together" | "looksAt">>,
  ) => void;
}

export const useWalk = create<WalkState>((set, get) => ({
  world: null,
  process: null,
  start: null,
  past: [],
  at: 0,
  data: {},
  dataSince: 0,
  breaks: new Set(),
  isPlaying: false,
  pace: "usual",
  goesUsualWay: false,
  together: false,
  looksAt: null,
  begin: (world, process, start) =>
    set({
      world,
      process,
      start,
      past: [beginPlaying(world, process, start ?? undefined)],
      at: 0,
      dataSince: 0,
      isPlaying: false,
      looksAt: null,
    }),
  act: (act, times) => {
    const { world, past, at } = get();
    const now = past[at];
    if (!world || !now) return;
    set({ past: [...past.slice(0, at + 1), played(world, now, act, times)], at: at + 1, looksAt: null });
  },
  stepOn: () => {
    const { past, at, act } = get();
    if (at + 1 < past.length) {
      set({ at: at + 1, looksAt: null });
      return true;
    }
    const next = usualNext(get());
    if (!next) return false;
    act(next.act, next.times);
    return true;
  },
  load: (playing, data = {}) => set({ past: playing, data, at: 0, dataSince: 0, isPlaying: false, looksAt: null }),
  goTo: (to) =>
    set(({ past, dataSince }) => {
      const at = Math.max(0, Math.min(past.length - 1, to));
      const isBefore = at < dataSince;
      return {
        at,
        isPlaying: false,
        looksAt: null,
        ...(isBefore && { past: past.slice(0, at + 1), dataSince: at }),
      };
    }),
  give: (name, value) =>
    set(({ data, past, at }) => ({
      data: { ...data, [name]: value },
      past: past.slice(0, at + 1),
      dataSince: at,
    })),
  toggleBreak: (node) =>
    set(({ breaks }) => {
      const next = new Set(breaks);
      if (!next.delete(node)) next.add(node);
      return { breaks: next };
    }),
  set: (change) => set(change),
}));

/** The step that comes by itself; none where a person is to choose. */
export function usualNext({
  world,
  past,
  at,
  data,
  goesUsualWay,
}: Pick<WalkState, "world" | "past" | "at" | "data" | "goesUsualWay">): Next | undefined {
  const now = past[at];
  if (!world || !now) return undefined;
  const next = nextAct(world, now, { data: caseDataOf(data, dataAsked(world)) });
  if (!next || goesUsualWay) return next;
  return next.reason === "default" || next.reason === "first" ? undefined : next;
}
