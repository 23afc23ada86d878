import type { Mark } from "../document";
import type { FrameDeadline, FrameDecision, FrameItem, FramePath, FrameStep, Thing } from "../frames";
import { type Statement, statementOf } from "../reading/polarity";
import { question } from "../reading/states";
import type { Sentence } from "../sentences";
import type { Mention } from "../subjects";
import { capitalised } from "../wording";
import type { Part } from "./part";
import type { Answers, OpenQuestion } from "./questions";

/** "Within ten days" as the name of an event: "Ten days". */
export const capitalisedTime = (words: string): string =>
  capitalised(words.replace(/^(?:within|no later than|at the latest|after|by)\s+/i, ""));

/** A path while it is written. */
export interface OpenPath {
  answer: string;
  mark: string | undefined;
  readonly items: Node[];
  ends: FramePath["ends"];
  back: FramePath["back"];
}

export interface OpenDecision extends Omit<FrameDecision, "paths" | "question"> {
  question: string;
  readonly paths: OpenPath[];
  /** What is asked, and the sentence that asks it. */
  readonly says: Statement;
  readonly sentence: Sentence;
  /** Whether it was only asked so far ("checks whether"), so that the next "if" answers it. */
  onlyAsked: boolean;
  readonly wasAsked: boolean;
  /** Whether it asks which of several it is: "letters without a name". */
  readonly isOfSome?: boolean;
  /** The answer at which what was said last of it holds: what "in that case" means. */
  stated: string;
  readonly place: Place;
}

export interface OpenStep extends Omit<FrameStep, "deadline"> {
  deadline: (Omit<FrameDeadline, "path"> & { readonly path: OpenPath }) | undefined;
}

export interface OpenParallel {
  readonly kind: "parallel";
  readonly mark: string;
  readonly branches: readonly (readonly Node[])[];
}

/** An item of the work while it is written. */
export type Node =
  | Exclude<FrameItem, { kind: "step" | "decision" | "parallel" }>
  | OpenStep
  | OpenDecision
  | OpenParallel;

/** Where the work goes on: the main course, or a path that leaves it. */
export interface Place {
  readonly items: Node[];
  readonly path: OpenPath | undefined;
  readonly decision: OpenDecision | undefined;
  readonly parent: Place | undefined;
}

/** The course of the work as far as it was read: what is done, on which path, and what was spoken of last. */
export class Course {
  readonly root: Place = { items: [], path: undefined, decision: undefined, parent: undefined };
  here: Place = this.root;
  /** All sentences that are read, for a look at what comes. */
  constructor(
    readonly sentences: readonly Sentence[],
    readonly answers: Answers = {},
  ) {}

  readonly open: OpenQuestion[] = [];
  /** Steps in the order of the text, also those on paths. */
  readonly steps: { readonly step: OpenStep; readonly place: Place; readonly part: Part }[] = [];
  /** Decisions in the order of the text. */
  readonly decisions: OpenDecision[] = [];
  /** Of the sentence that is read: the steps it added, in order. */
  told: { readonly node: Node; readonly place: Place; readonly part: Part }[] = [];
  toldBefore: Course["told"] = [];
  /** Who did something last, and who of the organisation. */
  lastSubject: Mention | undefined;
  lastRole: Mention | undefined;
  /** Who of the organisation is one person, for "he" and "she": an engineer, no department. */
  lastPerson: Mention | undefined;
  lastParty: Mention | undefined;
  lastDocument: Mention | undefined;
  /** What was worked on last, by its words. */
  lastThing: { readonly text: string; readonly isPlural: boolean } | undefined;

  add(node: Node, part: Part): void {
    this.here.items.push(node);
    this.told.push({ node, place: this.here, part });
    if (node.kind === "step") this.steps.push({ step: node, place: this.here, part });
  }

  /** A decision at this place of the work. */
  ask(
    part: Part,
    told: { mark: string; words: string; question?: string; role: Thing | undefined; onlyAsked: boolean },
  ): OpenDecision {
    const decision: OpenDecision = {
      kind: "decision",
      mark: told.mark,
      question: told.question ?? question(told.words),
      role: told.role,
      passage: part.sentence.passage,
      paths: [],
      says: statementOf(told.words),
      sentence: part.sentence,
      onlyAsked: told.onlyAsked,
      wasAsked: told.onlyAsked,
      stated: "yes",
      place: this.here,
    };
    this.here.items.push(decision);
    this.decisions.push(decision);
    return decision;
  }

