"use client";
import { chakra } from "@chakra-ui/react";

/** Over a part of the panel. */
export function Heading({ children }: { readonly children: React.ReactNode }) {
  return (
    <chakra.h2 fontSize="13px" fontWeight="700" color="quiet" mb={1}>
      {children}
    </chakra.h2>
  );
}
