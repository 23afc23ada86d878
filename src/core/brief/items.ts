import type { BriefPart, Mark } from "./document";
import type { FrameDecision, FrameItem, FramePath, FrameStep, Thing } from "./frames";
import type { Sentence } from "./sentences";
import type { Mention, Subjects } from "./subjects";
import { isRecurring, readTime } from "./times";
import {
  doneName,
  meaningOf,
  question,
  speaksOf,
  stateName,
  stepName,
  thingKey,
  uncapitalised,
  workKey,
} from "./wording";
import { givingVerbs, readingVerbs, sendingVerbs } from "./words";

type PartSentences = { readonly part: BriefPart; readonly sentences: readonly Sentence[] };

/**
 * The steps, waits and decisions of a process in the order of the text. "If …" takes what its sentence says onto its path,
 * "Otherwise" and "If not" the next sentence onto the other; a path with a result ends there. What only a part speaks of is one
 * item in the place of the part's first sentence.
 */
export function itemsOf(
  sentences: readonly Sentence[],
  subjects: Subjects,
  shared: ReadonlySet<string>,
  parts: readonly PartSentences[],
): { items: FrameItem[]; result: Mark | undefined } {
  const reader = new ItemReader(subjects, shared);
  const places = [
    ...sentences.map((sentence) => ({ at: sentence.at, read: () => reader.readSentence(sentence) })),
    ...parts.flatMap(({ part, sentences: inner }) => {
      const first = inner[0];
      return first ? [{ at: first.at, read: () => reader.readPart(part, inner, shared) }] : [];
    }),
  ].sort((a, b) => a.at - b.at);
  for (const { read } of places) read();
  return reader.finish();
}

/** A path while it is written. */
interface OpenPath {
  readonly answer: string;
  readonly mark: string | undefined;
  readonly items: FrameItem[];
  ends: FramePath["ends"];
}

interface OpenDecision {
  readonly decision: Omit<FrameDecision, "paths">;
  readonly paths: OpenPath[];
  /** Whether it only asked so far ("checks whether"), so that the next "if" answers it. */
  onlyAsked: boolean;
}

