"use client";
import { Button, chakra, Dialog, Portal } from "@chakra-ui/react";
import { text } from "../messages";
import type { Refused } from "./useTakeOver";
import { Words } from "./Words";

/** A change that hangs on others: what they are, and whether they are to come along. */
export function TakeDialog({
  refused,
  onAlong,
  onClose,
}: {
  readonly refused: Refused;
  readonly onAlong: () => void;
  readonly onClose: () => void;
}) {
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="560px">
            <Dialog.Header>
              <Dialog.Title fontSize="16px">{text.compare.hangsTogether}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p mb={3}>{refused.message}</chakra.p>
              <chakra.ul listStyleType="none">
                {refused.along.map((group) => (
                  <chakra.li key={group.key} py={1} borderTopWidth="1px" borderColor="line">
                    <Words phrase={group.phrase} />
                  </chakra.li>
                ))}
              </chakra.ul>
            </Dialog.Body>
            <Dialog.Footer>
              <Button variant="ghost" onClick={onClose}>
                {text.dialog.cancel}
              </Button>
              {refused.along.length > 0 && (
                <Button bg="accent" color="onAccent" onClick={onAlong}>
                  {text.compare.takeAlong(refused.along.length + refused.keys.length)}
                </Button>
              )}
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
