import {
  childrenOf,
  type Element,
  flowNodesIn,
  type Id,
  isActivity,
  laneOf,
  type Model,
  nameOf,
  participantOf,
  processOf,
  systemsOf,
  triggerOf,
} from "../model";
import type { Assumption, Distribution, Given, Scenario, TimeKind } from "../scenario";
import { type Compiled, cardinalityOf, insideOf, loopOf, type World } from "../tokens";
import { namesDrawn } from "./caseData";
import { Gaps, takenWords } from "./gaps";
import { Stream } from "./random";
import {
  type Calendars,
  type Crossing,
  calendarsOf,
  type NeedPlan,
  type ResourcePlan,
  ResourceTable,
} from "./resources";
import { shareWays } from "./shares";
import { type TimerPlan, timerOf } from "./timers";

/** What comes of a node while time passes: see each. */
export type Course =
  /** Goes on at once; where there is a choice, by shares. */
  | "pass"
  /** Somebody works on it, and it takes its time. */
  | "work"
  /** Waits for an event. */
  | "wait"
  /** The first of several events decides (event-based gateway). */
  | "race"
  /** Goes on when what is inside of it is over. */
  | "hold"
  /** An event at an edge, or the start of an event sub-process. */
  | "edge";

/** All that is assumed of a node of a scope, looked up once. */
export interface NodePlan {
  /** Its number among the elements of the result. */
  readonly element: number;
  readonly id: Id;
  readonly course: Course;
  /** Times before somebody works, and while somebody does. */
  readonly waits: readonly (readonly Given<Distribution>[])[];
  readonly works: readonly (readonly Given<Distribution>[])[];
  /** How long it waits before somebody works, or for what it waits for; undefined where nothing is said of that. */
  readonly delays: readonly (readonly Given<Distribution>[])[] | undefined;
  readonly needs: NeedPlan | undefined;
  readonly priority: number;
  readonly fixedCost: readonly Given<Distribution>[] | undefined;
  /** Money for each second of work, besides what those who do it cost. */
  readonly rate: number;
  readonly timer: TimerPlan | undefined;
  readonly interval: readonly Given<Distribution>[] | undefined;
  /** Of an event at an edge that is no timer: the chance that it ends its host, which shows when the host is done. */
  readonly chance: number | undefined;
  /** Whether it waits for a message that another process of the model sends. */
  readonly isHeard: boolean;
  /** Instances at once, or one after the other; undefined where it is not repeated. */
  readonly instances: number | undefined;
  readonly atOnce: boolean;
  /** The chance of one more round of a loop. */
  readonly again: number | undefined;
  /** Where it is done, and from which steps a case comes to it, by their numbers; undefined where no site is said of anything. */
  readonly site: string | undefined;
  readonly before: { readonly steps: readonly number[]; readonly orLast: boolean } | undefined;
  /** Ways to the systems it uses that are elsewhere; of what waits for a message, the way of that. */
  readonly calls: readonly Crossing[];
  readonly time: Stream;
  readonly choice: Stream;
}

export interface ScopePlan {
  readonly nodes: readonly NodePlan[];
  /** By flow of the net: its share of what leaves its node; NaN where nothing is said. */
  readonly shares: Float64Array;
}

/** A world in which what a call is said to take itself goes before what is inside of it. */
export function worldAssumed(world: World, scenario: Scenario): World {
  const saysItself = (call: Element) => Object.keys(scenario.of.get(call.id)?.times ?? {}).length > 0;
  const { calls } = world;
  return calls ? { ...world, calls: (call) => (saysItself(call) ? undefined : calls(call)) } : world;
}

/** What a forecast runs on: a model and a scenario, compiled for one replication's chances. */
export class Plan {
  readonly gaps = new Gaps();
  readonly calendars: Calendars;
  readonly resources: readonly ResourcePlan[];
  readonly elements: { readonly id: Id; readonly name: string; readonly by: readonly Id[] }[] = [];
  readonly #elementAt = new Map<Id, number>();
  readonly #scopes = new Map<Compiled, ScopePlan>();
  #lastScope: Compiled | undefined;
  #lastPlan: ScopePlan = { nodes: [], shares: new Float64Array() };
  readonly #table: ResourceTable;
  readonly #hasSites: boolean;
  /** Names by which conditions find data that is drawn for cases. */
  readonly namesDrawn: ReadonlySet<string>;

