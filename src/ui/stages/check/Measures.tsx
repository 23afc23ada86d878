"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useMemo } from "react";
import { type Measure, measurable, measuresOf } from "@/core/check";
import { type Model, nameOf } from "@/core/model";
import { text } from "../../messages";

/** How hard each process is to understand, in figures, with the published thresholds where there are such. */
export function Measures({ model }: { readonly model: Model }) {
  const processes = useMemo(
    () => measurable(model).map((process) => ({ process, measures: measuresOf(model, process) })),
    [model],
  );
  return (
    <Box as="section" mb={6} data-testid="measures">
      <chakra.h2 fontSize="14px" fontWeight="700" mb={2}>
        {text.check.measures}
      </chakra.h2>
      {processes.map(({ process, measures }) => (
        <Box key={process} mb={3}>
          {processes.length > 1 && (
            <chakra.p color="quiet" mb={1}>
              {nameOf(model, process) || process}
            </chakra.p>
          )}
          <Flex as="dl" wrap="wrap" borderTopWidth="1px" borderColor="line" m={0}>
            {measures.map((measure) => (
              <Box key={measure.id} px={3} py={2} minW="132px" title={measure.source}>
                <chakra.dt fontSize="12px" color="quiet">
                  {text.check.measure[measure.id]}
                </chakra.dt>
                <chakra.dd m={0} fontWeight="700" color={isWithin(measure) ? "ink" : "attention"}>
                  {shown(measure, measure.value)}
                  <chakra.span fontWeight="400" color="quiet" fontSize="12px" ms={1.5}>
                    {measure.atMost !== undefined && text.check.atMost(shown(measure, measure.atMost))}
                    {measure.atLeast !== undefined && text.check.atLeast(shown(measure, measure.atLeast))}
                    {!isWithin(measure) && ` ${text.check.beyond}`}
                  </chakra.span>
                </chakra.dd>
              </Box>
            ))}
          </Flex>
        </Box>
      ))}
      <chakra.p color="quiet" fontSize="12px">
        {text.check.measuresSource}
      </chakra.p>
    </Box>
  );
}

const isWithin = ({ value, atMost, atLeast }: Measure) =>
  (atMost === undefined || value <= atMost) && (atLeast === undefined || value >= atLeast);
const shown = ({ id }: Measure, value: number) =>
  id === "structured" || id === "verbObject" ? `${Math.round(value * 100)} %` : String(value);
