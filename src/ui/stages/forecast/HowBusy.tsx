"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { Forecast, TakenFromDirectory } from "@/core/forecast";
import type { Id } from "@/core/model";
import { Panel } from "../../controls/Panel";
import { decimals, percentWords, timeWords } from "../../controls/units";
import { text } from "../../messages";

/** Each role with its number, its hours, and the share of them that is worked. */
export function HowBusy(props: {
  readonly forecast: Forecast;
  readonly taken: readonly TakenFromDirectory[];
  readonly chosen: Id | undefined;
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onChoose: (resource: Id) => void;
}) {
  const { forecast, taken, chosen, hueOf, onChoose } = props;
  const rows = [...forecast.resources].sort((a, b) => b.utilization - a.utilization);
  const hours = new Map(taken.map(({ element, hoursPerWeek }) => [element, hoursPerWeek]));
  return (
    <Panel
      title={text.forecast.panels.busy}
      unit={text.forecast.panels.busyUnit}
      table={{
        head: [
          text.forecast.columns.role,
          text.forecast.sheet.quantity,
          text.forecast.columns.busy,
          text.forecast.columns.waits,
          text.forecast.columns.queue,
          text.forecast.columns.most,
        ],
        rows: rows.map((one) => [
          one.name,
          one.quantity,
          percentWords(one.utilization),
          timeWords(one.waitingMean),
          decimals(one.queueMean),
          one.queueMost,
        ]),
      }}
    >
      {rows.length === 0 && <chakra.p color="quiet">{text.forecast.noPeople}</chakra.p>}
      <Flex as="ul" direction="column" gap={2} listStyleType="none" m={0} p={0}>
        {rows.map((one, at) => {
          const week = hours.get(one.id);
          return (
            <chakra.li key={one.id}>
              <chakra.button
                type="button"
                display="grid"
                gridTemplateColumns="minmax(0, 1.3fr) 1.5fr 44px"
                alignItems="center"
                gap={2}
                w="100%"
                textAlign="start"
                cursor="pointer"
                borderRadius="4px"
                aria-pressed={chosen === one.id}
                outline={chosen === one.id ? "1.5px solid" : undefined}
                outlineColor="line"
                onClick={() => onChoose(one.id)}
              >
                <Flex gap={2} minW={0}>
                  <Box w="4px" bg={hueOf(one.id) ?? "pencil"} flexShrink={0} />
                  <Box minW={0}>
                    <Box fontSize="13px" fontWeight="700" truncate>
                      {one.name}
                    </Box>
                    <Box fontSize="12px" color="quiet" truncate>
                      {text.forecast.people(one.quantity, week === undefined ? "" : text.forecast.hoursAWeek(week))}
                    </Box>
                  </Box>
                </Flex>
                <Box h="15px" borderWidth="1px" borderColor="line" bg="ground">
                  <Box
                    h="100%"
                    w={`${Math.min(100, one.utilization * 100)}%`}
                    bg={at === 0 && one.utilization > 0.7 ? "saffron" : "ink"}
                  />
                </Box>
                <chakra.span fontSize="13px" fontWeight="600">
                  {percentWords(one.utilization)}
                </chakra.span>
              </chakra.button>
            </chakra.li>
          );
        })}
      </Flex>
    </Panel>
  );
}
