"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { evidence } from "@/contract";
import type { LogRow } from "@/contract/evidence";
import { BarChoice } from "../../../controls/BarChoice";
import { momentWords } from "../../../controls/moment";
import { complain, tell } from "../../../controls/notices";
import { Segments } from "../../../controls/Segments";
import { EmptyState, ErrorPage } from "../../../controls/states";
import { ask } from "../../../kernel/ask";
import { doAct, undoLast } from "../../../kernel/history";
import { lookAgain, useAsked } from "../../../kernel/queries";
import { text } from "../../../messages";
import { fetchLog, LogRunner } from "../../../version/logRunner";
import { useVersion } from "../../../version/VersionContext";
import { DifferencesView } from "./DifferencesView";
import { DotsView } from "./DotsView";
import { FilterBar } from "./FilterBar";
import { GroupsView } from "./GroupsView";
import { ImportLog } from "./ImportLog";
import { LogFiguresView } from "./LogFiguresView";
import { evidenceViews, useFilters, useLookedAt } from "./lookedAt";
import { MapView } from "./MapView";
import { OverviewView } from "./OverviewView";
import { ReplayView } from "./ReplayView";
import { ReportDialog } from "./ReportDialog";
import { StepsView } from "./StepsView";
import { VariantsView } from "./VariantsView";

const words = text.evidence;

/** What really happened: logs that are kept with the process, looked at and held against the model. */
export function EvidencePage() {
  const version = useVersion((state) => state.info.version.id);
  const { data, error, refetch } = useAsked(evidence.listLogs, { version });
  const [isImporting, setImporting] = useState(false);
  const { log: chosen, open } = useLookedAt();
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <EmptyState>{text.shell.loading}</EmptyState>;
  const log = data.logs.find(({ id }) => id === chosen) ?? data.logs[0];
  const dialog = isImporting && (
    <ImportLog version={version} onClose={() => setImporting(false)} onKept={(kept) => open(kept)} />
  );
  if (!log)
    return (
      <Flex direction="column" align="center" p={10} gap={4} data-testid="no-logs">
        <EmptyState>
          <chakra.p maxW="60ch">{words.none}</chakra.p>
          <Button bg="accent" color="onAccent" onClick={() => setImporting(true)}>
            {words.import}
          </Button>
        </EmptyState>
        {dialog}
      </Flex>
    );
  return (
    <>
      <OpenedLog
        key={log.id}
        version={version}
        log={log}
        logs={data.logs}
        onLog={open}
        onImport={() => setImporting(true)}
      />
      {dialog}
    </>
  );
}

function OpenedLog(props: {
  readonly version: string;
  readonly log: LogRow;
  readonly logs: readonly LogRow[];
  readonly onLog: (log: string) => void;
  readonly onImport: () => void;
}) {
  const { version, log, logs, onLog, onImport } = props;
  const { view, show } = useLookedAt();
  const { id } = log;
  const filters = useFilters(id);
  const [isReporting, setReporting] = useState(false);
  const runner = useMemo(() => new LogRunner(id, () => fetchLog(version, id)), [version, id]);
  useEffect(() => () => runner.stop(), [runner]);
  const again = () => lookAgain([{ kind: "version", id: version }]);
  const remove = async () => {
    try {
      await doAct(
        words.deleting(log.name),
        () => ask(evidence.deleteLog, { version, log: id }),
        () => ask(evidence.restoreLog, { version, log: id }),
      );
      await again();
      tell({
        description: words.deleted(log.name),
        action: { label: text.home.undo, onClick: () => void undoLast().then(again).catch(complain) },
      });
    } catch (problem) {
      complain(problem);
    }
  };
  return (
    <Flex direction="column" h="100%" minH={0} data-testid="evidence">
      <Flex px={4} py={2} gap={2} align="center" wrap="wrap" bg="paper" borderBottomWidth="1px" borderColor="line">
        <BarChoice
          isWide
          label={words.logs}
          value={id}
          options={logs.map((one) => [one.id, one.name])}
          onChange={onLog}
        />
        <chakra.span color="quiet" fontSize="12px" title={words.keptBy(log.member, momentWords(log.at))}>
          {words.facts(log.facts.cases, log.facts.events)}
        </chakra.span>
        <Segments
          label={words.title}
          value={view}
          options={evidenceViews.map((one) => [one, words.views[one]] as const)}
          onChoose={show}
        />
        <chakra.span flex="1" />
        <Button size="xs" variant="outline" onClick={() => setReporting(true)}>
          {text.handbook.report}
        </Button>
        <Button size="xs" variant="outline" onClick={onImport}>
          {words.import}
        </Button>
        <Button size="xs" variant="ghost" onClick={() => void remove()}>
          {words.delete}
        </Button>
      </Flex>
      {isReporting && <ReportDialog version={version} log={id} filters={filters} onClose={() => setReporting(false)} />}
      <FilterBar log={id} filters={filters} />
      {view === "differences" && <DifferencesView version={version} log={id} runner={runner} filters={filters} />}
      {view === "overview" && <OverviewView log={id} runner={runner} filters={filters} />}
      {view === "replay" && <ReplayView version={version} log={id} runner={runner} filters={filters} />}
      {view === "map" && <MapView log={log} runner={runner} filters={filters} />}
      {view === "variants" && <VariantsView log={id} runner={runner} filters={filters} />}
      {view === "dots" && <DotsView runner={runner} filters={filters} />}
      {view === "groups" && <GroupsView runner={runner} filters={filters} />}
      {view === "figures" && (
        <LogFiguresView version={version} log={id} name={log.name} runner={runner} filters={filters} />
      )}
      {view === "steps" && <StepsView version={version} log={id} runner={runner} filters={filters} />}
    </Flex>
  );
}
