import { sql } from "drizzle-orm";
import {
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  uniqueIndex,
} from "drizzle-orm/pg-core";
import { type AreaSeat, seats } from "@/contract/seats";
import type { BriefContent, BriefSummary } from "@/core/brief";
import type { SignedContent, Summary } from "@/core/check";
import type { Reason } from "@/core/compare";
import type { DecisionFileText } from "@/core/decisions";
import type { Description } from "@/core/descriptions";
import type { Judgement, LogFacts, SaidSteps } from "@/core/evidence";
import type { HandbookTemplate } from "@/core/handbook";
import type { BuildState } from "@/core/handoff";
import type { OutwardFacts } from "@/core/landscape";
import type { Lens } from "@/core/lens";
import type { CaseState, LiveCase, StandIn, TimerSet, WaitKind } from "@/core/live";
import type { LiveTarget, StoredModel } from "@/core/model";
import type { WalkTest } from "@/core/tokens";

/** A decision as lists tell it; null where what can come out cannot be listed. */
export interface ToldDecision {
  readonly id: string;
  readonly name: string;
  readonly answers: readonly string[] | null;
  readonly needs: readonly string[];
}

/** The clock of a run: at a real moment it shows a time, and goes so many times as fast; 0: it stands. */
export interface RunClock {
  /** Milliseconds since 1970. */
  readonly real: number;
  readonly shows: number;
  readonly pace: number;
}

const bytes = customType<{ data: Uint8Array }>({ dataType: () => "bytea" });
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: "string" });

/** Deleted things stay with the moment they went, so that deleting can be undone. */
export const areas = pgTable("areas", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  parent: text("parent"),
  rank: integer("rank").notNull().default(0),
  deletedAt: moment("deleted_at"),
});

export const processes = pgTable("processes", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  area: text("area").notNull(),
  rank: integer("rank").notNull().default(0),
  /** The description it was built from; several processes may share one. */
  brief: text("brief"),
  createdAt: moment("created_at").notNull(),
  deletedAt: moment("deleted_at"),
});

/** Descriptions, with their marks and what was settled about the processes they tell of. */
export const briefs = pgTable("briefs", {
  id: text("id").primaryKey(),
  /** Counts the saves, so that one made on an older text is noticed. */
  revision: integer("revision").notNull(),
  /** The name of the last save: one whose answer was lost is known again by it. */
  save: text("save").notNull().default(""),
  content: jsonb("content").$type<BriefContent>().notNull(),
  /** How much of it the models account for, as last counted, and whether that still holds. */
  summary: jsonb("summary").$type<BriefSummary>(),
  summaryHolds: boolean("summary_holds").notNull().default(false),
  member: text("member").notNull(),
  changedAt: moment("changed_at").notNull(),
});

export const versions = pgTable(
  "versions",
  {
    id: text("id").primaryKey(),
    process: text("process").notNull(),
    kind: text("kind", { enum: ["as-is", "to-be"] }).notNull(),
    name: text("name").notNull(),
    /** The version this one was copied from. */
    source: text("source"),
    /** What an improvement is for, in a sentence. */
    aim: text("aim").notNull().default(""),
    /** When it became the as-is. */
    adoptedAt: moment("adopted_at"),
    /** What it is checked for. */
    profile: text("profile", { enum: ["draft", "review", "hand-off"] })
      .notNull()
      .default("review"),
    createdAt: moment("created_at").notNull(),
    deletedAt: moment("deleted_at"),
  },
  (table) => [index("versions_process").on(table.process)],
);

