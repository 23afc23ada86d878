"use client";
import { chakra } from "@chakra-ui/react";

/** Several lines that somebody is typing; what is pressed in it does nothing elsewhere. */
export function TypedArea(props: {
  readonly label: string;
  readonly hint: string;
  readonly value: string;
  readonly onType: (value: string) => void;
}) {
  const { label, hint, value, onType } = props;
  return (
    <chakra.textarea
      aria-label={label}
      placeholder={hint}
      rows={2}
      value={value}
      px={2}
      py={1}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      _placeholder={{ color: "quiet" }}
      onChange={(event) => onType(event.target.value)}
      onKeyDown={(event) => event.stopPropagation()}
    />
  );
}
