"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import {
  type Decision,
  type DecisionModel,
  shownValue,
  suggestedTestCases,
  type TestCase,
  type TestOutcome,
  testCasesOf,
  typedResult,
  withTestCases,
  wordsOfValue,
} from "@/core/decisions";
import { ok } from "@/core/model";
import { TextField } from "../controls/fields";
import { IconTool } from "../controls/IconTool";
import { tell } from "../controls/notices";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";
import { useTrying } from "./tryStore";

const words = text.decisions;

/** What should come out for some values, run after each change; one that fails says what comes out instead. */
export function TestsColumn({
  model,
  decision,
  outcomes,
}: {
  readonly model: DecisionModel;
  readonly decision: Decision;
  readonly outcomes: readonly TestOutcome[] | undefined;
}) {
  const { document, change } = useDecisions();
  const type = useTrying((state) => state.type);
  if (!document) return null;
  const cases = testCasesOf(document, decision.id);
  const put = (next: readonly TestCase[]) =>
    change(words.editing.tests, (one) => ok(withTestCases(one, decision.id, next)));
  const suggest = () => {
    const met = new Set(cases.map(({ given }) => JSON.stringify(given)));
    const fresh = suggestedTestCases(model, decision).filter(({ given }) => !met.has(JSON.stringify(given)));
    if (fresh.length === 0) return tell({ description: words.noneToSuggest });
    put([...cases, ...fresh.map((one, at) => ({ ...one, name: words.testCase(cases.length + at + 1) }))]);
    tell({ description: words.suggested(fresh.length) });
  };
  return (
    <Flex direction="column" gap={1.5}>
      {cases.length === 0 && <chakra.p color="quiet">{words.noTests}</chakra.p>}
      <chakra.ul listStyleType="none">
        {cases.map((test, at) => {
          const outcome = outcomes?.[at]?.test.name === test.name ? outcomes[at] : undefined;
          const got = outcome && (outcome.got.problems.join(" ") || shownValue(outcome.got.result));
          return (
            <Flex as="li" key={at} gap={2} align="center" minH="28px" data-testid="test-case">
              <chakra.span
                w="16px"
                fontWeight="700"
                color={outcome === undefined ? "quiet" : outcome.isPassed ? "good" : "trouble"}
                aria-hidden="true"
              >
                {outcome === undefined ? "·" : outcome.isPassed ? "✓" : "✗"}
              </chakra.span>
              <chakra.button
                type="button"
                flex="1"
                minW={0}
                textAlign="left"
                cursor="pointer"
                title={Object.entries(test.given)
                  .map(([input, value]) => `${input} ${shownValue(value)}`)
                  .join(", ")}
                onClick={() => {
                  for (const [input, value] of Object.entries(test.given))
                    type(input, typeof value === "string" ? value : shownValue(value));
                }}
              >
                {/^Case \d+$/.test(test.name)
                  ? Object.values(test.given)
                      .map((value) => wordsOfValue(shownValue(value)))
                      .join(", ")
                  : test.name}
                {outcome && !outcome.isPassed && (
                  <chakra.span color="trouble" display="block">
                    {words.failsTest(wordsOfValue(got ?? ""))}
                    {outcome.got.rules.length > 0 && words.byRules(outcome.got.rules)}
                  </chakra.span>
                )}
                {outcome?.isPassed && <chakra.span srOnly>{words.passes}</chakra.span>}
              </chakra.button>
              <chakra.div w="120px">
                <TextField
                  label={`${words.expected}: ${test.name}`}
                  placeholder={words.expected}
                  value={wordsOfValue(shownValue(test.expected))}
                  onCommit={(next) =>
                    put(cases.map((one, place) => (place === at ? { ...one, expected: typedResult(next) } : one)))
                  }
                />
              </chakra.div>
              <IconTool
                name={words.removeTest(test.name)}
                icon={X}
                onPress={() => put(cases.filter((_, place) => place !== at))}
              />
            </Flex>
          );
        })}
      </chakra.ul>
      <Button size="xs" variant="outline" alignSelf="flex-start" onClick={suggest}>
        {words.suggest}
      </Button>
    </Flex>
  );
}
