"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useMemo } from "react";
import { modelOf, openDocument, runTestCases, shownValue, testCasesOf } from "@/core/decisions";
import { PageLink } from "../../controls/PageLink";
import { text } from "../../messages";
import { useWalks } from "../../version/walks";

const words = text.check.decisions;

/** How the test cases of the decisions go that steps decide by; those that come to something else, with what. */
export function DecisionsNote() {
  const { decisionTexts } = useWalks();
  const tested = useMemo(
    () =>
      decisionTexts.flatMap(({ id, content }) => {
        const opened = openDocument(new TextEncoder().encode(content));
        if (!opened.ok) return [];
        const model = modelOf(opened.value);
        return [...model.decisions.values()].flatMap((decision) => {
          const outcomes = runTestCases(model, decision, testCasesOf(opened.value, decision.id));
          return outcomes.length > 0 ? [{ file: id, decision, outcomes }] : [];
        });
      }),
    [decisionTexts],
  );
  if (tested.length === 0) return null;
  return (
    <Box as="section" mb={6} data-testid="check-decisions">
      <chakra.h2 fontSize="14px" fontWeight="700" mb={1}>
        {words.title}
      </chakra.h2>
      {tested.map(({ file, decision, outcomes }) => {
        const failing = outcomes.filter(({ isPassed }) => !isPassed);
        return (
          <Box key={`${file} ${decision.id}`} mb={1}>
            <chakra.p color={failing.length > 0 ? "trouble" : "good"}>
              <PageLink href={`/decisions/${encodeURIComponent(file)}?decision=${encodeURIComponent(decision.id)}`}>
                <chakra.span color="accent">{decision.name}</chakra.span>
              </PageLink>
              {": "}
              {words.pass(outcomes.length - failing.length, outcomes.length)}
            </chakra.p>
            <Box as="ul" ps={5}>
              {failing.slice(0, 10).map(({ test, got }) => (
                <li key={`${test.name} ${JSON.stringify(test.given)}`}>
                  {words.fails(
                    Object.entries(test.given)
                      .map(([input, value]) => `${input} ${shownValue(value)}`)
                      .join(", "),
                    shownValue(test.expected),
                    got.problems.join(" ") || shownValue(got.result),
                  )}
                </li>
              ))}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
