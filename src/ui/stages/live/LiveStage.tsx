"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useSearchParams } from "next/navigation";
import { useState } from "react";
import { live } from "@/contract";
import { Segments } from "../../controls/Segments";
import { EmptyState, ErrorPage, LoadingPage } from "../../controls/states";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { CaseColumn } from "./CaseColumn";
import { CasesTable } from "./CasesTable";
import { EvidencePage } from "./evidence/EvidencePage";
import { FiguresView } from "./FiguresView";
import { Incidents } from "./Incidents";
import { LivePage } from "./LivePage";
import { Mailbox } from "./Mailbox";
import { RunBar } from "./RunBar";
import { StandIns } from "./StandIns";
import { StartUp } from "./StartUp";
import { Targets } from "./Targets";
import { useRunModel } from "./useRunModel";
import { Written } from "./Written";

const words = text.live;
const views = ["diagram", "cases", "incidents", "mailbox", "figures", "targets", "standIns", "written"] as const;
type View = (typeof views)[number];

const pages = ["runs", "evidence"] as const;

/** The stage where a process is run and watched, and where what really happened is held against the model. */
export function LiveStage() {
  const [page, setPage] = useState<(typeof pages)[number]>(useSearchParams().has("evidence") ? "evidence" : "runs");
  return (
    <Flex direction="column" h="100%" minH={0}>
      <chakra.h1 srOnly>{text.stages.live}</chakra.h1>
      <Flex px={4} py={1.5} bg="paper" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
        <Segments
          small
          label={text.evidence.page}
          value={page}
          options={pages.map((one) => [one, text.evidence.pages[one]] as const)}
          onChoose={setPage}
        />
      </Flex>
      <Flex direction="column" flex="1" minH={0}>
        {page === "runs" ? <Runs /> : <EvidencePage />}
      </Flex>
    </Flex>
  );
}

/** What is run: its clock, what waits where, its cases, and what a supervisor can do. */
function Runs() {
  const version = useVersion((state) => state.info.version.id);
  const { data, error, refetch } = useAsked(live.listRuns, { version });
  const [chosen, setChosen] = useState<string>();
  const [isStarting, setStarting] = useState(false);
  if (error) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const run = data.runs.find(({ id }) => id === chosen) ?? data.runs[0];
  const start = isStarting && <StartUp version={version} onClose={() => setStarting(false)} onStarted={setChosen} />;
  if (!run)
    return (
      <Flex direction="column" align="center" p={10} gap={4}>
        <EmptyState>{words.none}</EmptyState>
        <Button bg="accent" color="onAccent" disabled={!data.mayStart} onClick={() => setStarting(true)}>
          {words.startUp}
        </Button>
        {start}
      </Flex>
    );
  return (
    <>
      <OpenedRun
        key={run.id}
        version={version}
        run={run.id}
        runs={data.runs}
        onRun={setChosen}
        onStart={() => setStarting(true)}
      />
      {start}
    </>
  );
}

function OpenedRun(props: {
  readonly version: string;
  readonly run: string;
  readonly runs: Parameters<typeof RunBar>[0]["runs"];
  readonly onRun: (run: string) => void;
  readonly onStart: () => void;
}) {
  const { version, run } = props;
  const at = { version, run };
  const { data, error, refetch } = useAsked(live.openRun, at, { keepsLast: true });
  const [view, setView] = useState<View>("diagram");
  const [opened, setOpened] = useState<number>();
  const model = useRunModel(version, run);
  const { data: shownCase } = useAsked(
    live.openCase,
    { ...at, number: opened ?? 1 },
    { isWanted: opened !== undefined, keepsLast: true },
  );
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data || !model) return <LoadingPage label={text.shell.loading} />;
  const incidents = data.run.incidents;
  const told = { incidents, targets: data.alerts.length } as { readonly [view: string]: number };
  return (
    <Flex direction="column" h="100%" minH={0}>
      <RunBar {...props} at={at} opened={data} onBegun={setOpened} model={model} />
      <Flex px={4} py={2} gap={3} align="center" borderBottomWidth="1px" borderColor="line" wrap="wrap">
        <Segments
          label={text.stages.live}
          value={view}
          options={views.map(
            (one) => [one, (told[one] ?? 0) > 0 ? `${words.views[one]} ${told[one]}` : words.views[one]] as const,
          )}
          onChoose={setView}
        />
        <chakra.span color="quiet" data-testid="live-counts">
          {words.counts(data.run.open, data.run.cases, incidents)}
        </chakra.span>
      </Flex>
      <Flex flex="1" minH={0}>
        <Flex direction="column" flex="1" minW={0} minH={0} overflow="auto">
          {view === "diagram" && (
            <LivePage
              model={model}
              standing={data.standing}
              broken={data.alerts}
              shown={opened === undefined ? undefined : shownCase}
            />
          )}
          {view === "cases" && <CasesTable at={at} now={data.now} opened={opened} onOpen={setOpened} />}
          {view === "incidents" && <Incidents at={at} now={data.now} model={model} onOpen={setOpened} />}
          {view === "mailbox" && <Mailbox at={at} now={data.now} onOpen={setOpened} />}
          {view === "figures" && <FiguresView at={at} name={data.run.name} />}
          {view === "targets" && <Targets at={at} process={data.process} />}
          {view === "written" && <Written at={at} onOpen={setOpened} />}
          {view === "standIns" && <StandIns at={at} opened={data} />}
        </Flex>
        {opened !== undefined && shownCase && (
          <CaseColumn
            at={{ ...at, number: opened }}
            opened={shownCase}
            now={data.now}
            model={model}
            onClose={() => setOpened(undefined)}
          />
        )}
      </Flex>
    </Flex>
  );
}
