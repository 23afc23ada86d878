import { listOf, say } from "../../messages";
import type { BriefPart } from "../document";
import { relationOf, statementOf } from "../reading/polarity";
import { arrivalIn } from "../reading/states";
import type { Sentence } from "../sentences";
import type { Mention, Subjects } from "../subjects";
import { readTime } from "../times";
import { doneName, uncapitalised } from "../wording";
import { actorOf, subjectOf, subjectWords } from "./actor";
import { Course, type OpenDecision, type OpenStep, type Place } from "./course";
import type { Told } from "./index";
import { type Part, partsOf } from "./part";
import { type Answers, backTo, bothGoOn, ends, goesOn, named, nobody, noEnds, waitsAgain, yesEnds } from "./questions";
import { turnsOfPhrase } from "./rules";
import { bareAnswer, meansWhatWasSaid, otherAnswer } from "./rules/answer";
import { conditionWords } from "./rules/condition";
import { overAgainIn } from "./rules/overAgain";
import { isByRange, rangeLeading } from "./rules/ranges";
import { repeated } from "./rules/repeat";
import { sideBySide } from "./rules/together";
import { spokenOf, thingOf } from "./thing";

/** Reads sentences into a course of work. */
export class Reader {
  readonly #course: Course;
  #passage: number | undefined;

  constructor(
    readonly subjects: Subjects,
    readonly shared: ReadonlySet<string>,
    readonly sentences: readonly Sentence[],
    answers: Answers,
  ) {
    this.#course = new Course(sentences, answers);
  }

  readPart(part: BriefPart, sentences: readonly Sentence[], told: Told): void {
    const course = this.#course;
    course.here = course.root;
    const marks = sentences.flatMap((sentence) => sentence.marks.map((mark) => mark.id));
    const isCalled = part.kind === "process";
    course.root.items.push({
      kind: "part",
      part,
      marks: isCalled ? marks.slice(0, 1) : [],
      items: isCalled ? [] : told.items,
    });
    course.open.push(...told.open);
  }

  readSentence(sentence: Sentence): void {
    const course = this.#course;
    const everybody = this.subjects.mentionsIn(sentence);
    const parts = partsOf(sentence, everybody);
    course.toldBefore = this.#passage === sentence.passage ? course.told : [];
    course.told = [];
    course.here =
      this.#passage === sentence.passage || this.#pointsBack(parts)
        ? this.#placeOf(sentence, parts, everybody)
        : course.root;
    this.#passage = sentence.passage;
    for (const part of parts) {
      // "Upon receipt of the invoice, accounting compares it": the invoice is spoken of before the clause is read.
      const came = part.marks.map(({ kind, text }) => (kind === "trigger" ? arrivalIn(text) : undefined)).find(Boolean);
      course.lastThing = (came && thingOf(came.what)) ?? course.lastThing;
      const moment = { part, course, everybody, shared: this.shared };
      for (const turn of turnsOfPhrase) if (turn.read(moment)) break;
      this.#remember(part, everybody);
    }
    sideBySide(course, parts);
  }

