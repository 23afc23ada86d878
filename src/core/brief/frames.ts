import { itemsOf } from "./discourse";
import type { OpenQuestion } from "./discourse/questions";
import type { BriefContent, BriefPart, Mark } from "./document";
import { clausesOf } from "./reading/clauses";
import { arrivalIn, stateName } from "./reading/states";
import type { BriefReading, Sentence } from "./sentences";
import { Subjects } from "./subjects";
import { isRecurring } from "./times";
import { meaningOf, speaksOf, uncapitalised } from "./wording";

/** A process as the text has it: what sets it off, what is done in it, in the order of the text. */
export interface Frame {
  /** The id of its trigger, part or shared activity; "whole" where the text names no trigger. */
  readonly key: string;
  readonly kind: "trigger" | "part" | "shared" | "whole";
  readonly name: string;
  /** The process record it was built as. */
  readonly process: string | undefined;
  readonly triggers: readonly FrameTrigger[];
  readonly sentences: readonly Sentence[];
  readonly items: readonly FrameItem[];
  readonly result: Mark | undefined;
  readonly open: readonly OpenQuestion[];
  readonly roles: readonly string[];
  readonly parties: readonly Thing[];
}

export interface FrameTrigger {
  readonly mark: Mark;
  readonly name: string;
  /** The words of the time it comes again by. */
  readonly time: string | undefined;
  /** The outside party that sets it off. */
  readonly from: string | undefined;
  /** Whether something comes from outside. */
  readonly isMessage: boolean;
}

/** Something named in the text, with the marks that say so. */
export interface Thing {
  readonly name: string;
  readonly marks: readonly string[];
}

export type FrameItem =
  | FrameStep
  | FrameWait
  | FrameParallel
  | { readonly kind: "milestone"; readonly mark: string; readonly name: string }
  | FrameDecision
  | {
      readonly kind: "part";
      readonly part: BriefPart;
      readonly marks: readonly string[];
      readonly items: readonly FrameItem[];
    };

export interface FrameStep {
  readonly kind: "step";
  /** The words it was taken from; further ones where it stands for several ("approves or rejects"). */
  readonly mark: string;
  readonly alsoMarks: readonly string[];
  readonly name: string;
  readonly role: Thing | undefined;
  /** A system that does it by itself. */
  readonly bySystem: boolean;
  /** The outside party that does it, so that here it is waited for. */
  readonly awaits: Thing | undefined;
  /** Somebody of the organisation, or something, is waited for. */
  readonly isWait: boolean;
  /** The outside party it goes to. */
  readonly sendsTo: Thing | undefined;
  readonly systems: readonly (Thing & { readonly use: "reads" | "writes" })[];
  readonly documents: readonly (Thing & { readonly direction: "in" | "out" })[];
  /** Times said of it, for its guidance. */
  readonly times: readonly Thing[];
  /** What happens where it is not done in time. */
  readonly deadline: FrameDeadline | undefined;
  /** Done for each of many. */
  readonly isForEach: boolean;
  /** Done for all of many, which is each by itself where the process runs for many cases at once. */
  readonly isForAll: boolean;
  /** The key of the frame it calls. */
  readonly calls: string | undefined;
  readonly passage: number;
}

/** Something that is waited for without doing anything: a time, a message, a state. */
export interface FrameWait {
  readonly kind: "wait";
  readonly mark: string;
  readonly name: string;
  readonly trigger: "timer" | "message" | "condition";
  readonly duration: string | undefined;
}

/** What goes on at the same time. */
export interface FrameParallel {
  readonly kind: "parallel";
  readonly mark: string;
  readonly branches: readonly (readonly FrameItem[])[];
}

export interface FrameDeadline {
  readonly mark: string;
  readonly name: string;
  readonly duration: string;
  readonly path: FramePath;
}

export interface FrameDecision {
  readonly kind: "decision";
  readonly mark: string;
  readonly question: string;
  readonly role: Thing | undefined;
  readonly paths: readonly FramePath[];
  readonly passage: number;
}

