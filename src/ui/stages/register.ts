import { attention, begun, done, none, type Stage, type StageSign, type Standing } from "./stage";

/**
 * The stages of a version, in the order of the work. Routes, the journey, Home and Ctrl+K go by this list; only what each page loads
 * stands beside it (StageView), since what the server imports would come with every page.
 */
export const stages = [
  {
    name: "brief",
    words: "brief",
    // What the text leaves open has to be settled, too.
    sign: ({ brief }) => {
      if (!brief || brief.sentences === 0) return none;
      return brief.accounted === brief.sentences && (brief.asks?.length ?? 0) === 0 ? done : begun;
    },
  },
  {
    name: "steps",
    words: "steps",
    // A start, an end and something between are a process; less is one that was begun.
    sign: ({ nodes }) => (nodes === 0 ? none : nodes < 3 ? begun : done),
  },
  {
    name: "diagram",
    words: "diagram",
    sign: ({ nodes, open }) => (nodes === 0 ? none : (open?.errors ?? 0) > 0 || nodes < 3 ? begun : done),
  },
  {
    name: "check",
    words: "check",
    sign: ({ nodes, open }) => {
      if (nodes === 0) return none;
      if (open === undefined) return begun;
      const count = open.errors + open.warnings;
      return count > 0 ? attention(count) : done;
    },
  },
  {
    name: "walk",
    words: "walk",
    sign: ({ walks, failingWalks }) => (failingWalks > 0 ? attention(failingWalks) : walks > 0 ? done : none),
  },
  {
    name: "forecast",
    words: "forecast",
    sign: ({ assumed }) => (assumed === "nothing" ? none : assumed === "something" ? begun : done),
  },
  {
    name: "compare",
    words: "compare",
    sign: ({ versions, isCopy }) => (versions < 2 ? none : isCopy ? done : begun),
  },
  {
    name: "hand-off",
    words: "handoff",
    sign: ({ handedOff }) => (handedOff > 0 ? done : none),
  },
  {
    name: "live",
    words: "live",
    sign: ({ live }) => (live.incidents > 0 ? attention(live.incidents) : live.runs + live.logs > 0 ? done : none),
  },
] as const satisfies readonly Stage[];

export type StageName = (typeof stages)[number]["name"];

/** The stage an address names; undefined where it names none. */
export const stageNamed = (name: string | undefined): (typeof stages)[number] | undefined =>
  stages.find((stage) => stage.name === name);

/** The stage one is in when an address names none. */
export const firstShown: StageName = "diagram";

export type StageSigns = { readonly [stage in StageName]: StageSign };

/** The state of each stage. */
export const stageSigns = (at: Standing): StageSigns =>
  Object.fromEntries(stages.map((stage) => [stage.name, stage.sign(at)])) as unknown as StageSigns;

/** Where a stage of a version is. */
export const stagePath = (version: string, stage: StageName): string => `/v/${encodeURIComponent(version)}/${stage}`;
