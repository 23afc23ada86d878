"use client";
import { Button, type ButtonProps } from "@chakra-ui/react";
import { live } from "@/contract";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { initialsOf } from "./member";

/** The member's initials, which open the menu of the workspace. */
export function MemberButton(props: ButtonProps) {
  const { data } = useAsked(live.listMembers, {});
  const me = data?.members.find(({ id }) => id === data.me);
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
      {me ? initialsOf(me.name) : ""}
    </Button>
  );
}
