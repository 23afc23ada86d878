import { behaviourOf } from "../check";
import { type Command, drawMissingPages, perform } from "../commands";
import { type Element, type Id, incomingOf, type Model, nameOf, outgoingOf, shapesOf } from "../model";
import type { Difference } from "./differences";

/** Makes commands on a model one after the other, and knows how it stands after each. */
class Mending {
  readonly commands: Command[] = [];
  #count = 0;

  constructor(
    public model: Model,
    readonly diagram: Id,
  ) {}

  /** An id that nothing has yet. */
  id(what: string): Id {
    for (;;) {
      const id = `${what}-mended-${++this.#count}`;
      if (!this.model.elements.has(id)) return id;
    }
  }

  do(command: Command): void {
    const result = perform(this.model, command);
    if (!result.ok) throw new NotMendable();
    this.model = result.value.model;
    this.commands.push(command);
  }

  /** The one way into a node, or out of it. */
  way(node: Id, end: "in" | "out"): Element {
    const ways = end === "in" ? incomingOf(this.model, node) : outgoingOf(this.model, node);
    const [only] = ways;
    if (!only || ways.length > 1) throw new NotMendable();
    return only;
  }

  /** A gateway on a flow; or one that the flow comes from or leads to already and that does the same. */
  gateway(flow: Element, side: "before" | "behind", type: "exclusiveGateway" | "parallelGateway"): Id {
    const there = this.model.elements.get(String(side === "before" ? flow.sourceRef : flow.targetRef));
    const others = there && (side === "before" ? incomingOf(this.model, there.id) : outgoingOf(this.model, there.id));
    // One that only splits can split once more, one that only joins can join once more.
    if (there?.type === type && (others?.length ?? 0) <= 1) return there.id;
    const id = this.id("gateway");
    this.do({
      type: "insertOnFlow",
      diagram: this.diagram,
      onFlow: flow.id,
      id,
      flow: this.id("flow"),
      kind: { type },
    });
    return id;
  }

  connect(source: Id, target: Id): void {
    this.do({ type: "connect", diagram: this.diagram, id: this.id("flow"), source, target });
  }

  /** A way round a row of steps. */
  wayRound(steps: readonly Id[]): void {
    const [first, last] = [steps[0], steps.at(-1)];
    if (first === undefined || last === undefined) throw new NotMendable();
    for (const [at, step] of steps.slice(0, -1).entries())
      if (this.way(step, "out").targetRef !== steps[at + 1]) throw new NotMendable();
    const before = this.gateway(this.way(first, "in"), "before", "exclusiveGateway");
    const behind = this.gateway(this.way(last, "out"), "behind", "exclusiveGateway");
    this.connect(before, behind);
  }

  /** A step of a name on a flow. */
  step(flow: Element, name: string): Id {
    const id = this.id("step");
    const on = { type: "insertOnFlow", diagram: this.diagram, onFlow: flow.id, id, flow: this.id("flow") } as const;
    this.do({ ...on, kind: { type: "task" } });
    this.do({ type: "rename", id, name });
    return id;
  }
}

class NotMendable extends Error {}

/** What mends a difference: the commands, and the model they make. */
export interface Mended {
  readonly commands: readonly Command[];
  readonly model: Model;
}

/**
 * What would make the model allow what happened: a way round what is skipped, a step where one was done, a choice where one was done in
 * place of another, a way back where one was done again, both at once where the order differs. Undefined where nothing of that kind can be
 * drawn there, or where the process would not be sound any more. A model without a drawing gets one.
 */
export function mended(undrawn: Model, difference: Difference): Mended | undefined {
  const model = drawMissingPages(undrawn);
  for (const way of waysFor(difference)) {
    const diagram = pageOf(model, difference.behind ?? difference.elements[0]);
    if (diagram === undefined) return undefined;
    const mending = new Mending(model, diagram);
    try {
      way(mending);
    } catch (error) {
      if (error instanceof NotMendable) continue;
      throw error;
    }
    if (isAsSound(model, mending.model)) return { commands: mending.commands, model: mending.model };
  }
  return undefined;
}

