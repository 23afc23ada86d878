"use client";
import { Button, Menu, Portal } from "@chakra-ui/react";
import { Ellipsis } from "lucide-react";
import type { HomeProcess } from "@/contract/home";
import { text } from "../messages";

/** A place a process or an area can be in. */
export interface Place {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}

/** What is done with a process. */
export interface ProcessActs {
  readonly onRename: (process: HomeProcess) => void;
  readonly onCopy: (process: HomeProcess) => void;
  readonly onMove: (process: HomeProcess, into: Place) => void;
  readonly onDelete: (process: HomeProcess) => void;
}

/** The menu of a process, on its card and in its row. */
export function ProcessMenu(props: {
  readonly process: HomeProcess;
  readonly areas: readonly Place[];
  readonly acts: ProcessActs;
}) {
  const { process, areas, acts } = props;
  return (
    <Menu.Root>
      <Menu.Trigger asChild>
        <Button size="2xs" variant="ghost" aria-label={text.home.more(process.name)} position="relative" minH="24px">
          <Ellipsis size={16} />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink">
            <Menu.Item value="rename" onClick={() => acts.onRename(process)}>
              {text.home.rename}
            </Menu.Item>
            <Menu.Item value="copy" onClick={() => acts.onCopy(process)}>
              {text.home.copy}
            </Menu.Item>
            {areas
              .filter((area) => area.id !== process.area)
              .map((area) => (
                <Menu.Item key={area.id} value={`move-${area.id}`} onClick={() => acts.onMove(process, area)}>
                  {text.home.move} {area.name}
                </Menu.Item>
              ))}
            <Menu.Item value="delete" onClick={() => acts.onDelete(process)} color="trouble">
              {text.home.remove}
            </Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
