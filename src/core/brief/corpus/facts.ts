import {
  boundaryEventsOf,
  childrenOf,
  type Element,
  elementsOfType,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  laneOf,
  lanesOf,
  type Model,
  nameOf,
  outgoingOf,
  participantsOf,
  processesOf,
  systemsOf,
} from "../../model";
import { termsOf } from "../wording";

/**
 * What a text of the corpus says of the processes to be built from it, a line each:
 *
 *   start message | timer | none      a process, by how it starts, in the order of the text
 *   lane NAME, pool NAME              all lanes, and all closed pools
 *   do LANE: STEP                     who does a step
 *   from POOL: STEP, to POOL: STEP    what comes from an outside party, what goes to it
 *   ask QUESTION: ANSWER > STEP       where an answer of a decision leads
 *   next STEP > STEP, back …          what follows; what goes back
 *   both STEP | STEP                  what goes on at the same time
 *   late DURATION STEP > STEP         where a deadline of a wait leads
 *   wait DURATION                     a wait of its own
 *   in, out DOCUMENT @ STEP           what a step takes and gives; use SYSTEM @ STEP
 *   each STEP                         done for each of many
 *   steps NUMBER                      all activities
 *
 * Steps are told by words of their names, END is an end event, "/" stands between words either of which will do.
 */
export interface Fact {
  readonly kind: FactKind;
  readonly line: string;
  readonly holds: boolean;
}

export const factKinds = [
  "starts",
  "lanes",
  "closed pools",
  "doers",
  "polarity",
  "ends",
  "order",
  "parallel",
  "loops",
  "timers",
  "messages",
  "data",
  "repetition",
  "steps",
] as const;
export type FactKind = (typeof factKinds)[number];

/** Each fact of a text, and whether it holds in the models built from it; lanes, pools and starts too many count as facts that fail. */
export function factsHeld(models: readonly Model[], facts: string): Fact[] {
  const lines = facts
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
  const built = models.map((model) => new Built(model));
  const told = lines
    .filter((line) => !/^(?:start|lane|pool) /.test(line))
    .map((line): Fact => {
      const [kind, holds] = judged(line);
      return { kind, line, holds: built.some(holds) };
    });
  return [
    ...listed(
      "starts",
      "start",
      lines,
      built.flatMap((one) => one.start() ?? []),
    ),
    ...listed(
      "lanes",
      "lane",
      lines,
      built.flatMap((one) => one.lanes()),
    ),
    ...listed(
      "closed pools",
      "pool",
      lines,
      built.flatMap((one) => one.closedPools()),
    ),
    ...told,
  ];
}

/** A list that has to be as it is told: what is missing and what is too much fails. */
function listed(kind: FactKind, word: string, lines: readonly string[], found: readonly string[]): Fact[] {
  const wanted = lines.filter((line) => line.startsWith(`${word} `)).map((line) => line.slice(word.length + 1));
  const left = kind === "starts" ? [...found] : [...new Set(found)];
  const facts = wanted.map((name): Fact => {
    const at = left.findIndex((one) => one.toLowerCase() === name.toLowerCase());
    if (at >= 0) left.splice(at, 1);
    return { kind, line: `${word} ${name}`, holds: at >= 0 };
  });
  return [...facts, ...left.map((name): Fact => ({ kind, line: `no ${word} ${name}`, holds: false }))];
}

type Judge = (built: Built) => boolean;

