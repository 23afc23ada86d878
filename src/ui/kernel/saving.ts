import { createStore, del, get as read, type UseStore, set as write } from "idb-keyval";
import { nanoid } from "nanoid";
import { ServerError } from "./ask";

/** How what is open stands with the server. */
export type SavingStatus = "saved" | "saving" | "waiting" | "changed-elsewhere" | "failed";

/** What the server has not taken yet, kept in the browser so that a crash of either side loses nothing. */
export type Kept<Held> = Held & {
  readonly base: number;
  /** Saves that were sent and not answered: what the server holds may be one of them. */
  readonly saves?: readonly string[];
};

/** One save, as the server is asked for it. */
export interface Save {
  readonly base: number;
  readonly save: string;
  readonly unanswered: string[];
}

interface Terms<Held extends object> {
  /** The name of the database in the browser. */
  readonly database: string;
  /** Milliseconds without a change before one is sent. */
  readonly rest: number;
  /** What is open: its name, what it holds, and the revision that was opened or saved last. */
  readonly now: () => { readonly key: string | null; readonly held: Held; readonly revision: number };
  readonly send: (key: string, held: Held, save: Save) => Promise<{ readonly revision: number }>;
  readonly tell: (how: {
    readonly status: SavingStatus;
    readonly revision?: number;
    readonly problem?: string;
  }) => void;
}

// Without IndexedDB writing still works; only a crash before saving would lose something.
const orNothing = () => undefined;

/**
 * Saves something that is held as a whole, on the revision it was opened at: a change rests in the browser until the server has taken it, one
 * on an older revision is refused and told, and a save whose answer was lost is known again by its name.
 */
export class Saving<Held extends object> {
  #store: UseStore | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | undefined;
  #isDirty = false;
  #unanswered: string[] = [];

  constructor(readonly terms: Terms<Held>) {}

  get #drafts(): UseStore {
    this.#store ??= createStore(this.terms.database, "drafts");
    return this.#store;
  }

  /** Something was written: it is kept at once and sent when the hand rests. What was changed elsewhere has to be settled first. */
  changed(status: string): void {
    this.#isDirty = true;
    this.#keep();
    if (status === "changed-elsewhere") return;
    this.terms.tell({ status: "saving" });
    this.#later(this.terms.rest);
  }
  #keep(): void {
    const { key, held, revision } = this.terms.now();
    if (key === null) return;
    const kept: Kept<Held> = { ...held, base: revision, saves: this.#unanswered };
    write(key, kept, this.#drafts).catch(orNothing);
  }

  /** Sends what is not saved, and resolves when it is. */
  flush = (): Promise<void> => {
    clearTimeout(this.#timer);
    this.#sending = (this.#sending ?? Promise.resolve()).then(() => this.#send());
    return this.#sending;
  };
  /** Resolves when nothing is on its way. */
  get underWay(): Promise<void> | undefined {
    return this.#sending;
  }

  /** Another one is open, or this one anew: nothing of what was before is sent any more. */
  begin(saves: readonly string[] = []): void {
    this.#isDirty = false;
    this.#unanswered = [...saves];
  }
  draft = (key: string): Promise<Kept<Held> | undefined> => read<Kept<Held>>(key, this.#drafts).catch(orNothing);
  forget = (key: string): Promise<void> => del(key, this.#drafts).catch(orNothing);

  #later(milliseconds: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), milliseconds);
  }

  async #send(): Promise<void> {
    const { now, send, tell } = this.terms;
    const { key, held, revision } = now();
    if (key === null || !this.#isDirty) return;
    this.#isDirty = false;
    tell({ status: "saving" });
    const save = nanoid();
    const unanswered = this.#unanswered;
    // Until the answer is there it may be what the server holds: a window that is opened after a crash knows it by its name.
    this.#unanswered = [...unanswered, save].slice(-1000);
    this.#keep();
    try {
      const saved = await send(key, held, { base: revision, save, unanswered });
      if (now().key !== key) return;
      this.#unanswered = [];
      tell({ status: this.#isDirty ? "saving" : "saved", revision: saved.revision });
      if (this.#isDirty) this.#keep();
      else await this.forget(key);
    } catch (error) {
      // What could not be sent of something left since is kept in the browser.
      if (now().key !== key) return;
      this.#isDirty = true;
      const isRefused = error instanceof ServerError && error.status >= 400 && error.status < 500;
      if (isRefused) this.#unanswered = unanswered;
      if (isRefused && ["changed-elsewhere", "restored"].includes(error.code))
        tell({ status: "changed-elsewhere", problem: error.message });
      else if (isRefused) tell({ status: "failed", problem: error.message });
      else {
        tell({ status: "waiting" });
        this.#later(3000);
      }
    }
  }
}