/** What a version holds now: a snapshot, and the number of the last batch of commands. The log holds what came since. */
export const heads = pgTable("heads", {
  version: text("version").primaryKey(),
  sequence: integer("sequence").notNull(),
  /** The name of the last batch: the same sequence with another batch is another state. */
  batch: text("batch").notNull().default(""),
  snapshotSequence: integer("snapshot_sequence").notNull(),
  snapshot: jsonb("snapshot").$type<StoredModel>().notNull(),
  /** Sizes as JSON, for telling when a snapshot is due. */
  snapshotBytes: integer("snapshot_bytes").notNull().default(0),
  loggedBytes: integer("logged_bytes").notNull().default(0),
  /** What Home shows of it: what was last counted, whether that still holds, and why it cannot be read, where it cannot. */
  summary: jsonb("summary").$type<Summary & { readonly outward?: OutwardFacts }>(),
  summaryHolds: boolean("summary_holds").notNull().default(false),
  damaged: text("damaged"),
  changedAt: moment("changed_at").notNull(),
});

export const log = pgTable(
  "log",
  {
    version: text("version").notNull(),
    sequence: integer("sequence").notNull(),
    /** The sender's own name for the batch; a batch sent twice is stored once. */
    batch: text("batch").notNull(),
    /** The form of stored models that the edits are of. */
    form: integer("form").notNull().default(1),
    label: text("label").notNull(),
    commands: jsonb("commands").notNull(),
    edits: jsonb("edits").notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.version, table.sequence] }),
    uniqueIndex("log_batch").on(table.version, table.batch),
  ],
);

export const revisions = pgTable(
  "revisions",
  {
    version: text("version").notNull(),
    number: integer("number").notNull(),
    reason: text("reason").notNull(),
    sequence: integer("sequence").notNull(),
    /** What was kept, whole; null where it is made anew from an older revision and the log. */
    model: jsonb("model").$type<StoredModel>(),
    /** The whole revision that one without a model is made from. */
    builtOn: integer("built_on"),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [primaryKey({ columns: [table.version, table.number] })],
);

export const directory = pgTable("directory", {
  id: text("id").primaryKey(),
  kind: text("kind").notNull(),
  name: text("name").notNull(),
  description: text("description").notNull().default(""),
  unit: text("unit"),
  hue: text("hue"),
  headcount: doublePrecision("headcount"),
  costPerHour: doublePrecision("cost_per_hour"),
  hoursPerWeek: doublePrecision("hours_per_week"),
  deletedAt: moment("deleted_at"),
});

/** Where directory entries are used in heads; kept in step with every batch, in its transaction. */
export const uses = pgTable(
  "uses",
  {
    id: serial("id").primaryKey(),
    version: text("version").notNull(),
    entry: text("entry").notNull(),
    element: text("element").notNull(),
    how: text("how").notNull(),
  },
  (table) => [index("uses_entry").on(table.entry), index("uses_version").on(table.version)],
);

/** Which elements of heads were taken from which marks of a brief; kept in step with every batch, in its transaction. */
export const wordLinks = pgTable(
  "word_links",
  {
    version: text("version").notNull(),
    mark: text("mark").notNull(),
    element: text("element").notNull(),
  },
  (table) => [primaryKey({ columns: [table.version, table.mark, table.element] })],
);

/** Elements of heads with what is written of them, for finding anything anywhere. */
export const elements = pgTable(
  "elements",
  {
    version: text("version").notNull(),
    element: text("element").notNull(),
    name: text("name").notNull(),
    type: text("type").notNull(),
    /** What else is written about it: documentation, notes, conditions, own attributes. */
    words: text("words").notNull().default(""),
    /** The process that a call activity calls, by its id in files. */
    called: text("called"),
    /** The record of that process in this workspace, where the call says it. */
    calledProcess: text("called_process"),
  },
  (table) => [primaryKey({ columns: [table.version, table.element] }), index("elements_called").on(table.called)],
);

/** Files that belong to elements; models name them by id. */
export const files = pgTable("files", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  type: text("type").notNull(),
  size: integer("size").notNull(),
  content: bytes("content").notNull(),
  member: text("member").notNull(),
  at: moment("at").notNull(),
});

