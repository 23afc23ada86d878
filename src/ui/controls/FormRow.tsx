"use client";
import { chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A control with its name in a column before it; the control says its name itself, to whoever hears it. */
export function FormRow(props: { readonly label: string; readonly width?: string; readonly children: ReactNode }) {
  const { label, width = "90px", children } = props;
  return (
    <Flex align="center" gap={3} py={1}>
      <chakra.span w={width} flexShrink={0} color="quiet">
        {label}
      </chakra.span>
      {children}
    </Flex>
  );
}
