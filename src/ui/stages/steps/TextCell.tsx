"use client";
import { chakra } from "@chakra-ui/react";
import { type KeyboardEvent, useRef, useState } from "react";

interface TextCellProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  /** What was typed to begin with, instead of the value. */
  readonly start: string | null;
  readonly onCommit: (value: string) => void;
  /** After the cell was left by a key: which one. */
  readonly onLeave: (event: KeyboardEvent) => void;
  readonly onCancel: () => void;
}

/** A cell being written. Enter, Tab and gestures keep it and go on; Escape takes the typing back. */
export function TextCell({ label, value, placeholder, start, onCommit, onLeave, onCancel }: TextCellProps) {
  const [typed, setTyped] = useState(start ?? value);
  const left = useRef(false);
  const keep = () => {
    if (left.current) return;
    left.current = true;
    onCommit(typed.trim());
  };
  return (
    <chakra.input
      autoFocus
      aria-label={label}
      value={typed}
      placeholder={placeholder}
      w="100%"
      h="26px"
      px={2}
      mx={-2}
      bg="paper"
      borderWidth="2px"
      borderColor="accent"
      borderRadius="4px"
      outline="none"
      _placeholder={{ color: "quiet" }}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => start === null && event.target.select()}
      onBlur={keep}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Escape") {
          left.current = true;
          onCancel();
        } else if (event.key === "Enter" || event.key === "Tab" || (event.altKey && event.key !== "Alt")) {
          event.preventDefault();
          keep();
          onLeave(event);
        }
      }}
    />
  );
}
