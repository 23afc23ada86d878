"use client";
import { Button, type ButtonProps } from "@chakra-ui/react";
import { text } from "../messages";

/** The member's initials, which open the menu of the workspace. */
export function MemberButton(props: ButtonProps) {
  return (
    <Button
      aria-haspopup="menu"
      {...props}
      aria-label={text.shell.menu}
      variant="plain"
      minW="28px"
      w="28px"
      h="28px"
      p={0}
      borderRadius="full"
      bg="accentSoft"
      color="ink"
      borderWidth="1px"
      borderColor="line"
      fontSize="11px"
      fontWeight="700"
    >
      MA
    </Button>
  );
}
