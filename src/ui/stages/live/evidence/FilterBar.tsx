"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { LogFilter } from "@/core/evidence";
import { Chip } from "../../../controls/Chip";
import { text } from "../../../messages";
import { FilterDialog } from "./FilterDialog";
import { useLookedAt } from "./lookedAt";
import { filterWords } from "./said";

const words = text.evidence.filters;

/** What is looked at, as sentences: everything below holds for these cases alone. */
export function FilterBar({ log, filters }: { readonly log: string; readonly filters: readonly LogFilter[] }) {
  const [isAdding, setAdding] = useState(false);
  const set = useLookedAt((state) => state.filter);
  return (
    <Flex
      as="section"
      aria-label={words.label}
      px={4}
      py={1.5}
      gap={2}
      align="center"
      wrap="wrap"
      borderBottomWidth="1px"
      borderColor="line"
      data-testid="filters"
    >
      <chakra.span color="quiet" fontSize="12px">
        {filters.length === 0 ? words.all : words.label}
      </chakra.span>
      {filters.map((filter, at) => {
        const sentence = filterWords(filter);
        return (
          <Chip
            key={JSON.stringify(filter)}
            removeLabel={words.remove(sentence)}
            onRemove={() =>
              set(
                log,
                filters.filter((_, place) => place !== at),
              )
            }
          >
            {sentence}
          </Chip>
        );
      })}
      <Button size="2xs" variant="outline" onClick={() => setAdding(true)}>
        {words.add}
      </Button>
      {filters.length > 1 && (
        <Button size="2xs" variant="ghost" onClick={() => set(log, [])}>
          {words.clear}
        </Button>
      )}
      {isAdding && (
        <FilterDialog
          log={log}
          onClose={() => setAdding(false)}
          onAdd={(filter) => {
            set(log, [...filters, filter]);
            setAdding(false);
          }}
        />
      )}
    </Flex>
  );
}
