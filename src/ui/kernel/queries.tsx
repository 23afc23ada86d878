"use client";
import { QueryClient, QueryClientProvider, type UseQueryResult, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import type { Contract, Thing } from "@/contract";
import { concerns, type Happened } from "@/contract/events";
import { ask } from "./ask";
import { onHappened } from "./events";

/**
 * What the server holds, as the interface knows it: each answer once, shared by all that show it, asked again when something happened
 * to what it is about.
 */
const makeClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: { retry: false, staleTime: 60_000, refetchOnWindowFocus: false, refetchOnReconnect: true },
    },
  });

interface Asked {
  readonly on: readonly Thing[];
}

export function QueriesProvider({ children }: { readonly children: ReactNode }) {
  const [client] = useState(makeClient);
  useEffect(() => onHappened((happened) => lookAgain(client, happened)), [client]);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

/** Answers that may be others now are asked for again: those shown at once, the rest when they are shown. */
function lookAgain(client: QueryClient, { things }: Pick<Happened, "things">): void {
  void client.invalidateQueries({
    predicate: ({ meta }) => concerns((meta as unknown as Asked | undefined)?.on ?? [], things),
  });
}

interface AskedOptions {
  /** Not asked while this is false. */
  readonly isWanted?: boolean;
  /** Whether the answer to the question before stays until the new one is there. */
  readonly keepsLast?: boolean;
}

/** The answer to a use case that only reads. */
export function useAsked<Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  input: Sent,
  { isWanted = true, keepsLast = false }: AskedOptions = {},
): UseQueryResult<Output, Error> {
  return useQuery({
    queryKey: [contract.name, input],
    queryFn: () => ask(contract, input),
    enabled: isWanted,
    meta: { on: contract.on(contract.input.parse(input)) },
    ...(keepsLast && { placeholderData: (last: Output | undefined) => last as never }),
  }) as UseQueryResult<Output, Error>;
}

/** Says here what was done, for answers to be asked again without waiting to hear of it; resolves when those shown are there. */
export function useLookAgain(): (things: readonly Thing[]) => Promise<void> {
  const client = useQueryClient();
  return (things) =>
    client.invalidateQueries({
      predicate: ({ meta }) => concerns((meta as unknown as Asked | undefined)?.on ?? [], things),
    });
}
