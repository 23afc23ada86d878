"use client";
import { Box } from "@chakra-ui/react";

interface OptionListProps {
  readonly id: string;
  readonly label: string;
  readonly options: readonly { readonly id: string; readonly label: string }[];
  readonly active: number;
  /** Above or below the field it belongs to. */
  readonly side: "above" | "below";
  /** What the list says when nothing fits. */
  readonly empty?: string;
  readonly onTake: (at: number) => void;
}

/** What fits what is typed in a combobox, one option marked; the field keeps the focus. */
export function OptionList({ id, label, options, active, side, empty, onTake }: OptionListProps) {
  return (
    <Box
      id={id}
      role="listbox"
      aria-label={label}
      position="absolute"
      {...(side === "above" ? { bottom: "30px" } : { top: "26px" })}
      left={0}
      minW="300px"
      maxH="230px"
      overflowY="auto"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      boxShadow="0 4px 16px rgb(0 0 0 / 14%)"
      zIndex={6}
      py={1}
    >
      {options.map((option, at) => (
        <Box
          key={`${option.id}${option.label}`}
          id={`${id}-${at}`}
          role="option"
          aria-selected={at === active}
          px={3}
          py={1}
          cursor="pointer"
          bg={at === active ? "accentSoft" : undefined}
          onPointerDown={(event) => {
            event.preventDefault();
            onTake(at);
          }}
        >
          {option.label}
        </Box>
      ))}
      {options.length === 0 && empty && (
        <Box px={3} py={1} color="quiet">
          {empty}
        </Box>
      )}
    </Box>
  );
}