  /**
   * @param seed of all chance; each replication has its own
   * @param purposeOf the name by which chance is drawn for an element: that of its counterpart, where two models are to meet the same cases
   */
  constructor(
    readonly world: World,
    readonly scenario: Scenario,
    readonly seed: number,
    readonly purposeOf: (element: Id) => string = (element) => element,
  ) {
    this.calendars = calendarsOf(scenario);
    this.#table = new ResourceTable(world.model, scenario, this.calendars, this.gaps);
    this.resources = this.#table.list;
    this.namesDrawn = namesDrawn(world, scenario);
    const { ofSystems, links } = scenario.sites;
    this.#hasSites =
      ofSystems.size + links.length > 0 || [...scenario.of.values()].some(({ site }) => site !== undefined);
  }

  /** The plan of a scope. O(its nodes and flows) the first time, then O(1). */
  of(scope: Compiled): ScopePlan {
    // Most steps are in the scope of the step before.
    if (scope === this.#lastScope) return this.#lastPlan;
    const plan = this.#scopes.get(scope) ?? this.#planned(scope);
    this.#scopes.set(scope, plan);
    this.#lastScope = scope;
    this.#lastPlan = plan;
    return plan;
  }

  /** The nodes of all scopes that were planned so far. */
  planned(): readonly NodePlan[] {
    return [...this.#scopes.values()].flatMap(({ nodes }) => nodes);
  }

  #number(id: Id, name: string, needs: NeedPlan | undefined): number {
    const known = this.#elementAt.get(id);
    const by = (needs ?? []).flatMap(({ oneOf }) => oneOf.map((at) => this.resources[at]?.id ?? ""));
    const one = { id, name, by: [...new Set(by)] };
    if (known !== undefined) {
      // One that was only named so far, as a step before another.
      if (by.length > 0) this.elements[known] = one;
      return known;
    }
    this.#elementAt.set(id, this.elements.length);
    this.elements.push(one);
    return this.elements.length - 1;
  }

  stream(element: Id, what: string): Stream {
    return new Stream(this.seed, `${this.purposeOf(element)} ${what}`);
  }

  #planned(scope: Compiled): ScopePlan {
    const { net } = scope;
    const shares = new Float64Array(net.flows.length).fill(Number.NaN);
    const nodes = net.nodes.map((_node, at) => {
      const element = scope.elements[at] as Element;
      shareWays(this.scenario, this.gaps, scope, at, shares, this.namesDrawn);
      return this.#node(scope, at, element);
    });
    return { nodes, shares };
  }

  /** The way from where one step was done to where another is. */
  crossing = (from: string | undefined, to: string | undefined): Crossing | undefined => this.#table.crossing(from, to);

  /** Where the step of a number is done, once its scope was planned. */
  siteOf(element: number): string | undefined {
    return this.#sites[element];
  }
  readonly #sites: (string | undefined)[] = [];

  /** Where a step is done: where the first of those who do it is, else where its lane or its pool is said to be. */
  #siteOf(model: Model, step: Element, needs: NeedPlan | undefined): string | undefined {
    if (!this.#hasSites) return undefined;
    const [first] = needs?.[0]?.oneOf ?? [];
    const who = first === undefined ? undefined : this.resources[first]?.id;
    const lane = laneOf(model, step.id);
    const pool = participantOf(model, processOf(model, step.id)?.id ?? "");
    const role = typeof lane?.partitionElementRef === "string" ? lane.partitionElementRef : undefined;
    for (const id of [who, role, lane?.id, pool?.id]) {
      const site = id === undefined ? undefined : this.scenario.of.get(id)?.site;
      if (site !== undefined) return site;
    }
    return undefined;
  }

