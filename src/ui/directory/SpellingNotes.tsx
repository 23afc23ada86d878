"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import type { ListedEntry } from "@/contract/directory";
import type { SimilarPair } from "@/core/directory";
import { text } from "../messages";

/** Names that are likely two spellings of one thing, with the one step that makes them one. */
export function SpellingNotes({
  pairs,
  onMerge,
}: {
  readonly pairs: readonly SimilarPair[];
  readonly onMerge: (from: string, into: string) => void;
}) {
  if (pairs.length === 0) return null;
  return (
    <Box
      as="section"
      aria-label={text.directory.similar}
      mb={4}
      borderWidth="1px"
      borderColor="saffron"
      borderRadius="6px"
    >
      <chakra.h2 fontSize="13px" fontWeight="600" px={3} pt={2}>
        {text.directory.similar}
      </chakra.h2>
      <Box as="ul" listStyleType="none" px={3} pb={2}>
        {pairs.slice(0, 8).map(({ one, other }) => {
          // What is used more often stays.
          const [into, from] = usesOf(one) >= usesOf(other) ? [one, other] : [other, one];
          return (
            <Flex as="li" key={`${one.id} ${other.id}`} align="center" gap={3} minH="32px">
              <chakra.span flex="1">{text.directory.maybeOne(into.name, from.name)}</chakra.span>
              {(
                [
                  [from, into],
                  [into, from],
                ] as const
              ).map(([goes, stays]) => (
                <Button
                  key={stays.id}
                  size="xs"
                  variant="outline"
                  bg="paper"
                  borderColor="line"
                  onClick={() => onMerge(goes.id, stays.id)}
                >
                  {text.directory.keep(stays.name)}
                </Button>
              ))}
            </Flex>
          );
        })}
      </Box>
      {pairs.length > 8 && (
        <chakra.p color="quiet" px={3} pb={2}>
          {text.directory.moreSimilar(pairs.length - 8)}
        </chakra.p>
      )}
    </Box>
  );
}

const usesOf = (entry: SimilarPair["one"]) => (entry as Partial<ListedEntry>).uses ?? 0;
