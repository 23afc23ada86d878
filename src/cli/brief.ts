import {
  adviceOn,
  emptyBrief,
  framesOf,
  type MarkKind,
  markAll,
  markedText,
  markKinds,
  readBrief,
  suggestMarks,
} from "@/core/brief";
import { EXIT, readBytes, UnusableInput } from "./input";

/** `lane brief TEXT.txt|.md`: what a description names, which processes it tells of, and advice. Marks in brackets are kept. */
export function brief(args: readonly string[], json: boolean): number {
  const [file] = args;
  if (!file || args.length > 1) throw new UnusableInput("brief needs one text file");
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
  const named = (kind: MarkKind) => [
    ...new Set(reading.marks.filter((mark) => mark.kind === kind).map((mark) => mark.text.replace(/\s+/g, " "))),
  ];
  const answer = {
    found: Object.fromEntries(markKinds.map((kind) => [kind, named(kind)])),
    processes: frames.map(({ name, roles, parties, sentences }) => ({
      name,
      roles,
      parties: parties.map((party) => party.name),
      sentences: sentences.map((sentence) => sentence.text),
    })),
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
    if (answer.advice.length > 0) process.stdout.write("\n");
    for (const { message, reason } of answer.advice) process.stdout.write(`advice    ${message} ${reason}\n`);
  }
  return EXIT.done;
}
