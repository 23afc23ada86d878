"use client";
import { Dialog, Portal } from "@chakra-ui/react";
import type { ReactNode, RefObject } from "react";
import { closedOnPurpose } from "./dialogs";

interface DialogFrameProps {
  readonly title: string;
  readonly width: string;
  /** Left out where the question has to be answered: then neither Escape nor a click beside it closes it. */
  readonly onClose?: () => void;
  /** Beside the title. */
  readonly aside?: ReactNode;
  readonly footer: ReactNode;
  readonly isAlert?: boolean;
  /** What has the keyboard at first, so that Enter does it; else the first thing in it. */
  readonly first?: RefObject<HTMLElement | null>;
  readonly children: ReactNode;
}

/** A window over the page, with a title, what it is about, and what can be done. */
export function DialogFrame({ title, width, onClose, aside, footer, isAlert, first, children }: DialogFrameProps) {
  return (
    <Dialog.Root
      {...closedOnPurpose}
      open
      onOpenChange={({ open }) => !open && onClose?.()}
      placement="center"
      scrollBehavior="inside"
      closeOnEscape={onClose !== undefined}
      closeOnInteractOutside={onClose !== undefined}
      {...(first && { initialFocusEl: () => first.current })}
      role={isAlert ? "alertdialog" : "dialog"}
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW={width}>
            <Dialog.Header display="flex" justifyContent="space-between">
              <Dialog.Title fontSize="16px">{title}</Dialog.Title>
              {aside}
            </Dialog.Header>
            <Dialog.Body>{children}</Dialog.Body>
            <Dialog.Footer>{footer}</Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
