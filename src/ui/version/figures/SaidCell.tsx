"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type KeyboardEvent, useId, useState } from "react";
import type { Distribution } from "@/core/scenario";
import { SmallCurve } from "./SmallCurve";

/** What came of what was typed: taken, or why not. */
export type Took = string | undefined;

/**
 * A cell that is kept when one leaves it or presses Enter; what cannot be read stays with its reason. Enter and the arrows go down and
 * up its column, Tab across; several lines that are pasted fill it downwards.
 */
export function SaidCell(props: {
  readonly label: string;
  readonly column: string;
  readonly value: string;
  /** What holds while nothing is said here. */
  readonly usual: string;
  /** Said in this scenario itself. */
  readonly isOwn: boolean;
  readonly onSay: (typed: string) => Took;
  readonly onPaste?: (lines: readonly string[]) => void;
  /** How what was said is spread. */
  readonly spread?: Distribution | undefined;
  readonly width?: string;
  /** Framed as a field, where it stands by itself. */
  readonly isFramed?: boolean;
}) {
  const { label, column, value, usual, isOwn, onSay, onPaste, spread, width = "100%", isFramed = false } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [reason, setReason] = useState<Took>();
  const described = useId();
  const commit = (): boolean => {
    if (typed === null || typed.trim() === value) {
      setTyped(null);
      setReason(undefined);
      return true;
    }
    const told = onSay(typed.trim());
    setReason(told);
    if (told === undefined) setTyped(null);
    return told === undefined;
  };
  const go = (from: HTMLElement, by: 1 | -1) => {
    const all = [...(from.closest("[data-sheet]")?.querySelectorAll<HTMLElement>(`[data-column="${column}"]`) ?? [])];
    all[all.indexOf(from) + by]?.focus();
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // Where nothing was typed, keys that take back what was done are for the page.
    if ((event.ctrlKey || event.metaKey) && typed === null) return;
    event.stopPropagation();
    if (event.key === "Escape") {
      setTyped(null);
      setReason(undefined);
    } else if (event.key === "Enter" || event.key === "ArrowDown") {
      event.preventDefault();
      if (commit()) go(event.currentTarget, 1);
    } else if (event.key === "ArrowUp") {
      event.preventDefault();
      if (commit()) go(event.currentTarget, -1);
    }
  };
  return (
    <Box w={width} minW={0}>
      <Flex align="center" gap={1}>
        <chakra.input
          aria-label={label}
          title={value}
          aria-invalid={reason !== undefined}
          aria-describedby={reason ? described : undefined}
          data-column={column}
          data-untouched={typed === null || undefined}
          value={typed ?? value}
          placeholder={usual}
          flex="1"
          minW={0}
          h="24px"
          px={1.5}
          fontSize="13px"
          bg="transparent"
          color="ink"
          fontWeight={isOwn ? "600" : "400"}
          borderWidth="1px"
          borderColor={reason ? "trouble" : isFramed ? "line" : "transparent"}
          borderRadius="4px"
          _hover={{ borderColor: reason ? "trouble" : "line" }}
          _focus={{ bg: "paper", borderColor: "accent" }}
          _placeholder={{ color: "quiet", fontStyle: "italic" }}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={commit}
          onKeyDown={onKeyDown}
          onPaste={(event) => {
            const lines = event.clipboardData
              .getData("text")
              .replace(/\r?\n$/, "")
              .split(/\r?\n/);
            if (lines.length < 2 || !onPaste) return;
            event.preventDefault();
            onPaste(lines.map((line) => line.split("\t")[0] ?? ""));
          }}
        />
        {spread && typed === null && <SmallCurve of={spread} />}
      </Flex>
      {reason && (
        <Box id={described} fontSize="12px" color="trouble" role="alert" px={1.5}>
          {reason}
        </Box>
      )}
    </Box>
  );
}