function judged(line: string): [FactKind, Judge] {
  const space = line.indexOf(" ");
  const [word, rest] = [line.slice(0, space), line.slice(space + 1)];
  const halves = (sign: string): [string, string] => {
    const at = rest.indexOf(sign);
    if (at < 0) throw new Error(`A fact needs "${sign}": ${line}`);
    return [rest.slice(0, at).trim(), rest.slice(at + sign.length).trim()];
  };
  switch (word) {
    case "do": {
      const [lane, step] = halves(":");
      return ["doers", (built) => built.nodes(step).some((id) => built.isIn(id, lane))];
    }
    case "from": {
      const [pool, step] = halves(":");
      return ["messages", (built) => built.nodes(step).some((id) => built.hasMessage(pool, id, true))];
    }
    case "to": {
      const [pool, step] = halves(":");
      return ["messages", (built) => built.nodes(step).some((id) => built.hasMessage(pool, id, false))];
    }
    case "ask": {
      const [question, way] = halves(":");
      const [answer = "", target = ""] = way.split(">").map((part) => part.trim());
      return [
        target === "END" ? "ends" : "polarity",
        (built) => built.decisions(question).some((id) => built.answers(id, answer, target)),
      ];
    }
    case "next":
    case "back": {
      const [from, to] = halves(">");
      const kind = word === "back" ? "loops" : to === "END" ? "ends" : "order";
      return [kind, (built) => built.nodes(from).some((id) => built.leadsTo(id, to))];
    }
    case "both": {
      const [one, other] = halves("|");
      return ["parallel", (built) => built.goTogether(one, other)];
    }
    case "late": {
      const [what, to] = halves(">");
      const [duration = "", ...step] = what.split(" ");
      return ["timers", (built) => built.nodes(step.join(" ")).some((id) => built.isLate(id, duration, to))];
    }
    case "wait":
      return ["timers", (built) => built.waits(rest)];
    case "in":
    case "out":
    case "use": {
      const [thing, step] = halves("@");
      return ["data", (built) => built.nodes(step).some((id) => built.handles(id, thing, word))];
    }
    case "each":
      return ["repetition", (built) => built.nodes(rest).some((id) => built.isRepeated(id))];
    case "steps":
      return ["steps", (built) => built.steps() === Number(rest)];
    default:
      throw new Error(`Nobody knows what this fact means: ${line}`);
  }
}

const little = new Set("a an the of to in at on for is are be it its it's and or with by from".split(" "));
const stem = (word: string) => word.toLowerCase().replace(/(?:ies|ied|es|ed|s|d|e|y|ing)$/, "");
const stemsOf = (words: string) =>
  words
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== "" && !little.has(word.toLowerCase()))
    .map(stem);
const isSame = (one: string, other: string) =>
  one === other || (Math.min(one.length, other.length) >= 3 && (one.startsWith(other) || other.startsWith(one)));

/** Whether a name holds all words of one of the alternatives, in whatever form. */
function isNamed(name: string, words: string): boolean {
  const said = stemsOf(name);
  const past = new Set(termsOf(name).map((term) => stem(term.text)));
  return words
    .split("/")
    .some((choice) =>
      stemsOf(choice).every((word) =>
        [...said, ...past].some((one) => isSame(one, word) || isSame(one, pastStem(word))),
      ),
    );
}
const irregular: { readonly [stem: string]: string } = {
  send: "sent",
  pay: "paid",
  tell: "told",
  buy: "bought",
  hand: "handed",
  choos: "chosen",
  bring: "brought",
};
const pastStem = (word: string) => stem(irregular[word] ?? word);

/** Questions about one built process. */
class Built {
  readonly #process: Element;
  constructor(readonly model: Model) {
    this.#process = processesOf(model)[0] as Element;
  }

