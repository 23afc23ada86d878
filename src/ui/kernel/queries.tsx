"use client";
import {
  hashKey,
  notifyManager,
  QueryClient,
  QueryClientProvider,
  skipToken,
  type UseQueryResult,
  useQueries,
  useQuery,
} from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import type { Contract, Thing } from "@/contract";
import { concerns } from "@/contract/events";
import { ask } from "./ask";
import { onHappened } from "./events";

/**
 * What the server holds, as the interface knows it: each answer once, shared by all that show it, asked again when something happened
 * to what it is about.
 */
// What an act has changed is shown at once, before the next key or click.
notifyManager.setScheduler((callback) => callback());

const client = new QueryClient({
  defaultOptions: {
    queries: { retry: false, staleTime: 60_000, refetchOnWindowFocus: false, refetchOnReconnect: true },
  },
});

/** Forgets every answer: another workspace stands where this one did. */
export const forgetAnswers = (): void => client.clear();

const isAbout = (meta: Record<string, unknown> | undefined, things: readonly Thing[]) =>
  concerns((meta?.on as readonly Thing[] | undefined) ?? [], things);

/** Questions on their way whose answer may be from before something that was done since. */
interface Underway {
  readonly queryKey: readonly unknown[];
  readonly meta: Record<string, unknown>;
  isLate: boolean;
}
const underway = new Set<Underway>();

/**
 * Something was done to some things: answers about them are asked for again, those shown at once, the rest when they are shown. Resolves
 * when those shown are there.
 */
export const lookAgain = (things: readonly Thing[]): Promise<void> => {
  // One that is asked for the first time is not asked again while it is on its way; it is when its answer is there.
  for (const one of underway)
    if (isAbout(one.meta, things) && client.getQueryData(one.queryKey) === undefined) one.isLate = true;
  return client.invalidateQueries({ predicate: ({ meta }) => isAbout(meta, things) });
};

/** Milliseconds between two looks at everything where nothing tells what happened. */
const guessEvery = 5_000;
/** Milliseconds between two looks at what others do: a window that follows a run of a hundred acts a second asks once a second. */
const lookEvery = 1_000;

export function QueriesProvider({ children }: { readonly children: ReactNode }) {
  useEffect(() => {
    // What is shown first has just been asked for.
    let lastGuess = Date.now();
    let lastLook = 0;
    let gathered: Thing[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      const things = gathered;
      gathered = [];
      timer = undefined;
      lastLook = Date.now();
      void lookAgain(things);
    };
    const end = onHappened(({ things }, isGuess) => {
      if (isGuess && Date.now() - lastGuess < guessEvery) return;
      if (isGuess) lastGuess = Date.now();
      gathered.push(...things);
      // The first is looked at when it is heard, what follows soon when the second is over.
      if (timer === undefined) timer = setTimeout(look, Math.max(0, lastLook + lookEvery - Date.now()));
    });
    return () => {
      clearTimeout(timer);
      end();
    };
  }, []);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

interface AskedOptions {
  /** Not asked while this is false. */
  readonly isWanted?: boolean;
  /** Whether the answer to the question before stays until the new one is there. */
  readonly keepsLast?: boolean;
}

/** The last act on each answer: the next one is sent when it has been answered, so that they come in the order they were done. */
const lastAct = new Map<string, Promise<unknown>>();

/** Answers that an act under way has changed ahead of the server, with how many such acts there are. */
const expected = new Map<string, number>();

const optionsFor = <Sent, Given, Output>(contract: Contract<Sent, Given, Output>, input: Sent) => {
  const queryKey = [contract.name, input] as const;
  const meta = { on: contract.on(contract.input.parse(input)) } as Record<string, unknown>;
  const queryFn = async () => {
    const question: Underway = { queryKey, meta, isLate: false };
    underway.add(question);
    try {
      const answer = await ask(contract, input);
      return (expected.has(hashKey(queryKey)) && client.getQueryData<Output>(queryKey)) || answer;
    } finally {
      underway.delete(question);
      if (question.isLate) setTimeout(() => void client.invalidateQueries({ queryKey, exact: true }));
    }
  };
  return { queryKey, queryFn, meta };
};

/**
 * A question that is not asked for now. Others may ask the same meanwhile: it must not take from them how it is asked. One that could not
 * be asked at all, since what it is about is not known yet, has a place of its own.
 */
const unasked = <Sent, Given, Output>(contract: Contract<Sent, Given, Output>, input: Sent) =>
  contract.input.safeParse(input).success
    ? { ...optionsFor(contract, input), enabled: false }
    : { queryKey: [`${contract.name}, which cannot be asked`, input] as const, queryFn: skipToken };

/** The answer to a use case that only reads. */
export function useAsked<Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
  { isWanted = true, keepsLast = false }: AskedOptions = {},
): UseQueryResult<Output, Error> {
  return useQuery({
    ...((isWanted ? optionsFor(contract, input) : unasked(contract, input)) as ReturnType<
      typeof optionsFor<Sent, Given, Output>
    >),
    ...(keepsLast && { placeholderData: (last: Output | undefined) => last as never }),
  }) as UseQueryResult<Output, Error>;
}

/** The answers to one question about several things, each undefined until it is there. */
export function useAskedEach<Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  inputs: readonly Sent[],
  isWanted = true,
): readonly (Output | undefined)[] {
  const queries = inputs.map((input) => ({ ...optionsFor(contract, input), enabled: isWanted }));
  return useQueries({ queries }).map(({ data }) => data as Output | undefined);
}

/** What is known of it now, if anything. */
export const knownNow = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
): Output | undefined => client.getQueryData([contract.name, input]);

/**
 * Does an act whose outcome is shown at once, before the server has said so: until it has, what is asked for again meanwhile, and may be
 * from before, does not take its place. Afterwards what the server says stands.
 */
export async function expecting<Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
  change: (last: Output) => Output,
  act: () => Promise<unknown>,
): Promise<void> {
  const { queryKey, meta } = optionsFor(contract, input);
  const key = hashKey(queryKey);
  expected.set(key, (expected.get(key) ?? 0) + 1);
  client.setQueryData(queryKey, (last: Output | undefined) => last && change(last));
  const inTurn = (lastAct.get(key) ?? Promise.resolve()).catch(() => undefined).then(act);
  lastAct.set(key, inTurn);
  try {
    await inTurn;
  } finally {
    if (lastAct.get(key) === inTurn) lastAct.delete(key);
    const left = (expected.get(key) ?? 1) - 1;
    if (left > 0) expected.set(key, left);
    else expected.delete(key);
    await lookAgain(meta.on as readonly Thing[]);
  }
}
