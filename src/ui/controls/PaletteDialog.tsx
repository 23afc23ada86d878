"use client";
import { Dialog, Portal } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import type { ReactNode } from "react";
import "./palette.css";
import { closedOnPurpose } from "./dialogs";

interface PaletteDialogProps {
  readonly title: string;
  /** Whether the title is to be seen, not only heard. */
  readonly isTitled?: boolean;
  readonly placeholder: string;
  readonly typed: string;
  readonly onType: (typed: string) => void;
  readonly empty: string;
  readonly width: string;
  readonly onClose: () => void;
  /** The items; whoever opens the palette decides which match what is typed. */
  readonly children: ReactNode;
}

/**
 * Closes a palette, and then does what was chosen: once it has given the focus back, which would count as leaving a dialog or a
 * name editor that is open already, and close it.
 */
export function closeThen(onClose: () => void, run: () => void): void {
  onClose();
  setTimeout(run, 60);
}

/** A list one types into: what is typed narrows it, Enter takes the first, the focus goes back to the page. */
export function PaletteDialog(props: PaletteDialogProps) {
  const { title, isTitled, placeholder, typed, onType, empty, width, onClose, children } = props;
  return (
    <Dialog.Root
      {...closedOnPurpose}
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="top"
      initialFocusEl={() => document.querySelector<HTMLElement>("[cmdk-input]")}
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW={width} mt="64px" overflow="hidden">
            <Dialog.Title {...(isTitled ? { px: 4, pt: 3, fontSize: "14px" } : { srOnly: true })}>{title}</Dialog.Title>
            <Palette shouldFilter={false} label={title} className="find">
              <Palette.Input value={typed} onValueChange={onType} placeholder={placeholder} aria-label={placeholder} />
              <Palette.List aria-label={title}>
                <Palette.Empty>{empty}</Palette.Empty>
                {children}
              </Palette.List>
            </Palette>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
