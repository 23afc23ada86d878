"use client";
import { Box, Button, chakra, Flex, Table } from "@chakra-ui/react";
import NextLink from "next/link";
import { Fragment, useEffect, useState } from "react";
import { handoff } from "@/contract";
import { momentWords } from "../../controls/moment";
import { complain, tell } from "../../controls/notices";
import { EmptyState } from "../../controls/states";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVerdictFor } from "../../version/findings";
import { useLatestRevision } from "../../version/useLatestRevision";
import { useVersion, useVersionStore } from "../../version/VersionContext";

/** Where a checked revision leaves, and where the packages that left stay. */
export function HandoffStage() {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const verdict = useVerdictFor("hand-off");
  const { data, error } = useAsked(handoff.listHandoffs, { version });
  const rows = data?.handoffs ?? null;
  const state = useLatestRevision();
  const [open, setOpen] = useState<string | null>(null);
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
              <NextLink href={`/v/${encodeURIComponent(version)}/check`}>{text.handoff.toCheck}</NextLink>
            </Button>
          )}
        </Flex>
      </Flex>
      <chakra.h2 fontSize="14px" fontWeight="700" mb={2}>
        {text.handoff.packages}
      </chakra.h2>
      {rows?.length === 0 && <EmptyState>{text.handoff.none}</EmptyState>}
      {rows && rows.length > 0 && (
        <Table.Root size="sm" maxW="1080px" bg="paper" borderWidth="1px" borderColor="line">
          <Table.Header>
            <Table.Row bg="sheet">
              {[text.handoff.revision, text.handoff.when, text.handoff.by, text.handoff.parts, text.handoff.size].map(
                (head) => (
                  <Table.ColumnHeader key={head} color="quiet">
                    {head}
                  </Table.ColumnHeader>
                ),
              )}
              <Table.ColumnHeader>
                <chakra.span srOnly>{text.handoff.download}</chakra.span>
              </Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {rows.map((row) => (
              <Fragment key={row.id}>
                <Table.Row bg="paper">
                  <Table.Cell fontWeight="700">{row.revision}</Table.Cell>
                  <Table.Cell>{momentWords(row.at)}</Table.Cell>
                  <Table.Cell>{row.member}</Table.Cell>
                  <Table.Cell>
                    <chakra.button
                      type="button"
                      color="accent"
                      cursor="pointer"
                      minH="24px"
                      aria-expanded={open === row.id}
                      onClick={() => setOpen(open === row.id ? null : row.id)}
                    >
                      {row.manifest.parts.length + 1} {text.handoff.parts.toLowerCase()}
                    </chakra.button>
                  </Table.Cell>
                  <Table.Cell>{text.handoff.kilobytes(row.bytes)}</Table.Cell>
                  <Table.Cell textAlign="end">
                    <Button asChild size="xs" variant="outline">
                      <a
                        href={`/api/package?version=${encodeURIComponent(version)}&handoff=${encodeURIComponent(row.id)}`}
                        download
                      >
                        {text.handoff.download}
                      </a>
                    </Button>
                  </Table.Cell>
                </Table.Row>
                {open === row.id && (
                  <Table.Row bg="sheet">
                    <Table.Cell colSpan={6}>
                      {row.manifest.parts.map((part) => (
                        <Flex key={part.name} gap={4} py="2px" fontSize="13px">
                          <chakra.span w="130px">{part.name}</chakra.span>
                          <chakra.span w="70px" color="quiet">
                            {text.handoff.kilobytes(part.bytes)}
                          </chakra.span>
                          <chakra.code color="quiet" fontSize="12px" overflowWrap="anywhere">
                            {text.handoff.checksum} {part.sha256}
                          </chakra.code>
                        </Flex>
                      ))}
                    </Table.Cell>
                  </Table.Row>
                )}
              </Fragment>
            ))}
          </Table.Body>
        </Table.Root>
      )}
    </Box>
  );
}
