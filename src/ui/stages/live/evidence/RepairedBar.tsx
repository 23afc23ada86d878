"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import type { Repaired } from "@/jobs";
import { text, worded } from "../../../messages";

const words = text.evidence.differences;

/** Above the drawing while it shows a repair: what the log would fit then, what it costs in size, and whether to make it. */
export function RepairedBar(props: {
  readonly repaired: Repaired;
  readonly traces: number;
  readonly onApply: () => void;
  readonly onLeave: () => void;
}) {
  const { repaired, traces, onApply, onLeave } = props;
  const { before, after, mended } = repaired;
  return (
    <Flex
      as="section"
      aria-label={words.asRepaired}
      px={4}
      py={1.5}
      gap={3}
      align="center"
      bg="accentSoft"
      borderBottomWidth="1px"
      borderColor="accent"
      flexShrink={0}
      data-testid="repaired"
    >
      <chakra.span fontWeight="700" flexShrink={0}>
        {words.asRepaired}
      </chakra.span>
      <chakra.span flex="1" minW={0} role="status">
        {mended.length > 1 && (
          <span title={mended.map((one) => worded(one)).join("\n")}>{words.several(mended.length)} </span>
        )}
        {words.effect(before.fitting, after.fitting, traces)}{" "}
        <chakra.span color="quiet">
          {words.effectMore(
            words.fromTo(before.fitness.toFixed(3), after.fitness.toFixed(3)),
            words.fromTo(before.precision.toFixed(2), after.precision.toFixed(2)),
            after.size - before.size,
          )}
        </chakra.span>
      </chakra.span>
      <Button size="xs" variant="ghost" onClick={onLeave}>
        {words.leave}
      </Button>
      <Button size="xs" bg="accent" color="onAccent" onClick={onApply}>
        {words.apply}
      </Button>
    </Flex>
  );
}
