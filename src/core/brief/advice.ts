import { listOf, type Said, say } from "../messages";
import type { BriefContent, Mark } from "./document";
import { type Frame, type FrameItem, framesOf, stepsIn } from "./frames";
import type { BriefReading } from "./sentences";
import { isRecurring } from "./times";
import { thingKey, thingName, workKey } from "./wording";
import { partyNouns } from "./words";

/**
 * What a practised analyst would remark on a text's marks, before anything is drawn. The remarks are common practice of the trade;
 * they have no published source.
 */
export type Advice = {
  /** The same as long as what it is about is there. */
  readonly id: string;
  readonly message: Said;
  readonly reason: Said;
  /** The marks or sentence it is about, to jump to. */
  readonly marks: readonly string[];
  readonly sentence?: number;
} & (
  | { readonly kind: "several-triggers"; readonly triggers: readonly string[] }
  | { readonly kind: "recurring-time"; readonly mark: string }
  | { readonly kind: "party-as-lane"; readonly name: string }
  | { readonly kind: "same-work"; readonly key: string }
  | { readonly kind: "idle-role" }
  | { readonly kind: "nobody-does-it" }
  | { readonly kind: "unaccounted" }
  | { readonly kind: "too-much"; readonly passage: number; readonly frame: string; readonly name: string }
);

/** A paragraph with more steps than this, or with three decisions, is more than one looks at as a part of something. */
const mostStepsOfParagraph = 6;

/** All advice on a text, in the order of what weighs most. */
export function adviceOn(
  reading: BriefReading,
  content: BriefContent,
  frames: readonly Frame[] = framesOf(reading, content),
): Advice[] {
  return [
    ...severalTriggers(frames),
    ...recurringTimes(frames),
    ...partiesAsLanes(reading),
    ...sameWork(frames, content),
    ...tooMuch(reading, frames),
    ...idleRoles(reading, frames),
    ...nobodyDoesIt(frames),
    ...unaccounted(reading),
  ];
}

function severalTriggers(frames: readonly Frame[]): Advice[] {
  return frames.flatMap((frame): Advice[] => {
    if (frame.triggers.length < 2) return [];
    const triggers = frame.triggers.map((trigger) => trigger.mark.id);
    return [
      {
        id: `several-triggers:${frame.key}`,
        kind: "several-triggers",
        message: say`"${frame.name}" has ${frame.triggers.length} triggers: ${frame.triggers.map((trigger) => `"${trigger.name}"`).join(", ")}.`,
        reason: say`Each event that sets work off is a process of its own, unless the same work follows from all of them.`,
        marks: triggers,
        triggers: triggers.slice(1),
      },
    ];
  });
}

function recurringTimes(frames: readonly Frame[]): Advice[] {
  return frames.flatMap((frame) => {
    if (frame.triggers.some((trigger) => trigger.time !== undefined)) return [];
    return marksOf(frame)
      .filter((mark) => mark.kind === "time" && isRecurring(mark.text))
      .map(
        (mark): Advice => ({
          id: `recurring-time:${mark.id}`,
          kind: "recurring-time",
          message: say`"${mark.text}" recurs inside one case of "${frame.name}".`,
          reason: say`What happens by the clock happens for many cases at once: it wants a process of its own that starts with a timer and calls the work for each case.`,
          marks: [mark.id],
          mark: mark.id,
        }),
      );
  });
}

function partiesAsLanes(reading: BriefReading): Advice[] {
  const parties = new Set(reading.marks.filter((mark) => mark.kind === "party").map((mark) => thingKey(mark.text)));
  const roles = new Map<string, Mark[]>();
  for (const mark of reading.marks)
    if (mark.kind === "role") roles.set(thingKey(mark.text), [...(roles.get(thingKey(mark.text)) ?? []), mark]);
  return [...roles].flatMap(([key, marks]): Advice[] => {
    const isParty = parties.has(key);
    const last = key.slice(key.lastIndexOf(" ") + 1);
    if (!isParty && !partyNouns.has(last)) return [];
    const name = thingName((marks[0] as Mark).text);
    return [
      {
        id: `party-as-lane:${key}`,
        kind: "party-as-lane",
        message: isParty
          ? say`${name} is marked as a role and as an outside party.`
          : say`${name} is marked as a role.`,
        reason: say`Who only deals with the organisation is no lane of its process: an outside party is a closed pool, and what passes between them is a message.`,
        marks: marks.map((mark) => mark.id),
        name,
      },
    ];
  });
}

