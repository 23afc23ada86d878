"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useSearchParams } from "next/navigation";
import { useEffect, useState } from "react";
import { handoff } from "@/contract";
import { complain, tell } from "../../controls/notices";
import { PageLink } from "../../controls/PageLink";
import { Segments } from "../../controls/Segments";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVerdictFor } from "../../version/findings";
import { useLatestRevision } from "../../version/useLatestRevision";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { BuildCopies } from "./BuildCopies";
import { Handbook } from "./Handbook";
import { Packages } from "./Packages";
import { Readiness } from "./Readiness";
import { Services } from "./Services";
import { WhoCallsWhom } from "./WhoCallsWhom";

const handoffParts = ["packages", "checklist", "services", "sequence", "builds", "handbook"] as const;

/** Where a checked revision leaves, and where the packages that left stay. */
export function HandoffStage() {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const verdict = useVerdictFor("hand-off");
  const { data, error } = useAsked(handoff.listHandoffs, { version });
  const rows = data?.handoffs ?? null;
  const state = useLatestRevision();
  const wanted = useSearchParams().get("part");
  const [part, setPart] = useState<(typeof handoffParts)[number]>(
    handoffParts.find((one) => one === wanted) ?? "packages",
  );
  const [busy, setBusy] = useState(false);
  const load = () => lookAgain([{ kind: "version", id: version }]);
  useEffect(() => {
    if (error) complain(error);
  }, [error]);
  const errors = verdict?.openErrors.length ?? 0;
  const handOff = async () => {
    setBusy(true);
    try {
      await store.getState().settled();
      const { revision } = await ask(handoff.handOff, { version });
      tell({ description: text.handoff.made(revision) });
      await load();
      await store.getState().reload();
    } catch (error) {
      complain(error);
      // An answer may have been lost: what was made all the same is shown.
      await load();
    }
    setBusy(false);
  };
  return (
    <Box overflow="auto" flex="1" px={6} py={5}>
      <Flex gap={8} align="flex-start" mb={7} maxW="1080px">
        <Box flex="1">
          <chakra.h1 fontSize="17px" fontWeight="700" mb={1}>
            {text.handoff.title}
          </chakra.h1>
          <chakra.p color="quiet" maxW="68ch" mb={3}>
            {text.handoff.explain}
          </chakra.p>
          <chakra.p color={errors > 0 ? "trouble" : verdict ? "good" : "quiet"} data-testid="handoff-state">
            {!verdict
              ? text.check.looking
              : errors > 0
                ? text.handoff.blocked(errors)
                : `${text.handoff.ready} ${state.charAt(0).toUpperCase()}${state.slice(1)}.`}
          </chakra.p>
        </Box>
        <Flex direction="column" gap={2} align="flex-end" flexShrink={0}>
          <Button
            bg="accent"
            color="onAccent"
            disabled={!verdict || errors > 0 || busy}
            loading={busy}
            onClick={handOff}
          >
            {text.handoff.button}
          </Button>
          {errors > 0 && (
            <Button asChild variant="outline" size="sm">
              <PageLink href={`/v/${encodeURIComponent(version)}/check`}>{text.handoff.toCheck}</PageLink>
            </Button>
          )}
        </Flex>
      </Flex>
      <Flex align="center" gap={3} mb={4}>
        <Segments
          label={text.handoff.parts}
          value={part}
          options={handoffParts.map((one) => [one, text.handoff.partNames[one]] as const)}
          onChoose={setPart}
        />
      </Flex>
      {part === "packages" && <Packages version={version} rows={rows} />}
      {part === "checklist" && <Readiness />}
      {part === "services" && <Services />}
      {part === "sequence" && <WhoCallsWhom />}
      {part === "handbook" && <Handbook />}
      {part === "builds" && <BuildCopies mayLeave={verdict !== null && errors === 0} />}
    </Box>
  );
}