  #assumed(element: Element): Assumption | undefined {
    return this.scenario.of.get(element.id);
  }

  #node(scope: Compiled, at: number, element: Element): NodePlan {
    const { model } = scope;
    const said = this.#assumed(element);
    const name = nameOf(model, element.id) || element.id;
    const course = this.#courseOf(scope, at, element);
    const times = (kinds: readonly TimeKind[]) =>
      kinds.flatMap((kind) => (said?.times[kind] ? [said.times[kind]] : []));
    const [waits, works] = [
      times(["transfer", "queue", "wait", "lag"]),
      times(["setUp", "processing", "validation", "rework"]),
    ];
    const isWork = course === "work";
    if (isWork && waits.length + works.length === 0) this.gaps.add("time", element.id, name, takenWords.noTime);
    const loop = isActivity(element.type) ? loopOf(model, element.id) : undefined;
    const isMulti = loop?.type === "multiInstanceLoopCharacteristics";
    const instances = isMulti ? (said?.count ?? cardinalityOf(loop)) : undefined;
    if (isMulti && instances === undefined) this.gaps.add("instances", element.id, name, takenWords.oneInstance);
    const again = loop && !isMulti ? (said?.probability ?? undefined) : undefined;
    if (loop && !isMulti && again === undefined) this.gaps.add("rounds", element.id, name, takenWords.oneRound);
    const event = element.triggeredByEvent === true ? startInside(model, element) : element;
    const timer =
      event && triggerOf(model, event) === "timerEventDefinition"
        ? timerOf(model, event, this.scenario.start, this.scenario.zone)
        : undefined;
    const ofEvent = event === element ? said : event && this.#assumed(event);
    const interval = ofEvent?.interval;
    const isEvent = course === "wait" || course === "edge";
    const isHeard = (scope.expects[at] as readonly Id[]).length > 0;
    const knowsWhen = timer !== undefined || interval !== undefined || waits.length + works.length > 0 || isHeard;
    if (isEvent && event && triggerOf(model, event) === "timerEventDefinition" && !knowsWhen)
      this.gaps.add("timer", element.id, name, takenWords.noTimer);
    else if (course === "edge" && !knowsWhen && ofEvent?.probability === undefined && !catchesThrown(model, event))
      this.gaps.add("event", element.id, name, takenWords.neverComes);
    else if (course === "wait" && !knowsWhen) this.gaps.add("event", element.id, name, takenWords.comesAtOnce);
    const people = isWork ? this.#needs(model, element, said) : undefined;
    const places = isWork ? this.#table.placesFor(element) : [];
    const needs = places.length > 0 ? [...(people ?? []), ...places] : people;
    const site = isWork ? this.#siteOf(model, element, people) : undefined;
    const calls = isHeard
      ? this.#messageWays(scope, at, element)
      : site === undefined
        ? []
        : systemsOf(element).flatMap(
            ({ entry }) => this.crossing(site, this.scenario.sites.ofSystems.get(entry)) ?? [],
          );
    const number = this.#number(element.id, name, needs);
    if (site !== undefined) this.#sites[number] = site;
    return {
      element: number,
      id: element.id,
      course,
      waits,
      works,
      delays: delaysOf(course, interval, waits, works),
      needs,
      priority: said?.priority ?? 0,
      fixedCost: said?.fixedCost,
      rate: isWork ? (said?.unitCost ?? 0) : 0,
      timer,
      interval,
      chance: course === "edge" && timer === undefined && interval === undefined ? ofEvent?.probability : undefined,
      isHeard,
      instances: isMulti ? Math.max(1, instances ?? 1) : undefined,
      atOnce: isMulti && loop.isSequential !== true,
      again: loop && !isMulti ? (again ?? 0) : undefined,
      site,
      before: this.#hasSites && isWork ? this.#before(scope, at) : undefined,
      calls,
      time: this.stream(element.id, "time"),
      choice: this.stream(element.id, "choice"),
    };
  }

  /** The way of a message from where it is sent, where that is another site. */
  #messageWays({ model, expects }: Compiled, at: number, element: Element): readonly Crossing[] {
    if (!this.#hasSites) return [];
    const here = this.#siteOf(model, element, undefined);
    for (const flow of expects[at] as readonly Id[]) {
      const source = model.elements.get(String(model.elements.get(flow)?.sourceRef));
      const way = source && this.crossing(this.#siteOf(model, source, undefined), here);
      if (way) return [way];
    }
    return [];
  }

  /** The steps a case may come from to one, with nothing but gateways and events between; or the last one it did, out of another scope. */
  #before(scope: Compiled, at: number): { readonly steps: readonly number[]; readonly orLast: boolean } {
    const { net } = scope;
    const steps: number[] = [];
    let orLast = false;
    const seen = new Set([at]);
    const queue = [at];
    for (const node of queue) {
      const { ins = [], host } = net.nodes[node] ?? {};
      const from = [...ins.map((flow) => net.flows[flow]?.from ?? -1), ...(host === undefined ? [] : [host])];
      for (const one of from) {
        if (one < 0) {
          orLast ||= processOf(scope.model, net.scope)?.id !== net.scope;
          continue;
        }
        if (seen.has(one)) continue;
        seen.add(one);
        const element = scope.elements[one] as Element;
        const course = this.#courseOf(scope, one, element);
        if (course === "work")
          steps.push(this.#number(element.id, nameOf(scope.model, element.id) || element.id, undefined));
        else if (course === "hold") orLast = true;
        else queue.push(one);
      }
    }
    return { steps, orLast };
  }

  #courseOf(scope: Compiled, at: number, element: Element): Course {
    const node = scope.net.nodes[at];
    if (node?.kind === "called") return "edge";
    if (element.type === "eventBasedGateway") return "race";
    if (element.type === "intermediateCatchEvent") {
      // Behind an event-based gateway it has come when it is chosen; a link is no event.
      const afterRace = (node?.ins ?? []).every((flow) => {
        const from = scope.net.flows[flow]?.from ?? -1;
        return scope.elements[from]?.type === "eventBasedGateway";
      });
      return afterRace || triggerOf(scope.model, element) === "linkEventDefinition" ? "pass" : "wait";
    }
    if (element.type === "receiveTask") return "wait";
    if (!isActivity(element.type)) return "pass";
    return insideOf(this.world, scope.model, element) ? "hold" : "work";
  }

  /** Who does a step: whom the scenario selects, else whom the model makes responsible, else its lane, where there is a number of them. */
  #needs(model: Model, step: Element, said: Assumption | undefined): NeedPlan | undefined {
    if (said?.needs) return this.#table.planned(said.needs);
    // What runs by itself needs nobody.
    if (/^(?:service|script|businessRule)Task$/.test(step.type)) return undefined;
    const own = childrenOf(model, step.id, "resourceRoles").flatMap((role) => {
      const resource = role.resourceRef;
      const isDone = role.type !== "resourceRole" || role.name === undefined || /^responsible$/i.test(role.name);
      return typeof resource === "string" && isDone && this.#table.has(resource) ? [resource] : [];
    });
    const lane = laneOf(model, step.id);
    const ofLane = lane && typeof lane.partitionElementRef === "string" ? lane.partitionElementRef : undefined;
    const found =
      own[0] ??
      (ofLane !== undefined && this.#table.has(ofLane)
        ? ofLane
        : lane && this.#table.has(lane.id)
          ? lane.id
          : undefined);
    if (found !== undefined) return [{ oneOf: [this.#table.numberOf(found)], count: 1 }];
    if (lane) this.gaps.add("resource", lane.id, nameOf(model, lane.id) || lane.id, takenWords.unlimited);
    return undefined;
  }
}

type Times = readonly (readonly Given<Distribution>[])[];

function delaysOf(
  course: Course,
  interval: readonly Given<Distribution>[] | undefined,
  waits: Times,
  works: Times,
): Times | undefined {
  const delays = course !== "wait" ? waits : interval ? [interval] : [...waits, ...works];
  return delays.length > 0 ? delays : undefined;
}

const startInside = (model: Model, eventSubProcess: Element): Element | undefined =>
  flowNodesIn(model, eventSubProcess.id).find(({ type }) => type === "startEvent");

/** Errors, escalations, signals, cancellations and compensation are thrown inside the model, if at all. */
const catchesThrown = (model: Model, event: Element | undefined): boolean =>
  event !== undefined &&
  [
    "errorEventDefinition",
    "escalationEventDefinition",
    "signalEventDefinition",
    "cancelEventDefinition",
    "compensateEventDefinition",
  ].includes(triggerOf(model, event)) &&
  [...model.elements].some(
    (one) =>
      (one.type === "endEvent" || one.type === "intermediateThrowEvent") &&
      triggerOf(model, one) === triggerOf(model, event),
  );

/** A value of several, that holds at a moment. */
export function givenAt<Value>(given: readonly Given<Value>[], calendars: Calendars, now: number): Value | undefined {
  const [first] = given;
  if (given.length === 1 && first?.during === undefined) return first?.value;
  let usual: Value | undefined;
  for (const { value, during } of given) {
    if (during === undefined) usual ??= value;
    else if (calendars.of(during).isOpen(now)) return value;
  }
  return usual;
}
