"use client";
import { Box, Button, Dialog, Flex, Grid, Portal, Text } from "@chakra-ui/react";
import { closedOnPurpose } from "../../controls/dialogs";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";

const words = text.keys;

/** The sheet of keys. */
export function KeySheet({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog.Root {...closedOnPurpose} open onOpenChange={({ open }) => !open && onClose()} size="xl" placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px">
            <Dialog.Header>
              <Dialog.Title fontSize="16px">{words.title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Grid templateColumns="1fr 1fr 1fr" gap={6}>
                {Object.entries(words.lists).map(([group, keys]) => (
                  <Box key={group}>
                    <Text fontWeight="700" mb={2}>
                      {words.groups[group as keyof typeof words.groups]}
                    </Text>
                    {keys.map(([key, meaning]) => (
                      <Flex key={key} justify="space-between" align="start" gap={3} py="2px" fontSize="13px">
                        <Text>{meaning}</Text>
                        <Keycap flexShrink={0}>{key}</Keycap>
                      </Flex>
                    ))}
                  </Box>
                ))}
              </Grid>
            </Dialog.Body>
            <Dialog.Footer>
              <Button asChild variant="ghost" color="accent">
                <a href="/gallery" target="_blank" rel="noreferrer">
                  {text.gallery.open}
                </a>
              </Button>
              <Button variant="ghost" onClick={onClose}>
                {text.dialog.close}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