export interface FramePath {
  /** "yes", "no", or what the text says instead: "papers missing". */
  readonly answer: string;
  /** The words the answer is taken from, where they are marked. */
  readonly mark: string | undefined;
  readonly items: readonly FrameItem[];
  readonly ends: { readonly mark: string; readonly name: string } | undefined;
  /** Where it goes back to: the mark of a step before, and the words that say so. */
  readonly back: { readonly to: string; readonly mark: string | undefined } | undefined;
}

/** The frame a sentence is in, and whether somebody said so or it was taken from its place or words. */
export interface Placing {
  readonly frame: string;
  readonly why: "said" | "place" | "words";
}

/**
 * Which process each sentence belongs to: where somebody said so, there; else to the trigger last named above it, unless its words
 * return to what only another trigger's sentences speak of (two content words more than with its own).
 */
export function placingsOf(reading: BriefReading, content: BriefContent): (Placing | undefined)[] {
  const triggers = reading.marks.filter((mark) => mark.kind === "trigger");
  const targets = new Set([...triggers.map((mark) => mark.id), ...content.parts.map((part) => part.id)]);
  // Two triggers of one sentence begin the same work, by itself.
  const leads = new Map<number, string>();
  for (const sentence of reading.sentences) {
    const own = sentence.marks.find((mark) => mark.kind === "trigger");
    if (own) leads.set(sentence.at, own.id);
  }
  const first = triggers[0]?.id ?? "whole";
  let current: string | undefined;
  const byPlace = reading.sentences.map((sentence): Placing | undefined => {
    current = leads.get(sentence.at) ?? current;
    if (sentence.isAside) return undefined;
    if (sentence.assigned && targets.has(sentence.assigned)) return { frame: sentence.assigned, why: "said" };
    if (current === undefined && sentence.marks.length === 0) return undefined;
    return { frame: current ?? first, why: "place" };
  });
  if (triggers.length < 2) return byPlace;
  return returned(reading, byPlace, leads);
}

/** Moves paragraphs that return to what only another process speaks of. Its opening paragraph is what a process speaks of. */
function returned(
  reading: BriefReading,
  placings: readonly (Placing | undefined)[],
  leads: ReadonlyMap<number, string>,
): (Placing | undefined)[] {
  const topics = new Map<string, ReadonlySet<string>>();
  const opening = new Set<number>();
  for (const [at, trigger] of leads) {
    const { passage } = reading.sentences[at] as Sentence;
    opening.add(passage);
    const words = reading.sentences.filter((sentence) => sentence.passage === passage).map((sentence) => sentence.text);
    topics.set(trigger, meaningOf(words.join(" ")));
  }
  const only = new Map(
    [...topics].map(([trigger, words]) => [
      trigger,
      new Set(
        [...words].filter((word) => [...topics].every(([other, theirs]) => other === trigger || !theirs.has(word))),
      ),
    ]),
  );
  const passages = new Map<number, string | undefined>();
  const told = toldByHeadings(reading, [...opening]);
  for (const { passage } of reading.sentences) {
    if (passages.has(passage)) continue;
    passages.set(passage, undefined);
    if (opening.has(passage) || told.has(passage)) continue;
    const own = reading.sentences.findIndex((sentence) => sentence.passage === passage);
    const placed = placings[own];
    if (placed?.why !== "place") continue;
    const words = meaningOf(reading.passages[passage]?.text ?? "");
    const score = (trigger: string) => [...(only.get(trigger) ?? [])].filter((word) => words.has(word)).length;
    const best = [...topics.keys()].sort((a, b) => score(b) - score(a))[0];
    if (best && best !== placed.frame && score(best) >= score(placed.frame) + 2) passages.set(passage, best);
  }
  return placings.map((placing, at) => {
    const moved = passages.get((reading.sentences[at] as Sentence).passage);
    return moved && placing?.why === "place" ? { frame: moved, why: "words" } : placing;
  });
}

