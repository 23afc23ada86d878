import { z } from "zod";
import { asks, type Done, named, version, workspace } from "./contract";
import { id } from "./inputs";

/** What a thread is about: a thing that is found again by its kind and key, and what it was called when it began. */
export const aboutKinds = ["version", "element", "sentence", "finding", "change", "figure"] as const;
const about = z.object({ kind: z.enum(aboutKinds), key: z.string().max(2_000), words: z.string().max(500) });
export type About = z.infer<typeof about>;

/** One contribution to a thread. */
export interface Said {
  readonly id: string;
  readonly member: string;
  /** What the member is called now. */
  readonly name: string;
  readonly at: string;
  readonly text: string;
  readonly mentions: readonly string[];
  readonly editedAt: string | null;
}

export interface ThreadRow {
  readonly id: string;
  readonly about: About;
  readonly said: readonly Said[];
  /** Who is to see to it. */
  readonly assigned: string | null;
  readonly resolved: { readonly name: string; readonly at: string } | null;
}

/** A thread that somebody is mentioned in or is to see to, wherever it is. */
export interface MyThread extends ThreadRow {
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
}

const ofVersion = z.object({ version: id });
const ofThread = ofVersion.extend({ thread: id });
const on = (input: { readonly version: string }) => [version(input.version)];
const words = z.string().trim().min(1, "Write something.").max(10_000);
const mentions = z.array(id).max(50);

/** What people say to each other about a version, in threads. */
export const comments = named({
  listThreads: asks<{ threads: readonly ThreadRow[] }>()({ input: ofVersion, right: "read", on }),
  /** Begins a thread; asked again after the answer was lost, it is there already. */
  startThread: asks<Done>()({
    input: ofThread.extend({ said: id, about, text: words, mentions, assigned: id.nullable() }),
    right: "comment",
    on,
  }),
  answerThread: asks<Done>()({ input: ofThread.extend({ said: id, text: words, mentions }), right: "comment", on }),
  /** What one said oneself, said otherwise. */
  editSaid: asks<{ before: { text: string; mentions: readonly string[] } }>()({
    input: ofThread.extend({ said: id, text: words, mentions }),
    right: "comment",
    on,
  }),
  /** Closes a thread, or opens it again. */
  settleThread: asks<Done>()({ input: ofThread.extend({ isResolved: z.boolean() }), right: "comment", on }),
  assignThread: asks<{ before: string | null }>()({
    input: ofThread.extend({ assigned: id.nullable() }),
    right: "comment",
    on,
  }),
  /** By who began it. */
  deleteThread: asks<Done>()({ input: ofThread, right: "comment", on }),
  restoreThread: asks<Done>()({ input: ofThread, right: "comment", on }),
  /** Open threads in which one is mentioned, or that one is to see to, over all versions. */
  myThreads: asks<{ threads: readonly MyThread[] }>()({ input: z.object({}), right: "read", on: () => [workspace] }),
});
