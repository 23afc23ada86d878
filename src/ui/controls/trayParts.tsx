"use client";
import { chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { Id, Model } from "@/core/model";

export interface TrayProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly selection: readonly Id[];
  readonly onGo: (id: Id) => void;
  readonly onOpenPage: (id: Id) => void;
  readonly onVersion: (version: string) => void;
}

/** A name and its value, side by side. */
export function Row({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <Flex gap={2} mb={1.5} align="flex-start">
      <chakra.span color="quiet" w="76px" flexShrink={0} pt="3px">
        {label}
      </chakra.span>
      <Flex gap={1} wrap="wrap" flex="1" minW={0} align="center">
        {children}
      </Flex>
    </Flex>
  );
}

/** A line for something new, taken with Enter. */
export function NewLine(props: {
  readonly label: string;
  readonly value: string;
  readonly onType: (value: string) => void;
  readonly onEnter: () => void;
}) {
  return (
    <chakra.input
      aria-label={props.label}
      placeholder={props.label}
      value={props.value}
      w="100%"
      minW={0}
      h="26px"
      px={2}
      fontSize="13px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      onChange={(event) => props.onType(event.target.value)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") props.onEnter();
      }}
    />
  );
}