/** Passages under a heading that stands over one trigger alone: their place is said. */
function toldByHeadings(reading: BriefReading, triggers: readonly number[]): Set<number> {
  const told = new Set<number>();
  reading.passages.forEach((heading, at) => {
    if (heading.kind !== "heading") return;
    const end = reading.passages.findIndex(
      (next) => next.at > at && next.kind === "heading" && next.level <= heading.level,
    );
    const until = end < 0 ? reading.passages.length : end;
    if (triggers.filter((trigger) => trigger > at && trigger < until).length !== 1) return;
    for (let passage = at + 1; passage < until; passage++) told.add(passage);
  });
  return told;
}

/** The processes a text is about: one for each trigger, each process factored out of one, and each activity shared by several. */
export function framesOf(reading: BriefReading, content: BriefContent): Frame[] {
  const placings = placingsOf(reading, content);
  const subjects = new Subjects(reading);
  const groups = new Map<string, Sentence[]>();
  const triggerOfSentence = new Map<string, string>();
  reading.sentences.forEach((sentence, at) => {
    const placing = placings[at];
    if (!placing) return;
    groups.set(placing.frame, [...(groups.get(placing.frame) ?? []), sentence]);
    for (const mark of sentence.marks) if (mark.kind === "trigger") triggerOfSentence.set(mark.id, placing.frame);
  });
  const setting = (key: string) => content.frames.find((frame) => frame.key === key);
  const shared = new Set(content.shared);
  const frames: Frame[] = [];
  const triggers = reading.marks.filter((mark) => mark.kind === "trigger");
  const add = (
    key: string,
    kind: Frame["kind"],
    own: readonly Mark[],
    fallback: string | ((items: readonly FrameItem[]) => string),
  ) => {
    const sentences = groups.get(key) ?? [];
    if (sentences.length === 0) return;
    const inner = content.parts.filter((part) => part.of === key);
    const partItems = inner.map((part) => ({ part, sentences: groups.get(part.id) ?? [] }));
    const made = itemsOf(sentences, subjects, { shared, parts: partItems, answers: content.answers ?? {} });
    const all = [
      ...sentences,
      ...partItems.flatMap((part) => (part.part.kind === "sub-process" ? part.sentences : [])),
    ];
    frames.push({
      key,
      kind,
      name: setting(key)?.name || (typeof fallback === "string" ? fallback : fallback(made.items)),
      process: setting(key)?.process,
      triggers: own.map((mark) => triggerFrom(mark, subjects, sentenceOf(reading, mark))),
      sentences: all,
      ...made,
      roles: [...new Set(stepsIn(made.items).flatMap((step) => step.role?.name ?? []))],
      parties: subjects.partiesIn(all),
    });
  };
  for (const trigger of triggers) {
    // A trigger whose sentence was put into another process is one more start of that.
    if (triggerOfSentence.get(trigger.id) !== trigger.id) continue;
    const own = triggers.filter((other) => triggerOfSentence.get(other.id) === trigger.id);
    add(trigger.id, "trigger", own, headingAbove(reading, trigger) ?? ((items) => nameBy(trigger, items)));
  }
  if (groups.has("whole")) add("whole", "whole", [], headingsOf(reading)[0] ?? "The process of this brief");
  for (const part of content.parts) if (part.kind === "process") add(part.id, "part", [], part.name);
  for (const [key, step] of sharedSteps(frames))
    frames.push({
      key: `shared:${key}`,
      kind: "shared",
      name: setting(`shared:${key}`)?.name || step.name,
      process: setting(`shared:${key}`)?.process,
      triggers: [],
      sentences: [],
      items: [{ ...step, calls: undefined }],
      result: undefined,
      open: [],
      roles: step.role ? [step.role.name] : [],
      parties: [],
    });
  return frames;
}

/** What a process is called that a trigger sets off: by that; where it is a time, by what is done then. */
function nameBy({ text }: Mark, items: readonly FrameItem[]): string {
  const [first] = stepsIn(items);
  const name = stateName(text);
  const longer = `${first?.name} ${uncapitalised(name)}`;
  return isRecurring(text) && first && !first.awaits && longer.length <= 60 ? longer : name;
}