  /** "If it is too low, …", at the head of a paragraph: what the one before it came to is gone on with, on its path. */
  #pointsBack([first]: readonly Part[]): boolean {
    const { lastThing, here } = this.#course;
    if (!first || !here.path || !lastThing) return false;
    const { link } = first.clause;
    return (link === "if" || link === "unless") && /^(?:it|they|this|these)$/i.test(subjectWords(first));
  }

  finish(): Told {
    const course = this.#course;
    this.#askForEnds();
    this.#askForAnswers();
    this.#askForDoers();
    return { items: course.finish(), result: course.result, open: course.open };
  }

  /** Paths on which something was refused, or that were taken because nobody answered: whether the case is over there. */
  #askForEnds(): void {
    const course = this.#course;
    for (const { path, step, part } of course.refused) {
      if (path.items.at(-1) !== step || path.ends || path.back) continue;
      const answer = course.wonder({
        id: `ends:${step.mark}`,
        sentence: part.sentence,
        question: say`Does "${step.name}" end the case?`,
        marks: [step.mark],
        choices: [ends, goesOn],
      });
      if (answer === "ends") path.ends = { mark: `${step.mark}:end`, name: doneName(uncapitalised(step.name)) };
    }
    for (const { step, part } of course.late) {
      const path = step.deadline?.path;
      const last = path?.items.at(-1);
      if (!path || path.ends || path.back || last?.kind !== "step") continue;
      const answer = course.wonder({
        id: `after:${last.mark}`,
        sentence: part.sentence,
        question: say`What comes after "${last.name}"?`,
        marks: [last.mark],
        choices: [ends, waitsAgain, goesOn],
      });
      if (answer === "ends") path.ends = { mark: `${last.mark}:end`, name: doneName(uncapitalised(last.name)) };
      if (answer === "again") path.back = { to: step.mark, mark: `${last.mark}:back` };
    }
  }

  /** Questions that are asked, with an answer of which nothing is said. */
  #askForAnswers(): void {
    const course = this.#course;
    for (const decision of course.decisions) {
      this.#askForWay(decision);
      const { place, mark, paths } = decision;
      const isLast = place.items.at(-1) === decision;
      const isHalf =
        decision.wasAsked &&
        paths.length === 1 &&
        /^(?:yes|no)$/.test(paths[0]?.answer ?? "") &&
        isLast &&
        place === course.root &&
        !course.result;
      // "If the plan has errors, the work must not begin": what is not done is no answer to what is.
      const isSettled = paths.some(({ items, ends, back }) => items.length > 0 || ends || back);
      if (isSettled && !isHalf) continue;
      const other = paths[0]?.answer === "yes" ? "no" : "yes";
      const answer = course.wonder({
        id: `follows:${mark}`,
        sentence: decision.sentence,
        question: isHalf
          ? say`What follows where the answer to "${decision.question}" is ${other}?`
          : say`What follows from each answer to "${decision.question}"?`,
        marks: [mark],
        choices: isHalf ? [ends, goesOn] : [noEnds, yesEnds, bothGoOn],
      });
      const ending = answer === "ends" ? other : answer === "yes" || answer === "no" ? answer : undefined;
      if (!ending) continue;
      const name = `${decision.question.replace(/\?$/, "")}: ${ending}`;
      const known = paths.find((path) => path.answer === ending);
      if (known) known.ends = { mark: `${mark}:end`, name };
      else
        paths.push({
          answer: ending,
          mark: undefined,
          items: [],
          ends: { mark: `${mark}:end`, name },
          back: undefined,
        });
    }
  }

  /**
   * "If papers are missing, the desk asks for them; the household sends them. If they are complete, …": what was sent is looked at like
   * what was there before, if nobody says otherwise.
   */
  #askForWay(decision: OpenDecision): void {
    const course = this.#course;
    const { wasAsked, place, paths } = decision;
    const before = place.items[place.items.indexOf(decision) - 1];
    const [path, ...others] = paths.filter((one) => {
      const last = one.items.at(-1);
      return !one.ends && !one.back && last?.kind === "step" && (last.awaits !== undefined || isAsked(last));
    });
    const last = path?.items.at(-1);
    const hasAsked = last?.kind === "step" && isAsked(last);
    const goesOnElsewhere = paths.some((one) => one !== path && one.items.length > (hasAsked ? 0 : 1));
    if (!(wasAsked || hasAsked) || !path || others.length > 0 || !goesOnElsewhere) return;
    const told = course.steps.find((one) => one.step === last);
    if (before?.kind !== "step" || last?.kind !== "step" || !told) return;
    const answer = course.wonder({
      id: `way:${last.mark}`,
      sentence: told.part.sentence,
      question: say`Where does it go on after "${last.name}"?`,
      marks: [last.mark],
      choices: [ends, goesOn, backTo(before.name)],
    });
    if (answer === "ends") path.ends = { mark: `${last.mark}:end`, name: last.name };
    else if (answer !== "on") path.back = { to: before.mark, mark: `${last.mark}:back` };
  }

  #askForDoers(): void {
    const course = this.#course;
    const roles = this.subjects.named("role");
    for (const { step, part } of course.steps) {
      const either = step.role ? eitherOf(this.subjects.mentionsIn(part.sentence), part, step.role.name) : [];
      if (either.length > 1) {
        const answer = course.wonder({
          id: `who:${step.mark}`,
          sentence: part.sentence,
          question: say`Who does "${step.name}": ${listOf(
            either.map(({ name }) => name),
            "or",
          )}?`,
          marks: [step.mark],
          choices: either.map(({ name }) => named(name)),
        });
        const chosen = roles.find((role) => answer === `=${role.name}`);
        if (chosen) Object.assign(step, { role: chosen });
        continue;
      }
      if (step.role || step.bySystem || step.awaits || step.mark.includes(":")) continue;
      const answer = course.wonder({
        id: `who:${step.mark}`,
        sentence: part.sentence,
        question: say`Who does "${step.name}"?`,
        marks: [step.mark],
        choices: [...roles.slice(0, 6).map((role) => named(role.name)), nobody],
      });
      Object.assign(step, { role: roles.find((role) => answer === `=${role.name}`) });
    }
  }

  /** Who and what was spoken of last, for the pronouns of what follows. */
  #remember(part: Part, everybody: readonly Mention[]): void {
    const course = this.#course;
    const named = subjectOf(part, everybody) ?? (part.clause.verb ? actorOf(part, everybody, course) : undefined);
    if (named && part.clause.verb && !part.clause.verb.isPassive) {
      course.lastSubject = named;
      if (named.kind === "role") {
        course.lastRole = named;
        if (!isSeveral(named)) course.lastPerson = named;
      }
    }
    if (!part.marks.some((mark) => mark.kind === "activity")) {
      const thing = spokenOf(part, subjectOf(part, everybody) !== undefined);
      if (thing) course.lastThing = thing;
    }
    for (const mention of part.mentions) {
      if (mention.kind === "party") course.lastParty = mention;
      if (mention.kind === "document") course.lastDocument = mention;
    }
    if (!course.lastRole) {
      const role = part.mentions.find((mention) => mention.kind === "role");
      if (role) course.lastRole = role;
    }
  }

  /** Where a sentence goes on: on the path of the one before, as long as its words belong there. */
  #placeOf(sentence: Sentence, parts: readonly Part[], everybody: readonly Mention[]): Place {
    const course = this.#course;
    for (let place: Place | undefined = course.here; place?.path; place = place.parent)
      if (this.#staysOn(place, sentence, parts, everybody)) return place;
    return course.root;
  }

  #staysOn(place: Place, sentence: Sentence, parts: readonly Part[], everybody: readonly Mention[]): boolean {
    const first = parts[0];
    if (!first) return false;
    if (/^(?:then|afterwards|after that|finally|in (?:either|any) case)\b/i.test(first.words)) return false;
    const last = place.items.at(-1);
    // What was asked last is answered where it was asked.
    const bare = bareAnswer(first);
    if (place.decision && bare && !this.#hasDeadlineBefore(sentence)) {
      const given = bare === "other" ? otherAnswer(place.decision.paths) : bare;
      if (!place.decision.paths.some((path) => path.answer === given)) return true;
    }
    // "… unless it is full. In that case …": what was said last was said on this path.
    if (place.decision && (meansWhatWasSaid(first) || isNextRange(first, place.decision))) return true;
    const isAnswer = first.clause.link === "if" || first.clause.link === "unless" || bare !== undefined;
    if (last?.kind === "decision" && "onlyAsked" in last && last.onlyAsked && isAnswer) return true;
    // "… corrects it. This is repeated until it is right": what was done on this path leads back.
    if (place.decision && !place.path?.ends && overAgainIn(first)) return true;
    if (place.path?.ends || place.path?.back) return false;
    if (this.#passage !== sentence.passage && this.#pointsBack(parts)) return true;
    const step = last?.kind === "step" ? last : undefined;
    const subject = subjectOf(first, everybody);
    // "… asks the household for them. The household sends them."
    if (first.clause.link === undefined && step && subject?.kind === "party") {
      if (step.sendsTo?.name === subject.name) return true;
      if (offering.test(step.name) && answering.has(first.clause.verb?.base.split(" ")[0] ?? "")) return true;
    }
    // "… the director must approve. If the director refuses, …": who came in on this path is spoken of there.
    if (
      first.clause.link === "if" &&
      subject &&
      step &&
      (step.role?.name === subject.name || step.awaits?.name === subject.name)
    ) {
      const elsewhere = this.#course.steps.some((one) => one.place !== place && one.step.role?.name === subject.name);
      if (!elsewhere) return true;
    }
    // "… offers a later date. If the customer accepts, …": the answer to what was offered on this path.
    const isReply =
      first.clause.link === "if" &&
      subject?.kind === "party" &&
      answering.has(first.clause.verb?.base.split(" ")[0] ?? "");
    if (isReply && step && !step.awaits && offering.test(step.name)) return true;
    return this.#comesBack(place, sentence);
  }

  /** Whether a sentence further on gives the other answer, or goes back: all before it is then on this path. */
  #comesBack(place: Place, from: Sentence): boolean {
    const course = this.#course;
    for (const later of this.sentences) {
      if (later.at < from.at || later.passage !== from.passage) continue;
      if (later.at > from.at + 3) return false;
      const everybody = this.subjects.mentionsIn(later);
      const parts = partsOf(later, everybody);
      const first = parts[0];
      if (!first || inEvery.test(first.words)) return false;
      if (parts.some((part) => repeated(part, course) !== undefined)) return later.at >= from.at;
      const answer = bareAnswer(first);
      const hasDeadline = this.#hasDeadlineBefore(later);
      if (answer && !hasDeadline) return later.at > from.at;
      if (first.clause.link === "if" || first.clause.link === "unless") {
        const { decision } = place;
        const relation = decision ? relationOf(statementOf(conditionWords(first, course)), decision.says) : 0;
        return later.at > from.at && relation === -1 && place.path?.answer === "yes";
      }
      // What is asked here is what is answered behind.
      if (parts.some((part) => part.clause.link === "whether")) return false;
    }
    return false;
  }

  #hasDeadlineBefore(sentence: Sentence): boolean {
    const before = this.sentences.find((one) => one.at === sentence.at - 1);
    return before?.marks.some((mark) => mark.kind === "time" && readTime(mark.text)?.kind === "duration") ?? false;
  }
}

