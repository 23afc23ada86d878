import { writeFileSync } from "node:fs";
import type { DecisionModel } from "@/core/decisions";
import type { CaseData } from "@/core/feel";
import { isArchive, openPackage } from "@/core/handoff";
import { firstProcess, type LogTrace, logCsv, logXes, type RunOutcome, runCases, runWorld, traceOf } from "@/core/live";
import { counted, type Id, type Model, nameOf } from "@/core/model";
import { type Scenario, scenariosOf } from "@/core/scenario";
import { callerPath, EXIT, readBytes, readJson, readModel, UnusableInput } from "./input";

const usualCases = 100;
const mostCases = 1_000_000;
const known = ["--cases", "--data", "--seed", "--scenario", "--log"] as const;

/** `lane run FILE.bpmn|PACKAGE.zip [--cases N | --data @CASES.json] [--seed S] [--scenario NAME] [--log OUT.xes|OUT.csv]`. */
export function run(args: readonly string[], json: boolean): number {
  const files: string[] = [];
  const options = new Map<string, string>();
  for (let at = 0; at < args.length; at++) {
    const word = args[at] as string;
    if (!word.startsWith("--")) {
      files.push(word);
      continue;
    }
    if (!(known as readonly string[]).includes(word))
      throw new UnusableInput(`run knows no ${word}; there are ${known.join(", ")}`);
    const value = args[++at];
    if (value === undefined) throw new UnusableInput(`${word} needs a value behind it`);
    options.set(word, value);
  }
  const [file] = files;
  if (!file || files.length > 1) throw new UnusableInput("run needs one file: a model or a package");
  if (options.has("--cases") && options.has("--data"))
    throw new UnusableInput("run takes --cases or --data, since each object of the data is a case");
  const log = options.get("--log");
  if (log !== undefined && !/\.(?:xes|csv)$/i.test(log))
    throw new UnusableInput(`--log ${log}: a log is written as .xes or .csv`);
  const { model, decisions } = opened(file);
  const process = firstProcess(model);
  if (process === undefined) throw new UnusableInput(`${file}: there is no process with steps in this file`);
  const data = options.get("--data");
  const traces: LogTrace[] = [];
  const outcome = runCases(runWorld(model, new Map(), decisions), process, {
    cases: data === undefined ? (whole(options, "--cases", 0, mostCases) ?? usualCases) : casesIn(data),
    scenario: scenarioOf(file, model, options.get("--scenario")),
    seed: whole(options, "--seed", 0, Number.MAX_SAFE_INTEGER) ?? 1,
    ...(log !== undefined && { log: (number, events) => traces.push(traceOf(String(number + 1), events, [model])) }),
  });
  if (log !== undefined) {
    const title = nameOf(model, process) || process;
    writeFileSync(callerPath(log), /\.xes$/i.test(log) ? logXes(traces, title) : logCsv(traces));
  }
  process_(outcome, model, json);
  return outcome.failed + outcome.open > 0 ? EXIT.no : EXIT.done;
}

function opened(file: string): { readonly model: Model; readonly decisions: ReadonlyMap<Id, DecisionModel> } {
  const bytes = readBytes(file);
  if (!isArchive(bytes)) return { model: readModel(file), decisions: new Map() };
  const read = openPackage(bytes);
  if (!read.ok) throw new UnusableInput(`${file}: ${read.problems[0]?.message ?? "cannot be read"}`);
  return read.value;
}

function whole(options: ReadonlyMap<string, string>, name: string, least: number, most: number): number | undefined {
  const text = options.get(name);
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!/^\d+$/.test(text) || value < least || value > most)
    throw new UnusableInput(`${name} ${text}: write a whole number from ${least} to ${most}`);
  return value;
}

const isData = (value: unknown): value is CaseData =>
  typeof value === "object" && value !== null && !Array.isArray(value);

function casesIn(said: string): readonly CaseData[] {
  const { value, where } = readJson(said, "--data");
  if (Array.isArray(value) && value.every(isData)) return value;
  throw new UnusableInput(`${where}: the data of cases is a list with an object for each case`);
}

function scenarioOf(file: string, model: Model, name: string | undefined): Scenario | undefined {
  const all = scenariosOf(model);
  if (name === undefined) return all[0];
  const found = all.find((one) => one.id === name || one.name === name);
  if (found) return found;
  const there = all.map((one) => `"${one.name}"`).join(", ");
  throw new UnusableInput(`${file}: there is no scenario "${name}"; ${there ? `there are ${there}` : "there is none"}`);
}

function process_(outcome: RunOutcome, model: Model, json: boolean): void {
  if (json) {
    process.stdout.write(`${JSON.stringify(outcome, null, 2)}\n`);
    return;
  }
  const { started, completed, failed, open, elements, incidents } = outcome;
  const named = (id: Id) => nameOf(model, id) || id;
  for (const { id, entered, completed: done } of elements)
    process.stdout.write(`${String(entered).padStart(7)} ${String(done).padStart(7)}  ${named(id)}\n`);
  for (const { element, reason, times } of incidents)
    process.stdout.write(`incident at ${named(element)}, ${counted(times, "time")}: ${reason}\n`);
  process.stdout.write(`${counted(started, "case")}: ${completed} completed, ${failed} failed, ${open} open\n`);
}