/** The first step of each activity that is called from several processes: what the called process holds to begin with. */
function sharedSteps(frames: readonly Frame[]): Map<string, FrameStep> {
  const steps = new Map<string, FrameStep>();
  for (const step of frames.flatMap((frame) => stepsIn(frame.items))) {
    const key = step.calls?.slice("shared:".length);
    if (key !== undefined && !steps.has(key)) steps.set(key, step);
  }
  return steps;
}

/** All steps of a list of items, those on paths and in parts included. */
export function stepsIn(items: readonly FrameItem[]): FrameStep[] {
  return items.flatMap((item): FrameStep[] => {
    switch (item.kind) {
      case "step":
        return [item, ...stepsIn(item.deadline?.path.items ?? [])];
      case "decision":
        return item.paths.flatMap((path) => stepsIn(path.items));
      case "part":
        return stepsIn(item.items);
      case "parallel":
        return item.branches.flatMap(stepsIn);
      default:
        return [];
    }
  });
}

const sentenceOf = (reading: BriefReading, mark: Mark) =>
  reading.sentences.find((sentence) => sentence.marks.includes(mark));

/** How many decisions a list of items holds, those on paths and in parts included. */
export function decisionsIn(items: readonly FrameItem[]): number {
  return items.reduce((sum, item) => {
    switch (item.kind) {
      case "step":
        return sum + decisionsIn(item.deadline?.path.items ?? []);
      case "decision":
        return sum + 1 + item.paths.reduce((inner, path) => inner + decisionsIn(path.items), 0);
      case "part":
        return sum + decisionsIn(item.items);
      case "parallel":
        return sum + item.branches.reduce((inner, branch) => inner + decisionsIn(branch), 0);
      default:
        return sum;
    }
  }, 0);
}

/** What sets a process off: a time, or a message where somebody outside does something or a paper arrives. */
function triggerFrom(mark: Mark, subjects: Subjects, sentence: Sentence | undefined): FrameTrigger {
  const clause =
    sentence &&
    clausesOf(sentence.text).find((one) => mark.from - sentence.from <= one.to && mark.to - sentence.from > one.from);
  const subject = clause?.subject && sentence?.text.slice(clause.subject.from, clause.subject.to);
  const isBehind = clause?.subject && sentence && mark.from - sentence.from >= clause.subject.to;
  const words = subject && isBehind && !isRecurring(mark.text) ? `${subject} ${mark.text}` : mark.text;
  const from = subjects.partiesInWords(words)[0]?.name;
  const arrives =
    arrivalIn(words) !== undefined || /\b(?:arrives?|comes? in|is received|are received|reaches)\b/i.test(words);
  return {
    mark,
    name: stateName(words),
    time: isRecurring(mark.text) ? mark.text : undefined,
    from,
    isMessage:
      from !== undefined ||
      (arrives &&
        subjects.named("document").some((one) => speaksOf(one.name, arrivalIn(words)?.what ?? subject ?? ""))),
  };
}

const headingsOf = (reading: BriefReading) =>
  reading.passages
    .filter((passage) => passage.kind === "heading" && passage.text.trim() !== "")
    .map((one) => one.text.trim());

/** The heading right above a trigger's paragraph, where it stands over this trigger alone. */
function headingAbove(reading: BriefReading, trigger: Mark): string | undefined {
  const before = reading.passages.slice(0, trigger.passage).findLast((passage) => passage.kind === "heading");
  if (!before || before.text.trim() === "") return undefined;
  const next = reading.passages.find(
    (passage) => passage.at > before.at && passage.kind === "heading" && passage.level <= before.level,
  );
  const under = (mark: Mark) => mark.passage > before.at && mark.passage < (next?.at ?? Number.POSITIVE_INFINITY);
  const others = reading.marks.filter((mark) => mark.kind === "trigger" && mark.id !== trigger.id && under(mark));
  return others.length > 0 ? undefined : before.text.trim().replace(/^\d+(?:\.\d+)*\.?\s+/, "");
}
