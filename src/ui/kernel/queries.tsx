"use client";
import { QueryClient, QueryClientProvider, type UseQueryResult, useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import type { Contract, Thing } from "@/contract";
import { concerns } from "@/contract/events";
import { ask } from "./ask";
import { onHappened } from "./events";

/**
 * What the server holds, as the interface knows it: each answer once, shared by all that show it, asked again when something happened
 * to what it is about.
 */
const client = new QueryClient({
  defaultOptions: {
    queries: { retry: false, staleTime: 60_000, refetchOnWindowFocus: false, refetchOnReconnect: true },
  },
});

const isAbout = (meta: Record<string, unknown> | undefined, things: readonly Thing[]) =>
  concerns((meta?.on as readonly Thing[] | undefined) ?? [], things);

/**
 * Something was done to some things: answers about them are asked for again, those shown at once, the rest when they are shown. Resolves
 * when those shown are there.
 */
export const lookAgain = (things: readonly Thing[]): Promise<void> =>
  client.invalidateQueries({ predicate: ({ meta }) => isAbout(meta, things) });

/** Milliseconds between two looks at everything where nothing tells what happened. */
const guessEvery = 5_000;

export function QueriesProvider({ children }: { readonly children: ReactNode }) {
  useEffect(() => {
    let last = 0;
    return onHappened(({ things }, isGuess) => {
      if (isGuess && Date.now() - last < guessEvery) return;
      if (isGuess) last = Date.now();
      void lookAgain(things);
    });
  }, []);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

interface AskedOptions {
  /** Not asked while this is false. */
  readonly isWanted?: boolean;
  /** Whether the answer to the question before stays until the new one is there. */
  readonly keepsLast?: boolean;
}

const optionsFor = <Sent, Given, Output>(contract: Contract<Sent, Given, Output>, input: Sent) => ({
  queryKey: [contract.name, input] as const,
  queryFn: () => ask(contract, input),
  meta: { on: contract.on(contract.input.parse(input)) } as Record<string, unknown>,
});

/** The answer to a use case that only reads. */
export function useAsked<Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
  { isWanted = true, keepsLast = false }: AskedOptions = {},
): UseQueryResult<Output, Error> {
  return useQuery({
    ...optionsFor(contract, input),
    enabled: isWanted,
    ...(keepsLast && { placeholderData: (last: Output | undefined) => last as never }),
  }) as UseQueryResult<Output, Error>;
}

/** The same for use outside of drawing: as it is known, or asked for. */
export const known = <Sent, Given, Output>(contract: Contract<Sent, Given, Output>, input: Sent): Promise<Output> =>
  client.fetchQuery(optionsFor(contract, input));

/** What is known of it now, if anything. */
export const knownNow = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
): Output | undefined => client.getQueryData([contract.name, input]);

/** What is shown of it until the server has said what is: for acts whose outcome is seen at once. */
export const expect = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
  change: (last: Output) => Output,
): void => {
  client.setQueryData([contract.name, input], (last: Output | undefined) => last && change(last));
};
