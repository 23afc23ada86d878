"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import {
  type Decision,
  type DecisionModel,
  inputsNeeded,
  sheets,
  shownValue,
  tableOf,
  testCasesOf,
  withTestCases,
  wordsOfValue,
} from "@/core/decisions";
import { ok } from "@/core/model";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";
import { useTried, useTrying } from "./tryStore";

const words = text.decisions;

/** Values typed for what a decision needs, and what it makes of them: which rules match, and why the others do not. */
export function TryColumn({ model, decision }: { readonly model: DecisionModel; readonly decision: Decision }) {
  const { document, change } = useDecisions();
  const { typed, type } = useTrying();
  const tried = useTried(model, decision);
  const table = document ? tableOf(document.root, decision.id) : undefined;
  const inputs = inputsNeeded(model, decision);
  const keep = () =>
    tried &&
    change(words.editing.tests, (one) => {
      const cases = testCasesOf(one, decision.id);
      return ok(
        withTestCases(one, decision.id, [
          ...cases,
          { name: words.testCase(cases.length + 1), given: tried.given, expected: tried.decided.result },
        ]),
      );
    });
  const others = (tried?.looked.rules ?? []).flatMap((cells, row) => {
    const failing = cells.flatMap((takes, at) => (takes ? [] : [at]));
    if (failing.length === 0 || !table) return [];
    const why = failing.map((at) =>
      words.failsBy(
        tried?.looked.inputs[at]?.name ?? "",
        sheets.shownCell(table.rules[row]?.inputs[at] ?? ""),
        shownValue(tried?.looked.inputs[at]?.value),
      ),
    );
    return [words.fails(row + 1, why.join("; "))];
  });
  return (
    <Flex direction="column" gap={2}>
      {!tried && <chakra.p color="quiet">{words.tryHint}</chakra.p>}
      <Flex direction="column" gap={1}>
        {inputs.map(({ id, name, type: kind }) => (
          <chakra.label key={id} display="flex" gap={2} alignItems="center">
            <chakra.span flex="0 0 40%" truncate title={name}>
              {name}
            </chakra.span>
            <chakra.input
              value={typed[name] ?? ""}
              placeholder={words.types[kind ?? ""] ?? kind}
              flex="1"
              minW={0}
              h="26px"
              px={2}
              bg="paper"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              _placeholder={{ color: "quiet" }}
              onChange={(event) => type(name, event.target.value)}
            />
          </chakra.label>
        ))}
      </Flex>
      {tried && (
        <div aria-live="polite">
          {tried.decided.problems.length > 0 ? (
            <chakra.p color="trouble">! {tried.decided.problems.join(" ")}</chakra.p>
          ) : (
            <chakra.p data-testid="tried">
              {words.comesTo}{" "}
              <chakra.strong>
                {tried.decided.result === null ? words.nothing : wordsOfValue(shownValue(tried.decided.result))}
              </chakra.strong>
              {words.byRules(tried.decided.rules)}{" "}
              <Button size="xs" variant="outline" onClick={keep}>
                {words.keepAsTest}
              </Button>
            </chakra.p>
          )}
          {others.length > 0 && (
            <chakra.details color="quiet" mt={1}>
              <summary>{words.whyNot}</summary>
              <chakra.ul listStyleType="none">
                {others.slice(0, 40).map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </chakra.ul>
            </chakra.details>
          )}
        </div>
      )}
    </Flex>
  );
}
