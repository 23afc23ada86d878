"use client";
import { chakra, Flex } from "@chakra-ui/react";

/** What is drawn over the page besides the page itself, and the way to take it off. */
export function ShownNote({
  words,
  hide,
  onHide,
}: {
  readonly words: string;
  readonly hide: string;
  readonly onHide: () => void;
}) {
  return (
    <Flex
      role="status"
      position="absolute"
      left="14px"
      top="12px"
      px={3}
      h="28px"
      gap={2}
      align="center"
      bg="paper"
      borderWidth="1px"
      borderColor="saffron"
      borderRadius="6px"
    >
      {words}
      <chakra.button type="button" color="accent" cursor="pointer" onClick={onHide}>
        {hide}
      </chakra.button>
    </Flex>
  );
}
