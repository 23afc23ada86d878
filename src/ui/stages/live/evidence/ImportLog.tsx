"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useEffect, useRef, useState } from "react";
import { evidence, live } from "@/contract";
import type { LogColumn, SaidOfTable, SaidOfXes, ToldColumns } from "@/core/evidence";
import type { ReadFile } from "@/jobs";
import { DialogFrame } from "../../../controls/DialogFrame";
import { ask, sendBytes } from "../../../kernel/ask";
import { doAct } from "../../../kernel/history";
import { JobRunner } from "../../../kernel/jobRunner";
import { lookAgain, useAsked } from "../../../kernel/queries";
import { wordsOf } from "../../../kernel/wordsOf";
import { reasons, text, worded } from "../../../messages";
import { CorrectRows } from "./CorrectRows";
import { Choice, Typed } from "./FilterDialog";
import { dayWords } from "./said";
import { Working } from "./Working";

const words = text.evidence.importing;
const columns = Object.keys(words.column) as LogColumn[];

interface Chosen {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** A log is read, looked at, and kept when a person says so: what it holds, what cannot be used, what the columns of a table are. */
export function ImportLog(props: {
  readonly version: string;
  readonly onKept: (log: string) => void;
  readonly onClose: () => void;
}) {
  const { version, onKept, onClose } = props;
  const { data: runs } = useAsked(live.listRuns, { version });
  const [worker] = useState(() => new JobRunner({ keeps: true }));
  useEffect(() => () => worker.stop(), [worker]);
  const [log] = useState(() => nanoid(12));
  const [file, setFile] = useState<Chosen>();
  const [read, setRead] = useState<ReadFile>();
  const [said, setSaid] = useState<SaidOfTable & SaidOfXes>({});
  const [name, setName] = useState("");
  const [isPseudonymised, setPseudonymised] = useState(false);
  const [share, setShare] = useState<number>();
  const [problem, setProblem] = useState("");
  const picker = useRef<HTMLInputElement>(null);
  const reading = async (chosen: Chosen, how: SaidOfTable & SaidOfXes) => {
    setFile(chosen);
    setSaid(how);
    setProblem("");
    setShare(0);
    try {
      // A worker of its own reads, and packs afterwards what it has read: what is looked at meanwhile stays as it is.
      setRead(await worker.run("readLog", {}, { log, ...chosen, said: how }, { isAlone: true, tell: setShare }));
    } catch (error) {
      setProblem(wordsOf(error));
    } finally {
      setShare(undefined);
    }
  };
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setName(chosen.name.replace(/\.(?:xes|csv|txt)?(?:\.gz)?$/i, ""));
    await reading({ name: chosen.name, bytes: new Uint8Array(await chosen.arrayBuffer()) }, {});
  };
  const takeRun = async (run: string, title: string) => {
    setProblem("");
    try {
      const answer = await fetch(`/api/log?${new URLSearchParams({ version, run, as: "xes" })}`);
      if (!answer.ok) throw new Error(((await answer.json()) as { error: { message: string } }).error.message);
      setName(title);
      await reading({ name: `${title}.xes`, bytes: new Uint8Array(await answer.arrayBuffer()) }, {});
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  const keep = async () => {
    if (!read?.facts) return;
    setProblem("");
    setShare(0);
    try {
      const bytes = await worker.run("packLog", {}, { log, isPseudonymised });
      const { cases, events, first, last } = read.facts;
      const title = name.trim();
      const about = { version, log, name: title, facts: JSON.stringify({ cases, events, first, last }) };
      await doAct(
        text.evidence.keeping(title),
        async () => {
          await sendBytes(`/api/logs?${new URLSearchParams(about)}`, bytes.slice().buffer);
          // Brought again after it was taken back.
          await ask(evidence.restoreLog, { version, log });
        },
        () => ask(evidence.deleteLog, { version, log }),
      );
      await lookAgain([{ kind: "version", id: version }]);
      onKept(log);
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
    } finally {
      setShare(undefined);
    }
  };
  const stop = () => {
    worker.stop();
    setShare(undefined);
    setRead(undefined);
    setFile(undefined);
  };
  const isBusy = share !== undefined;
  return (
    <DialogFrame
      title={words.title}
      width="760px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button
            bg="accent"
            color="onAccent"
            disabled={isBusy || !read?.facts || read.facts.events === 0 || name.trim() === ""}
            onClick={() => void keep()}
          >
            {words.keep}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={4} data-testid="import-log">
        <chakra.p color="quiet">{words.explain}</chakra.p>
        <Flex gap={2} align="center" wrap="wrap">
          <input
            ref={picker}
            type="file"
            hidden
            accept=".xes,.csv,.txt,.gz"
            onChange={(event) => {
              void choose(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          <Button size="xs" variant="outline" disabled={isBusy} onClick={() => picker.current?.click()}>
            {file ? words.again : words.choose}
          </Button>
          {file && <chakra.span>{file.name}</chakra.span>}
          {!file && (runs?.runs.length ?? 0) > 0 && (
            <>
              <chakra.span color="quiet">{words.fromRun}</chakra.span>
              {runs?.runs.map((run) => (
                <Button key={run.id} size="xs" variant="outline" onClick={() => void takeRun(run.id, run.name)}>
                  {run.name}
                </Button>
              ))}
            </>
          )}
        </Flex>
        {isBusy && <Working share={share} error={undefined} onAgain={stop} onStop={stop} />}
        {problem !== "" && (
          <chakra.p color="trouble" role="alert">
            {problem}
          </chakra.p>
        )}
        {read && !isBusy && file && (
          <>
            <Found read={read} />
            {read.table && (
              <CorrectRows
                key={JSON.stringify(said)}
                table={read.table}
                leftOut={read.leftOut?.first ?? []}
                said={said}
                onSay={(how) => void reading(file, how)}
              />
            )}
            {read.classifiers && (
              <chakra.div w="320px">
                <Choice
                  label={words.classifier}
                  value={said.classifier ?? ""}
                  options={[["", words.byName], ...read.classifiers.map((one) => [one, one] as const)]}
                  onChange={(classifier) => void reading(file, classifier === "" ? {} : { classifier })}
                />
              </chakra.div>
            )}
            {read.table && <Columns table={read.table} said={said} onSay={(how) => void reading(file, how)} />}
            {read.facts && read.facts.events > 0 && (
              <Flex gap={4} align="end" wrap="wrap">
                <chakra.div w="260px">
                  <Typed label={words.name} value={name} onChange={setName} />
                </chakra.div>
                {read.facts.people > 0 && (
                  <chakra.label display="flex" gap={2} fontSize="13px" title={words.pseudonymsExplain}>
                    <input
                      type="checkbox"
                      checked={isPseudonymised}
                      onChange={(event) => setPseudonymised(event.target.checked)}
                    />
                    {words.pseudonyms}
                  </chakra.label>
                )}
              </Flex>
            )}
          </>
        )}
      </Flex>
    </DialogFrame>
  );
}

/** What a file holds, and what of it cannot be used. */
function Found({ read }: { readonly read: ReadFile }) {
  const { facts, problem, leftOut } = read;
  if (problem)
    return (
      <chakra.p color="trouble" role="alert">
        {problem.line !== undefined && problem.code !== "no-columns" ? words.line(problem.line, "") : ""}
        {reasons([problem])}
      </chakra.p>
    );
  if (!facts) return null;
  if (facts.events === 0) return <chakra.p role="alert">{words.empty}</chakra.p>;
  const first = leftOut?.first.slice(0, 5) ?? [];
  return (
    <Flex direction="column" gap={1} data-testid="log-found">
      <chakra.p fontWeight="700">{words.found(facts.cases, facts.events, facts.people)}</chakra.p>
      <chakra.p color="quiet">
        {facts.first === null || facts.last === null
          ? words.untimed
          : words.span(dayWords(facts.first), dayWords(facts.last))}
      </chakra.p>
      {leftOut && leftOut.corrected > 0 && <chakra.p>{words.corrected(leftOut.corrected)}</chakra.p>}
      {leftOut && leftOut.count > 0 && (
        <chakra.div color="trouble">
          <chakra.p>{words.leftOut(leftOut.count)}</chakra.p>
          <chakra.ul listStyleType="none" fontSize="12px" maxH="120px" overflow="auto">
            {first.map(({ line, why }) => (
              <li key={line}>{words.line(line, worded(why))}</li>
            ))}
            {leftOut.count > first.length && <li>{words.more(Math.max(0, leftOut.count - first.length))}</li>}
          </chakra.ul>
        </chakra.div>
      )}
    </Flex>
  );
}

/** The first rows of a table, with what each column is taken for above it; said otherwise, the file is read anew. */
function Columns(props: {
  readonly table: NonNullable<ReadFile["table"]>;
  readonly said: SaidOfTable;
  readonly onSay: (said: SaidOfTable) => void;
}) {
  const { table, said, onSay } = props;
  const [head = [], ...rows] = table.rows;
  const taken = said.columns ?? table.columns;
  const isWhat = (place: number) => columns.find((column) => taken[column] === place) ?? "";
  const say = (place: number, what: string) => {
    const next = { ...taken } as { [column in LogColumn]: number | undefined };
    for (const column of columns) if (next[column] === place) next[column] = undefined;
    if (what !== "") next[what as LogColumn] = place;
    // Without both a log is none; what was said is kept until the other is said too.
    onSay({ ...said, columns: next as ToldColumns });
  };
  return (
    <chakra.section aria-label={words.columns}>
      <chakra.h3 fontSize="13px" fontWeight="700">
        {words.columns}
      </chakra.h3>
      <chakra.p color="quiet" fontSize="12px" mb={1}>
        {words.columnsExplain}
      </chakra.p>
      <chakra.div overflow="auto" maxH="220px" borderWidth="1px" borderColor="line" borderRadius="6px">
        <chakra.table fontSize="12px" style={{ borderCollapse: "collapse" }}>
          <thead>
            <tr>
              {head.map((name, place) => (
                <chakra.th key={place} p={1} textAlign="start">
                  <chakra.select
                    aria-label={`${words.columns}: ${name}`}
                    value={isWhat(place)}
                    fontSize="12px"
                    bg="paper"
                    borderWidth="1px"
                    borderColor={isWhat(place) === "" ? "line" : "accent"}
                    borderRadius="4px"
                    onChange={(event) => say(place, event.target.value)}
                  >
                    <option value="">{words.noColumn}</option>
                    {columns.map((column) => (
                      <option key={column} value={column}>
                        {words.column[column]}
                      </option>
                    ))}
                  </chakra.select>
                </chakra.th>
              ))}
            </tr>
            <tr>
              {head.map((name, place) => (
                <chakra.th key={place} p={1} textAlign="start" fontWeight="700" whiteSpace="nowrap">
                  {name}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((cells, line) => (
              <chakra.tr key={line} borderTopWidth="1px" borderColor="line">
                {head.map((_, place) => (
                  <chakra.td key={place} p={1} whiteSpace="nowrap" maxW="220px" overflow="hidden">
                    {cells[place] ?? ""}
                  </chakra.td>
                ))}
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </chakra.div>
      <Flex gap={4} mt={2}>
        <Choice
          label={words.times}
          value={said.form ?? "told"}
          options={(["told", "iso", "dayFirst", "monthFirst"] as const).map((one) => [one, words.forms[one]] as const)}
          onChange={(form) => {
            const { form: _, ...rest } = said;
            onSay(form === "told" ? rest : { ...rest, form: form as NonNullable<SaidOfTable["form"]> });
          }}
        />
        <Typed
          label={words.ahead}
          type="number"
          value={String((said.ahead ?? 0) / 60)}
          onChange={(typed) => onSay({ ...said, ahead: Math.round(Number(typed) * 60) || 0 })}
        />
      </Flex>
    </chakra.section>
  );
}
