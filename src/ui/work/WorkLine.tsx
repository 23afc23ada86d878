"use client";
import { chakra, Flex } from "@chakra-ui/react";
import type { WorkItem } from "@/contract/live";
import { timeWords } from "../controls/units";
import { text } from "../messages";

const words = text.work;

/** Until when a piece of work should be done, in words; undefined where nothing says so. */
export function dueWords({ dueBy, now }: WorkItem): string | undefined {
  if (dueBy === null) return undefined;
  const left = (dueBy - now) / 1000;
  return left < 0 ? words.overdue(timeWords(-left)) : words.dueIn(timeWords(left));
}

/** One piece of work in the list: what, of which case, since when and until when; with a sign to choose it with others. */
export function WorkLine(props: {
  readonly item: WorkItem;
  readonly isOpen: boolean;
  readonly isChosen: boolean;
  readonly onOpen: () => void;
  readonly onChoose: (isChosen: boolean) => void;
}) {
  const { item, isOpen, isChosen, onOpen, onChoose } = props;
  const { label, process, number, since, now, roleName, memberName, dueBy } = item;
  const about = [
    words.case(process, number),
    words.waits(timeWords(Math.max(0, now - since) / 1000)),
    memberName ? words.with(memberName) : roleName && words.role(roleName),
  ];
  const due = dueWords(item);
  return (
    <chakra.li
      display="flex"
      alignItems="center"
      gap={1}
      borderTopWidth="1px"
      borderColor="line"
      borderRadius="6px"
      bg={isOpen ? "accentSoft" : undefined}
      _hover={{ bg: "accentSoft" }}
    >
      <Flex as="label" minW="28px" minH="28px" align="center" justify="center" cursor="pointer">
        <input
          type="checkbox"
          aria-label={words.chooseOne(label, number)}
          checked={isChosen}
          onChange={(event) => onChoose(event.target.checked)}
        />
      </Flex>
      <chakra.button
        type="button"
        aria-current={isOpen || undefined}
        flex="1"
        minW={0}
        textAlign="start"
        py={2}
        pe={2}
        cursor="pointer"
        onClick={onOpen}
      >
        <chakra.span display="block" fontWeight="600">
          {label}
        </chakra.span>
        <chakra.span display="block" color="quiet" fontSize="12px">
          {about.filter(Boolean).join(" · ")}
        </chakra.span>
        {due && dueBy !== null && (
          <chakra.span
            display="block"
            fontSize="12px"
            fontWeight={dueBy < now ? "700" : undefined}
            color={dueBy < now ? "trouble" : "quiet"}
          >
            {due}
          </chakra.span>
        )}
      </chakra.button>
    </chakra.li>
  );
}
