/** The stages of a version, in the order of the work. */
export const stages = ["brief", "steps", "diagram", "check", "walk", "compare", "handoff"] as const;
export type StageName = (typeof stages)[number];

export type StageSign =
  | { readonly kind: "none" | "begun" | "done" }
  | { readonly kind: "attention"; readonly count: number };

/** What is known of a version, of which its stages' signs tell. */
export interface Standing {
  readonly brief: { readonly sentences: number; readonly accounted: number } | null;
  /** Flow nodes; more than three are as good as three. */
  readonly nodes: number;
  /** Findings nobody accepted; undefined while they are not known yet. */
  readonly open: { readonly errors: number; readonly warnings: number } | undefined;
  readonly walks: number;
  readonly failingWalks: number;
  /** Versions of its process, itself among them. */
  readonly versions: number;
  readonly isCopy: boolean;
  readonly handedOff: number;
}

const none: StageSign = { kind: "none" };
const begun: StageSign = { kind: "begun" };
const done: StageSign = { kind: "done" };
const attention = (count: number): StageSign => ({ kind: "attention", count });

/** The state of each stage. A start, an end and something between are a process; less is one that was begun. */
export function stageSigns(at: Standing): { readonly [stage in StageName]: StageSign } {
  const open = at.open && at.open.errors + at.open.warnings;
  return {
    brief: !at.brief || at.brief.sentences === 0 ? none : at.brief.accounted === at.brief.sentences ? done : begun,
    steps: at.nodes === 0 ? none : at.nodes < 3 ? begun : done,
    diagram: at.nodes === 0 ? none : (at.open?.errors ?? 0) > 0 || at.nodes < 3 ? begun : done,
    check: at.nodes === 0 ? none : open === undefined ? begun : open > 0 ? attention(open) : done,
    walk: at.failingWalks > 0 ? attention(at.failingWalks) : at.walks > 0 ? done : none,
    compare: at.versions < 2 ? none : at.isCopy ? done : begun,
    handoff: at.handedOff > 0 ? done : none,
  };
}