export const waivers = pgTable(
  "waivers",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    /** Rule and elements of the finding that is accepted. */
    finding: text("finding").notNull(),
    /** What was true of its elements then: a waiver ends when that changes. */
    about: text("about").notNull().default(""),
    reason: text("reason").notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [index("waivers_version").on(table.version)],
);

/** Walks that are kept and played again after each change. */
export const walkTests = pgTable(
  "walk_tests",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    name: text("name").notNull(),
    rank: integer("rank").notNull(),
    content: jsonb("content").$type<WalkTest>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [index("walk_tests_version").on(table.version)],
);

/** Why the changes between two versions are made, a row for each change. */
export const changeReasons = pgTable(
  "change_reasons",
  {
    /** The newer version, and the one it is compared with. */
    version: text("version").notNull(),
    against: text("against").notNull(),
    /** The change, by what comparisons call it. */
    change: text("change").notNull(),
    /** What the change was in words when the reason was given, for the day it is no longer there. */
    words: text("words").notNull(),
    content: jsonb("content").$type<Reason>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [primaryKey({ columns: [table.version, table.against, table.change] })],
);

/** Verdicts that were signed, each on one revision. One holds while the head has not gone on. */
export const verdicts = pgTable(
  "verdicts",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    revision: integer("revision").notNull(),
    sequence: integer("sequence").notNull(),
    profile: text("profile").notNull(),
    content: jsonb("content").$type<SignedContent>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [index("verdicts_version").on(table.version)],
);

export const handoffs = pgTable(
  "handoffs",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    revision: integer("revision").notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    manifest: jsonb("manifest").notNull(),
    package: bytes("package").notNull(),
  },
  (table) => [index("handoffs_version").on(table.version)],
);

/** Logs of what happened, each kept with the as-is of its process, compressed. */
export const logs = pgTable(
  "logs",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    name: text("name").notNull(),
    facts: jsonb("facts").$type<LogFacts>().notNull(),
    content: bytes("content").notNull(),
    /** Which steps activities are, as somebody said. */
    steps: jsonb("steps").$type<SaidSteps>().notNull(),
    /** What was decided of differences that stay. */
    judged: jsonb("judged").$type<readonly KeptJudgement[]>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    deletedAt: moment("deleted_at"),
  },
  (table) => [index("logs_version").on(table.version)],
);

/** What people say to each other about something of a version, a row a thread. */
export const threads = pgTable(
  "threads",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    /** The thread it was copied from with its version; its own id where it was begun here. */
    origin: text("origin").notNull(),
    about: jsonb("about").$type<About>().notNull(),
    said: jsonb("said").$type<readonly KeptSaid[]>().notNull(),
    assigned: text("assigned"),
    resolvedBy: text("resolved_by"),
    resolvedAt: moment("resolved_at"),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    deletedAt: moment("deleted_at"),
  },
  (table) => [index("threads_version").on(table.version)],
);

/** Links by which a version is read without an account; the token and the password are kept as hashes alone. */
export const links = pgTable(
  "links",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    /** The kept state it shows; none: what the version holds now. */
    revision: integer("revision"),
    name: text("name").notNull(),
    token: text("token").notNull().unique(),
    password: text("password"),
    expiresAt: moment("expires_at"),
    /** Wrong passwords in a row, and until when the next one is not looked at. */
    failures: integer("failures").notNull().default(0),
    lockedUntil: moment("locked_until"),
    /** Which lenses are laid over what it shows. */
    lenses: jsonb("lenses").$type<readonly string[]>().notNull().default([]),
    /** What whoever has it may. */
    allows: text("allows").$type<"read" | "comment">().notNull().default("read"),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    withdrawnAt: moment("withdrawn_at"),
  },
  (table) => [index("links_version").on(table.version)],
);

