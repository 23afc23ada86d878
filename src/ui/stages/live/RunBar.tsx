"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { live } from "@/contract";
import type { OpenRun, RunRow } from "@/contract/live";
import type { Model } from "@/core/model";
import { BarChoice } from "../../controls/BarChoice";
import { DialogFrame } from "../../controls/DialogFrame";
import { clockWords } from "../../controls/moment";
import { complain } from "../../controls/notices";
import { PageLink } from "../../controls/PageLink";
import { ask } from "../../kernel/ask";
import { lookAgain } from "../../kernel/queries";
import { text } from "../../messages";
import { BeginCase } from "./BeginCase";
import { LetPeopleWork } from "./LetPeopleWork";
import { LogDialog } from "./LogDialog";
import { PaceChoice } from "./PaceChoice";
import { Renew } from "./Renew";

const words = text.live;

/** The run that is looked at, its clock, and what can be set going. */
export function RunBar(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly opened: OpenRun;
  readonly model: Model;
  readonly runs: readonly RunRow[];
  readonly onRun: (run: string) => void;
  readonly onStart: () => void;
  readonly onBegun: (number: number) => void;
}) {
  const { at, opened, model, runs, onRun, onStart, onBegun } = props;
  const [asking, setAsking] = useState<"case" | "staff" | "end" | "log" | "newer" | null>(null);
  const shown = useClock(opened);
  const { isEnded } = opened.run;
  const act = (doing: Promise<unknown>) =>
    void doing.then(() => lookAgain([{ kind: "version", id: at.version }]), complain);
  return (
    <Flex
      px={4}
      py={2}
      gap={2}
      align="center"
      wrap="wrap"
      borderBottomWidth="1px"
      borderColor="line"
      bg="paper"
      role="group"
      aria-label={words.runs}
    >
      <BarChoice
        label={words.runs}
        value={at.run}
        options={runs.map(({ id, name, isEnded: over }) => [id, over ? `${name} (${words.ended})` : name] as const)}
        onChange={onRun}
      />
      <chakra.span color="quiet" fontSize="12px">
        {words.ofRevision(opened.run.revision)}
        {opened.run.edition > 1 && `, ${words.package(opened.run.edition)}`}
      </chakra.span>
      <Button size="xs" variant="outline" onClick={onStart}>
        {words.startUp}
      </Button>
      <Button size="xs" variant="outline" disabled={isEnded} onClick={() => setAsking("newer")}>
        {words.newer}
      </Button>
      <chakra.span flex="1" />
      <chakra.span aria-label={words.shows} title={words.shows} fontWeight="700" data-testid="run-clock">
        {clockWords(shown, "UTC")}
      </chakra.span>
      <PaceChoice
        value={String(opened.pace)}
        onChange={(pace) => act(ask(live.setClock, { ...at, pace: Number(pace) }))}
      />
      <Button
        size="xs"
        variant="outline"
        disabled={isEnded || opened.next === null}
        onClick={() => act(ask(live.setClock, { ...at, to: "next" }))}
      >
        {words.toNext}
      </Button>
      <Button size="xs" variant="outline" disabled={isEnded} onClick={() => setAsking("staff")}>
        {words.staff}
      </Button>
      <PageLink href="/work" color="accent" fontSize="13px">
        {words.worklist}
      </PageLink>
      <Button size="xs" variant="outline" onClick={() => setAsking("log")}>
        {words.log}
      </Button>
      <Button size="xs" variant="outline" disabled={isEnded} onClick={() => setAsking("end")}>
        {words.end}
      </Button>
      <Button size="xs" bg="accent" color="onAccent" disabled={isEnded} onClick={() => setAsking("case")}>
        {words.beginCase}
      </Button>
      {asking === "case" && (
        <BeginCase at={at} model={model} process={opened.process} onBegun={onBegun} onClose={() => setAsking(null)} />
      )}
      {asking === "log" && <LogDialog at={at} onClose={() => setAsking(null)} />}
      {asking === "newer" && <Renew at={at} edition={opened.run.edition} onClose={() => setAsking(null)} />}
      {asking === "staff" && <LetPeopleWork at={at} onClose={() => setAsking(null)} />}
      {asking === "end" && (
        <DialogFrame
          title={words.end}
          width="420px"
          isAlert
          onClose={() => setAsking(null)}
          footer={
            <>
              <Button variant="outline" onClick={() => setAsking(null)}>
                {text.dialog.cancel}
              </Button>
              <Button
                bg="accent"
                color="onAccent"
                onClick={() => {
                  setAsking(null);
                  act(ask(live.endRun, at));
                }}
              >
                {words.end}
              </Button>
            </>
          }
        >
          <chakra.p>{words.endAsk}</chakra.p>
        </DialogFrame>
      )}
    </Flex>
  );
}

/** What the run's clock shows, going on between two answers of the server. */
function useClock({ now, pace }: OpenRun): number {
  const [shown, setShown] = useState(now);
  useEffect(() => {
    setShown(now);
    if (pace === 0) return;
    const from = Date.now();
    const timer = setInterval(() => setShown(now + (Date.now() - from) * pace), 1000);
    return () => clearInterval(timer);
  }, [now, pace]);
  return shown;
}
