/**
 * A question that many windows ask at once is answered once for all of them: while it is being answered nobody else begins on it, and
 * whoever asks meanwhile is given the next answer, which begins after they asked. So no answer is older than its question, and two hundred
 * windows that follow a run cost no more than a few.
 */
interface Turn {
  /** When the next may begin: what is answered, and then a rest. */
  readonly over: Promise<void>;
  next: Promise<unknown> | undefined;
}
const turns = new Map<string, Turn>();

/** Of its time no more than a third is spent on one question, so that acts find their turn between; nobody waits longer for that. */
const restShare = 2;
const longestRest = 1_000;

const rest = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/**
 * @param key what is asked, whole: the same for all who ask the same
 * @param answer begins to answer it
 * @throws what answering throws, to all who waited for it
 */
export function askedTogether<Output>(key: string, answer: () => Promise<Output>): Promise<Output> {
  const turn = turns.get(key);
  if (!turn) return begin(key, answer);
  turn.next ??= turn.over.then(() => begin(key, answer));
  return turn.next as Promise<Output>;
}

function begin<Output>(key: string, answer: () => Promise<Output>): Promise<Output> {
  const began = performance.now();
  // What is thrown at once is thrown to all who wait, as what is thrown later.
  const answered = (async () => answer())();
  const over = answered
    .then(
      () => undefined,
      () => undefined,
    )
    .then(() => rest(Math.min(longestRest, restShare * (performance.now() - began))))
    .then(() => {
      if (!turn.next) turns.delete(key);
    });
  const turn: Turn = { over, next: undefined };
  turns.set(key, turn);
  return answered;
}
