"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { evidence } from "@/contract";
import type { LogFilter } from "@/core/evidence";
import type { MatchedActivity } from "@/jobs";
import { complain } from "../../../controls/notices";
import { ask } from "../../../kernel/ask";
import { doAct } from "../../../kernel/history";
import { lookAgain } from "../../../kernel/queries";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { LogTable } from "./LogTable";
import { useHeldLog } from "./useHeldLog";
import { Working } from "./Working";

const words = text.evidence.steps;
/** Values of the choice that are no step. */
const [byName, none] = ["", "-"];

/** Which step each activity of the log is: found by name, said by a person, or in the model not at all. */
export function StepsView(props: {
  readonly version: string;
  readonly log: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { version, log, runner, filters } = props;
  const { opened, answer, share, error, again } = useHeldLog(version, log, runner, filters);
  if (!answer || !opened) return <Working share={share} error={error} onAgain={again} />;
  const nameOf = new Map(answer.candidates.map(({ id, name }) => [id, name]));
  const say = async (activity: string, steps: readonly string[] | null) => {
    const at = { version, log, activity };
    try {
      await doAct(
        words.saying(activity),
        () => ask(evidence.sayStep, { ...at, steps: steps && [...steps] }),
        ({ before }) => ask(evidence.sayStep, { ...at, steps: before && [...before] }),
      );
    } catch (problem) {
      complain(problem);
    }
    await lookAgain([{ kind: "version", id: version }]);
  };
  const row = ({ name, times, steps, proposed }: MatchedActivity) => {
    const isSaid = Object.hasOwn(opened.steps, name);
    const said = (isSaid && opened.steps[name]) || [];
    return {
      key: name,
      cells: [
        name,
        times.toLocaleString(locale()),
        <Flex key="step" as="span" display="inline-flex" gap={2} align="center">
          {proposed !== undefined && !isSaid && (
            <Button size="2xs" variant="outline" onClick={() => void say(name, [proposed])}>
              {words.proposed(nameOf.get(proposed) ?? proposed)}
            </Button>
          )}
          {isSaid && (
            <chakra.span color="accent" fontSize="12px">
              {words.said}
            </chakra.span>
          )}
          <chakra.select
            aria-label={words.choose(name)}
            value={isSaid ? (said[0] ?? none) : (steps[0] ?? none)}
            h="26px"
            maxW="260px"
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            fontSize="13px"
            onChange={({ target: { value } }) =>
              void say(name, value === byName ? null : value === none ? [] : [value])
            }
          >
            {isSaid && <option value={byName}>{words.back}</option>}
            <option value={none}>{words.notIn}</option>
            {!isSaid && steps.length > 1 && (
              <option value={steps[0]}>{words.several(steps.map((one) => nameOf.get(one) ?? one).join(", "))}</option>
            )}
            {answer.candidates
              .filter(({ id }) => isSaid || steps.length < 2 || id !== steps[0])
              .map(({ id, name: step }) => (
                <option key={id} value={id}>
                  {step}
                </option>
              ))}
          </chakra.select>
          {isSaid && said.length > 1 && (
            <chakra.span fontSize="12px">
              {words.several(said.map((one) => nameOf.get(one) ?? one).join(", "))}
            </chakra.span>
          )}
          {isSaid && said.length > 0 && (
            <chakra.select
              aria-label={words.also(name)}
              value=""
              h="26px"
              maxW="160px"
              bg="paper"
              color="quiet"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              fontSize="13px"
              onChange={({ target: { value } }) => void say(name, [...said, value])}
            >
              <option value="">{words.or}</option>
              {answer.candidates
                .filter(({ id }) => !said.includes(id))
                .map(({ id, name: step }) => (
                  <option key={id} value={id}>
                    {step}
                  </option>
                ))}
            </chakra.select>
          )}
        </Flex>,
      ],
    };
  };
  // What is no step stands first: there is something to say about it.
  const isOpen = ({ name, steps }: MatchedActivity) => steps.length === 0 && !Object.hasOwn(opened.steps, name);
  const sorted = [...answer.activities.filter(isOpen), ...answer.activities.filter((one) => !isOpen(one))];
  return (
    <Flex direction="column" gap={3} p={4} overflow="auto" flex="1" minH={0} data-testid="log-steps">
      <chakra.p color="quiet" maxW="80ch">
        {words.explain}
      </chakra.p>
      <LogTable
        title={text.evidence.views.steps}
        head={[words.activity, words.times, words.step]}
        rows={sorted.map(row)}
      />
    </Flex>
  );
}