const connective = {
  yes: /^(?:if so|if yes|if (?:it|they|this|that|he|she) (?:is|are|can|does|do|has|have)\b(?! not)|in that case|in this case)\b/i,
  no: /^(?:if not|otherwise|else|if no\b|if (?:it|they|this|that) (?:is|are|can|does|do|has|have) not|if (?:it|they) (?:cannot|can't|isn't|doesn't))/i,
};

class ItemReader {
  readonly #items: FrameItem[] = [];
  #decision: OpenDecision | undefined;
  #result: Mark | undefined;
  /** Where the sentence before left off. */
  #last: { readonly passage: number; readonly path: OpenPath | undefined } | undefined;

  constructor(
    readonly subjects: Subjects,
    readonly shared: ReadonlySet<string>,
  ) {}

  readPart(part: BriefPart, sentences: readonly Sentence[], shared: ReadonlySet<string>): void {
    this.#close();
    const { items } = itemsOf(sentences, this.subjects, shared, []);
    const marks = sentences.flatMap((sentence) => sentence.marks.map((mark) => mark.id));
    this.#items.push({
      kind: "part",
      part,
      marks: part.kind === "process" ? marks.slice(0, 1) : [],
      items: part.kind === "process" ? [] : items,
    });
  }

  readSentence(sentence: Sentence): void {
    const answer = connective.no.test(sentence.text) ? "no" : connective.yes.test(sentence.text) ? "yes" : undefined;
    const asked = sentence.marks.find((mark) => mark.kind === "decision");
    const condition = asked && conditionBefore(sentence, asked);
    let path = this.#goingOn(sentence, answer, asked, condition);
    if (!path) this.#close();
    const elseAt = condition ? sentence.text.search(/[,;]\s*(?:otherwise|else|if not)\b/i) : -1;
    for (const mark of inReadingOrder(sentence, condition ? asked : undefined)) {
      if (mark.kind === "decision") {
        if (path && mark === asked && condition) continue;
        path = this.#ask(sentence, mark, mark === asked ? condition : undefined, path);
        continue;
      }
      if (elseAt >= 0 && mark.from - sentence.from > elseAt && this.#decision) {
        const other = this.#decision.paths[0]?.answer === "no" ? "yes" : "no";
        path = this.#path(other);
      }
      this.#read(sentence, mark, path);
    }
    this.#last = { passage: sentence.passage, path };
  }

  /** The path a sentence goes on with: by "otherwise", by answering what was asked, by what the asked party does, or in time. */
  #goingOn(
    sentence: Sentence,
    answer: "yes" | "no" | undefined,
    asked: Mark | undefined,
    condition: "if" | "unless" | undefined,
  ): OpenPath | undefined {
    const open = this.#decision;
    const last = this.#last;
    if (last?.passage !== sentence.passage) return undefined;
    if (answer === "no") {
      const late = this.#late((last.path?.items ?? this.#items).at(-1), last.path?.items ?? this.#items);
      if (late) return late;
    }
    if (!open) return undefined;
    if (answer) return this.#path(answer);
    if (asked && condition && (open.onlyAsked || open.paths.some((path) => path.mark !== undefined))) {
      open.onlyAsked = false;
      const isSame = speaksOf(asked.text, open.decision.question);
      const isYes = isSame && !/\b(?:not|no|in\p{L}+|un\p{L}+)\b/iu.test(asked.text);
      const answers = isSame
        ? isYes === (condition === "if")
          ? "yes"
          : "no"
        : question(asked.text).slice(0, -1).toLowerCase();
      return this.#path(answers, asked.id);
    }
    // "… asks the household for them. The household sends them."
    const to = last.path?.items.at(-1);
    const first = sentence.marks.find((mark) => mark.kind === "activity");
    if (
      !asked &&
      first &&
      to?.kind === "step" &&
      to.sendsTo &&
      this.subjects.of(sentence, first)?.name === to.sendsTo.name
    )
      return last.path;
    return undefined;
  }

  /** "within ten days … Otherwise …": what happens when a step's time is over. */
  #late(item: FrameItem | undefined, items: FrameItem[]): OpenPath | undefined {
    if (item?.kind !== "step" || item.deadline) return undefined;
    const limit = item.times.find((time) => readTime(time.name)?.kind === "duration");
    const time = limit && readTime(limit.name);
    if (!limit || time?.kind !== "duration") return undefined;
    const path: OpenPath = { answer: "late", mark: undefined, items: [], ends: undefined };
    const deadline = {
      mark: limit.marks[0] as string,
      name: capital(limit.name.replace(/^(?:within|no later than|at the latest)\s+/i, "")),
      duration: time.iso,
      path,
    };
    items[items.length - 1] = { ...item, times: item.times.filter((one) => one !== limit), deadline };
    return path;
  }

  #ask(
    sentence: Sentence,
    mark: Mark,
    condition: "if" | "unless" | undefined,
    path: OpenPath | undefined,
  ): OpenPath | undefined {
    const decision = {
      kind: "decision" as const,
      mark: mark.id,
      question: question(mark.text),
      role: roleOf(this.subjects.of(sentence, mark)),
      passage: sentence.passage,
    };
    if (path) {
      path.items.push({ ...decision, paths: bothPaths([]) });
      return path;
    }
    this.#close();
    this.#decision = { decision, paths: [], onlyAsked: condition === undefined };
    return condition ? this.#path(condition === "unless" ? "no" : "yes") : undefined;
  }

  #read(sentence: Sentence, mark: Mark, path: OpenPath | undefined): void {
    if (mark.kind === "activity") {
      // What a question is asked for comes before it, not behind.
      if (!path && this.#decision) this.#close();
      (path?.items ?? this.#items).push(this.#step(sentence, mark));
    } else if (mark.kind === "time" && isWaitOfItsOwn(sentence, mark)) {
      const time = readTime(mark.text);
      const duration = time?.kind === "duration" ? time.iso : undefined;
      (path?.items ?? this.#items).push({ kind: "wait", mark: mark.id, name: capital(mark.text), duration });
    } else if (mark.kind === "result") {
      if (path) {
        path.ends = { mark: mark.id, name: stateName(mark.text) };
        return;
      }
      this.#close();
      this.#milestone();
      this.#result = mark;
    }
  }

  finish(): { items: FrameItem[]; result: Mark | undefined } {
    this.#close();
    return { items: this.#items, result: this.#result };
  }

  /** A result after which the text goes on is a state the work passes. */
  #milestone(): void {
    if (this.#result)
      this.#items.push({ kind: "milestone", mark: this.#result.id, name: stateName(this.#result.text) });
  }

  #path(answer: string, mark?: string): OpenPath {
    const open = this.#decision as OpenDecision;
    open.onlyAsked = false;
    const known = open.paths.find((one) => one.answer === answer);
    if (known) return known;
    const path: OpenPath = { answer, mark, items: [], ends: undefined };
    open.paths.push(path);
    return path;
  }

  #close(): void {
    const open = this.#decision;
    this.#decision = undefined;
    if (open) this.#items.push({ ...open.decision, paths: bothPaths(open.paths) });
    if (this.#last) this.#last = { ...this.#last, path: undefined };
  }

  #step(sentence: Sentence, mark: Mark): FrameStep {
    const subject = this.subjects.of(sentence, mark);
    const mentions = this.subjects.mentionsIn(sentence);
    const verb =
      [...meaningOf(stepName(mark.text).split(" ")[0] ?? "")][0] ??
      stepName(mark.text).split(" ")[0]?.toLowerCase() ??
      "";
    const activities = sentence.marks.filter((other) => other.kind === "activity");
    const after = activities[activities.indexOf(mark) + 1];
    const from = mark.from - sentence.from;
    const until = after ? after.from - sentence.from : sentence.text.length;
    // What stands between this activity and the next belongs to it; to the first also what stands before it.
    const own = mentions.filter(
      (mention) =>
        mention.from >= (activities[0] === mark && !subjectIs(subject, mention, mentions) ? 0 : from) &&
        mention.from < until,
    );
    const awaits = subject?.kind === "party" ? subject : undefined;
    const said = own.filter((mention) => mention.from >= from);
    const receiver = said.find((mention) => mention.kind === "party" && mention.name !== awaits?.name);
    const key = workKey(mark.text);
    // "… and sends it to the household": what was spoken of last.
    const meant = /\b(?:it|them)\b/i.test(mark.text)
      ? mentions.findLast((mention) => mention.kind === "document" && mention.to <= from)
      : undefined;
    const words = meant ? mark.text.replace(/\b(?:it|them)\b/i, uncapitalised(meant.name)) : mark.text;
    return {
      kind: "step",
      mark: mark.id,
      name: awaits ? doneName(words) : stepName(words),
      role: roleOf(subject),
      bySystem: subject?.kind === "system",
      awaits,
      sendsTo: !awaits && receiver && sendingVerbs.has(verb) ? receiver : undefined,
      systems: distinct(own.filter((mention) => mention.kind === "system")).map((system) => ({
        ...system,
        use: readingVerbs.has(verb) ? ("reads" as const) : ("writes" as const),
      })),
      documents: awaits
        ? []
        : distinct([...(meant ? [meant] : []), ...said.filter((mention) => mention.kind === "document")]).map(
            (document) => ({
              ...document,
              direction: givingVerbs.has(verb) ? ("out" as const) : ("in" as const),
            }),
          ),
      times: sentence.marks
        .filter(
          (other) => other.kind === "time" && other.from - sentence.from >= from && other.from - sentence.from < until,
        )
        .map((other) => ({ name: other.text, marks: [other.id] })),
      deadline: undefined,
      isForEach: /\b(?:for\s+)?(?:each|every|all)\s+(?:of\s+)?(?:the\s+)?\p{L}+/iu.test(withoutTimes(sentence.text)),
      calls: this.shared.has(key) ? `shared:${key}` : undefined,
      passage: sentence.passage,
    };
  }
}

