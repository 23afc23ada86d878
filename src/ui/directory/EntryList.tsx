"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ListedEntry } from "@/contract/directory";
import { text } from "../messages";

/** Entries by name, with what they mean and how often they are used. */
export function EntryList({
  entries,
  chosen,
  onChoose,
}: {
  readonly entries: readonly ListedEntry[];
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}) {
  return (
    <Box as="ul" listStyleType="none" borderTopWidth="1px" borderColor="line">
      {entries.map((one) => (
        <chakra.li key={one.id} borderBottomWidth="1px" borderColor="line">
          <chakra.button
            type="button"
            aria-current={one.id === chosen}
            onClick={() => onChoose(one.id)}
            w="100%"
            display="grid"
            gridTemplateColumns="200px 1fr 90px"
            gap={4}
            textAlign="start"
            px={3}
            py={2}
            cursor="pointer"
            bg={one.id === chosen ? "accentSoft" : undefined}
            _hover={{ bg: "accentSoft" }}
          >
            <Flex gap={2} align="center" fontWeight="600" minW={0}>
              {one.hue && (
                <chakra.span
                  w="5px"
                  h="18px"
                  borderRadius="1px"
                  style={{ background: one.hue }}
                  flexShrink={0}
                  aria-hidden="true"
                />
              )}
              <chakra.span truncate>{one.name}</chakra.span>
            </Flex>
            <chakra.span color="quiet" truncate>
              {one.description}
            </chakra.span>
            <chakra.span color="quiet" textAlign="end">
              {text.directory.times(one.uses)}
            </chakra.span>
          </chakra.button>
        </chakra.li>
      ))}
    </Box>
  );
}
