"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { ArrowLeft, ArrowRight, Pause, Play, RotateCcw } from "lucide-react";
import { Fragment, useMemo } from "react";
import { elementsOfType, flowNodesIn, type Id, incomingOf, type Model, nameOf, processOf, wordFor } from "@/core/model";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { type Standing, trailOf } from "./useStanding";
import { type Pace, paces, useWalk } from "./walkStore";

interface PaceBarProps {
  readonly standing: Standing;
  readonly processes: readonly { readonly id: Id; readonly name: string }[];
  readonly onBegin: (process: Id, start: Id | null) => void;
  readonly onStep: () => void;
}

/** How the case goes: step, play, back, anew; where it begins; which page is looked at. */
export function PaceBar({ standing, processes, onBegin, onStep }: PaceBarProps) {
  const { process, start, past, at, isPlaying, pace, goesUsualWay, together, set, goTo } = useWalk();
  const { world, outcome, waits } = standing;
  const starts = flowNodesIn(world.model, process ?? "").filter(
    (node) => node.type === "startEvent" && incomingOf(world.model, node.id).length === 0,
  );
  const talks = useMemo(() => talkToEachOther(world.model), [world.model]);
  const isEnd = outcome !== "under way";
  const trail = trailOf(standing.instances, standing.shown);
  return (
    <Flex
      align="center"
      gap={2}
      px={4}
      minH="44px"
      bg="sheet"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      role="toolbar"
      aria-label={text.walk.controls}
      fontSize="13px"
    >
      <Button size="xs" variant="outline" bg="paper" borderColor="line" onClick={() => goTo(0)} disabled={at === 0}>
        <RotateCcw size={14} /> {text.walk.anew}
      </Button>
      <Button
        size="xs"
        variant="outline"
        bg="paper"
        borderColor="line"
        onClick={() => goTo(at - 1)}
        disabled={at === 0}
      >
        <ArrowLeft size={14} /> {text.walk.back} <Keycap>←</Keycap>
      </Button>
      <Button
        size="xs"
        variant="outline"
        borderColor="accent"
        color="accent"
        bg="paper"
        onClick={onStep}
        disabled={isEnd && at + 1 >= past.length}
      >
        <ArrowRight size={14} /> {text.walk.step} <Keycap>→</Keycap>
      </Button>
      <Button
        size="xs"
        bg="accent"
        color="paper"
        onClick={() => set({ isPlaying: !isPlaying })}
        disabled={isEnd && at + 1 >= past.length}
        aria-pressed={isPlaying}
      >
        {isPlaying ? <Pause size={14} /> : <Play size={14} />} {isPlaying ? text.walk.pause : text.walk.play}{" "}
        <Keycap>P</Keycap>
      </Button>
      <Choice
        label={text.walk.pace}
        value={pace}
        options={(Object.keys(paces) as Pace[]).map((one) => [one, text.walk.paces[one]])}
        onChange={(value) => set({ pace: value as Pace })}
      />
      <chakra.label display="flex" alignItems="center" gap={1.5} cursor="pointer" flexShrink={0}>
        <input
          type="checkbox"
          checked={goesUsualWay}
          onChange={(event) => set({ goesUsualWay: event.target.checked })}
        />
        {text.walk.usualWay}
      </chakra.label>
      {talks && (
        <chakra.label display="flex" alignItems="center" gap={1.5} cursor="pointer" flexShrink={0}>
          <input type="checkbox" checked={together} onChange={(event) => set({ together: event.target.checked })} />
          {text.walk.together}
        </chakra.label>
      )}
      {starts.length > 1 && (
        <Choice
          label={text.walk.start}
          value={start ?? starts[0]?.id ?? ""}
          options={starts.map((one) => [one.id, nameOf(world.model, one.id) || wordFor(one.type)])}
          onChange={(value) => onBegin(process as Id, value)}
        />
      )}
      {processes.length > 1 && (
        <Choice
          label={text.walk.process}
          value={process ?? ""}
          options={processes.map((one) => [one.id, one.name])}
          onChange={(value) => onBegin(value, null)}
        />
      )}
      <Box flex="1" />
      {trail.length > 1 && (
        <Flex as="nav" aria-label={text.walk.scopes} gap={1} minW={0} align="center">
          {trail.map(({ key, name }, index) => (
            <Fragment key={key}>
              {index > 0 && <span aria-hidden>/</span>}
              <chakra.button
                type="button"
                truncate
                maxW="140px"
                color={index === trail.length - 1 ? "ink" : "accent"}
                fontWeight={index === trail.length - 1 ? 700 : 400}
                cursor="pointer"
                onClick={() => set({ looksAt: key })}
              >
                {name}
              </chakra.button>
            </Fragment>
          ))}
        </Flex>
      )}
      <chakra.span
        role="status"
        data-testid="walk-outcome"
        flexShrink={0}
        fontWeight="600"
        color={outcome === "completed" ? "good" : outcome === "stuck" ? "trouble" : waits ? "attention" : "ink"}
      >
        {text.walk.stepOf(at, past.length - 1)} {text.walk.outcome(outcome, waits)}
      </chakra.span>
    </Flex>
  );
}

/** Whether two processes of a model exchange messages. */
const talkToEachOther = (model: Model) =>
  elementsOfType(model, "messageFlow").some(
    (flow) => processOf(model, String(flow.sourceRef)) && processOf(model, String(flow.targetRef)),
  );

function Choice(props: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
}) {
  return (
    <chakra.select
      aria-label={props.label}
      title={props.label}
      value={props.value}
      onChange={(event) => props.onChange(event.target.value)}
      h="26px"
      px={1}
      maxW="180px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      fontSize="13px"
    >
      {props.options.map(([value, name]) => (
        <option key={value} value={value}>
          {name}
        </option>
      ))}
    </chakra.select>
  );
}
