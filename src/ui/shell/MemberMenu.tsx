"use client";
import { Box, Menu, Portal } from "@chakra-ui/react";
import { text } from "../messages";
import { MemberButton } from "./MemberButton";

/** Who one is, and what concerns the whole workspace. Loaded when it is first opened. */
export function MemberMenu({ onRestore }: { readonly onRestore: () => void }) {
  return (
    <Menu.Root defaultOpen>
      <Menu.Trigger asChild>
        <MemberButton />
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink">
            <Box px={3} py={2} color="quiet" fontSize="12px">
              {text.shell.members} Mara Aldous
            </Box>
            <Menu.Item value="backup" asChild>
              <a href="/api/backup" download>
                {text.shell.backup}
              </a>
            </Menu.Item>
            <Menu.Item value="restore" onClick={onRestore}>
              {text.shell.restore}
            </Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
