"use client";
import { Box, chakra } from "@chakra-ui/react";
import { type KeyboardEvent, useId, useRef, useState } from "react";
import { hasLines } from "./pastedLines";

interface TextCellProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  /** What was typed to begin with, instead of the value. */
  readonly start: string | null;
  /** Why what is typed cannot be read; the cell then stays as it is. */
  readonly check?: (typed: string) => string | undefined;
  readonly onCommit: (value: string) => void;
  /** After the cell was left by a key: which one. */
  readonly onLeave: (event: KeyboardEvent) => void;
  readonly onCancel: () => void;
}

/** A cell being written. Enter, Tab and gestures keep it and go on; Escape takes the typing back. */
export function TextCell(props: TextCellProps) {
  const { label, value, placeholder, start, check, onCommit, onLeave, onCancel } = props;
  const [typed, setTyped] = useState(start ?? value);
  const [trouble, setTrouble] = useState<string>();
  const left = useRef(false);
  const reasonId = useId();
  const keep = () => {
    if (left.current) return;
    left.current = true;
    onCommit(typed.trim());
  };
  return (
    <Box position="relative" w="100%" mx={-2}>
      <chakra.input
        autoFocus
        data-sheet-cell=""
        aria-label={label}
        aria-invalid={trouble !== undefined}
        aria-describedby={trouble ? reasonId : undefined}
        value={typed}
        placeholder={placeholder}
        w="calc(100% + 16px)"
        h="26px"
        px={2}
        bg="paper"
        borderWidth="2px"
        borderColor={trouble ? "trouble" : "accent"}
        borderRadius="4px"
        outline="none"
        _placeholder={{ color: "quiet" }}
        onChange={(event) => {
          setTyped(event.target.value);
          setTrouble(undefined);
        }}
        onFocus={(event) => start === null && event.target.select()}
        onBlur={keep}
        onPaste={(event) => {
          if (!hasLines(event.clipboardData.getData("text/plain"))) return;
          event.preventDefault();
          if (typed.trim() !== value) return keep();
          left.current = true;
          onCancel();
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Escape") {
            left.current = true;
            onCancel();
          } else if (event.key === "Enter" || event.key === "Tab" || (event.altKey && event.key !== "Alt")) {
            event.preventDefault();
            const reason = check?.(typed.trim());
            setTrouble(reason);
            if (reason !== undefined) return;
            keep();
            onLeave(event);
          }
        }}
      />
      {trouble && (
        <Box
          id={reasonId}
          role="alert"
          position="absolute"
          top="28px"
          insetInlineEnd="-16px"
          w="max-content"
          maxW="320px"
          px={2}
          py={1}
          bg="paper"
          color="trouble"
          fontSize="12px"
          borderWidth="1px"
          borderColor="trouble"
          borderRadius="4px"
          zIndex={6}
        >
          {trouble}
        </Box>
      )}
    </Box>
  );
}