/** Rounds of review: a kept state, who was asked about it, and what they said. */
export const reviews = pgTable(
  "reviews",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    revision: integer("revision").notNull(),
    /** What the version held then: an approval holds as long as it still does. */
    sequence: integer("sequence").notNull(),
    question: text("question").notNull(),
    due: text("due"),
    reviewers: jsonb("reviewers").$type<readonly string[]>().notNull(),
    answers: jsonb("answers").$type<readonly KeptAnswer[]>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    withdrawnAt: moment("withdrawn_at"),
  },
  (table) => [index("reviews_version").on(table.version)],
);
export interface KeptAnswer {
  readonly member: string;
  readonly answer: "approve" | "remarks" | "reject";
  readonly note: string;
  readonly at: string;
}

/** What is kept of what a thread is about, and of each contribution; members by their ids. */
export interface About {
  readonly kind: "version" | "element" | "sentence" | "finding" | "change" | "figure";
  readonly key: string;
  readonly words: string;
}
export interface KeptSaid {
  readonly id: string;
  readonly member: string;
  /** What somebody without an account called themselves, who came by a link. */
  readonly guest?: string;
  readonly at: string;
  readonly text: string;
  readonly mentions: readonly string[];
  readonly editedAt: string | null;
}

/** As a difference was judged, by a member's id. */
export interface KeptJudgement {
  readonly key: string;
  readonly as: Judgement;
  readonly note: string;
  readonly member: string;
  readonly at: string;
}

/** What descriptions of services that exist say, by the names of their files. */
export const descriptions = pgTable("descriptions", {
  name: text("name").primaryKey(),
  content: jsonb("content").$type<Description>().notNull(),
  member: text("member").notNull(),
  at: moment("at").notNull(),
});

/** Files of decisions: each held whole, as its text. */
export const decisionFiles = pgTable("decision_files", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  content: text("content").notNull(),
  /** The decisions in it, for lists. */
  decisions: jsonb("decisions").$type<readonly ToldDecision[]>().notNull(),
  /** Counts the saves, so that one made on an older text is noticed. */
  revision: integer("revision").notNull(),
  /** The name of the last save: one whose answer was lost is known again by it. */
  save: text("save").notNull().default(""),
  member: text("member").notNull(),
  changedAt: moment("changed_at").notNull(),
  deletedAt: moment("deleted_at"),
});

/** Developers' files that a version is tied to, with what both held after the last sync. */
export const buildCopies = pgTable(
  "build_copies",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    /** Where it is, as the operator's list of places names it. */
    place: text("place").notNull(),
    branch: text("branch").notNull(),
    path: text("path").notNull(),
    /** The file's text after the last sync; null before the first. */
    base: text("base"),
    /** The commit, or the hash of the content, of the last sync, and what the version's revision was then. */
    mark: text("mark"),
    revision: integer("revision"),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    /** How it stood when the server last looked, when that was, and at which state of the version; null before the first look. */
    seen: text("seen").$type<BuildState>(),
    seenAt: moment("seen_at"),
    seenSequence: integer("seen_sequence"),
  },
  (table) => [index("build_copies_version").on(table.version)],
);

/** What was done about a build copy, step by step. */
export const buildSteps = pgTable(
  "build_steps",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    copy: text("copy").notNull(),
    what: text("what").$type<"tied" | "sent" | "taken over" | "in step">().notNull(),
    mark: text("mark"),
    changes: jsonb("changes").$type<readonly string[]>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [index("build_steps_version").on(table.version)],
);

