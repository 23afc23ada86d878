"use client";
import { chakra, Flex } from "@chakra-ui/react";

/** A few choices side by side, one of them taken; none is where the value is none of them. */
export function Segments<Value extends string>({
  label,
  value,
  options,
  small,
  onChoose,
}: {
  readonly label: string;
  readonly value: Value | undefined;
  readonly options: readonly (readonly [value: Value, words: string, key?: string])[];
  readonly small?: boolean;
  readonly onChoose: (value: Value) => void;
}) {
  return (
    <Flex
      role="radiogroup"
      aria-label={label}
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      overflow="hidden"
      flexShrink={0}
    >
      {options.map(([option, words, keycap]) => (
        <chakra.button
          key={option}
          type="button"
          role="radio"
          aria-keyshortcuts={keycap}
          aria-checked={value === option}
          px={small ? 2 : 2.5}
          h={small ? "24px" : "28px"}
          fontSize={small ? "12px" : "13px"}
          whiteSpace="nowrap"
          cursor="pointer"
          bg={value === option ? "accent" : "paper"}
          color={value === option ? "onAccent" : "ink"}
          onClick={() => onChoose(option)}
        >
          {words}
          {keycap && (
            <chakra.span aria-hidden="true" ms={1.5} opacity={0.75} fontSize="12px">
              {keycap}
            </chakra.span>
          )}
        </chakra.button>
      ))}
    </Flex>
  );
}
