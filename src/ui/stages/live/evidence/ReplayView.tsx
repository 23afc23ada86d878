"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import type { LogFilter, StepSpan } from "@/core/evidence";
import { type Id, type Model, nameOf } from "@/core/model";
import type { HoldInput, ReplayedLog } from "@/jobs";
import { ModelPage } from "../../../canvas/ModelPage";
import type { Mark } from "../../../canvas/marks/mark";
import { Segments } from "../../../controls/Segments";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { CaseMoves } from "./CaseMoves";
import { LogTable } from "./LogTable";
import { useLookedAt } from "./lookedAt";
import { PlayedCases } from "./PlayedCases";
import { spanWords } from "./said";
import { useHeldLog } from "./useHeldLog";
import { useAnswer } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.replay;
const modes = ["counts", "play", "case"] as const;
const pickNothing = () => undefined;
const nothing: readonly Id[] = [];

/** What happened, on the diagram: how often and how long, cases as they came, or how one case went. */
export function ReplayView(props: {
  readonly version: string;
  readonly log: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { version, log, runner, filters } = props;
  const { models, input, model, answer: held, share, error, again } = useHeldLog(version, log, runner, filters);
  const { case: name } = useLookedAt();
  const [mode, setMode] = useState<(typeof modes)[number]>(name === undefined ? "counts" : "case");
  const ask = useCallback(
    async (): Promise<ReplayedLog | undefined> =>
      // Held first, so that what is asked here finds it.
      held && models && input && runner.run("replayLog", models, input as Omit<HoldInput, "log">),
    [held, runner, models, input],
  );
  const { answer, error: replayError } = useAnswer(ask);
  if (!held || !models || !input || !answer)
    return <Working share={share ?? 0} error={error ?? replayError} onAgain={again} />;
  return (
    <Flex direction="column" flex="1" minH={0} data-testid="log-replay">
      <Flex px={4} py={1.5} gap={3} align="center" wrap="wrap" bg="paper" borderBottomWidth="1px" borderColor="line">
        <Segments
          small
          label={words.shows}
          value={mode}
          options={modes.map((one) => [one, words.modes[one]] as const)}
          onChoose={setMode}
        />
        {mode === "counts" && <Bottleneck model={model} spans={answer.spans} />}
      </Flex>
      {mode === "counts" && <Counts model={model} spans={answer.spans} />}
      {mode === "play" && <PlayedCases model={model} replay={answer.replay} />}
      {mode === "case" &&
        (name === undefined ? (
          <chakra.p p={4} color="quiet">
            {words.chooseCase}
          </chakra.p>
        ) : (
          <CaseMoves model={model} models={models} input={input} runner={runner} name={name} />
        ))}
    </Flex>
  );
}

const isWaited = ({ waiting, ofWaiting }: StepSpan) => waiting.count > 0 && ofWaiting > 0;

function Bottleneck({ model, spans }: { readonly model: Model; readonly spans: readonly StepSpan[] }) {
  const [most] = spans.filter(isWaited);
  if (!most) return null;
  const { step, ofWaiting, waiting } = most;
  return (
    <chakra.p data-testid="log-bottleneck">
      {words.bottleneck(nameOf(model, step) || step, Math.round(ofWaiting * 100), spanWords(waiting.median))}
    </chakra.p>
  );
}

/** So many steps are marked as those that are waited for most. */
const mostMarked = 3;

function Counts({ model, spans }: { readonly model: Model; readonly spans: readonly StepSpan[] }) {
  const marksOn = useCallback((): Mark[] => marksOf(spans), [spans]);
  const rows = useMemo(
    () =>
      spans.map(({ step, times, skipped, waiting, working, ofWaiting }) => ({
        key: step,
        cells: [
          nameOf(model, step) || step,
          times.toLocaleString(locale()),
          skipped.toLocaleString(locale()),
          waiting.count > 0 ? spanWords(waiting.median) : "",
          working.count > 0 ? spanWords(working.median) : "",
          ofWaiting > 0 ? `${Math.round(ofWaiting * 100)} %` : "",
        ],
      })),
    [model, spans],
  );
  return (
    <Flex direction="column" flex="1" minH={0}>
      <Flex flex="1" minH="240px">
        <ModelPage
          model={model}
          about={nothing}
          marksOn={marksOn}
          label={words.drawing}
          testId="replay-page"
          onPick={pickNothing}
        />
      </Flex>
      <chakra.div
        role="group"
        maxH="30%"
        overflow="auto"
        px={4}
        py={2}
        borderTopWidth="1px"
        borderColor="line"
        tabIndex={0}
        aria-label={words.table}
      >
        <LogTable
          title={words.list}
          head={[words.step, words.done, words.skipped, words.waited, words.worked, words.share]}
          rows={rows}
        />
      </chakra.div>
    </Flex>
  );
}

function marksOf(spans: readonly StepSpan[]): Mark[] {
  const most = spans.filter(isWaited).slice(0, mostMarked);
  return [
    ...most.map(({ step }): Mark => ({ on: step, means: "evidenceMost", as: "frame", tone: "attention" })),
    ...spans.map((span): Mark => {
      const waits = isWaited(span) ? spanWords(span.waiting.median) : "";
      const said = words.times(span.times, waits);
      return { on: span.step, means: "evidenceTimes", as: "label", text: said, tone: "pencil", at: "end" };
    }),
  ];
}