/** Processes that were started up to be run: what is run, as it was then, and the clock it goes by. */
export const runs = pgTable(
  "runs",
  {
    id: text("id").primaryKey(),
    version: text("version").notNull(),
    name: text("name").notNull(),
    /** The revision that was handed off. */
    revision: integer("revision").notNull(),
    process: text("process").notNull(),
    model: jsonb("model").$type<StoredModel>().notNull(),
    called: jsonb("called").$type<readonly { readonly calls: string; readonly model: StoredModel }[]>().notNull(),
    decisions: jsonb("decisions").$type<readonly DecisionFileText[]>().notNull(),
    clock: jsonb("clock").$type<RunClock>().notNull(),
    standIns: jsonb("stand_ins").$type<{ readonly [element: string]: StandIn }>().notNull(),
    seed: integer("seed").notNull(),
    /** Cases so far. */
    cases: integer("cases").notNull().default(0),
    /** The edition that new cases take: 1 is what the run began with, later ones are renewals. */
    edition: integer("edition").notNull().default(1),
    /** When start events with a timer go off next, and how often after that; and the first of these moments, on the run's clock. */
    starts: jsonb("starts").$type<{ readonly [element: string]: TimerSet }>().notNull().default({}),
    startsAt: doublePrecision("starts_at"),
    endedAt: moment("ended_at"),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [index("runs_version").on(table.version)],
);

/** Newer packages that a run took: cases that begin after it run by the newest, others by theirs until they are moved. */
export const renewals = pgTable(
  "renewals",
  {
    run: text("run").notNull(),
    edition: integer("edition").notNull(),
    version: text("version").notNull(),
    revision: integer("revision").notNull(),
    process: text("process").notNull(),
    model: jsonb("model").$type<StoredModel>().notNull(),
    called: jsonb("called").$type<readonly { readonly calls: string; readonly model: StoredModel }[]>().notNull(),
    decisions: jsonb("decisions").$type<readonly DecisionFileText[]>().notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
  },
  (table) => [primaryKey({ columns: [table.run, table.edition] })],
);

/** Signals that a case has thrown, a row for each other case that waited for it then and has still to hear it. */
export const liveSignals = pgTable(
  "live_signals",
  {
    id: text("id").notNull(),
    /** The case that is to hear it. */
    number: integer("number").notNull(),
    run: text("run").notNull(),
    version: text("version").notNull(),
    name: text("name").notNull(),
    at: doublePrecision("at").notNull(),
  },
  (table) => [primaryKey({ columns: [table.id, table.number] })],
);

/** Cases of a run, each whole; what is looked for in lists stands beside it. Times are of the run's clock, in milliseconds. */
export const liveCases = pgTable(
  "live_cases",
  {
    run: text("run").notNull(),
    number: integer("number").notNull(),
    version: text("version").notNull(),
    /** Which edition of its run it runs by. */
    edition: integer("edition").notNull().default(1),
    state: text("state").$type<CaseState>().notNull(),
    isSuspended: boolean("is_suspended").notNull().default(false),
    content: jsonb("content").$type<LiveCase>().notNull(),
    began: doublePrecision("began").notNull(),
    ended: doublePrecision("ended"),
    /** When something comes of its own accord: a timer, a service's answer. */
    dueAt: doublePrecision("due_at"),
    /** How many events it has so far. */
    events: integer("events").notNull().default(0),
  },
  (table) => [
    primaryKey({ columns: [table.run, table.number] }),
    index("live_cases_due").on(table.run, table.dueAt),
    index("live_cases_state").on(table.run, table.state),
  ],
);

/** What cases wait for, a row each: worklists, the mailbox, incidents and the counts on the diagram are read from these. */
export const liveWaits = pgTable(
  "live_waits",
  {
    run: text("run").notNull(),
    number: integer("number").notNull(),
    wait: integer("wait").notNull(),
    version: text("version").notNull(),
    kind: text("kind").$type<WaitKind>().notNull(),
    element: text("element").notNull(),
    /** What the element is called, and who does it: the role's entry in the directory, where there is one, and its name. */
    label: text("label").notNull(),
    role: text("role"),
    roleName: text("role_name").notNull(),
    /** Who has taken it on. */
    member: text("member"),
    since: doublePrecision("since").notNull(),
    due: doublePrecision("due"),
    /** Of a message or a signal: its name. */
    awaited: text("awaited"),
    /** Of work: until when it should be done, by the target of its step or as somebody has said. */
    dueBy: doublePrecision("due_by"),
    /** Of a service: how often it was tried. */
    tried: integer("tried").notNull().default(0),
    /** What was filled in and not completed yet; a note. */
    draft: jsonb("draft").$type<{ readonly [name: string]: unknown }>(),
    reason: text("reason"),
  },
  (table) => [
    primaryKey({ columns: [table.run, table.number, table.wait] }),
    index("live_waits_kind").on(table.run, table.kind),
    index("live_waits_awaited").on(table.run, table.awaited),
    // What waits where, and since when, is told from this alone: a monitor asks each second, of a hundred thousand cases too.
    index("live_waits_standing").on(table.run, table.element, table.since, table.kind),
  ],
);

/** What has happened in cases, in order; with who did it, and why, where a person did. */
export const liveEvents = pgTable(
  "live_events",
  {
    run: text("run").notNull(),
    number: integer("number").notNull(),
    sequence: integer("sequence").notNull(),
    version: text("version").notNull(),
    kind: text("kind").notNull(),
    at: doublePrecision("at").notNull(),
    element: text("element"),
    wait: integer("wait"),
    instance: integer("instance"),
    member: text("member"),
    reason: text("reason"),
    /** The name of what was asked for: the same asked again is not done again. */
    act: text("act"),
    data: jsonb("data").$type<{ readonly [name: string]: unknown }>(),
  },
  (table) => [
    primaryKey({ columns: [table.run, table.number, table.sequence] }),
    index("live_events_element").on(table.run, table.element),
    index("live_events_act").on(table.run, table.act),
    // What was done today, without looking through what was done before.
    index("live_events_left").on(table.run, table.at, table.element).where(sql`kind = 'leave'`),
  ],
);

/** What everybody keeps, of the whole workspace: contents by their ids, each changed on the revision it was seen at. */
const keptByAll = <Content>(name: string) =>
  pgTable(name, {
    id: text("id").primaryKey(),
    content: jsonb("content").$type<Content>().notNull(),
    revision: integer("revision").notNull(),
    member: text("member").notNull(),
    at: moment("at").notNull(),
    deletedAt: moment("deleted_at"),
  });
export type KeptByAll<Content> = ReturnType<typeof keptByAll<Content>>;

/** Rules that mark elements by their data. */
export const lenses = keptByAll<Lens>("lenses");
/** How handbooks are made. */
export const templates = keptByAll<HandbookTemplate>("templates");

/** Keys by which other programs work in runs; only what tells a key again is kept of it. */
export const programKeys = pgTable("program_keys", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  hash: text("hash").notNull(),
  /** In whose name it works. */
  member: text("member").notNull(),
  at: moment("at").notNull(),
  withdrawnAt: moment("withdrawn_at"),
});

