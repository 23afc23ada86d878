import { writeFileSync } from "node:fs";
import { writeBpmn } from "@/core/bpmn";
import {
  adviceOn,
  asOneModel,
  type BriefContent,
  buildAll,
  emptyBrief,
  type Frame,
  framesOf,
  type MarkKind,
  markAll,
  markedText,
  markKinds,
  markOfKey,
  processId,
  readBrief,
  stepsIn,
  suggestMarks,
} from "@/core/brief";
import { type Id, type Model, wordsOf } from "@/core/model";
import { callerPath, EXIT, readBytes, UnusableInput } from "./input";

/** A page or ten of text; what is longer is read, and not built. */
const mostSteps = 300;

/**
 * `lane brief TEXT.txt|.md [OUT.bpmn]`: what a description names, the processes it tells of as they would be built, what it leaves open,
 * and advice. Marks in brackets are kept; where there are none, those suggested are all taken.
 */
export function brief(args: readonly string[], json: boolean): number {
  const [file, out] = args;
  if (!file || args.length > 2) throw new UnusableInput("brief needs one text file, and where to write the processes");
  if (out !== undefined && !out.toLowerCase().endsWith(".bpmn"))
    throw new UnusableInput(`${out}: processes are written to a file that ends in .bpmn`);
  const text = new TextDecoder().decode(readBytes(file));
  let document: ReturnType<typeof markedText>;
  try {
    document = markedText(text);
  } catch (error) {
    throw new UnusableInput(`${file}: ${error instanceof RangeError ? error.message : "the text cannot be read"}`);
  }
  const own = readBrief(document);
  // Who marked words by hand is taken at that; else the language is.
  if (own.marks.length === 0) document = markAll(document, suggestMarks(own, [], []));
  const reading = readBrief(document);
  const content = { ...emptyBrief, document };
  const frames = framesOf(reading, content);
  const steps = frames.reduce((sum, frame) => sum + stepsIn(frame.items).length, 0);
  if (out !== undefined && steps > mostSteps)
    throw new UnusableInput(
      `${file}: the text tells of ${steps} steps, and at most ${mostSteps} are drawn at once; divide it into several texts`,
    );
  const built = steps > mostSteps ? [] : builtFrom(file, content);
  if (out !== undefined) writeProcesses(out, asOneModel(built.map((one) => one.model)));
  const named = (kind: MarkKind) => [
    ...new Set(reading.marks.filter((mark) => mark.kind === kind).map((mark) => mark.text.replace(/\s+/g, " "))),
  ];
  const answer = {
    found: Object.fromEntries(markKinds.map((kind) => [kind, named(kind)])),
    processes: frames.map((frame, at) => ({
      id: processId(at),
      name: frame.name,
      start: startOf(frame),
      roles: frame.roles,
      parties: frame.parties.map((party) => party.name),
      sentences: frame.sentences.map((sentence) => sentence.text),
    })),
    open: frames.flatMap((frame, at) =>
      frame.open.map((one) => ({
        sentence: reading.sentences[one.sentence]?.text ?? "",
        question: one.question.text,
        elements: built[at] ? elementsFor(built[at].model, one.marks) : [],
      })),
    ),
    advice: adviceOn(reading, content, frames).map(({ kind, message, reason }) => ({
      kind,
      message: message.text,
      reason: reason.text,
    })),
  };
  if (json) process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
  else {
    for (const kind of markKinds)
      if (named(kind).length > 0) process.stdout.write(`${kind.padEnd(9)} ${named(kind).join("; ")}\n`);
    for (const one of answer.processes)
      process.stdout.write(
        `\nprocess   ${one.name}: ${one.sentences.length} sentences, ${one.roles.join(", ") || "nobody"}\n`,
      );
    if (answer.open.length > 0) process.stdout.write("\n");
    for (const { question, sentence } of answer.open) process.stdout.write(`open      ${question} (${sentence})\n`);
    if (answer.advice.length > 0) process.stdout.write("\n");
    for (const { message, reason } of answer.advice) process.stdout.write(`advice    ${message} ${reason}\n`);
  }
  return EXIT.done;
}

function startOf(frame: Frame): "message" | "timer" | "none" {
  const [trigger] = frame.triggers;
  return trigger?.time !== undefined ? "timer" : trigger?.isMessage ? "message" : "none";
}

function builtFrom(file: string, content: BriefContent) {
  const built = buildAll(content);
  if (!built.ok) throw new UnusableInput(`${file}: ${built.problems.map((problem) => problem.message).join(" ")}`);
  return built.value;
}

/** What stands for the words of a question; for what was built for a turn of phrase, that. */
function elementsFor(model: Model, marks: readonly string[]): Id[] {
  const exact = [...model.elements].filter((element) => wordsOf(element).some((word) => marks.includes(word)));
  const near = [...model.elements].filter((element) =>
    wordsOf(element).some((word) => marks.map(markOfKey).includes(markOfKey(word))),
  );
  return (exact.length > 0 ? exact : near).map((element) => element.id);
}

function writeProcesses(path: string, model: Model): void {
  try {
    writeFileSync(callerPath(path), writeBpmn(model));
  } catch {
    throw new UnusableInput(`${path}: cannot be written there`);
  }
}