const withoutTimes = (text: string) =>
  text.replace(/\b(?:every|each)\s+\p{L}+(?:\s+at\s+[\d:]+)?/giu, (words) => (isRecurring(words) ? "" : words));
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
const roleOf = (subject: Mention | undefined): Thing | undefined => (subject?.kind === "role" ? subject : undefined);

function subjectIs(subject: Mention | undefined, mention: Mention, all: readonly Mention[]): boolean {
  return subject !== undefined && mention.kind === "party" && all.includes(mention);
}

function distinct(mentions: readonly Mention[]): Mention[] {
  return [...new Map(mentions.map((mention) => [thingKey(mention.name), mention])).values()];
}

/** Whether a decision is a condition for what its sentence says ("if", "unless"), and by which word. */
function conditionBefore(sentence: Sentence, mark: Mark): "if" | "unless" | undefined {
  const word = /\b(if|when|where|in case|unless)\s*$/i.exec(sentence.text.slice(0, mark.from - sentence.from))?.[1];
  return word === undefined ? undefined : word.toLowerCase() === "unless" ? "unless" : "if";
}

/** Marks from left to right; a condition comes before what depends on it, wherever it stands. */
function inReadingOrder(sentence: Sentence, condition: Mark | undefined): Mark[] {
  const marks = [...sentence.marks].sort((a, b) => a.from - b.from || b.to - a.to);
  return condition ? [condition, ...marks.filter((mark) => mark !== condition)] : marks;
}

/** All answers the text has, and the other of yes and no where it has only one; that one goes straight on. */
function bothPaths(paths: readonly OpenPath[]): FramePath[] {
  const straight = (answer: string): FramePath => ({ answer, mark: undefined, items: [], ends: undefined });
  if (paths.length === 0) return [straight("yes"), straight("no")];
  const kept = paths.map(({ answer, mark, items, ends }): FramePath => ({ answer, mark, items, ends }));
  if (paths.some((path) => path.answer === "yes") && paths.length > 1) return kept;
  if (paths.every((path) => path.answer !== "yes")) return [straight("yes"), ...kept];
  return [...kept, straight("no")];
}

/** "After ten days", "waits a week", where nothing that is done takes that long. */
function isWaitOfItsOwn(sentence: Sentence, mark: Mark): boolean {
  const time = readTime(mark.text);
  if (time?.kind !== "duration") return false;
  const activities = sentence.marks.filter((other) => other.kind === "activity");
  if (activities.some((other) => other.from <= mark.from && other.to >= mark.to)) return false;
  return activities.length === 0
    ? !/^within\b/i.test(mark.text)
    : time.isWait && !activities.some((other) => other.to <= mark.from);
}
