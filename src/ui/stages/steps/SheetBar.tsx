"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { memo, type RefObject } from "react";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { askWhere, leadChosen, moveChosen, removeChosen, startRow, turnWays } from "./sheetActions";
import type { Sheet } from "./useSheet";

/** Under the sheet: what can be done with the present row, each with its key. */
export const SheetBar = memo(function SheetBar(props: {
  /** The sheet as it is when something is done. */
  readonly current: RefObject<Sheet>;
  readonly steps: number;
  readonly paths: number;
}) {
  const { current, steps, paths } = props;
  const gestures: readonly (readonly [string, string, () => void])[] = [
    ["Enter", text.steps.next, () => startRow("behind")],
    ["Shift Enter", text.steps.before, () => startRow("before")],
    ["Alt D", text.steps.decision, () => startRow("decision")],
    ["Alt P", text.steps.parallel, () => startRow("parallel")],
    ["Alt A", text.steps.path, () => startRow("path")],
    ["Alt W", text.steps.ways, () => turnWays(current.current)],
    ["Alt M", text.steps.meanwhile, () => startRow("meanwhile")],
    ["Alt L", text.steps.lead, () => askWhere(current.current)],
    ["Alt E", text.steps.end, () => leadChosen(current.current, { end: "" })],
    ["Alt ↑", text.steps.up, () => moveChosen(current.current, "up")],
    ["Alt ↓", text.steps.down, () => moveChosen(current.current, "down")],
    ["Del", text.steps.remove, () => removeChosen(current.current)],
  ];
  return (
    <Flex
      role="toolbar"
      aria-label={text.steps.gestures}
      minH="38px"
      py={1}
      px={3}
      wrap="wrap"
      align="center"
      bg="paper"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
    >
      {gestures.map(([key, words, run]) => (
        <Button
          key={key}
          variant="plain"
          h="26px"
          px={1}
          gap={1}
          fontWeight="400"
          fontSize="12.5px"
          color="ink"
          flexShrink={0}
          onMouseDown={(event) => event.preventDefault()}
          onClick={run}
        >
          <Keycap>{key}</Keycap> {words}
        </Button>
      ))}
      <chakra.span flex="1" minW={2} />
      <chakra.span color="quiet" flexShrink={0}>
        {text.steps.counts(steps, paths)}
      </chakra.span>
    </Flex>
  );
});
