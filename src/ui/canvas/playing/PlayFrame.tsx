"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { text } from "../../messages";

/** The bar under the page of a case that is played: how it goes. */
export function PlayBar({ children }: { readonly children: ReactNode }) {
  return (
    <Flex
      align="center"
      gap={2}
      px={4}
      minH="44px"
      bg="sheet"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      role="toolbar"
      aria-label={text.walk.controls}
      fontSize="13px"
    >
      {children}
    </Flex>
  );
}

/** One of the columns under that bar. */
export function PlayColumn(props: { readonly title: string; readonly width: string; readonly children: ReactNode }) {
  const { title, width, children } = props;
  return (
    <Flex
      as="section"
      direction="column"
      flex={`${width} 1 0`}
      minW={0}
      px={4}
      py={2.5}
      borderInlineEndWidth="1px"
      borderColor="line"
      _last={{ borderInlineEndWidth: 0 }}
      aria-label={title}
    >
      <chakra.h2 fontSize="12px" color="quiet" fontWeight="600" mb={1.5}>
        {title}
      </chakra.h2>
      <Box flex="1" minH={0} overflow="auto">
        {children}
      </Box>
    </Flex>
  );
}
