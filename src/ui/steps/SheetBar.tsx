"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { Keycap } from "../controls/Keycap";
import { text } from "../messages";
import { leadChosen, moveChosen, removeChosen, startRow, turnWays } from "./sheetActions";
import type { Sheet } from "./useSheet";

/** Under the sheet: what can be done with the present row, each with its key. */
export function SheetBar({ sheet }: { readonly sheet: Sheet }) {
  const gestures: readonly (readonly [string, string, () => void])[] = [
    ["Enter", text.steps.next, () => startRow("behind")],
    ["Shift Enter", text.steps.before, () => startRow("before")],
    ["Alt D", text.steps.decision, () => startRow("decision")],
    ["Alt P", text.steps.parallel, () => startRow("parallel")],
    ["Alt A", text.steps.path, () => startRow("path")],
    ["Alt W", text.steps.ways, () => turnWays(sheet)],
    ["Alt E", text.steps.end, () => leadChosen(sheet, "end")],
    ["Alt ↑", text.steps.up, () => moveChosen(sheet, "up")],
    ["Alt ↓", text.steps.down, () => moveChosen(sheet, "down")],
    ["Del", text.steps.remove, () => removeChosen(sheet)],
  ];
  const steps = sheet.rows.filter((row) => row.kind === "step" && row.number !== "").length;
  const paths = sheet.rows.filter((row) => row.kind === "path").length;
  return (
    <Flex
      role="toolbar"
      aria-label={text.steps.gestures}
      h="38px"
      px={3}
      align="center"
      bg="paper"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      overflowX="auto"
    >
      {gestures.map(([key, words, run]) => (
        <Button
          key={key}
          variant="plain"
          h="26px"
          px={1.5}
          gap={1.5}
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
}
