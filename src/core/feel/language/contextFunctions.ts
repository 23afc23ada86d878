import { type Answer, type Entry, givenList, none, text } from "./answers";
import { FeelContext, type FeelValue } from "./values";

function contextOf(entries: FeelValue): Answer {
  const list = givenList(entries);
  const pairs = (list ?? []).map((one): readonly [string, FeelValue] | undefined => {
    const key = one instanceof FeelContext ? text(one.entries.get("key")) : undefined;
    return key !== undefined && one instanceof FeelContext && one.entries.has("value")
      ? [key, one.entries.get("value") ?? null]
      : undefined;
  });
  if (!list || pairs.includes(undefined)) return none;
  const known = new Map(pairs as (readonly [string, FeelValue])[]);
  return known.size === pairs.length ? new FeelContext(known) : none;
}
function put(context: FeelValue, keys: FeelValue, value: FeelValue): Answer {
  if (!(context instanceof FeelContext)) return none;
  const path = (Array.isArray(keys) ? keys : [keys]).map(text);
  const [first, ...rest] = path;
  if (first === undefined || path.includes(undefined)) return none;
  const inner =
    rest.length === 0 ? value : put(context.entries.get(first) ?? new FeelContext(new Map()), rest as string[], value);
  return inner === none ? none : new FeelContext(new Map([...context.entries, [first, inner]]));
}

/** Functions of contexts (DMN 1.5, 10.3.4.13; from memory). */
export const contextFunctions: readonly Entry[] = [
  ["context", "entries", contextOf],
  [
    "get value",
    "context, key",
    (context, key) => {
      if (!(context instanceof FeelContext)) return none;
      let found: FeelValue = context;
      for (const one of Array.isArray(key) ? key : [key])
        found = found instanceof FeelContext ? (found.entries.get(text(one) ?? "") ?? null) : null;
      return found;
    },
  ],
  [
    "get entries",
    "context",
    (context) =>
      context instanceof FeelContext
        ? [...context.entries].map(
            ([key, value]) =>
              new FeelContext(
                new Map<string, FeelValue>([
                  ["key", key],
                  ["value", value],
                ]),
              ),
          )
        : none,
  ],
  ["context put", "context, key, value", put],
  [
    "context merge",
    "contexts",
    (contexts) => {
      const list = givenList(contexts);
      if (!list?.every((one) => one instanceof FeelContext)) return none;
      return new FeelContext(new Map(list.flatMap((one) => [...(one as FeelContext).entries])));
    },
  ],
];
