"use client";
import { Button, Dialog, Field, Input, Portal, Text, Textarea } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { text } from "../messages";

interface ToBeDialogProps {
  readonly title: string;
  readonly explain?: string;
  readonly name: string;
  readonly aim: string;
  readonly action: string;
  readonly onAnswer: (answer: { readonly name: string; readonly aim: string }) => Promise<void>;
  readonly onClose: () => void;
}

/** A version's name, and what it is to reach. */
export function ToBeDialog({ title, explain, action, onAnswer, onClose, ...start }: ToBeDialogProps) {
  const [name, setName] = useState(start.name);
  const [aim, setAim] = useState(start.aim);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      await onAnswer({ name: name.trim(), aim: aim.trim() });
      onClose();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : text.unknownError);
      setBusy(false);
    }
  };
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="460px">
            <form onSubmit={submit}>
              <Dialog.Header>
                <Dialog.Title fontSize="16px">{title}</Dialog.Title>
              </Dialog.Header>
              <Dialog.Body>
                {explain && (
                  <Text mb={4} color="quiet">
                    {explain}
                  </Text>
                )}
                <Field.Root invalid={problem !== null} required mb={3}>
                  <Field.Label>{text.version.name}</Field.Label>
                  <Input value={name} onChange={(event) => setName(event.target.value)} />
                  <Field.ErrorText>{problem}</Field.ErrorText>
                </Field.Root>
                <Field.Root>
                  <Field.Label>{text.version.aim}</Field.Label>
                  <Textarea
                    value={aim}
                    rows={3}
                    placeholder={text.version.aimHint}
                    onChange={(event) => setAim(event.target.value)}
                  />
                </Field.Root>
              </Dialog.Body>
              <Dialog.Footer>
                <Button variant="ghost" onClick={onClose}>
                  {text.dialog.cancel}
                </Button>
                <Button type="submit" bg="accent" color="onAccent" disabled={busy || name.trim() === ""}>
                  {action}
                </Button>
              </Dialog.Footer>
            </form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
