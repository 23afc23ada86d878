"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import { evidence } from "@/contract";
import type { Judgement } from "@/contract/evidence";
import type { LogFilter } from "@/core/evidence";
import { trustStored } from "@/core/model";
import type { HeldLog, Repaired } from "@/jobs";
import { complain, tell } from "../../../controls/notices";
import { Segments } from "../../../controls/Segments";
import { EmptyState } from "../../../controls/states";
import { ask } from "../../../kernel/ask";
import { doAct } from "../../../kernel/history";
import { lookAgain } from "../../../kernel/queries";
import { wordsOf } from "../../../kernel/wordsOf";
import { text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { useVersionStore } from "../../../version/VersionContext";
import { DifferencePage } from "./DifferencePage";
import { DifferenceRow } from "./DifferenceRow";
import { JudgeDialog } from "./JudgeDialog";
import { RepairedBar } from "./RepairedBar";
import { useHeldLog } from "./useHeldLog";
import { Working } from "./Working";

const words = text.evidence.differences;

/** What a repair would do, once it is known; "none" where there is none. */
type Tried = { readonly of: string | undefined } & (
  | { readonly state: "looking"; readonly share: number }
  | { readonly state: "none" }
  | { readonly state: "found"; readonly repaired: Repaired }
);

/** How what happened differs from the model: sentences, each seen on the drawing, repaired or judged. */
export function DifferencesView(props: {
  readonly version: string;
  readonly log: string;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { version, log, runner, filters } = props;
  const { opened, answer, isOld, share, error, again, models, input, model } = useHeldLog(
    version,
    log,
    runner,
    filters,
  );
  const { dispatch } = useVersionStore().getState();
  const [chosen, setChosen] = useState<string>();
  const [shown, setShown] = useState<"open" | "all" | "unused">("open");
  const [tried, setTried] = useState<Tried>();
  const [judging, setJudging] = useState<{ readonly key: string; readonly as: Judgement }>();
  const judged = useMemo(() => new Map(opened?.judged.map((one) => [one.key, one])), [opened]);
  const repair = useCallback(
    async (key: string | undefined) => {
      if (!models || !input) return;
      setTried({ of: key, state: "looking", share: 0 });
      const options = {
        tell: (done: number) =>
          setTried((now) => (now?.state === "looking" ? { of: key, state: "looking", share: done } : now)),
      };
      try {
        const repaired =
          key === undefined
            ? await runner.run("repairAll", models, { ...input, judged: [...judged.keys()] }, options)
            : await runner.run("repairDifference", models, { ...input, key }, options);
        setTried((now) =>
          now?.of !== key
            ? now
            : repaired && repaired.commands.length > 0
              ? { of: key, state: "found", repaired }
              : { of: key, state: "none" },
        );
      } catch (problem) {
        setTried(undefined);
        complain(wordsOf(problem));
      }
    },
    [models, input, runner, judged],
  );
  const repaired = tried?.state === "found" ? tried.repaired : undefined;
  const asRepaired = useMemo(() => repaired && trustStored(repaired.model), [repaired]);
  if (!answer || !opened) return <Working share={share} error={error} onAgain={again} />;
  const difference = [...answer.differences, ...answer.unused].find(({ key }) => key === chosen);
  const open = answer.differences.filter(({ key }) => !judged.has(key));
  const listed = { open, all: answer.differences, unused: answer.unused }[shown];
  const judge = async (key: string, as: { as: Judgement; note: string } | null) => {
    const at = { version, log, key };
    await doAct(
      words.judging(as?.as ?? words.unjudge),
      () => ask(evidence.judgeDifference, { ...at, judged: as }),
      ({ before }) => ask(evidence.judgeDifference, { ...at, judged: before }),
    );
    await lookAgain([{ kind: "version", id: version }]);
  };
  const apply = () => {
    if (!repaired || !dispatch(...repaired.commands)) return;
    setTried(undefined);
    setChosen(undefined);
    tell({ description: words.applied });
  };
  return (
    <Flex flex="1" minH={0} data-testid="differences">
      <Flex direction="column" w="430px" flexShrink={0} minH={0} borderEndWidth="1px" borderColor="line" bg="paper">
        <Head held={answer} isOld={isOld} />
        <Flex px={4} py={1.5} gap={2} align="center" wrap="wrap">
          <Segments
            small
            label={words.filter}
            value={shown}
            options={[
              ["open", `${words.show.open} ${open.length}`],
              ["all", `${words.show.all} ${answer.differences.length}`],
              ...(answer.unused.length > 0
                ? [["unused", `${words.show.unused} ${answer.unused.length}`] as const]
                : []),
            ]}
            onChoose={setShown}
          />
          <Button
            size="2xs"
            variant="outline"
            disabled={open.length === 0 || tried?.state === "looking" || isOld}
            onClick={() => void repair(undefined)}
          >
            {words.repairAll}
          </Button>
        </Flex>
        <Working share={isOld ? share : undefined} error={error} onAgain={again} />
        <chakra.ul
          listStyleType="none"
          overflow="auto"
          flex="1"
          minH={0}
          aria-label={words.list}
          opacity={isOld ? 0.6 : 1}
          aria-busy={isOld}
        >
          {listed.length === 0 && (
            <EmptyState>{answer.differences.length === 0 ? words.none : words.allJudged}</EmptyState>
          )}
          {listed.map((one) => (
            <DifferenceRow
              key={one.key}
              difference={one}
              currency={answer.currency}
              judged={judged.get(one.key)}
              isChosen={one.key === chosen}
              isLooking={tried?.of === one.key && tried.state === "looking"}
              isNone={tried?.of === one.key && tried.state === "none"}
              onChoose={() => {
                setChosen(one.key === chosen ? undefined : one.key);
                setTried(undefined);
              }}
              onRepair={() => void repair(one.key)}
              onJudge={(as) => setJudging({ key: one.key, as })}
              onUnjudge={() => void judge(one.key, null).catch(complain)}
            />
          ))}
        </chakra.ul>
      </Flex>
      <Flex direction="column" flex="1" minW={0} minH={0}>
        {tried?.of === undefined && tried?.state === "looking" && (
          <Working
            share={tried.share}
            error={undefined}
            onAgain={again}
            onStop={() => {
              // It is handed the log anew with what is asked next.
              runner.stop();
              setTried(undefined);
            }}
          />
        )}
        {tried?.of === undefined && tried?.state === "none" && (
          <chakra.p p={3} role="status">
            {words.noneHelps}
          </chakra.p>
        )}
        {repaired && (
          <RepairedBar repaired={repaired} traces={answer.traces} onApply={apply} onLeave={() => setTried(undefined)} />
        )}
        <DifferencePage
          model={asRepaired ?? model}
          changed={repaired?.changed}
          difference={asRepaired ? undefined : difference}
          held={answer}
        />
      </Flex>
      {judging && (
        <JudgeDialog
          as={judging.as}
          onClose={() => setJudging(undefined)}
          onJudge={async (note) => {
            await judge(judging.key, { as: judging.as, note });
            // It is not among the open ones any more.
            setChosen(undefined);
          }}
        />
      )}
    </Flex>
  );
}

function Head({ held, isOld }: { readonly held: HeldLog; readonly isOld: boolean }) {
  return (
    <chakra.div px={4} pt={3} opacity={isOld ? 0.6 : 1}>
      <chakra.p fontWeight="700" data-testid="log-fits">
        {words.fits(held.fitting, held.traces)}
      </chakra.p>
      <Flex gap={3} color="quiet" fontSize="12px">
        <span title={words.fitnessExplain}>{words.fitness(held.fitness.toFixed(3))}</span>
        <span title={words.precisionExplain}>{words.precision(held.closeness.precision.toFixed(2))}</span>
        <span title={words.generalisationExplain}>
          {words.generalisation(held.closeness.generalisation.toFixed(2))}
        </span>
      </Flex>
      {held.isCut && (
        <chakra.p color="quiet" fontSize="12px">
          {words.cut}
        </chakra.p>
      )}
    </chakra.div>
  );
}