  start(): string | undefined {
    const start = flowNodesIn(this.model, this.#process.id).find((node) => node.type === "startEvent");
    if (!start) return undefined;
    const type = eventDefinitionsOf(this.model, start.id)[0]?.type ?? "none";
    return type.replace("EventDefinition", "");
  }
  lanes(): string[] {
    return lanesOf(this.model, this.#process.id).map((lane) => lane.name ?? "");
  }
  closedPools(): string[] {
    return participantsOf(this.model)
      .filter((pool) => pool.processRef === undefined)
      .map((pool) => pool.name ?? "");
  }
  #all(): Element[] {
    const inside = (scope: Id): Element[] =>
      flowNodesIn(this.model, scope).flatMap((node) => [node, ...(node.type === "subProcess" ? inside(node.id) : [])]);
    return inside(this.#process.id);
  }
  nodes(words: string): Id[] {
    return this.#all()
      .filter((node) => !node.type.endsWith("Gateway") && node.type !== "endEvent" && isNamed(node.name ?? "", words))
      .map((node) => node.id);
  }
  decisions(words: string): Id[] {
    return this.#all()
      .filter((node) => node.type.endsWith("Gateway") && node.name && isNamed(node.name, words))
      .map((node) => node.id);
  }
  steps(): number {
    return this.#all().filter((node) => isActivity(node.type)).length;
  }
  isIn(id: Id, lane: string): boolean {
    return (laneOf(this.model, id)?.name ?? "").toLowerCase() === lane.toLowerCase();
  }
  hasMessage(pool: string, id: Id, isHeard: boolean): boolean {
    return elementsOfType(this.model, "messageFlow").some(
      (flow) =>
        (isHeard ? flow.targetRef : flow.sourceRef) === id &&
        nameOf(this.model, String(isHeard ? flow.sourceRef : flow.targetRef)).toLowerCase() === pool.toLowerCase(),
    );
  }

  /** What is met first from a flow on: what is no gateway, or has a question. */
  #met(flow: Element, seen: Set<Id> = new Set()): Element[] {
    const target = this.model.elements.get(String(flow.targetRef));
    if (!target || seen.has(target.id)) return [];
    if (!target.type.endsWith("Gateway") || target.name) return [target];
    seen.add(target.id);
    return outgoingOf(this.model, target.id).flatMap((one) => this.#met(one, seen));
  }
  #reaches(flow: Element, to: string): boolean {
    return this.#met(flow).some((node) =>
      to === "END" ? node.type === "endEvent" : node.type !== "endEvent" && isNamed(node.name ?? "", to),
    );
  }
  leadsTo(id: Id, to: string): boolean {
    return outgoingOf(this.model, id).some((flow) => this.#reaches(flow, to));
  }
  answers(gateway: Id, answer: string, to: string): boolean {
    return outgoingOf(this.model, gateway).some(
      (flow) =>
        answer.split("/").some((one) => {
          const name = (flow.name ?? "").toLowerCase();
          return one === "yes" || one === "no" ? name === one : isNamed(name, one);
        }) && this.#reaches(flow, to),
    );
  }
  goTogether(one: string, other: string): boolean {
    return this.#all()
      .filter((node) => node.type === "parallelGateway")
      .some((gateway) => {
        const ways = outgoingOf(this.model, gateway.id).map((flow) => this.#until(String(flow.targetRef)));
        const holds = (way: ReadonlySet<Id>, words: string) => this.nodes(words).some((id) => way.has(id));
        return ways.some((way, at) =>
          ways.some((another, place) => place !== at && holds(way, one) && holds(another, other)),
        );
      });
  }
  /** What is reached until ways meet again. */
  #until(from: Id): Set<Id> {
    const seen = new Set<Id>();
    const go = (id: Id) => {
      const node = this.model.elements.get(id);
      if (!node || seen.has(id) || (node.type === "parallelGateway" && incomingOf(this.model, id).length > 1)) return;
      seen.add(id);
      for (const flow of outgoingOf(this.model, id)) go(String(flow.targetRef));
    };
    go(from);
    return seen;
  }
  #timer(id: Id): string {
    const [definition] = eventDefinitionsOf(this.model, id);
    if (definition?.type !== "timerEventDefinition") return "";
    const { timeDuration } = definition as { timeDuration?: { readonly text?: string } };
    return timeDuration?.text ?? "";
  }
  isLate(id: Id, duration: string, to: string): boolean {
    return boundaryEventsOf(this.model, id).some(
      (event) =>
        this.#timer(event.id) === duration &&
        outgoingOf(this.model, event.id).some((flow) => to.split("/").some((one) => this.#reaches(flow, one))),
    );
  }
  waits(duration: string): boolean {
    return this.#all().some((node) => node.type === "intermediateCatchEvent" && this.#timer(node.id) === duration);
  }
  isRepeated(id: Id): boolean {
    return childrenOf(this.model, id).some((one) => one.type.endsWith("LoopCharacteristics"));
  }
  handles(id: Id, thing: string, way: "in" | "out" | "use"): boolean {
    const names = this.#things(id, way);
    return names.some((name) => isNamed(name, thing));
  }
  #things(id: Id, way: "in" | "out" | "use"): string[] {
    const element = this.model.elements.get(id);
    if (way === "use") return element ? systemsOf(element).map((system) => system.name) : [];
    const type = way === "in" ? "dataInputAssociation" : "dataOutputAssociation";
    return childrenOf(this.model, id)
      .filter((one) => one.type === type)
      .flatMap((one) => {
        const ref = way === "in" ? ((one.sourceRef as readonly Id[] | undefined)?.[0] ?? "") : String(one.targetRef);
        return nameOf(this.model, ref);
      });
  }
}
