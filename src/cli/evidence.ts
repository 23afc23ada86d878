import { writeFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { gunzipSync } from "node:zlib";
import { type BookletKind, bookletKinds } from "@/core/booklet";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import { drawMissingPages, performed } from "@/core/commands";
import {
  type Difference,
  differencesOf,
  discover,
  type EventLog,
  evidenceReport,
  figuresTaken,
  type Held,
  holdAgainst,
  lateIn,
  measuredIn,
  mended,
  readLogCsv,
  readXes,
  scenarioFrom,
  textPieces,
  treeFile,
  unusedIn,
  variantsOf,
} from "@/core/evidence";
import { nameOfModel, sentencesIn } from "@/core/handbook";
import { firstProcess } from "@/core/live";
import { counted, type Model } from "@/core/model";
import { saidOf, scenariosOf } from "@/core/scenario";
import { decodeText } from "@/core/table";
import { callerPath, EXIT, readBytes, readModel, UnusableInput } from "./input";

/** More than this a packed log may not become. */
const mostBytes = 1_000_000_000;

/** `lane evidence MODEL.bpmn LOG.xes|LOG.csv [--apply N OUT.bpmn] [--scenario OUT.bpmn] [--report OUT.pdf|.docx|.html|.md]`, or `lane evidence LOG --discover OUT.bpmn [--noise SHARE]`. */
export async function evidence(args: readonly string[], json: boolean): Promise<number> {
  const files: string[] = [];
  let apply: { readonly number: number; readonly out: string } | undefined;
  let discovered: string | undefined;
  let scenario: string | undefined;
  let report: string | undefined;
  let noise = 0;
  for (let at = 0; at < args.length; at++) {
    const word = args[at] as string;
    if (word === "--apply") {
      const [number = "", out] = [args[++at], args[++at]];
      if (!/^[1-9]\d{0,5}$/.test(number) || out === undefined)
        throw new UnusableInput("--apply needs the number of a difference and the file to write");
      apply = { number: Number(number), out };
    } else if (word === "--discover") {
      discovered = args[++at];
      if (discovered === undefined) throw new UnusableInput("--discover needs the file to write");
    } else if (word === "--scenario") {
      scenario = args[++at];
      if (scenario === undefined) throw new UnusableInput("--scenario needs the file to write");
    } else if (word === "--report") {
      report = args[++at];
      if (report === undefined || !bookletKinds.includes(endingOf(report)))
        throw new UnusableInput(
          `--report needs the file to write, that ends in ${bookletKinds.map((one) => `.${one}`).join(", ")}`,
        );
    } else if (word === "--noise") {
      noise = Number(args[++at] ?? "x");
      if (!(noise >= 0 && noise <= 1)) throw new UnusableInput("--noise needs a share from 0 to 1");
    } else if (word.startsWith("--"))
      throw new UnusableInput(
        `evidence knows no ${word}; there are --apply, --scenario, --report, --discover and --noise`,
      );
    else files.push(word);
  }
  if (discovered !== undefined) return discovering(files, discovered, noise, json);
  const [modelFile, logFile] = files;
  if (!modelFile || !logFile || files.length > 2) throw new UnusableInput("evidence needs a model and a log");
  const model = readModel(modelFile);
  if (firstProcess(model) === undefined)
    throw new UnusableInput(`${modelFile}: there is no process with steps in this file`);
  const log = readLog(logFile);
  const held = holdAgainst(model, log);
  const differences = differencesOf(held);
  const applied = apply && applying(apply, differences);
  const mend = applied && mended(model, applied);
  if (apply && !mend)
    throw new UnusableInput(
      `--apply ${apply.number}: nothing that the model could be changed to would keep it sound here: ${applied?.statement.text}`,
    );
  const taken = scenario === undefined ? undefined : takeFigures(scenario, model, log, held);
  if (report !== undefined) await writeReport(report, modelFile, model, logFile, log, held);
  let after: Held | undefined;
  if (apply && mend) {
    writeFileSync(callerPath(apply.out), writeBpmn(mend.model));
    after = holdAgainst(mend.model, log);
  }
  if (json)
    console.log(
      JSON.stringify(
        { ...document(log, held, differences, apply?.number, after), ...(taken && { scenario: taken }) },
        null,
        1,
      ),
    );
  else {
    tell(log, held, differences, apply?.out, after);
    if (taken) console.log(`${scenario}: ${counted(taken.length, "figure")} taken from the log.`);
  }
  return EXIT.done;
}

const endingOf = (file: string) => extname(file).slice(1).toLowerCase() as BookletKind;

/** Writes what the log says of the model, to be read and filed. */
async function writeReport(out: string, file: string, model: Model, logFile: string, part: EventLog, held: Held) {
  const booklet = evidenceReport({
    model,
    title: `Evidence: ${nameOfModel(model)}`,
    subtitle: basename(file),
    log: basename(logFile),
    part,
    filters: [],
    held,
    judged: [],
    sentences: sentencesIn(undefined),
    language: "en",
  });
  // With the printers come programs that the rest does not need.
  const { bookletFile } = await import("@/jobs/booklets");
  try {
    writeFileSync(callerPath(out), await bookletFile(booklet, endingOf(out)));
  } catch {
    throw new UnusableInput(`${out}: the file cannot be written`);
  }
}

/** Writes the model with a scenario of what the log says; gives the figures, each with the observations behind it. */
function takeFigures(out: string, model: Model, log: EventLog, held: Held) {
  const measured = measuredIn(log, held);
  const figures = figuresTaken(model, held, measured, "fitted");
  const names = new Set(scenariosOf(model).map(({ id }) => id));
  let id = "measured";
  for (let number = 2; names.has(id) || model.elements.has(id); number++) id = `measured-${number}`;
  const filled = performed(model, scenarioFrom(model, figures, measured, { id, name: "As measured" }));
  if (!filled) throw new UnusableInput(`${out}: the model takes no scenario`);
  writeFileSync(callerPath(out), writeBpmn(filled));
  return figures.map(({ element, parameter, value, observations }) => ({
    element,
    parameter,
    said: saidOf(value, parameter === "probability" ? "number" : "time"),
    observations,
  }));
}

/** Writes the process that a log tells of, and how well the log fits it. */
function discovering(files: readonly string[], out: string, noise: number, json: boolean): number {
  const [logFile] = files;
  if (!logFile || files.length > 1) throw new UnusableInput("evidence --discover needs one log");
  const log = readLog(logFile);
  const traces = variantsOf(log).flatMap(({ activities, traces: own }) => own.map(() => activities));
  const name = basename(logFile).replace(/\.(?:xes|csv)(?:\.gz)?$/i, "");
  const read = readBpmn(new TextEncoder().encode(treeFile(discover(traces, noise), name)));
  if (!read.ok) throw new UnusableInput(`${logFile}: ${read.problems[0]?.message ?? "no process can be made of it"}`);
  const model = drawMissingPages(read.value);
  writeFileSync(callerPath(out), writeBpmn(model));
  const held = holdAgainst(model, log);
  const differences = differencesOf(held);
  if (json) console.log(JSON.stringify(document(log, held, differences, undefined, undefined), null, 1));
  else tell(log, held, differences, undefined, undefined);
  return EXIT.done;
}

function applying({ number }: { readonly number: number }, differences: readonly Difference[]): Difference {
  const found = differences[number - 1];
  if (!found)
    throw new UnusableInput(
      `--apply ${number}: there ${differences.length === 1 ? "is 1 difference" : `are ${differences.length} differences`}`,
    );
  return found;
}

function readLog(file: string): EventLog {
  const packed = readBytes(file);
  const bytes = /\.gz$/i.test(file) ? unpacked(file, packed) : packed;
  const isXml = /\.xes(?:\.gz)?$/i.test(file) || /^\s*</.test(decodeText(bytes.subarray(0, 1_000)));
  const result = isXml ? readXes(textPieces(bytes)) : readLogCsv(textPieces(bytes));
  if (result.ok) return result.value;
  const [problem] = result.problems;
  const place = problem?.line === undefined ? "" : `${problem.line}:${problem.column ?? 1}:`;
  throw new UnusableInput(`${file}:${place} ${problem?.message ?? "the log cannot be read"}`);
}

function unpacked(file: string, packed: Uint8Array): Uint8Array {
  try {
    return gunzipSync(packed, { maxOutputLength: mostBytes });
  } catch (error) {
    const isLarge = (error as { code?: string }).code === "ERR_BUFFER_TOO_LARGE";
    throw new UnusableInput(`${file}: ${isLarge ? "it unpacks to more than is read" : "it is not packed as gzip"}`);
  }
}

const rounded = (value: number) => Math.round(value * 1e9) / 1e9;

const figures = (held: Held) => ({
  traces: held.traces,
  variants: held.variants.length,
  fitting: { traces: held.fitting, share: held.traces === 0 ? 0 : rounded(held.fitting / held.traces) },
  fitness: rounded(held.fitness),
});

const document = (
  log: EventLog,
  held: Held,
  differences: readonly Difference[],
  number: number | undefined,
  after: Held | undefined,
) => ({
  ...figures(held),
  differences: differences.map(({ kind, statement, traces, share, elements, activity, role }) => ({
    kind,
    statement: statement.text,
    traces: traces.length,
    share: rounded(share),
    elements,
    ...(activity !== undefined && { activity }),
    ...(role !== undefined && { role }),
  })),
  ...besides(log, held),
  ...(held.isCut && { isCut: true }),
  ...(log.leftOut > 0 && {
    leftOut: { count: log.leftOut, first: log.left.map(({ line, why }) => ({ line, why: why.text })) },
  }),
  ...(after && { applied: { number, ...figures(after) } }),
});

/** What costs nothing to align: told only where there is any. */
function besides(log: EventLog, held: Held) {
  const late = lateIn(log, held).map(({ element, statement, traces, of, isKept }) => ({
    statement: statement.text,
    traces: traces.length,
    share: rounded(traces.length / of),
    elements: [element],
    kept: isKept,
  }));
  const unused = unusedIn(held).map(({ kind, statement, traces, elements }) => ({
    kind,
    statement: statement.text,
    traces,
    elements,
  }));
  return { ...(late.length > 0 && { late }), ...(unused.length > 0 && { unused }) };
}

function tell(
  log: EventLog,
  held: Held,
  differences: readonly Difference[],
  out: string | undefined,
  after: Held | undefined,
): void {
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  const { traces, variants, fitting, fitness } = figures(held);
  console.log(
    `${counted(traces, "trace")} in ${counted(variants, "variant")}: ${fitting.traces} fit the model (${percent(fitting.share)}), fitness ${fitness.toFixed(3)}.`,
  );
  const { precision, generalisation } = held.closeness;
  console.log(`Precision ${precision.toFixed(3)}, generalisation ${generalisation.toFixed(3)}.`);
  if (held.isCut) console.log("A bound was met: some alignments may cost less than is told.");
  if (log.leftOut > 0) {
    console.log(`${counted(log.leftOut, "event")} left out:`);
    for (const { line, why } of log.left.slice(0, 10)) console.log(`  line ${line}: ${why.text}`);
  }
  for (const [at, { statement, traces: own }] of differences.entries())
    console.log(`${String(at + 1).padStart(3)}. ${statement.text} (${counted(own.length, "trace")})`);
  if (differences.length === 0) console.log("Nothing differs.");
  for (const { statement } of [...lateIn(log, held), ...unusedIn(held)]) console.log(`  ·  ${statement.text}`);
  if (after && out !== undefined)
    console.log(`${out}: ${after.fitting} of ${after.traces} fit then, fitness ${after.fitness.toFixed(3)}.`);
}
