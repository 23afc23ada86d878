"use client";
import { Box, chakra, Flex, Table } from "@chakra-ui/react";
import { TriangleAlert } from "lucide-react";
import type { HomeProcess, HomeVersion } from "@/contract/home";
import { PageLink } from "../controls/PageLink";
import { locale, text } from "../messages";
import { needWords } from "./needWords";
import { type Place, type ProcessActs, ProcessMenu } from "./ProcessMenu";
import { ProcessOutline } from "./ProcessOutline";
import { Stations } from "./Stations";

interface ProcessRowsProps {
  readonly process: HomeProcess;
  readonly versions: readonly HomeVersion[];
  readonly areas: readonly Place[];
  readonly acts: ProcessActs;
  readonly expanded: boolean;
  readonly onExpand: () => void;
}

/** A process in the table: its versions with their stages, its menu, and on demand what it is made of. */
export function ProcessRows({ process, versions, areas, acts, expanded, onExpand }: ProcessRowsProps) {
  const { words, tone } = needWords(process, versions);
  const first = versions[0];
  const path = (version: HomeVersion) => `/v/${encodeURIComponent(version.id)}/diagram`;
  const areaName = areas.find((area) => area.id === process.area)?.name ?? "";
  return (
    <>
      <Table.Row
        bg="paper"
        draggable
        onDragStart={(event) => event.dataTransfer.setData("application/x-lane-process", process.id)}
      >
        <Table.Cell verticalAlign="top">
          <Flex gap={2} align="flex-start">
            <chakra.button
              type="button"
              onClick={onExpand}
              aria-expanded={expanded}
              aria-label={text.home.expand(process.name)}
              minW="24px"
              minH="24px"
              color="quiet"
              cursor="pointer"
            >
              {expanded ? "▾" : "▸"}
            </chakra.button>
            <Box minW={0}>
              {first ? (
                <PageLink
                  href={path(first)}
                  fontWeight="600"
                  color="ink"
                  _hover={{ color: "accent", textDecoration: "underline" }}
                >
                  {process.name}
                </PageLink>
              ) : (
                process.name
              )}
              <chakra.div color="quiet" fontSize="12px">
                {areaName}
              </chakra.div>
            </Box>
          </Flex>
        </Table.Cell>
        <Table.Cell verticalAlign="top">
          {versions.map((version) => (
            <chakra.div key={version.id} h="26px" truncate>
              <PageLink href={path(version)} color="ink" _hover={{ color: "accent", textDecoration: "underline" }}>
                {version.name}
              </PageLink>
              <chakra.span color="quiet" fontSize="12px">
                {" "}
                {[
                  version.revision > 0 ? `rev. ${version.revision}` : "",
                  version.review === null ? "" : text.home.reviews[version.review],
                  version.comments > 0 ? text.home.comments(version.comments) : "",
                ]
                  .filter(Boolean)
                  .join(", ")}
              </chakra.span>
            </chakra.div>
          ))}
        </Table.Cell>
        <Table.Cell verticalAlign="top">
          {versions.map((version) =>
            version.damaged === null ? (
              <Stations key={version.id} version={version} brief={process.brief} versions={versions.length} />
            ) : (
              <Flex key={version.id} h="26px" gap={1.5} align="center" color="trouble" title={version.damaged}>
                <TriangleAlert size={14} aria-hidden /> {text.damaged.sign}
              </Flex>
            ),
          )}
        </Table.Cell>
        <Table.Cell verticalAlign="top" color={tone} title={words}>
          {words}
        </Table.Cell>
        <Table.Cell verticalAlign="top" color="quiet">
          {versions.map((version) => (
            <chakra.div key={version.id} h="26px" truncate>
              {new Date(version.changedAt).toLocaleString(locale(), {
                day: "numeric",
                month: "short",
                hour: "2-digit",
                minute: "2-digit",
              })}
            </chakra.div>
          ))}
        </Table.Cell>
        <Table.Cell verticalAlign="top" textAlign="end">
          <ProcessMenu process={process} areas={areas} acts={acts} />
        </Table.Cell>
      </Table.Row>
      {expanded && first && (
        <Table.Row bg="sheet">
          <Table.Cell colSpan={6} ps={12}>
            <ProcessOutline version={first.id} />
          </Table.Cell>
        </Table.Row>
      )}
    </>
  );
}
