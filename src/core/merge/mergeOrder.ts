/**
 * One order from three. What all have stands as the side has it that changed its order; where both did, differently, ours stands and
 * that is a clash. What only one side has follows what it follows there; several at one place by their ids, so that it does not matter
 * which side is called ours. O(siblings).
 */
export function mergeOrder(
  base: readonly string[],
  ours: readonly string[],
  theirs: readonly string[],
): { readonly order: readonly string[]; readonly clash: boolean } {
  const [own, their] = [new Set(ours), new Set(theirs)];
  const shared = new Set(ours.filter((id) => their.has(id)));
  const among = (list: readonly string[], of: ReadonlySet<string>) => list.filter((id) => of.has(id));
  const same = (a: readonly string[], b: readonly string[]) =>
    a.length === b.length && a.every((id, at) => id === b[at]);
  const old = new Set(base.filter((id) => shared.has(id)));
  const [was, mine, other] = [among(base, old), among(ours, old), among(theirs, old)];
  const clash = !same(mine, was) && !same(other, was) && !same(mine, other);
  const order = among(same(mine, was) ? theirs : ours, shared);
  // What comes behind each of them on one side only; "" for the beginning.
  const behind = new Map<string, string[]>();
  for (const list of [ours, theirs]) {
    let anchor = "";
    for (const id of list) {
      if (shared.has(id)) anchor = id;
      else {
        const found = behind.get(anchor);
        if (found) found.push(id);
        else behind.set(anchor, [id]);
      }
    }
  }
  const placed = (anchor: string) => inRuns(behind.get(anchor) ?? [], own);
  return { order: [...placed(""), ...order.flatMap((id) => [id, ...placed(id)])], clash };
}

/** Each side's run of additions together, the one with the smaller first id in front. */
function inRuns(ids: readonly string[], ours: ReadonlySet<string>): string[] {
  const mine = ids.filter((id) => ours.has(id));
  const other = ids.filter((id) => !ours.has(id));
  const [first, second] = (mine[0] ?? "") < (other[0] ?? "") || other.length === 0 ? [mine, other] : [other, mine];
  return [...first, ...second];
}
