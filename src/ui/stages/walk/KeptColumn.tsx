"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { CircleCheck, CircleX, TriangleAlert } from "lucide-react";
import { useState } from "react";
import type { WalkTestRow } from "@/contract/walk";
import { caseDataOf } from "@/core/feel";
import { type Id, nameOf } from "@/core/model";
import {
  beginPlaying,
  choicesOf,
  dataAsked,
  nextAct,
  outcomeOf,
  type Playing,
  played,
  testOf,
  type Walked,
  type World,
  walk,
} from "@/core/tokens";
import { AskDialog } from "../../controls/AskDialog";
import { complain } from "../../controls/notices";
import { text, worded } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";
import { changeWalk, dropWalk, keepWalks } from "./keptActs";
import { SuggestDialog } from "./SuggestDialog";
import type { Standing } from "./useStanding";
import { type TypedData, useWalk } from "./walkStore";

const signs = { passes: CircleCheck, differs: TriangleAlert, gone: CircleX } as const;
const colours = { passes: "good", differs: "attention", gone: "trouble" } as const;

/** The walks that are kept: how each goes now, and the way to keep this one. */
export function KeptColumn({ standing, process }: { readonly standing: Standing; readonly process: Id }) {
  const version = useVersion((state) => state.info.version.id);
  const { tests, results, reload } = useWalks();
  const { load, data, past, at } = useWalk();
  const [asking, setAsking] = useState<"keep" | "suggest" | { rename: WalkTestRow } | null>(null);
  const { world, outcome } = standing;
  const keep = async (name: string) => {
    const now = past[at] as Playing;
    const given = caseDataOf(data, dataAsked(world));
    const told = { ...now.told, ...(Object.keys(given).length > 0 && { data: given }) };
    // What is not yet at its end is played on the usual way, so that the test has an outcome.
    await keepWalks(version, [{ name, content: testOf(world, process, walk(world, process, told), true) }]);
    await reload();
  };
  const expectNow = (test: WalkTestRow, { outcome, entered }: Pick<Walked, "outcome" | "entered">) => {
    const { content } = test;
    const path = content.path && entered.map(({ element, times }): [Id, number] => [element, times]);
    void after(changeWalk(version, test, { content: { ...content, outcome, path } }));
  };
  const after = (asked: Promise<unknown>) => asked.then(reload).catch(complain);
  return (
    <Box>
      <Flex gap={1.5} mb={2} wrap="wrap">
        <Button
          size="xs"
          variant="outline"
          bg="paper"
          borderColor="accent"
          color="accent"
          disabled={at === 0}
          onClick={() => setAsking("keep")}
        >
          {text.walk.keep}
        </Button>
        <Button size="xs" variant="outline" bg="paper" borderColor="line" onClick={() => setAsking("suggest")}>
          {text.walk.suggest}
        </Button>
      </Flex>
      {tests.length === 0 && <chakra.p color="quiet">{text.walk.noTests}</chakra.p>}
      <Box as="ul" listStyleType="none" data-testid="kept-walks">
        {tests.map((test) => {
          const result = results.get(test.id);
          const verdict = result?.verdict ?? "passes";
          const Sign = signs[verdict];
          return (
            <Box as="li" key={test.id} py={1} borderTopWidth="1px" borderColor="line" data-verdict={verdict}>
              <Flex gap={2} align="center">
                <chakra.span color={colours[verdict]} flexShrink={0}>
                  <Sign size={15} aria-hidden />
                  <chakra.span srOnly>{text.walk.verdicts[verdict]}</chakra.span>
                </chakra.span>
                <chakra.button
                  type="button"
                  flex="1"
                  minW={0}
                  textAlign="start"
                  cursor="pointer"
                  truncate
                  title={text.walk.show(test.name)}
                  color="accent"
                  onClick={() => load(playedAll(world, test), typedOf(test.content.told.data))}
                >
                  {test.name}
                </chakra.button>
                <Small onClick={() => setAsking({ rename: test })}>{text.walk.rename}</Small>
                <Small onClick={() => after(dropWalk(version, test))}>{text.walk.remove}</Small>
              </Flex>
              {result && verdict !== "passes" && (
                <Box ps="23px" fontSize="13px">
                  {result.differences.slice(0, 4).map((said) => (
                    <p key={said.text}>{worded(said)}</p>
                  ))}
                  {result.differences.length > 4 && <p>{text.walk.more(result.differences.length - 4)}</p>}
                  {result.walked && (
                    <Small onClick={() => result.walked && expectNow(test, result.walked)}>
                      {text.walk.expectThis}
                    </Small>
                  )}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
      {asking === "keep" && (
        <AskDialog
          title={text.walk.keep}
          explain={outcome === "under way" ? text.walk.keepUnderWay : text.walk.keepAsk}
          label={text.walk.name}
          start={suggestedName(standing)}
          action={text.walk.keep}
          onClose={() => setAsking(null)}
          onAnswer={keep}
        />
      )}
      {asking !== null && typeof asking === "object" && (
        <AskDialog
          title={text.walk.rename}
          label={text.walk.name}
          start={asking.rename.name}
          action={text.walk.rename}
          onClose={() => setAsking(null)}
          onAnswer={async (name) => {
            await changeWalk(version, asking.rename, { name });
            await reload();
          }}
        />
      )}
      {asking === "suggest" && (
        <SuggestDialog world={world} process={process} onClose={() => setAsking(null)} onKept={reload} />
      )}
    </Box>
  );
}

function Small({ children, onClick }: { readonly children: string; readonly onClick: () => void }) {
  return (
    <chakra.button type="button" fontSize="12px" color="quiet" cursor="pointer" flexShrink={0} onClick={onClick}>
      {children}
    </chakra.button>
  );
}

/** The answers given on the way, which tell walks apart best. */
function suggestedName({ now, world }: Standing): string {
  const answers = [...(now.told.choose?.values() ?? [])]
    .flat(2)
    .map((flow) => nameOf(world.model, flow))
    .filter(Boolean);
  const fired = (now.told.fire ?? []).map(({ element }) => nameOf(world.model, element)).filter(Boolean);
  return [...answers, ...fired].join(", ").slice(0, 80);
}

/** A kept walk from its beginning to its end, so that it can be gone through step by step. */
function playedAll(world: World, { content }: WalkTestRow): Playing[] {
  const choices = choicesOf(content);
  const past = [beginPlaying(world, content.process, choices.start)];
  for (let now = past[0] as Playing; past.length < 2_000; ) {
    const next = outcomeOf(world, now) === "under way" ? nextAct(world, now, choices) : undefined;
    if (!next) break;
    now = played(world, now, next.act, next.times);
    past.push(now);
  }
  return past;
}

/** Data of a kept walk as a person would have typed it. */
const typedOf = (data: { readonly [name: string]: unknown } = {}): TypedData =>
  Object.fromEntries(
    Object.entries(data).map(([name, value]) => [
      name,
      value === true ? "yes" : value === false ? "no" : typeof value === "string" ? value : JSON.stringify(value),
    ]),
  );
