"use client";
import { Button, chakra, Flex, Table } from "@chakra-ui/react";
import { Fragment, useState } from "react";
import type { HandoffRow } from "@/contract/handoff";
import { momentWords } from "../../controls/moment";
import { EmptyState } from "../../controls/states";
import { text } from "../../messages";

/** The packages that left, newest first, with what is in each. */
export function Packages({ version, rows }: { readonly version: string; readonly rows: readonly HandoffRow[] | null }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <>
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
    </>
  );
}
