"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { Pause, Play } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { goneAlong, type Replay, standingAt } from "@/core/evidence";
import type { Id, Model } from "@/core/model";
import { ModelPage } from "../../../canvas/ModelPage";
import type { Mark } from "../../../canvas/marks/mark";
import { BarChoice } from "../../../controls/BarChoice";
import { EmptyState } from "../../../controls/states";
import { text } from "../../../messages";
import { logMoment } from "./said";

const words = text.evidence.replay;
const pickNothing = () => undefined;
const nothing: readonly Id[] = [];
/** Between two pictures, in milliseconds: tokens on flows take as long. */
const tick = 450;

/** Cases as they came and went, on the drawing: played in less time, or looked at in one moment. */
export function PlayedCases({ model, replay }: { readonly model: Model; readonly replay: Replay }) {
  const { from, until, cases } = replay;
  const [seconds, setSeconds] = useState("60");
  const [isPlaying, setPlaying] = useState(false);
  const [now, setNow] = useState({ moment: from, before: from, round: 0 });
  const step = ((until - from) * tick) / (Number(seconds) * 1_000);
  const ended = useRef(false);
  ended.current = now.moment >= until;
  useEffect(() => {
    if (!isPlaying) return;
    const timer = setInterval(() => {
      if (ended.current) setPlaying(false);
      else
        setNow(({ moment, round }) => ({
          before: moment,
          moment: Math.min(until, moment + step),
          round: round + 1,
        }));
    }, tick);
    return () => clearInterval(timer);
  }, [isPlaying, step, until]);
  const standing = standingAt(replay, now.moment);
  const marksOn = useCallback((): Mark[] => {
    const { at } = standingAt(replay, now.moment);
    const gone = now.moment > now.before ? goneAlong(replay, now.before, now.moment) : new Map<Id, number>();
    return [
      ...[...gone.keys()].map((on): Mark => ({ on, means: "evidenceGone", as: "motion", step: now.round })),
      ...[...at].map(([on, count]): Mark => ({ on, means: "evidenceToken", as: "token", count })),
    ];
  }, [replay, now]);
  if (cases.length === 0) return <EmptyState>{words.untimed}</EmptyState>;
  const play = () => {
    if (!isPlaying && now.moment >= until) setNow({ moment: from, before: from, round: now.round + 1 });
    setPlaying(!isPlaying);
  };
  return (
    <Flex direction="column" flex="1" minH={0}>
      <Flex px={4} py={1.5} gap={3} align="center" wrap="wrap" borderBottomWidth="1px" borderColor="line">
        <Button size="xs" variant="outline" onClick={play}>
          {isPlaying ? <Pause size={13} /> : <Play size={13} />}
          {isPlaying ? words.pause : words.play}
        </Button>
        <chakra.input
          type="range"
          aria-label={words.moment}
          aria-valuetext={logMoment(now.moment)}
          flex="1"
          minW="160px"
          min={from}
          max={until}
          step={Math.max(1, Math.round((until - from) / 1_000))}
          value={now.moment}
          onChange={(event) => {
            const moment = Number(event.target.value);
            setPlaying(false);
            setNow({ moment, before: moment, round: now.round + 1 });
          }}
        />
        <chakra.span w="130px" fontVariantNumeric="tabular-nums" data-testid="replay-moment">
          {logMoment(now.moment)}
        </chakra.span>
        <chakra.span color="quiet" fontSize="12px">
          {words.speed}
        </chakra.span>
        <BarChoice label={words.speed} value={seconds} options={Object.entries(words.speeds)} onChange={setSeconds} />
        <chakra.span fontVariantNumeric="tabular-nums" data-testid="replay-standing">
          {words.standing(standing.begun - standing.over, standing.over)}
        </chakra.span>
        {cases.length < replay.of && (
          <chakra.span color="quiet" fontSize="12px">
            {words.sampled(cases.length, replay.of)}
          </chakra.span>
        )}
      </Flex>
      <ModelPage
        model={model}
        about={nothing}
        marksOn={marksOn}
        label={words.drawing}
        testId="replay-page"
        onPick={pickNothing}
      />
    </Flex>
  );
}
