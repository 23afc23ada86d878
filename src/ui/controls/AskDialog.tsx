"use client";
import { Button, Dialog, Field, Input, Portal, Text, Textarea } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useState } from "react";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { closedOnPurpose } from "./dialogs";

interface AskDialogProps {
  readonly title: string;
  readonly explain?: string;
  readonly label: string;
  readonly start?: string;
  readonly long?: boolean;
  readonly action: string;
  /** Something else that may be said as well. */
  readonly besides?: { readonly label: string; readonly hint: string; readonly start: string };
  /** Choices that go with the answer. */
  readonly children?: ReactNode;
  readonly onAnswer: (answer: string, besides: string) => Promise<void> | void;
  readonly onClose: () => void;
}

/** Asks for one line, or a few, and stays open with the reason when the answer is not taken. */
export function AskDialog(props: AskDialogProps) {
  const { title, explain, label, start = "", long, besides, action, children, onAnswer, onClose } = props;
  const [more, setMore] = useState(besides?.start ?? "");
  const [value, setValue] = useState(start);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      await onAnswer(value.trim(), more.trim());
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
      setBusy(false);
    }
  };
  return (
    <Dialog.Root {...closedOnPurpose} open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="440px">
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
                <Field.Root invalid={problem !== null} required>
                  <Field.Label>{label}</Field.Label>
                  {long ? (
                    <Textarea value={value} onChange={(event) => setValue(event.target.value)} rows={3} />
                  ) : (
                    <Input value={value} onChange={(event) => setValue(event.target.value)} />
                  )}
                  <Field.ErrorText>{problem}</Field.ErrorText>
                </Field.Root>
                {besides && (
                  <Field.Root mt={3}>
                    <Field.Label>{besides.label}</Field.Label>
                    <Textarea
                      value={more}
                      rows={3}
                      placeholder={besides.hint}
                      onChange={(event) => setMore(event.target.value)}
                    />
                  </Field.Root>
                )}
                {children}
              </Dialog.Body>
              <Dialog.Footer>
                <Button variant="ghost" onClick={onClose}>
                  {text.dialog.cancel}
                </Button>
                <Button type="submit" bg="accent" color="onAccent" disabled={busy || value.trim() === ""}>
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
