"use client";
import { Button, type ButtonProps, chakra } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";

/** The version's name in the trail, which opens its menu. */
export function VersionMenuButton({ name, ...props }: ButtonProps & { readonly name: string }) {
  return (
    <Button
      aria-haspopup="menu"
      {...props}
      variant="outline"
      h="26px"
      px={2}
      bg="paper"
      color="ink"
      borderColor="line"
      fontWeight="400"
      flexShrink={0}
      maxW="220px"
    >
      <chakra.span truncate>{name}</chakra.span>
      <ChevronDown size={13} aria-hidden />
    </Button>
  );
}
