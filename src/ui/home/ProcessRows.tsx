"use client";
import { Box, Button, chakra, Flex, Menu, Portal, Table } from "@chakra-ui/react";
import { Ellipsis, TriangleAlert } from "lucide-react";
import NextLink from "next/link";
import type { HomeArea, HomeProcess, HomeVersion } from "@/contract/home";
import { text } from "../messages";
import { stageSigns, stages } from "../stages/register";
import { SignIcon, signWords } from "../stages/SignIcon";
import { ProcessOutline } from "./ProcessOutline";

const Link = chakra(NextLink);

interface ProcessRowsProps {
  readonly process: HomeProcess;
  readonly versions: readonly HomeVersion[];
  readonly areas: readonly HomeArea[];
  readonly expanded: boolean;
  readonly onExpand: () => void;
  readonly onRename: () => void;
  readonly onCopy: () => void;
  readonly onMove: (area: HomeArea) => void;
  readonly onDelete: () => void;
}

/** A process in the table: its versions with their stages, its menu, and on demand what it is made of. */
export function ProcessRows({
  process,
  versions,
  areas,
  expanded,
  onExpand,
  onRename,
  onCopy,
  onMove,
  onDelete,
}: ProcessRowsProps) {
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
                <Link
                  href={path(first)}
                  fontWeight="600"
                  color="ink"
                  _hover={{ color: "accent", textDecoration: "underline" }}
                >
                  {process.name}
                </Link>
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
              <Link href={path(version)} color="ink" _hover={{ color: "accent", textDecoration: "underline" }}>
                {version.name}
              </Link>
              <chakra.span color="quiet" fontSize="12px">
                {" "}
                {version.revision > 0 ? `rev. ${version.revision}` : ""}
              </chakra.span>
            </chakra.div>
          ))}
        </Table.Cell>
        <Table.Cell verticalAlign="top">
          {versions.map((version) =>
            version.damaged === null ? (
              <StageSigns key={version.id} version={version} brief={process.brief} versions={versions.length} />
            ) : (
              <Flex key={version.id} h="26px" gap={1.5} align="center" color="trouble" title={version.damaged}>
                <TriangleAlert size={14} aria-hidden /> {text.damaged.sign}
              </Flex>
            ),
          )}
        </Table.Cell>
        <Table.Cell verticalAlign="top" color="quiet">
          {versions.map((version) => (
            <chakra.div key={version.id} h="26px" truncate>
              {new Date(version.changedAt).toLocaleString("en-GB", {
                day: "numeric",
                month: "short",
                hour: "2-digit",
                minute: "2-digit",
              })}
            </chakra.div>
          ))}
        </Table.Cell>
        <Table.Cell verticalAlign="top" textAlign="end">
          <Menu.Root>
            <Menu.Trigger asChild>
              <Button size="2xs" variant="ghost" aria-label={text.home.more(process.name)}>
                <Ellipsis size={16} />
              </Button>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content bg="paper" color="ink">
                  <Menu.Item value="rename" onClick={onRename}>
                    {text.home.rename}
                  </Menu.Item>
                  <Menu.Item value="copy" onClick={onCopy}>
                    {text.home.copy}
                  </Menu.Item>
                  {areas
                    .filter((area) => area.id !== process.area)
                    .map((area) => (
                      <Menu.Item key={area.id} value={`move-${area.id}`} onClick={() => onMove(area)}>
                        {text.home.move} {area.name}
                      </Menu.Item>
                    ))}
                  <Menu.Item value="delete" onClick={onDelete} color="trouble">
                    {text.home.remove}
                  </Menu.Item>
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
        </Table.Cell>
      </Table.Row>
      {expanded && first && (
        <Table.Row bg="sheet">
          <Table.Cell colSpan={5} ps={12}>
            <ProcessOutline version={first.id} />
          </Table.Cell>
        </Table.Row>
      )}
    </>
  );
}

/** The stages of a version as a row of signs, each saying in words what it means. */
function StageSigns({
  version,
  brief,
  versions,
}: {
  readonly version: HomeVersion;
  readonly brief: HomeProcess["brief"];
  /** Versions of the process. */
  readonly versions: number;
}) {
  const { summary } = version;
  const signs = stageSigns({
    brief,
    nodes: summary?.steps ?? 0,
    open: summary ?? undefined,
    walks: summary?.walks ?? 0,
    failingWalks: summary?.failingWalks ?? 0,
    versions,
    isCopy: version.source !== null,
    handedOff: version.handedOff,
  });
  return (
    <Flex gap={1} h="26px" align="center" whiteSpace="nowrap" minW={0} overflow="hidden">
      {stages.map(({ name: stage, title }) => (
        <Flex key={stage} title={`${title}: ${signWords(signs[stage])}`} align="center">
          <SignIcon sign={signs[stage]} size={14} />
          <chakra.span srOnly>{`${title}: ${signWords(signs[stage])}`}</chakra.span>
        </Flex>
      ))}
      <chakra.span color="quiet" fontSize="12px" ms={1} truncate>
        {summary ? text.home.shapes(summary.shapes) : text.home.notCounted}
      </chakra.span>
    </Flex>
  );
}
