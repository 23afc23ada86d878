import { sql } from "drizzle-orm";
import { z } from "zod";
import type { Thing } from "@/contract";
import { eventSchema, type Happened } from "@/contract/events";
import { goneAfter, type Here, hereSchema } from "@/contract/presence";
import { database } from "@/data/database";
import { afterCommit, type Transaction } from "./act";
import { type Member, mayEverywhere } from "./rights";

/**
 * What happened elsewhere: each act says, in its transaction, what it was done to. On a server the database carries it to every process
 * (LISTEN/NOTIFY, sent with the commit or not at all); in a folder there is one process, which remembers until the commit. It is only a
 * hint to look again: the truth is in the tables, and whoever may have missed one looks at all of it again.
 */
export const channel = "lane_events";

const hereTextSchema = z.object({ here: hereSchema });

/** The longest a notification may be, with room for what surrounds it. */
const mostLetters = 7_000;

const told = new WeakMap<Transaction, { things: Thing[]; sequences: Map<string, number> }>();

/** Says in an act that something else was done too: the content of a version, up to which of its changes. */
export function contentChanged(db: Transaction, version: string, sequence: number): void {
  const sofar = told.get(db) ?? { things: [] as Thing[], sequences: new Map<string, number>() };
  sofar.things.push({ kind: "version", id: version });
  sofar.sequences.set(version, sequence);
  told.set(db, sofar);
}

/** Writes what an act did, as the last thing in it. */
export async function tell(db: Transaction, by: string, things: readonly Thing[]): Promise<void> {
  const more = told.get(db);
  const all = new Map([...things, ...(more?.things ?? [])].map((thing) => [JSON.stringify(thing), thing]));
  const happened: Happened = {
    by,
    things: [...all.values()],
    ...(more && { sequences: Object.fromEntries(more.sequences) }),
  };
  let text = JSON.stringify(happened);
  if (text.length > mostLetters) text = JSON.stringify({ by, things: [{ kind: "workspace" }] } satisfies Happened);
  if (process.env.DATABASE_URL) await db.execute(sql`select pg_notify(${channel}, ${text})`);
  else afterCommit(db, () => hear(text));
}

/** Tells everybody who is where; nothing of it is kept but in memory, and whoever missed it hears the next word. */
export async function tellHere(db: Transaction, here: Here): Promise<void> {
  const text = JSON.stringify({ here });
  // Too much is chosen to be told in one: then that somebody is there, and nothing of what is chosen.
  const told = text.length > mostLetters ? JSON.stringify({ here: { ...here, selection: [] } }) : text;
  if (process.env.DATABASE_URL) await db.execute(sql`select pg_notify(${channel}, ${told})`);
  else hear(told);
}

/** Who is in a version now, as far as was heard. */
export function whoIsHere(version: string): readonly Here[] {
  const now = Date.now();
  for (const [window, { at }] of feed().here) if (now - at > goneAfter * 1_000) feed().here.delete(window);
  return [...feed().here.values()].map(({ here }) => here).filter((here) => here.version === version);
}

/** So many windows are known at most: whoever is beyond is not shown, and nothing grows without end. */
const mostWindows = 2_000;

function heardHere(here: Here): void {
  const known = feed().here;
  known.delete(here.window);
  if (!here.isGone) known.set(here.window, { here, at: Date.now() });
  if (known.size > mostWindows) known.delete(known.keys().next().value as string);
}

/** One event as it goes to windows; `sequence` counts those of this process. */
export interface Heard {
  readonly sequence: number;
  readonly text: string;
}

interface Feed {
  /** Tells this process's feed from that of another, or of a former life of this one. */
  readonly name: string;
  sequence: number;
  readonly recent: Heard[];
  readonly listeners: Set<(heard: Heard) => void>;
  /** Windows by their names, and when they were heard of last. */
  readonly here: Map<string, { readonly here: Here; readonly at: number }>;
  listening: Promise<void> | undefined;
  isListening: boolean;
}
// Routes are bundled apart from each other; what they share stands on the global object.
const shared = globalThis as unknown as { laneFeed?: Feed };
export function feed(): Feed {
  shared.laneFeed ??= {
    name: Math.random().toString(36).slice(2, 10),
    sequence: 0,
    recent: [],
    listeners: new Set(),
    here: new Map(),
    listening: undefined,
    isListening: false,
  };
  return shared.laneFeed;
}

/** Events that a window which was away for a moment can still be told. */
const mostRecent = 1_000;

/** Something happened, here or in another process. */
export function hear(text: string): void {
  const { recent, listeners } = feed();
  const here = hereTextSchema.safeParse(JSON.parse(text));
  if (here.success) {
    heardHere(here.data.here);
    for (const listener of listeners) listener({ sequence: feed().sequence, text });
    return;
  }
  if (!eventSchema.safeParse(JSON.parse(text)).success) return;
  const heard = { sequence: ++feed().sequence, text };
  recent.push(heard);
  if (recent.length > mostRecent) recent.shift();
  for (const listener of listeners) listener(heard);
}

/** Something may have been missed: whoever listens looks at everything again. */
export const missed = (): void => hear(JSON.stringify({ by: "", things: [{ kind: "workspace" }] } satisfies Happened));

/** From the first window on, this process hears what all processes do. */
export function listenToFeed(): Promise<void> {
  const own = feed();
  own.listening ??= database()
    .then(({ listen }) => listen(channel, hear, missed))
    .then(() => {
      own.isListening = true;
    })
    .catch((error) => {
      own.listening = undefined;
      throw error;
    });
  return own.listening;
}

const idOf = (sequence: number) => `${feed().name}-${sequence}`;

/**
 * The last event this process has heard of. A page that names it when it asks for the feed hears all that was done since it was made,
 * and needs not look at anything twice. Undefined while it does not hear what other processes do: no page waits for that.
 */
export function feedPosition(): string | undefined {
  const own = feed();
  if (process.env.DATABASE_URL && !own.isListening) {
    listenToFeed().catch(() => undefined);
    return undefined;
  }
  return idOf(own.sequence);
}

/**
 * What a window hears from now on, and before that what it missed since an event it names; where that is not known any more, that it
 * has to look at everything again. A member who may not look is told nothing. Gives a way to end it.
 */
export function hearFeed(member: Member, after: string | null, say: (id: string, text: string) => void): () => void {
  const { recent, listeners } = feed();
  const listener = ({ sequence, text }: Heard) => {
    if (mayEverywhere(member, "read")) say(idOf(sequence), text);
  };
  const known = after === null ? recent.length : recent.findIndex(({ sequence }) => idOf(sequence) === after) + 1;
  if (after !== null && known === 0 && after !== idOf(0))
    say(idOf(feed().sequence), JSON.stringify({ by: "", things: [{ kind: "workspace" }] } satisfies Happened));
  else for (const heard of recent.slice(known)) listener(heard);
  listeners.add(listener);
  return () => listeners.delete(listener);
}
