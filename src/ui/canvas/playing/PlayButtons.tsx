"use client";
import { Button } from "@chakra-ui/react";
import { ArrowLeft, ArrowRight, Pause, Play, RotateCcw } from "lucide-react";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";

/** How fast a case is played: milliseconds from step to step. */
export const paces = { slow: 1_400, usual: 700, fast: 220 } as const;
export type Pace = keyof typeof paces;
export const paceNames = (Object.keys(paces) as Pace[]).map((one) => [one, text.walk.paces[one]] as const);

/** Anew, back, a step, by itself: for every case that is played. */
export function PlayButtons(props: {
  readonly at: number;
  readonly canStep: boolean;
  readonly isPlaying: boolean;
  readonly onGoTo: (at: number) => void;
  readonly onStep: () => void;
  readonly onPlay: () => void;
}) {
  const { at, canStep, isPlaying, onGoTo, onStep, onPlay } = props;
  const quiet = { size: "xs", variant: "outline", bg: "paper", borderColor: "line" } as const;
  return (
    <>
      <Button {...quiet} onClick={() => onGoTo(0)} disabled={at === 0}>
        <RotateCcw size={14} /> {text.walk.anew}
      </Button>
      <Button {...quiet} onClick={() => onGoTo(at - 1)} disabled={at === 0}>
        <ArrowLeft size={14} /> {text.walk.back} <Keycap>←</Keycap>
      </Button>
      <Button {...quiet} borderColor="accent" color="accent" onClick={onStep} disabled={!canStep}>
        <ArrowRight size={14} /> {text.walk.step} <Keycap>→</Keycap>
      </Button>
      <Button size="xs" bg="accent" color="paper" onClick={onPlay} disabled={!canStep} aria-pressed={isPlaying}>
        {isPlaying ? <Pause size={14} /> : <Play size={14} />} {isPlaying ? text.walk.pause : text.walk.play}{" "}
        <Keycap>P</Keycap>
      </Button>
    </>
  );
}
