"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ElementFigures, Forecast } from "@/core/forecast";
import type { Id } from "@/core/model";
import { Panel } from "../../controls/Panel";
import { decimals, inUnit, moneyWords, unitFor } from "../../controls/units";
import { text } from "../../messages";

const hatched = "repeating-linear-gradient(135deg, var(--chakra-colors-pencil) 0 1px, transparent 1px 5px)";

/** Waiting against working, step by step in the order of the process; what waits most is framed. */
export function WhereTime(props: {
  readonly forecast: Forecast;
  readonly order: readonly Id[];
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onShow: (element: Id) => void;
}) {
  const { forecast, order, hueOf, onShow } = props;
  const cases = Math.max(1, forecast.cases + forecast.underWay);
  const place = new Map(order.map((id, at) => [id, at]));
  const rows = forecast.elements
    .filter(({ waitingMean, processingMean }) => waitingMean + processingMean > 0)
    .sort((a, b) => (place.get(a.id) ?? 1e9) - (place.get(b.id) ?? 1e9));
  const waits = (one: ElementFigures) => (one.count * one.waitingMean) / cases;
  const works = (one: ElementFigures) => (one.count * one.processingMean) / cases;
  const longest = Math.max(1, ...rows.map((one) => waits(one) + works(one)));
  const most = [...rows].sort((a, b) => waits(b) - waits(a))[0];
  const unit = unitFor(longest / 1.2);
  const names = new Map(forecast.resources.map(({ id, name }) => [id, name]));
  return (
    <Panel
      title={text.forecast.panels.where}
      unit={`${text.forecast.panels.whereUnit}, ${unit.word}`}
      table={{
        head: [
          text.forecast.columns.step,
          text.forecast.sheet.by,
          text.forecast.columns.count,
          `${text.forecast.columns.waits} (${unit.word})`,
          text.forecast.columns.works,
          text.forecast.columns.cost,
        ],
        rows: rows.map((one) => [
          one.name,
          one.by.map((id) => names.get(id) ?? id).join(", "),
          decimals(one.count / cases),
          inUnit(waits(one), unit),
          inUnit(works(one), unit),
          moneyWords(one.costTotal / cases, forecast.currency),
        ]),
      }}
    >
      <Flex as="ul" direction="column" gap="0" listStyleType="none" m={0} p={0}>
        {rows.map((one) => {
          const [waiting, working] = [waits(one), works(one)];
          const isMost = one === most && waiting > 0;
          return (
            <chakra.li
              key={one.id}
              display="grid"
              gridTemplateColumns="minmax(120px, 1.5fr) minmax(80px, 1fr) 3fr"
              alignItems="center"
              gap={2}
              h="24px"
              px={1.5}
              borderRadius="4px"
              outline={isMost ? "1.5px solid" : undefined}
              outlineColor="saffron"
              data-most={isMost || undefined}
            >
              <chakra.button
                type="button"
                textAlign="start"
                truncate
                fontSize="13px"
                cursor="pointer"
                h="24px"
                onClick={() => onShow(one.id)}
              >
                {one.name}
              </chakra.button>
              <Flex align="center" gap={1.5} minW={0} fontSize="12px" color="quiet">
                {one.by[0] && <Box w="4px" h="14px" bg={hueOf(one.by[0]) ?? "pencil"} flexShrink={0} />}
                <chakra.span truncate>{one.by.map((id) => names.get(id) ?? id).join(", ")}</chakra.span>
              </Flex>
              <Flex align="center" gap={1.5} minW={0}>
                <Flex h="13px" w={`${Math.max(0.5, (100 * (waiting + working)) / longest) * 0.72}%`} flexShrink={0}>
                  <Box
                    flex={waiting}
                    borderWidth={waiting > 0 ? "1px" : 0}
                    borderColor="pencil"
                    style={{ backgroundImage: hatched }}
                  />
                  <Box flex={working} bg="ink" />
                </Flex>
                <chakra.span fontSize="12px" fontWeight="600" whiteSpace="nowrap">
                  {inUnit(waiting + working, unit)}
                </chakra.span>
                {isMost && (
                  <chakra.span fontSize="12px" color="attention" fontWeight="600" whiteSpace="nowrap">
                    {text.forecast.mostWaiting}
                  </chakra.span>
                )}
              </Flex>
            </chakra.li>
          );
        })}
      </Flex>
      <Flex gap={4} justify="flex-end" fontSize="12px" color="quiet" pt={1}>
        <Flex align="center" gap={1.5}>
          <Box w="14px" h="11px" borderWidth="1px" borderColor="pencil" style={{ backgroundImage: hatched }} />
          {text.forecast.waiting}
        </Flex>
        <Flex align="center" gap={1.5}>
          <Box w="14px" h="11px" bg="ink" />
          {text.forecast.working}
        </Flex>
      </Flex>
    </Panel>
  );
}
