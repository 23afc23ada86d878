"use client";
import { Box, Button, chakra, Flex, Menu, Portal } from "@chakra-ui/react";
import type { HomeProcess, HomeVersion } from "@/contract/home";
import type { Bounds } from "@/core/model";
import { momentWords } from "../controls/moment";
import { PageLink } from "../controls/PageLink";
import { text } from "../messages";
import { firstShown, stagePath } from "../stages/register";
import { needWords } from "./needWords";
import { type Place, type ProcessActs, ProcessMenu } from "./ProcessMenu";
import { Stations } from "./Stations";

/** A process on the map: its name, its last change, its journey, and what matters of it now. */
export function ProcessCard(props: {
  readonly process: HomeProcess;
  readonly versions: readonly HomeVersion[];
  readonly bounds: Bounds;
  readonly areas: readonly Place[];
  readonly acts: ProcessActs;
  readonly isFirst: boolean;
}) {
  const { process, versions, bounds, areas, acts, isFirst } = props;
  const [first, ...others] = versions;
  const { words, tone } = needWords(process, versions);
  const last = versions
    .map(({ changedAt }) => changedAt)
    .sort()
    .at(-1);
  const needs = tone === "trouble" || tone === "attention";
  return (
    <Box
      as="article"
      aria-label={process.name}
      position="absolute"
      style={{ left: bounds.x, top: bounds.y, width: bounds.width, height: bounds.height }}
      bg="paper"
      borderWidth="1.5px"
      borderColor={needs ? tone : "ink"}
      borderRadius="8px"
      px={3}
      py={1.5}
      draggable
      onDragStart={(event: React.DragEvent) => event.dataTransfer.setData("application/x-lane-process", process.id)}
      _hover={{ borderColor: "accent" }}
      data-process={process.id}
      data-need={process.need}
    >
      <Flex align="center" gap={1}>
        {first ? (
          <PageLink
            href={stagePath(first.id, firstShown)}
            fontWeight="700"
            fontSize="14px"
            color="ink"
            truncate
            flex="1"
            minW={0}
            title={process.name}
            data-card={process.id}
            tabIndex={isFirst ? 0 : -1}
            // The whole card leads there; what else can be pressed lies above.
            _after={{ content: '""', position: "absolute", inset: 0, borderRadius: "7px" }}
            _focusVisible={{ outline: "none", _after: { outline: "2px solid var(--chakra-colors-accent)" } }}
          >
            {process.name}
          </PageLink>
        ) : (
          <chakra.span flex="1">{process.name}</chakra.span>
        )}
        {others.length > 0 && first && <Versions versions={versions} />}
        <ProcessMenu process={process} areas={areas} acts={acts} />
      </Flex>
      <chakra.p color="quiet" fontSize="12px" truncate>
        {last && momentWords(last)}
      </chakra.p>
      {first && <Stations version={first} brief={process.brief} versions={versions.length} />}
      <chakra.p fontSize="12px" color={tone} fontWeight={needs ? 600 : 400} truncate title={words}>
        {words}
      </chakra.p>
    </Box>
  );
}

/** How many to-bes there are, and the way into each version. */
function Versions({ versions }: { readonly versions: readonly HomeVersion[] }) {
  return (
    <Menu.Root>
      <Menu.Trigger asChild>
        <Button
          size="2xs"
          variant="outline"
          bg="accentSoft"
          color="accent"
          borderColor="accent"
          borderRadius="10px"
          fontSize="12px"
          // On the edge, so that the name has the whole line.
          position="absolute"
          top="-12px"
          insetInlineEnd="36px"
        >
          {text.home.toBes(versions.length - 1)}
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink">
            {versions.map(({ id, name }) => (
              <Menu.Item key={id} value={id} asChild>
                <PageLink href={stagePath(id, firstShown)}>{name}</PageLink>
              </Menu.Item>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