  /** Goes on along an answer of a decision. */
  follow(decision: OpenDecision, answer: string, mark?: string): void {
    decision.onlyAsked = false;
    const known = decision.paths.find((one) => one.answer === answer);
    const path = known ?? { answer, mark, items: [], ends: undefined, back: undefined };
    if (!known) decision.paths.push(path);
    this.here = { items: path.items, path, decision, parent: decision.place };
  }

  /** Goes on along the path that is taken when a step's time is over. */
  beLate(step: OpenStep, place: Place, deadline: Omit<FrameDeadline, "path">): void {
    const path: OpenPath = { answer: "late", mark: undefined, items: [], ends: undefined, back: undefined };
    step.deadline = { ...deadline, path };
    this.here = { items: path.items, path, decision: undefined, parent: place };
  }

  /** The decision an answer can still be given to: the last thing of its place, seen from here outwards. */
  answerable(): OpenDecision | undefined {
    for (let place: Place | undefined = this.here; place; place = place.parent) {
      const last = place.items.at(-1);
      if (last?.kind === "decision") return last as OpenDecision;
      if (place.decision) return place.decision;
    }
    return undefined;
  }

  /** The step before this point of the text, with its place. */
  lastStep(): Course["steps"][number] | undefined {
    return this.steps.at(-1);
  }

  /** Steps after which nothing is likely to follow, with the path they stand on. */
  readonly refused: { readonly path: OpenPath; readonly step: OpenStep; readonly part: Part }[] = [];
  /** Steps whose time may run out, with the clause that says what happens then. */
  readonly late: { readonly step: OpenStep; readonly part: Part }[] = [];
  /** What the main course comes to. */
  result: Mark | undefined;
  #resultName = "";

  /** A result on the main course; the one before it is a state the work passed. */
  reach(mark: Mark, name: string): void {
    if (this.result) this.root.items.push({ kind: "milestone", mark: this.result.id, name: this.#resultName });
    this.here = this.root;
    this.result = mark;
    this.#resultName = name;
  }

  /** The clause whose "otherwise" was taken for what happens without an answer in time. */
  lateBy: Part | undefined;

  /** The clause whose "otherwise" was gone along before it is read, since a condition behind it comes first. */
  ledBy: Part | undefined;

  /** How a question was answered; where nobody did, it is open. */
  wonder(question: Omit<OpenQuestion, "sentence"> & { readonly sentence: Sentence }): string | undefined {
    const answer = this.answers[question.id];
    if (answer !== undefined) return answer;
    if (!this.open.some((one) => one.id === question.id))
      this.open.push({ ...question, sentence: question.sentence.at });
    return undefined;
  }

  finish(): readonly FrameItem[] {
    return this.root.items.map(closed);
  }
}

const closed = (node: Node): FrameItem => {
  switch (node.kind) {
    case "step":
      return { ...node, deadline: node.deadline && { ...node.deadline, path: closedPath(node.deadline.path) } };
    case "decision": {
      const { kind, mark, role, passage } = node;
      return { kind, mark, role, passage, question: node.question, paths: bothPaths(node.paths) };
    }
    case "parallel":
      return { ...node, branches: node.branches.map((branch) => branch.map(closed)) };
    default:
      return node;
  }
};

const closedPath = ({ answer, mark, items, ends, back }: OpenPath): FramePath => ({
  answer,
  mark,
  items: items.map(closed),
  ends,
  back,
});

/** All answers the text has, and the other of yes and no where it has only one; that one goes straight on. */
function bothPaths(paths: readonly OpenPath[]): FramePath[] {
  const straight = (answer: string): FramePath => ({
    answer,
    mark: undefined,
    items: [],
    ends: undefined,
    back: undefined,
  });
  if (paths.length === 0) return [straight("yes"), straight("no")];
  const kept = paths.map(closedPath);
  const has = (answer: string) => kept.some((path) => path.answer === answer);
  if (kept.length > 1 && (has("yes") || !has("no"))) return kept;
  if (!has("yes")) return [straight("yes"), ...kept];
  return [...kept, straight("no")];
}
