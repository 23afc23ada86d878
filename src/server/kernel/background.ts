interface Background {
  /** What is under way or waits for its turn, by what it is. */
  readonly underWay: Map<string, Promise<void>>;
  readonly waiting: (() => void)[];
  running: number;
}
const shared = globalThis as unknown as { laneBackground?: Background };
const background = (): Background => {
  shared.laneBackground ??= { underWay: new Map(), waiting: [], running: 0 };
  return shared.laneBackground;
};

/** Leaves room for people: what they wait for goes before. */
const mostAtOnce = 1;

/**
 * Does something of the server's own accord, one after the other, behind what people do; once however often it is asked for meanwhile.
 * Resolves when it was done or given up: whoever asks again has it tried again.
 */
export function inBackground(what: string, work: () => Promise<void>): Promise<void> {
  const { underWay } = background();
  const begun = underWay.get(what);
  if (begun) return begun;
  const done = turn()
    .then(work)
    .catch(() => undefined)
    .finally(() => {
      underWay.delete(what);
      const { waiting } = background();
      background().running--;
      waiting.shift()?.();
    });
  underWay.set(what, done);
  return done;
}

/** Waits for one's turn. */
async function turn(): Promise<void> {
  const { waiting } = background();
  if (background().running >= mostAtOnce) await new Promise<void>((resolve) => waiting.push(resolve));
  background().running++;
}

/** Ends when nothing is under way: before a database is closed. */
export async function backgroundDone(): Promise<void> {
  const { underWay, waiting } = background();
  for (const go of waiting.splice(0)) go();
  await Promise.all(underWay.values());
}
