"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { type JudgedDifference, type Judgement, judgements } from "@/contract/evidence";
import type { ToldDifference } from "@/jobs";
import { moneyWords } from "../../../controls/units";
import { text, worded } from "../../../messages";
import { spanWords } from "./said";

const words = text.evidence.differences;

/** Who does a step, what a target is, and what nobody does though it may be, are for people to decide. */
const unrepairable: ReadonlySet<ToldDifference["kind"]> = new Set(["role", "late", "fixed", "loop"]);

/** One difference as a sentence; chosen, what is known of it and what can be done about it. */
export function DifferenceRow(props: {
  readonly difference: ToldDifference;
  readonly currency: string;
  readonly judged: JudgedDifference | undefined;
  readonly isChosen: boolean;
  readonly isLooking: boolean;
  readonly isNone: boolean;
  readonly onChoose: () => void;
  readonly onRepair: () => void;
  readonly onJudge: (as: Judgement) => void;
  readonly onUnjudge: () => void;
}) {
  const { difference, currency, judged, isChosen, isLooking, isNone, onChoose, onRepair, onJudge, onUnjudge } = props;
  const { kind, statement, traces, examples, took } = difference;
  const apart = took.with === null || took.without === null ? 0 : took.with - took.without;
  // Less than a twentieth is what any two groups of cases are apart.
  const longer = Math.abs(apart) < 0.05 * (took.without ?? 0) ? 0 : apart;
  return (
    <chakra.li
      borderTopWidth="1px"
      borderColor="line"
      bg={isChosen ? "accentSoft" : undefined}
      data-testid="difference"
      data-kind={kind}
    >
      <chakra.button
        type="button"
        aria-expanded={isChosen}
        w="100%"
        px={4}
        py={2}
        textAlign="start"
        cursor="pointer"
        onClick={onChoose}
      >
        <chakra.span display="block">{worded(statement)}</chakra.span>
        <Flex as="span" gap={2} color="quiet" fontSize="12px">
          <span>{words.kinds[kind]}</span>
          <span>{words.cases(traces)}</span>
          {Math.abs(longer) >= 60_000 && (
            <span>{longer > 0 ? words.longer(spanWords(longer)) : words.shorter(spanWords(-longer))}</span>
          )}
          {difference.cost !== null && (
            <span>
              {(difference.cost < 0 ? words.saves : words.costs)(moneyWords(Math.abs(difference.cost), currency))}
            </span>
          )}
          {judged && <chakra.span color="accent">{words.judgedAs[judged.as]}</chakra.span>}
        </Flex>
      </chakra.button>
      {isChosen && (
        <Flex direction="column" gap={2} px={4} pb={3} fontSize="13px">
          {took.with !== null && took.without !== null && (
            <chakra.p color="quiet">{words.tookWords(spanWords(took.with), spanWords(took.without))}</chakra.p>
          )}
          {examples.length > 0 && <chakra.p color="quiet">{words.examples(examples.join(", "))}</chakra.p>}
          {judged ? (
            <Flex gap={2} align="center" wrap="wrap">
              <chakra.span flex="1">{words.by(judged.member, judged.note)}</chakra.span>
              <Button size="xs" variant="outline" onClick={onUnjudge}>
                {words.unjudge}
              </Button>
            </Flex>
          ) : (
            <Flex gap={2} wrap="wrap">
              {!unrepairable.has(kind) && (
                <Button size="xs" bg="accent" color="onAccent" disabled={isLooking} onClick={onRepair}>
                  {isLooking ? words.repairing : words.repair}
                </Button>
              )}
              {judgements.map((as) => (
                <Button key={as} size="xs" variant="outline" onClick={() => onJudge(as)}>
                  {words[as]}
                </Button>
              ))}
            </Flex>
          )}
          {kind === "role" && <chakra.p color="quiet">{words.noRepairRole}</chakra.p>}
          {isNone && (
            <chakra.p color="trouble" role="status">
              {words.noRepair}
            </chakra.p>
          )}
        </Flex>
      )}
    </chakra.li>
  );
}
