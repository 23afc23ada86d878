"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { type Decision, modelOf } from "@/core/decisions";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";
import { ProofColumn } from "./ProofColumn";
import { TestsColumn } from "./TestsColumn";
import { TryColumn } from "./TryColumn";
import type { Findings } from "./useFindings";

const words = text.decisions;

/** Under the rules, side by side: what is proven of them, what they make of some values, and what should come out. */
export function DecisionTray({
  decision,
  findings,
}: {
  readonly decision: Decision;
  readonly findings: Findings | undefined;
}) {
  const { document } = useDecisions();
  if (!document) return null;
  const model = modelOf(document);
  const columns = [
    ...(decision.logic.kind === "table"
      ? [[words.proof, <ProofColumn key="proof" id={decision.id} findings={findings} />] as const]
      : []),
    [words.tryIt, <TryColumn key="try" model={model} decision={decision} />] as const,
    [words.tests, <TestsColumn key="tests" model={model} decision={decision} outcomes={findings?.outcomes} />] as const,
  ];
  return (
    <Flex borderTopWidth="1px" borderColor="line" bg="paper" maxH="30%" minH="150px" flexShrink={0}>
      {columns.map(([title, content]) => (
        <chakra.section
          key={title}
          aria-label={title}
          flex="1"
          minW={0}
          px={4}
          py={2}
          overflow="auto"
          borderLeftWidth="1px"
          borderColor="line"
          fontSize="13px"
        >
          <chakra.h2 fontSize="12px" color="quiet" mb={1}>
            {title}
          </chakra.h2>
          {content}
        </chakra.section>
      ))}
    </Flex>
  );
}
