"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import type { CaseMove } from "@/core/evidence";
import { type Id, type Model, nameOf } from "@/core/model";
import type { HoldInput } from "@/jobs";
import { ModelPage } from "../../../canvas/ModelPage";
import type { Mark } from "../../../canvas/marks/mark";
import { EmptyState } from "../../../controls/states";
import { text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { logMoment } from "./said";
import { useAnswer } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.replay;
const pickNothing = () => undefined;
const signs = { both: "✓", model: "–", log: "+" } as const;

/** How one case went: done as modelled, left out, done though not foreseen; as a list and on the drawing. */
export function CaseMoves(props: {
  readonly model: Model;
  readonly models: { readonly [name: string]: Model };
  readonly input: Omit<HoldInput, "log" | "packed">;
  readonly runner: LogRunner;
  readonly name: string;
}) {
  const { model, models, input, runner, name } = props;
  const ask = useCallback(
    () => runner.run("caseOfLog", models, { ...input, case: name }),
    [runner, models, input, name],
  );
  const { answer, share, error, again } = useAnswer<readonly CaseMove[]>(ask);
  const [shown, setShown] = useState<number>();
  const marksOn = useCallback((): Mark[] => (answer ? marksOf(answer, shown) : []), [answer, shown]);
  const about = useMemo<readonly Id[]>(() => {
    const move = shown === undefined ? undefined : answer?.[shown];
    return move && move.kind !== "log" ? [move.step] : [];
  }, [answer, shown]);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  if (answer.length === 0) return <EmptyState>{words.noCase}</EmptyState>;
  return (
    <Flex flex="1" minH={0}>
      <chakra.ol
        w="300px"
        flexShrink={0}
        overflow="auto"
        listStyleType="none"
        bg="paper"
        aria-label={words.moves(name)}
      >
        <chakra.li px={4} py={2} fontWeight="700">
          {words.moves(name)}
        </chakra.li>
        {answer.map((move, at) => (
          <chakra.li key={at} borderTopWidth="1px" borderColor="line" data-testid="case-move" data-kind={move.kind}>
            <chakra.button
              type="button"
              w="100%"
              px={4}
              py={1.5}
              textAlign="start"
              cursor="pointer"
              bg={shown === at ? "accentSoft" : undefined}
              aria-pressed={shown === at}
              onClick={() => setShown(shown === at ? undefined : at)}
            >
              <chakra.span aria-hidden display="inline-block" w="18px" fontWeight="700">
                {signs[move.kind]}
              </chakra.span>
              {move.kind === "log" ? move.activity : nameOf(model, move.step) || move.step}
              <chakra.span display="block" pl="18px" fontSize="12px" color={move.kind === "both" ? "quiet" : "trouble"}>
                {[
                  words.kinds[move.kind],
                  move.kind === "model" ? "" : logMoment(Number.isNaN(move.at) ? null : move.at),
                ]
                  .filter(Boolean)
                  .join(", ")}
              </chakra.span>
            </chakra.button>
          </chakra.li>
        ))}
      </chakra.ol>
      <ModelPage
        model={model}
        about={about}
        marksOn={marksOn}
        label={words.drawing}
        testId="replay-page"
        onPick={pickNothing}
      />
    </Flex>
  );
}

function marksOf(moves: readonly CaseMove[], shown: number | undefined): Mark[] {
  const numbers = new Map<Id, number[]>();
  const strange = new Map<Id, string[]>();
  const left = new Set<Id>();
  let count = 0;
  let behind: Id | undefined;
  for (const move of moves) {
    if (move.kind === "model") left.add(move.step);
    else if (move.kind === "both") {
      count++;
      numbers.set(move.step, [...(numbers.get(move.step) ?? []), count]);
      behind = move.step;
    } else if (behind !== undefined) strange.set(behind, [...(strange.get(behind) ?? []), move.activity]);
  }
  const looked = shown === undefined ? undefined : moves[shown];
  return [
    ...[...numbers].map(
      ([on, own]): Mark => ({
        on,
        means: "evidenceCase",
        as: "label",
        text: own.join(", "),
        tone: "accent",
        at: "end",
        isFilled: true,
      }),
    ),
    ...[...left].map((on): Mark => ({ on, means: "evidenceLeft", as: "frame", tone: "attention" })),
    ...[...strange].map(
      ([on, activities]): Mark => ({
        on,
        means: "evidenceDone",
        as: "label",
        text: `+ ${[...new Set(activities)].join(", ")}`,
        tone: "attention",
        at: "start",
      }),
    ),
    ...(looked && looked.kind !== "log"
      ? [{ on: looked.step, means: "current", as: "frame", tone: "accent" } as const]
      : []),
  ];
}