/** The page a step is drawn on; without one, the first. */
function pageOf(model: Model, step: Id | undefined): Id | undefined {
  const drawn = step === undefined ? undefined : shapesOf(model, step)[0]?.diagram;
  return drawn ?? [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id;
}

/** Whether no process that was sound is not any more. */
function isAsSound(before: Model, after: Model): boolean {
  const was = new Map(behaviourOf(before).map(({ process, sound }) => [process, sound]));
  return behaviourOf(after).every(({ process, sound }) => was.get(process) !== true || sound === true);
}

type Way = (mending: Mending) => void;

/** Ways to mend a difference, the best first. */
function waysFor(difference: Difference): Way[] {
  const { kind, elements, activity = "", behind, isBefore, share } = difference;
  const [first, second] = elements as readonly [Id, Id | undefined];
  switch (kind) {
    case "skipped":
      return [
        (mending) => mending.wayRound(elements),
        // Where they do not stand in a row, a way round each.
        (mending) => {
          for (const step of elements) mending.wayRound([step]);
        },
      ];
    case "unforeseen":
      return [insertion(activity, behind, share < 1)];
    case "repeated":
      return [
        ...(behind === first
          ? [
              (mending: Mending) => {
                const back = mending.gateway(mending.way(first, "out"), "behind", "exclusiveGateway");
                if (incomingOf(mending.model, back).length > 1) throw new NotMendable();
                const into = mending.gateway(mending.way(first, "in"), "before", "exclusiveGateway");
                if (outgoingOf(mending.model, into).length > 1) throw new NotMendable();
                mending.connect(back, into);
              },
            ]
          : []),
        (mending) => insertion(nameOf(mending.model, first) || activity, behind, share < 1)(mending),
      ];
    case "replaced":
      return [
        (mending) => {
          const before = mending.gateway(mending.way(first, "in"), "before", "exclusiveGateway");
          const after = mending.gateway(mending.way(first, "out"), "behind", "exclusiveGateway");
          const id = mending.id("step");
          const on = { diagram: mending.diagram, from: before, id, flow: mending.id("flow") };
          mending.do({ type: "append", ...on, kind: { type: "task" }, name: activity });
          mending.connect(id, after);
        },
      ];
    case "order":
      return [
        ...(second === undefined ? [] : [atOnce(first, second), atOnce(second, first)]),
        (mending) => {
          mending.wayRound([first]);
          const name = nameOf(mending.model, first) || first;
          const beside = second ?? first;
          const flow = mending.way(beside, isBefore ? "in" : "out");
          mending.wayRound([mending.step(flow, name)]);
        },
      ];
    case "role":
      return [];
  }
}

/** A step behind another, or at the beginning; with a way round it where it is not always done. */
const insertion =
  (name: string, behind: Id | undefined, isOptional: boolean): Way =>
  (mending) => {
    const start = [...mending.model.elements].find(({ type, parent }) => {
      const scope = parent === null ? undefined : mending.model.elements.get(parent);
      return type === "startEvent" && scope?.type === "process";
    });
    const from = behind ?? start?.id;
    if (from === undefined) throw new NotMendable();
    const step = mending.step(mending.way(from, "out"), name);
    if (isOptional) mending.wayRound([step]);
  };

/** Two steps of which one leads straight to the other, at once instead. */
const atOnce =
  (one: Id, other: Id): Way =>
  (mending) => {
    const between = mending.way(one, "out");
    if (between.targetRef !== other || mending.way(other, "in").id !== between.id) throw new NotMendable();
    const split = mending.gateway(mending.way(one, "in"), "before", "parallelGateway");
    const join = mending.gateway(mending.way(other, "out"), "behind", "parallelGateway");
    mending.do({ type: "delete", ids: [between.id] });
    mending.connect(split, other);
    mending.connect(one, join);
  };
