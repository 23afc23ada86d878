"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { Fragment, useMemo } from "react";
import { elementsOfType, flowNodesIn, type Id, incomingOf, type Model, nameOf, processOf } from "@/core/model";
import { type Pace, PlayButtons, paceNames } from "../../canvas/playing/PlayButtons";
import { PlayBar } from "../../canvas/playing/PlayFrame";
import { trailOf } from "../../canvas/playing/standing";
import { BarChoice } from "../../controls/BarChoice";
import { text, typeWord } from "../../messages";
import type { Standing } from "./useStanding";
import { useWalk } from "./walkStore";

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
    <PlayBar>
      <PlayButtons
        at={at}
        canStep={!isEnd || at + 1 < past.length}
        isPlaying={isPlaying}
        onGoTo={goTo}
        onStep={onStep}
        onPlay={() => set({ isPlaying: !isPlaying })}
      />
      <BarChoice
        label={text.walk.pace}
        value={pace}
        options={paceNames}
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
        <BarChoice
          label={text.walk.start}
          value={start ?? starts[0]?.id ?? ""}
          options={starts.map((one) => [one.id, nameOf(world.model, one.id) || typeWord(one.type)])}
          onChange={(value) => onBegin(process as Id, value)}
        />
      )}
      {processes.length > 1 && (
        <BarChoice
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
    </PlayBar>
  );
}

/** Whether two processes of a model exchange messages. */
const talkToEachOther = (model: Model) =>
  elementsOfType(model, "messageFlow").some(
    (flow) => processOf(model, String(flow.sourceRef)) && processOf(model, String(flow.targetRef)),
  );
