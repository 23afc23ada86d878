"use client";
import { Button, type ButtonProps, chakra } from "@chakra-ui/react";
import { membership } from "@/contract";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { initialsOf } from "./member";
import { useReminders } from "./useReminders";

/** The member's initials, which open the menu of the workspace. */
export function MemberButton(props: ButtonProps) {
  const { data } = useAsked(membership.listMembers, {});
  const me = data?.members.find(({ id }) => id === data.me);
  const overdue = useReminders();
  return (
    <Button
      aria-haspopup="menu"
      {...props}
      aria-label={overdue > 0 ? `${text.shell.menu}. ${text.work.remind(overdue)}` : text.shell.menu}
      position="relative"
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
      {overdue > 0 && (
        <chakra.span
          position="absolute"
          top="-5px"
          right="-5px"
          minW="15px"
          px="3px"
          lineHeight="15px"
          borderRadius="full"
          bg="trouble"
          color="paper"
          fontSize="10px"
          title={text.work.remind(overdue)}
          aria-hidden
        >
          {overdue}
        </chakra.span>
      )}
    </Button>
  );
}
