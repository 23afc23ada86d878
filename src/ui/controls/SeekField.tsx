"use client";
import { chakra } from "@chakra-ui/react";

/** A field above a list, for a part of what is sought in it. */
export function SeekField(props: {
  readonly label: string;
  readonly value: string;
  readonly onType: (typed: string) => void;
}) {
  const { label, value, onType } = props;
  return (
    <chakra.input
      aria-label={label}
      placeholder={label}
      value={value}
      h="28px"
      w="260px"
      px={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      onChange={(event) => onType(event.target.value)}
    />
  );
}
