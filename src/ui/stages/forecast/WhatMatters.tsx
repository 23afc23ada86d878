"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { Effect } from "@/core/forecast";
import { moneyWords, timeWords } from "../../controls/units";
import { text } from "../../messages";

const words = text.forecast.what;

/** Inputs by how far they move a figure, the one that matters most first; each from what it comes to with less to what with more. */
export function WhatMatters(props: {
  readonly effects: readonly Effect[];
  readonly nameOf: (effect: Effect) => string;
  /** Money instead of time. */
  readonly currency: string | undefined;
}) {
  const { effects, nameOf, currency } = props;
  const shown = effects.slice(0, 10);
  const all = shown.flatMap(({ atLow, atHigh }) => [atLow, atHigh]);
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const place = (value: number) => (most > least ? ((value - least) / (most - least)) * 100 : 50);
  const told = (value: number) => (currency === undefined ? timeWords(value) : moneyWords(value, currency));
  return (
    <Box data-testid="what-matters">
      <chakra.p fontSize="12px" color="quiet" pb={2}>
        {words.mattersHint}
      </chakra.p>
      <Box as="ol" listStyleType="none" m={0} p={0}>
        {shown.map((effect) => {
          const { atLow, atHigh } = effect;
          const [from, to] = [Math.min(atLow, atHigh), Math.max(atLow, atHigh)];
          return (
            <chakra.li
              key={`${effect.input.element} ${effect.input.what}`}
              display="grid"
              gridTemplateColumns="230px 1fr 220px"
              gap={3}
              alignItems="center"
              minH="26px"
              fontSize="13px"
            >
              <chakra.span truncate>{nameOf(effect)}</chakra.span>
              <Box position="relative" h="14px" bg="ground">
                <Box
                  position="absolute"
                  top={0}
                  h="100%"
                  bg="accent"
                  minW="2px"
                  style={{ left: `${place(from)}%`, width: `${place(to) - place(from)}%` }}
                />
              </Box>
              <Flex gap={2} fontSize="12px" color="quiet" whiteSpace="nowrap">
                <span>{words.less(told(atLow))}</span>
                <span>{words.more(told(atHigh))}</span>
              </Flex>
            </chakra.li>
          );
        })}
      </Box>
    </Box>
  );
}
