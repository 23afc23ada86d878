"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { type Id, nameOf, outgoingOf } from "@/core/model";
import { type Act, actWords, cardinalityOf, explain, loopOf } from "@/core/tokens";
import type { Place } from "../../canvas/playing/standing";
import { Keycap } from "../../controls/Keycap";
import { text, typeWord, worded } from "../../messages";
import { isCounted, isSeveralWays, type Standing } from "./useStanding";
import { useWalk } from "./walkStore";

/** Where the case stands, why, and what can be done there. */
export function NowColumn({ standing }: { readonly standing: Standing }) {
  const { places, calls, outcome, instances } = standing;
  if (outcome === "completed") return <chakra.p color="good">{text.walk.completed}</chakra.p>;
  return (
    <Box as="ul" listStyleType="none" data-testid="walk-now">
      {outcome === "stuck" && !places.some((place) => place.isBarred) && (
        <chakra.p color="trouble" mb={2}>
          {text.walk.stuck}
        </chakra.p>
      )}
      {places.map((place) => (
        <PlaceRow key={`${place.instance.key} ${place.node} ${place.tokens}`} standing={standing} place={place} />
      ))}
      <chakra.li color="quiet" fontSize="12px" mt={1}>
        {text.walk.breakHint}
      </chakra.li>
      {calls.length > 0 && (
        <Flex as="li" gap={1} wrap="wrap" mt={1} align="center" color="quiet">
          {text.walk.could}
          {calls.map((one) => (
            <ActButton
              key={`${one.at} ${one.node}`}
              act={one}
              words={worded(actWords(instanceOf(instances, one), one))}
              standing={standing}
            />
          ))}
        </Flex>
      )}
    </Box>
  );
}

const instanceOf = (instances: Standing["instances"], act: Act) =>
  instances.find((one) => one.key === act.at) ?? (instances[0] as Standing["instances"][number]);

/** What can be done here, in one look: all buttons of the column. */
function SmallButton({
  keycap,
  ...rest
}: {
  readonly keycap?: string | undefined;
  readonly disabled?: boolean;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  const { children, ...props } = rest;
  return (
    <Button
      size="xs"
      variant="outline"
      bg="paper"
      borderColor="accent"
      color="accent"
      h="auto"
      minH="26px"
      py={0.5}
      whiteSpace="normal"
      textAlign="start"
      aria-keyshortcuts={keycap}
      {...props}
    >
      {children}
      {keycap && <Keycap aria-hidden="true">{keycap}</Keycap>}
    </Button>
  );
}

function ActButton({
  act,
  words,
  standing,
}: {
  readonly act: Act;
  readonly words: string;
  readonly standing: Standing;
}) {
  const does = useWalk((state) => state.act);
  const place = standing.presses.indexOf(act);
  return (
    <SmallButton keycap={place >= 0 && place < 9 ? String(place + 1) : undefined} onClick={() => does(act)}>
      {words}
    </SmallButton>
  );
}

function PlaceRow({ standing, place }: { readonly standing: Standing; readonly place: Place }) {
  const { instance, node, acts, fires, tokens } = place;
  const { breaks, toggleBreak } = useWalk();
  const { model } = instance;
  const element = model.elements.get(node);
  if (!element) return null;
  const stops = breaks.has(node);
  return (
    <Box as="li" mb={3} data-node={node}>
      <Flex gap={2} align="baseline">
        <chakra.span fontWeight="700">{nameOf(model, node) || typeWord(element.type)}</chakra.span>
        {tokens > 1 && <chakra.span color="attention">{text.walk.tokens(tokens)}</chakra.span>}
        <chakra.button
          type="button"
          fontSize="12px"
          color="quiet"
          cursor="pointer"
          aria-pressed={stops}
          onClick={() => toggleBreak(node)}
        >
          {stops ? text.walk.noStop : text.walk.stopHere}
        </chakra.button>
      </Flex>
      <chakra.p color="quiet" fontSize="13px">
        {worded(explain(standing.world, standing.now.state, instance, node))}
      </chakra.p>
      {place.isBarred && (
        <chakra.p color="trouble" fontSize="13px">
          {text.walk.barred}
        </chakra.p>
      )}
      <Flex gap={1} mt={1} wrap="wrap" align="center">
        {isSeveralWays(place) ? (
          <SeveralWays place={place} />
        ) : (
          acts.map((one) =>
            isCounted(place, one) ? (
              <HowMany key="begin" place={place} act={one} />
            ) : (
              <ActButton
                key={`${one.does} ${one.flows.join(" ")} ${one.move.give.join(" ")}`}
                act={one}
                words={worded(actWords(instance, one))}
                standing={standing}
              />
            ),
          )
        )}
        {fires.length > 0 && <chakra.span color="quiet">{text.walk.or}</chakra.span>}
        {fires.map((one) => (
          <ActButton key={one.node} act={one} words={worded(actWords(instance, one))} standing={standing} />
        ))}
      </Flex>
    </Box>
  );
}

/** An inclusive decision: any of its ways, at least one. */
function SeveralWays({ place }: { readonly place: Place }) {
  const { instance, node, acts } = place;
  const act = useWalk((state) => state.act);
  const [taken, setTaken] = useState<ReadonlySet<Id>>(new Set());
  const flows = outgoingOf(instance.model, node).filter((flow) => acts.some((one) => one.flows.includes(flow.id)));
  const chosen = acts.find((one) => one.flows.length === taken.size && one.flows.every((flow) => taken.has(flow)));
  return (
    <Flex gap={3} wrap="wrap" align="center">
      {flows.map((flow) => (
        <chakra.label key={flow.id} display="flex" gap={1.5} alignItems="center" cursor="pointer">
          <input
            type="checkbox"
            checked={taken.has(flow.id)}
            onChange={() => {
              const next = new Set(taken);
              if (!next.delete(flow.id)) next.add(flow.id);
              setTaken(next);
            }}
          />
          {nameOf(instance.model, flow.id) || nameOf(instance.model, String(flow.targetRef)) || text.walk.way}
        </chakra.label>
      ))}
      <SmallButton disabled={!chosen} onClick={() => chosen && act(chosen)}>
        {text.walk.goOn}
      </SmallButton>
    </Flex>
  );
}

/** For how many an activity with several instances is done. */
function HowMany({ place, act: begin }: { readonly place: Place; readonly act: Act }) {
  const act = useWalk((state) => state.act);
  const loop = loopOf(place.instance.model, place.node);
  const [times, setTimes] = useState(String((loop && cardinalityOf(loop)) ?? 2));
  const count = Number(times);
  const isCount = Number.isInteger(count) && count >= 1 && count <= 100;
  return (
    <Flex gap={2} align="center">
      <chakra.label display="flex" gap={1.5} alignItems="center">
        {text.walk.forHowMany}
        <chakra.input
          value={times}
          inputMode="numeric"
          w="52px"
          h="26px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor={isCount ? "line" : "trouble"}
          borderRadius="6px"
          onKeyDown={(event) => event.stopPropagation()}
          onChange={(event) => setTimes(event.target.value)}
        />
      </chakra.label>
      <SmallButton disabled={!isCount} onClick={() => act(begin, count)}>
        {text.walk.begin}
      </SmallButton>
    </Flex>
  );
}
