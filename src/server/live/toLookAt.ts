import { eventSchema } from "@/contract/events";
import type { RunClock } from "@/data/schema";
import type { Heard } from "../kernel/events";
import { shownAt } from "./clock";

interface Run {
  readonly id: string;
  readonly version: string;
  readonly clock: RunClock;
}

/** What a target looks back at is counted in days: after an hour of a run's own time another hour has left it. */
const hour = 3_600_000;

/**
 * Which runs have to be looked at again for their targets. To measure one reads thousands of events, and of a run to which nothing was
 * done, by whichever process, it comes to the same as before.
 */
export class ToLookAt {
  #all = true;
  #versions = new Set<string>();
  /** By run, what its clock showed when it was looked at last. */
  #looked = new Map<string, number>();

  /** Hears what the feed tells. */
  readonly hear = ({ text }: Pick<Heard, "text">): void => {
    const told = eventSchema.safeParse(JSON.parse(text));
    if (!told.success) return;
    for (const thing of told.data.things) {
      if (thing.kind === "version") this.#versions.add(thing.id);
      // What an hour of a role costs.
      else if (thing.kind === "directory" || thing.kind === "workspace") this.#all = true;
    }
  };

  /** All of them, the next time: something may have been missed, or could not be looked at. */
  again(): void {
    this.#all = true;
  }

  /** Of the runs under way those to look at now, which are done with from then on. */
  take<Given extends Run>(runs: readonly Given[]): readonly Given[] {
    const [all, versions, looked] = [this.#all, this.#versions, this.#looked];
    [this.#all, this.#versions, this.#looked] = [false, new Set(), new Map()];
    return runs.filter(({ id, version, clock }) => {
      const [before, shows] = [looked.get(id), shownAt(clock)];
      const isDue = all || versions.has(version) || before === undefined || Math.abs(shows - before) >= hour;
      this.#looked.set(id, isDue ? shows : before);
      return isDue;
    });
  }
}
