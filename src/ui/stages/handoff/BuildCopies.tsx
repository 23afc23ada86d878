"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { handoff } from "@/contract";
import type { BuildCopyRow } from "@/contract/handoff";
import { complain, tell } from "../../controls/notices";
import { EmptyState, ErrorPage } from "../../controls/states";
import { ask } from "../../kernel/ask";
import { useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { BuildCopy, type BuildDecisions } from "./BuildCopy";
import { TieDialog } from "./TieDialog";

const words = text.handoff.builds;
/** Milliseconds. */
const lookEvery = 3 * 60_000;

/** The developers' files that the version is tied to, how each stands, and what goes there and back; only a checked model leaves. */
export function BuildCopies({ mayLeave }: { readonly mayLeave: boolean }) {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const { data, error, refetch, isFetching } = useAsked(handoff.lookAtBuildCopies, { version });
  const [isTying, setTying] = useState(false);
  const [busy, setBusy] = useState<string | null>(null);
  // Developers tell nobody: as long as somebody has this in front of them, it is looked at again.
  useEffect(() => {
    const timer = setInterval(() => document.visibilityState === "visible" && void refetch(), lookEvery);
    return () => clearInterval(timer);
  }, [refetch]);
  if (error && !data) return <ErrorPage message={wordsOf(error)} retry={() => void refetch()} />;
  if (!data) return <chakra.p color="quiet">{words.looking}</chakra.p>;

  /** Does something with a copy once all that was typed is stored, and looks at it again whatever came of it. */
  const act = async (copy: string, does: () => Promise<string>) => {
    setBusy(copy);
    try {
      await store.getState().settled();
      tell({ description: await does() });
    } catch (problem) {
      complain(problem);
    }
    await refetch();
    await store.getState().reload();
    setBusy(null);
  };
  const acts = (row: BuildCopyRow) => ({
    send: () =>
      act(row.id, async () => {
        await ask(handoff.sendToBuildCopy, { version, copy: row.id });
        return words.sent(row.path);
      }),
    takeOver: (take: "all" | string[], decisions: BuildDecisions) =>
      act(row.id, async () => {
        await ask(handoff.takeOverBuildCopy, { version, copy: row.id, take, decisions });
        return take === "all" ? words.takenOver : words.takenOverOne;
      }),
    askDeveloper: () =>
      act(row.id, async () => {
        const { message } = await ask(handoff.askDeveloper, { version, copy: row.id });
        return words.developerDid(message);
      }),
    untie: () =>
      act(row.id, async () => {
        await ask(handoff.untieBuildCopy, { version, copy: row.id });
        return words.untied(row.path);
      }),
    look: () => act(row.id, async () => words.looked),
  });
  const isDemo = (row: BuildCopyRow) => data.places.some(({ id, isDemo }) => id === row.place && isDemo);
  return (
    <Flex direction="column" gap={4} maxW="1080px" aria-busy={isFetching}>
      {data.copies.length === 0 && (
        <EmptyState>
          <chakra.p maxW="62ch">{data.places.length > 0 ? words.none : words.noPlaces}</chakra.p>
        </EmptyState>
      )}
      {data.copies.map((row) => (
        <BuildCopy
          key={row.id}
          row={row}
          isDemo={isDemo(row)}
          isBusy={busy === row.id}
          mayLeave={mayLeave}
          acts={acts(row)}
        />
      ))}
      {data.places.length > 0 && (
        <Button alignSelf="flex-start" variant="outline" size="sm" onClick={() => setTying(true)}>
          {words.tie}
        </Button>
      )}
      {isTying && (
        <TieDialog
          places={data.places}
          onClose={() => setTying(false)}
          onTie={async (spot) => {
            await ask(handoff.tieBuildCopy, { version, ...spot });
            await refetch();
          }}
        />
      )}
    </Flex>
  );
}
