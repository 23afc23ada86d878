"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import type { ReactNode } from "react";

interface ChipProps {
  readonly children: ReactNode;
  readonly hue?: string;
  readonly onRemove?: () => void;
  readonly removeLabel?: string;
}

/** A small paper label for one thing of the directory. */
export function Chip({ children, hue, onRemove, removeLabel }: ChipProps) {
  return (
    <Flex
      display="inline-flex"
      align="center"
      gap={1.5}
      minH="24px"
      px={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      maxW="100%"
    >
      {hue && (
        <chakra.span
          w="4px"
          h="14px"
          borderRadius="1px"
          style={{ background: hue }}
          flexShrink={0}
          aria-hidden="true"
        />
      )}
      <chakra.span lineHeight="1.25">{children}</chakra.span>
      {onRemove && (
        <chakra.button
          type="button"
          aria-label={removeLabel}
          onClick={onRemove}
          color="quiet"
          minW="24px"
          h="22px"
          mx="-6px"
          display="inline-grid"
          placeItems="center"
          cursor="pointer"
          _hover={{ color: "trouble" }}
        >
          <X size={12} />
        </chakra.button>
      )}
    </Flex>
  );
}
