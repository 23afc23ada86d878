"use client";
import { Button, Menu, Portal } from "@chakra-ui/react";
import { Ellipsis } from "lucide-react";
import { text } from "../messages";
import type { Place } from "./ProcessMenu";

/** What is done with an area. */
export interface AreaActs {
  /** A process in it. */
  readonly onNewProcess: (area: Place) => void;
  readonly onNew: (parent: Place) => void;
  readonly onRename: (area: Place) => void;
  readonly onMove: (area: Place, parent: string | null) => void;
  readonly onDelete: (area: Place) => void;
}

/** The menu of an area, at the head of its lane. */
export function AreaMenu(props: { readonly area: Place; readonly areas: readonly Place[]; readonly acts: AreaActs }) {
  const { area, areas, acts } = props;
  return (
    <Menu.Root>
      <Menu.Trigger asChild>
        <Button
          size="2xs"
          variant="ghost"
          aria-label={text.home.more(area.name)}
          color="quiet"
          minW="24px"
          minH="24px"
          px={0}
        >
          <Ellipsis size={14} />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink">
            <Menu.Item value="process" onClick={() => acts.onNewProcess(area)}>
              {text.home.newProcessIn(area.name)}
            </Menu.Item>
            <Menu.Item value="new" onClick={() => acts.onNew(area)}>
              {text.home.newAreaIn(area.name)}
            </Menu.Item>
            <Menu.Item value="rename" onClick={() => acts.onRename(area)}>
              {text.home.rename}
            </Menu.Item>
            {area.parent !== null && (
              <Menu.Item value="top" onClick={() => acts.onMove(area, null)}>
                {`${text.home.move} ${text.home.topLevel}`}
              </Menu.Item>
            )}
            {areas
              .filter((other) => other.id !== area.id && other.id !== area.parent)
              .map((other) => (
                <Menu.Item key={other.id} value={`move-${other.id}`} onClick={() => acts.onMove(area, other.id)}>
                  {text.home.move} {other.name}
                </Menu.Item>
              ))}
            <Menu.Item value="delete" onClick={() => acts.onDelete(area)} color="trouble">
              {text.home.remove}
            </Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
