"use client";
import { Box, Button, chakra, Flex, Menu, Portal } from "@chakra-ui/react";
import { Ellipsis } from "lucide-react";
import type { HomeArea, HomeData } from "@/contract/home";
import { text } from "../messages";

interface AreaTreeProps {
  readonly data: HomeData;
  readonly chosen: string | null;
  readonly onChoose: (area: string | null) => void;
  readonly onNew: (parent: HomeArea) => void;
  readonly onRename: (area: HomeArea) => void;
  readonly onMove: (area: HomeArea, parent: string | null) => void;
  readonly onDelete: (area: HomeArea) => void;
  readonly onDropProcess: (process: string, area: string) => void;
}

/** Areas within areas; processes are dragged onto them. */
export function AreaTree(props: AreaTreeProps) {
  const { data, chosen, onChoose } = props;
  return (
    <Box as="ul" listStyleType="none" m={0}>
      <li>
        <AreaButton
          label={text.home.allAreas}
          count={data.areas.filter((one) => one.parent === null).reduce((sum, one) => sum + one.processes, 0)}
          level={0}
          active={chosen === null}
          onChoose={() => onChoose(null)}
        />
      </li>
      <Branch {...props} parent={null} level={0} />
    </Box>
  );
}

function Branch({
  parent,
  level,
  ...props
}: AreaTreeProps & { readonly parent: string | null; readonly level: number }) {
  const { data, chosen, onChoose, onNew, onRename, onMove, onDelete, onDropProcess } = props;
  const children = data.areas.filter((area) => area.parent === parent);
  if (level > 60) return null;
  return (
    <>
      {children.map((area) => (
        <li key={area.id}>
          <Flex
            align="center"
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              const process = event.dataTransfer.getData("application/x-lane-process");
              if (process) {
                event.preventDefault();
                event.stopPropagation();
                onDropProcess(process, area.id);
              }
            }}
          >
            <AreaButton
              label={area.name}
              count={area.processes}
              level={level}
              active={chosen === area.id}
              onChoose={() => onChoose(area.id)}
            />
            <Menu.Root>
              <Menu.Trigger asChild>
                <Button size="2xs" variant="ghost" aria-label={text.home.more(area.name)} color="quiet">
                  <Ellipsis size={14} />
                </Button>
              </Menu.Trigger>
              <Portal>
                <Menu.Positioner>
                  <Menu.Content bg="paper" color="ink">
                    <Menu.Item value="new" onClick={() => onNew(area)}>
                      {text.home.newAreaIn(area.name)}
                    </Menu.Item>
                    <Menu.Item value="rename" onClick={() => onRename(area)}>
                      {text.home.rename}
                    </Menu.Item>
                    {area.parent !== null && (
                      <Menu.Item
                        value="top"
                        onClick={() => onMove(area, null)}
                      >{`${text.home.move} ${text.home.topLevel}`}</Menu.Item>
                    )}
                    {data.areas
                      .filter((other) => other.id !== area.id && other.id !== area.parent)
                      .map((other) => (
                        <Menu.Item key={other.id} value={`move-${other.id}`} onClick={() => onMove(area, other.id)}>
                          {text.home.move} {other.name}
                        </Menu.Item>
                      ))}
                    <Menu.Item value="delete" onClick={() => onDelete(area)} color="trouble">
                      {text.home.remove}
                    </Menu.Item>
                  </Menu.Content>
                </Menu.Positioner>
              </Portal>
            </Menu.Root>
          </Flex>
          {data.areas.some((other) => other.parent === area.id) && (
            <Box as="ul" listStyleType="none" m={0}>
              <Branch {...props} parent={area.id} level={level + 1} />
            </Box>
          )}
        </li>
      ))}
    </>
  );
}

function AreaButton({
  label,
  count,
  level,
  active,
  onChoose,
}: {
  readonly label: string;
  readonly count: number;
  readonly level: number;
  readonly active: boolean;
  readonly onChoose: () => void;
}) {
  return (
    <chakra.button
      type="button"
      onClick={onChoose}
      aria-current={active}
      flex="1"
      w="100%"
      display="flex"
      justifyContent="space-between"
      gap={2}
      ps={`${8 + level * 16}px`}
      pe={2}
      h="30px"
      alignItems="center"
      borderRadius="6px"
      bg={active ? "accentSoft" : undefined}
      color={active ? "accent" : "ink"}
      fontWeight={active ? "600" : "400"}
      cursor="pointer"
      _hover={{ bg: "accentSoft" }}
      minW={0}
    >
      <chakra.span truncate>{label}</chakra.span>
      <chakra.span color="quiet" fontSize="12px" fontWeight="400">
        {count}
      </chakra.span>
    </chakra.button>
  );
}
