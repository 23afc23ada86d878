"use client";
import { Box, Button, Dialog, Flex, Grid, Portal, Text } from "@chakra-ui/react";
import { closedOnPurpose } from "../../controls/dialogs";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";

const groups = [
  {
    title: text.keys.groups.move,
    keys: [
      ["← →", "follow the flows"],
      ["↑ ↓", "to what lies above or below"],
      [".", "to a flow that leaves, and the next"],
      ["PgDn", "open a sub-process"],
      ["PgUp", "back to the whole"],
      ["Space", "look inside"],
      ["[ ]", "back and forth between pages"],
      ["O", "outline"],
      [",", "to the same in another version"],
      ["Ctrl K", "find anything"],
    ],
  },
  {
    title: text.keys.groups.build,
    keys: [
      ["Enter", "next task"],
      ["Shift Enter", "step before"],
      ["T D P I", "task, decision, parallel, any of"],
      ["W M H", "wait, message in, message out"],
      ["E S C", "end, sub-process, call"],
      ["B F N", "at its edge, document, note"],
      ["1 U X L", "start, pool, outside party, lane"],
      ["Z", "every other kind"],
    ],
  },
  {
    title: text.keys.groups.change,
    keys: [
      ["F2", "name"],
      ["Ctrl ↑ ↓", "to the next lane"],
      ["Alt arrows", "shift a little"],
      ["Del", "delete"],
      ["Ctrl C X V", "copy, cut, paste"],
      ["Ctrl Z Y", "undo, redo"],
      ["Ctrl D", "duplicate"],
      ["R", "lead to another element"],
      ["Shift R", "make another kind"],
      ["Shift D", "make a flow the usual answer"],
      ["Shift L", "straighten a flow"],
      ["Shift N", "name back to its place"],
      ["J", "make room"],
      ["Y", "tidy the page, or what is chosen"],
    ],
  },
  {
    title: text.keys.groups.several,
    keys: [
      ["L C R", "align left, centres, right"],
      ["T M B", "align top, middles, bottom"],
      ["H V", "spread across, down"],
      ["S", "one size"],
      ["P", "the path between two"],
      ["W X", "wrap, take out into a process"],
    ],
  },
  {
    title: text.keys.groups.levels,
    keys: [
      ["Shift W", "wrap into a sub-process"],
      ["Shift O", "open in place, close"],
      ["Shift U", "dissolve"],
      ["Shift X", "take out into a process"],
      ["Shift ↑ ↓", "move a lane"],
      ["Shift V I", "split a lane, two lanes inside"],
    ],
  },
  {
    title: text.keys.groups.view,
    keys: [
      ["0", "fit"],
      ["+ −", "nearer, farther"],
      ["wheel", "zoom at the pointer"],
      ["drag the ground", "move the page"],
      ["Shift 1 to 9", "show or hide a lens"],
      ["Shift drag", "select what is inside"],
      ["Esc", "select nothing"],
    ],
  },
] as const;

/** The sheet of keys. */
export function KeySheet({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog.Root {...closedOnPurpose} open onOpenChange={({ open }) => !open && onClose()} size="xl" placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px">
            <Dialog.Header>
              <Dialog.Title fontSize="16px">{text.keys.title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Grid templateColumns="1fr 1fr 1fr" gap={6}>
                {groups.map((group) => (
                  <Box key={group.title}>
                    <Text fontWeight="700" mb={2}>
                      {group.title}
                    </Text>
                    {group.keys.map(([key, meaning]) => (
                      <Flex key={key} justify="space-between" gap={3} py="2px" fontSize="13px">
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
