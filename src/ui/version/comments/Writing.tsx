"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useRef, useState } from "react";
import type { MemberRow } from "@/contract/members";
import { text } from "../../messages";
import { fitting, mentionedIn, nameBegun, withMention } from "./mentions";

const words = text.comments;
/** So many names are offered. */
const mostOffered = 5;

/** A field to write a comment in: "@" offers members; Ctrl+Enter sends it, and what could not be sent stays written. */
export function Writing(props: {
  readonly label: string;
  readonly hint: string;
  readonly action: string;
  readonly start?: string;
  readonly members: readonly MemberRow[];
  readonly onSend: (text: string, mentions: readonly string[]) => Promise<unknown>;
  readonly onCancel?: () => void;
}) {
  const { label, hint, action, start = "", members, onSend, onCancel } = props;
  const [typed, setTyped] = useState(start);
  const [caret, setCaret] = useState(0);
  const [isSending, setSending] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const begun = nameBegun(typed, caret);
  const offered = begun === undefined ? [] : fitting(members, begun).slice(0, mostOffered);
  const mention = (name: string) => {
    const [next, at] = withMention(typed, caret, begun ?? "", name);
    setTyped(next);
    setCaret(at);
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(at, at);
    });
  };
  const send = async () => {
    if (typed.trim() === "" || isSending) return;
    setSending(true);
    const done = await onSend(typed.trim(), mentionedIn(typed, members)).then(
      () => true,
      () => false,
    );
    setSending(false);
    if (done) setTyped("");
  };
  return (
    <Flex direction="column" gap={1}>
      <chakra.textarea
        ref={field}
        aria-label={label}
        placeholder={hint}
        rows={typed === "" ? 2 : Math.min(8, typed.split("\n").length + 1)}
        value={typed}
        w="100%"
        px={2}
        py={1}
        bg="paper"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        fontSize="13px"
        _placeholder={{ color: "quiet" }}
        onChange={(event) => {
          setTyped(event.target.value);
          setCaret(event.target.selectionStart);
        }}
        onSelect={(event) => setCaret(event.currentTarget.selectionStart)}
        onKeyDown={(event) => {
          event.stopPropagation();
          const [first] = offered;
          if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
            event.preventDefault();
            void send();
          } else if ((event.key === "Enter" || event.key === "Tab") && first && begun !== "") {
            event.preventDefault();
            mention(first.name);
          } else if (event.key === "Escape") onCancel?.();
        }}
      />
      {offered.length > 0 && (
        <Flex gap={1} wrap="wrap" role="group" aria-label={words.hint}>
          {offered.map(({ id, name }) => (
            <Button
              key={id}
              size="2xs"
              variant="outline"
              aria-label={words.mention(name)}
              onClick={() => mention(name)}
            >
              @{name}
            </Button>
          ))}
        </Flex>
      )}
      {(typed.trim() !== "" || onCancel) && (
        <Flex gap={2} justify="flex-end">
          {onCancel && (
            <Button size="2xs" variant="ghost" onClick={onCancel}>
              {text.dialog.cancel}
            </Button>
          )}
          <Button size="2xs" bg="accent" color="onAccent" loading={isSending} onClick={() => void send()}>
            {action}
          </Button>
        </Flex>
      )}
    </Flex>
  );
}
