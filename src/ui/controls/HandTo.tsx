"use client";
import { chakra } from "@chakra-ui/react";
import type { MemberRow } from "@/contract/members";
import { text } from "../messages";

const words = text.work;

/** Hands work to another member. */
export function HandTo(props: {
  readonly members: readonly MemberRow[];
  readonly me: string;
  readonly onHand: (to: string) => void;
}) {
  const { members, me, onHand } = props;
  return (
    <chakra.select
      aria-label={words.handTo}
      value=""
      h="26px"
      fontSize="13px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      onChange={(event) => event.target.value !== "" && onHand(event.target.value)}
    >
      <option value="">{words.handTo} …</option>
      {members
        .filter(({ id }) => id !== me)
        .map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
    </chakra.select>
  );
}