/** Targets that broke in a run, until somebody says that they have seen it. */
export const liveAlerts = pgTable(
  "live_alerts",
  {
    id: text("id").primaryKey(),
    run: text("run").notNull(),
    version: text("version").notNull(),
    element: text("element").notNull(),
    target: jsonb("target").$type<LiveTarget>().notNull(),
    /** What it came to when it broke. */
    share: doublePrecision("share").notNull(),
    /** On the run's clock. */
    at: doublePrecision("at").notNull(),
    member: text("member"),
    reason: text("reason"),
  },
  (table) => [index("live_alerts_run").on(table.run)],
);

export const members = pgTable("members", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  /** Roles of the directory that this member fills; none: whatever there is. */
  roles: jsonb("roles").$type<readonly string[]>().notNull().default([]),
  seat: text("seat", { enum: seats }).notNull().default("analyst"),
  /** What this member is in single areas, beside that. */
  areas: jsonb("areas").$type<readonly AreaSeat[]>().notNull().default([]),
  /** Since when there is no access any more; the name stays with what was done under it. */
  removedAt: timestamp("removed_at", { withTimezone: true, mode: "string" }),
});

export * from "./signInSchema";

/** Facts about the workspace as a whole. */
export const workspace = pgTable("workspace", {
  key: text("key").primaryKey(),
  value: text("value").notNull(),
});