/** "Between 500 and 5,000 euros, …" behind "if it is below 500": an answer to the same question. */
const isNextRange = (part: Part, open: OpenDecision) => rangeLeading(part) !== undefined && isByRange(open);

/** A department or a group is no "he". */
const isSeveral = ({ name }: Mention) =>
  /\b(?:desk|crew|team|department|office|unit|group|board|committee|staff|sales|support|operations|logistics|procurement|warehouse|hotline|\p{L}+ing)$/iu.test(
    name,
  );

/** "Asks the household for new papers": somebody outside is to answer, and what comes of it is not told. */
const isAsked = ({ sendsTo, name }: OpenStep) =>
  sendsTo === undefined ? /^(?:ask|request)\s+for\b/i.test(name) : /^(?:ask|request)\b/i.test(name);

const inEvery = /^(?:in (?:either|any|every) case|finally)\b/i;
const offering = /^(?:offer|propose|suggest|ask|send|show|invite|quote|inform|tell|present|recommend)\b/i;
/** What somebody does in answer to something. */
const answering = new Set(
  "accept answer choose sign return pay approve reply confirm decline refuse agree respond select pick".split(" "),
);

/**
 * "The desk or the crew records it", "the engineer and the planner check it": those who are named side by side with who does it, in their
 * order. A step stands in one lane.
 */
function eitherOf(everybody: readonly Mention[], { sentence, clause }: Part, doer: string): readonly Mention[] {
  const before = everybody.filter(({ kind, to }) => kind === "role" && to <= (clause.verb?.from ?? clause.to));
  const rows: Mention[][] = [];
  for (const mention of before) {
    const last = rows.at(-1)?.at(-1);
    const between = last ? sentence.text.slice(last.to, mention.from) : "";
    const isBeside =
      last !== undefined &&
      /^\s*(?:,|,?\s*(?:or|and|and\/or))\s*(?:either\s+)?(?:the\s+|an?\s+|our\s+|its\s+)?$/i.test(between);
    if (isBeside) rows.at(-1)?.push(mention);
    else rows.push([mention]);
  }
  const row = rows.find((one) => one.length > 1 && one.some(({ name }) => name === doer));
  const words = row ? sentence.text.slice((row[0] as Mention).to, (row.at(-1) as Mention).from) : "";
  return row && /\b(?:or|and)\b/i.test(words) ? row : [];
}
