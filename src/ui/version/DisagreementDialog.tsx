"use client";
import { Button, chakra, Dialog, Portal } from "@chakra-ui/react";
import { useState } from "react";
import { text } from "../messages";
import { useVersion, useVersionStore } from "./VersionContext";

const keyOf = ({ element, field }: { readonly element: string; readonly field: string }) => `${element} ${field}`;
const said = (value: unknown) =>
  value === null ? text.tray.none : typeof value === "string" ? value : JSON.stringify(value);

/** What two people changed differently, each to be decided; nothing is saved before. */
export function DisagreementDialog() {
  const store = useVersionStore();
  const disagreement = useVersion((state) => state.disagreement);
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(new Set());
  if (!disagreement) return null;
  const choose = (key: string, isTheirs: boolean) => {
    const next = new Set(theirs);
    if (isTheirs) next.add(key);
    else next.delete(key);
    setTheirs(next);
  };
  return (
    <Dialog.Root open placement="center" closeOnEscape={false} closeOnInteractOutside={false} role="alertdialog">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="720px">
            <Dialog.Header>
              <Dialog.Title fontSize="16px">{text.saved.disagree}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p mb={4}>{text.saved.disagreeWhy}</chakra.p>
              {disagreement.conflicts.map((conflict) => {
                const key = keyOf(conflict);
                return (
                  <chakra.fieldset key={key} borderTopWidth="1px" borderColor="line" py={2}>
                    <chakra.legend fontWeight="700">
                      {conflict.name}: {text.saved.fieldOf(conflict.field)}
                    </chakra.legend>
                    {(["mine", "theirs"] as const).map((side) => (
                      <chakra.label key={side} display="flex" gap={2} alignItems="baseline" py="2px">
                        <input
                          type="radio"
                          name={key}
                          checked={theirs.has(key) === (side === "theirs")}
                          onChange={() => choose(key, side === "theirs")}
                        />
                        <chakra.span w="56px" color="quiet">
                          {text.saved[side]}
                        </chakra.span>
                        <span>{said(side === "mine" ? conflict.ours : conflict.theirs)}</span>
                      </chakra.label>
                    ))}
                  </chakra.fieldset>
                );
              })}
            </Dialog.Body>
            <Dialog.Footer>
              <Button
                bg="accent"
                color="onAccent"
                onClick={() => store.getState().decide((conflict) => (theirs.has(keyOf(conflict)) ? "theirs" : "ours"))}
              >
                {text.saved.takeDecided}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
