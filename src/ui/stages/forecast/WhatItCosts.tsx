"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { Forecast } from "@/core/forecast";
import type { Id } from "@/core/model";
import { Panel } from "../../controls/Panel";
import { decimals, moneyWords } from "../../controls/units";
import { text } from "../../messages";

/** What a case costs, step by step, the dearest first; each bar in the colours of who does it, the rest being fixed cost. */
export function WhatItCosts(props: {
  readonly forecast: Forecast;
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onShow: (element: Id) => void;
}) {
  const { forecast, hueOf, onShow } = props;
  const { currency } = forecast;
  // Cases under way at the end have not cost all they will; what a done one costs is split as all that was spent.
  const spent = forecast.elements.reduce((sum, { costTotal }) => sum + costTotal, 0);
  const cases = spent > 0 && forecast.cost.mean > 0 ? spent / forecast.cost.mean : 1;
  const rows = forecast.elements
    .filter(({ costTotal }) => costTotal > 0)
    .sort((a, b) => b.costTotal - a.costTotal)
    .map((one) => {
      const people = one.costBy.map(({ resource, total }) => ({ resource, each: total / cases }));
      const rest = one.costTotal / cases - people.reduce((sum, { each }) => sum + each, 0);
      return { ...one, each: one.costTotal / cases, people, rest: Math.max(0, rest) };
    });
  const most = Math.max(1e-9, rows[0]?.each ?? 0);
  const roles = forecast.resources
    .map(({ id, name }) => {
      const each = rows.reduce((sum, { people }) => sum + (people.find((one) => one.resource === id)?.each ?? 0), 0);
      return { id, name, each };
    })
    .filter(({ each }) => each > 0)
    .sort((a, b) => b.each - a.each);
  const fixed = rows.reduce((sum, { rest }) => sum + rest, 0);
  const cell = (each: number | undefined) => (each === undefined || each === 0 ? "" : decimals(each));
  return (
    <Panel
      title={text.forecast.panels.costs}
      unit={moneyWords(forecast.cost.mean, currency)}
      table={{
        head: [text.forecast.columns.step, ...roles.map(({ name }) => name), text.forecast.fixed, currency],
        rows: rows.map(({ name, people, rest, each }) => [
          name,
          ...roles.map(({ id }) => cell(people.find((one) => one.resource === id)?.each)),
          cell(rest < 0.005 ? 0 : rest),
          decimals(each),
        ]),
      }}
    >
      {rows.length === 0 && <chakra.p color="quiet">{text.forecast.noCosts}</chakra.p>}
      <Flex as="ul" direction="column" listStyleType="none" m={0} p={0}>
        {rows.slice(0, 8).map(({ id, name, each, people, rest }) => (
          <chakra.li key={id} display="grid" gridTemplateColumns="minmax(0, 1.2fr) 1.3fr 56px" gap={2} h="24px">
            <chakra.button
              type="button"
              textAlign="start"
              truncate
              fontSize="13px"
              h="24px"
              cursor="pointer"
              onClick={() => onShow(id)}
            >
              {name}
            </chakra.button>
            <Flex h="12px" alignSelf="center" w={`${Math.max(1, (100 * each) / most)}%`}>
              {people.map((one) => (
                <Box key={one.resource} flex={one.each} bg={hueOf(one.resource) ?? "ink"} />
              ))}
              {rest > each / 1000 && <Box flex={rest} bg="pencil" />}
            </Flex>
            <chakra.span fontSize="12px" fontWeight="600" textAlign="end" alignSelf="center">
              {decimals(each)}
            </chakra.span>
          </chakra.li>
        ))}
      </Flex>
      {rows.length > 0 && (
        <Flex gap={3} wrap="wrap" fontSize="12px" color="quiet" pt={1}>
          {roles.map(({ id, name, each }) => (
            <Hue key={id} colour={hueOf(id) ?? "ink"} words={`${name} ${decimals(each)}`} />
          ))}
          {fixed > 0.005 && <Hue colour="pencil" words={`${text.forecast.fixed} ${decimals(fixed)}`} />}
        </Flex>
      )}
    </Panel>
  );
}

function Hue({ colour, words }: { readonly colour: string; readonly words: string }) {
  return (
    <Flex align="center" gap={1.5}>
      <Box w="11px" h="11px" bg={colour} />
      {words}
    </Flex>
  );
}
