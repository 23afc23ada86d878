"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { WorkItem } from "@/contract/live";
import { text } from "../messages";
import { dueWords } from "./WorkLine";

const words = text.work;
/** A moment as the field for dates and times has it, on the run's clock. */
const typed = (at: number) => new Date(at).toISOString().slice(0, 16);

/** Until when a piece of work should be done, on the run's clock; to be changed. */
export function DueBy({ item, onSet }: { readonly item: WorkItem; readonly onSet: (dueBy: number | null) => void }) {
  const { dueBy, now } = item;
  const [text, setText] = useState(typed(dueBy ?? now + 86_400_000));
  const at = Date.parse(`${text}Z`);
  return (
    <Flex as="fieldset" gap={2} align="center" wrap="wrap" fontSize="13px">
      <chakra.label display="flex" alignItems="center" gap={2}>
        {words.until}
        <chakra.input
          type="datetime-local"
          value={text}
          h="26px"
          px={1}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setText(event.target.value)}
        />
      </chakra.label>
      <Button size="xs" variant="outline" disabled={Number.isNaN(at)} onClick={() => onSet(at)}>
        {words.setDue}
      </Button>
      {dueBy !== null && (
        <Button size="xs" variant="outline" onClick={() => onSet(null)}>
          {words.dropDue}
        </Button>
      )}
      <chakra.span color={dueBy !== null && dueBy < now ? "trouble" : "quiet"} data-testid="due-by">
        {dueWords(item) ?? words.noDate}
      </chakra.span>
    </Flex>
  );
}