function sameWork(frames: readonly Frame[], content: BriefContent): Advice[] {
  const found = new Map<string, { name: string; frames: Set<string>; marks: string[] }>();
  for (const frame of frames) {
    for (const step of stepsIn(frame.items)) {
      const key = workKey(step.name);
      if (step.awaits || key === "") continue;
      const known = found.get(key) ?? { name: step.name, frames: new Set<string>(), marks: [] };
      known.frames.add(frame.name);
      known.marks.push(step.mark);
      found.set(key, known);
    }
  }
  return [...found].flatMap(([key, { name, frames: where, marks }]): Advice[] =>
    where.size < 2 || content.shared.includes(key)
      ? []
      : [
          {
            id: `same-work:${key}`,
            kind: "same-work",
            message: say`"${name}" is done in ${listOf([...where].map((one) => `"${one}"`))}.`,
            reason: say`Work used in two places is drawn once and called from both, so that a change is made once.`,
            marks,
            key,
          },
        ],
  );
}

function tooMuch(reading: BriefReading, frames: readonly Frame[]): Advice[] {
  return frames.flatMap((frame) => {
    if (frame.kind === "shared") return [];
    const passages = [...new Set(frame.sentences.map((sentence) => sentence.passage))];
    if (passages.length < 2) return [];
    return passages.flatMap((passage): Advice[] => {
      const inPassage = (item: FrameItem) => "passage" in item && item.passage === passage;
      const items = frame.items.filter(inPassage);
      const steps = stepsIn(items).length;
      const decisions = items.filter((item) => item.kind === "decision").length;
      if (steps <= mostStepsOfParagraph && decisions < 3) return [];
      const first = stepsIn(items)[0];
      const opening = (reading.passages[passage]?.text ?? "").split(/\s+/).slice(0, 6).join(" ");
      return [
        {
          id: `too-much:${first?.mark ?? passage}`,
          kind: "too-much",
          message: say`The paragraph "${opening} …" holds ${steps === 1 ? say`1 step` : say`${steps} steps`} and ${decisions === 1 ? say`1 decision` : say`${decisions} decisions`}.`,
          reason: say`A complicated paragraph is clearer as a sub-process or as a process that is called, so that each diagram stays readable.`,
          marks: first ? [first.mark] : [],
          passage,
          frame: frame.key,
          name: first?.name ?? opening,
        },
      ];
    });
  });
}

function idleRoles(reading: BriefReading, frames: readonly Frame[]): Advice[] {
  const active = new Set(frames.flatMap((frame) => frame.roles.map(thingKey)));
  const firsts = new Map<string, Mark>();
  for (const mark of reading.marks)
    if (mark.kind === "role" && !firsts.has(thingKey(mark.text))) firsts.set(thingKey(mark.text), mark);
  return [...firsts].flatMap(([key, mark]): Advice[] =>
    active.has(key)
      ? []
      : [
          {
            id: `idle-role:${key}`,
            kind: "idle-role",
            message: say`${thingName(mark.text)} does nothing in this text.`,
            reason: say`A role without a step makes an empty lane. Mark what they do, or ask whether they take part.`,
            marks: [mark.id],
          },
        ],
  );
}

function nobodyDoesIt(frames: readonly Frame[]): Advice[] {
  return frames.flatMap((frame) =>
    stepsIn(frame.items)
      .filter((step) => !step.role && !step.bySystem && !step.awaits)
      .map(
        (step): Advice => ({
          id: `nobody-does-it:${step.mark}`,
          kind: "nobody-does-it",
          message: say`Nobody is said to do "${step.name}".`,
          reason: say`A step without a role stands in no lane. Mark who does it in the same sentence, or ask.`,
          marks: [step.mark],
        }),
      ),
  );
}

function unaccounted(reading: BriefReading): Advice[] {
  return reading.sentences
    .filter((sentence) => !sentence.isAside && sentence.marks.length === 0)
    .map(
      (sentence): Advice => ({
        id: `unaccounted:${sentence.text.slice(0, 80)}`,
        kind: "unaccounted",
        message: say`Nothing is marked in "${sentence.text.length > 70 ? `${sentence.text.slice(0, 68)} …` : sentence.text}"`,
        reason: say`Every sentence is either in a model or background. Mark what it says, or set it aside.`,
        marks: [],
        sentence: sentence.at,
      }),
    );
}

const marksOf = (frame: Frame) => frame.sentences.flatMap((sentence) => sentence.marks);
