import {
  childrenOf,
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  isSubProcess,
  type Model,
  triggerOf,
} from "../model";
import { type NetNode, type ScopeNet, scopeNetOf } from "./scopeNet";
import { afterMove, initialStates, isOver, type Move, movesOf, type ScopeState } from "./scopeState";

/** What a case is told to do where it could do several things. */
export interface WalkChoices {
  /** The start event it begins with; the first of the process where none is named. */
  readonly start?: Id;
  /** By gateway or activity: the flows to take at its first visit, its second, and so on; the last stays. */
  readonly choose?: ReadonlyMap<Id, readonly (readonly Id[])[]>;
  /** Boundary events and event sub-processes that go off, each once, as soon as they can. */
  readonly fire?: readonly Id[];
  /** Steps after which it is stopped. */
  readonly bound?: number;
}

export interface WalkStep {
  readonly step: number;
  readonly element: Id;
  readonly event: "entered" | "left";
}

export interface Walked {
  /** Whether the case came to its end, waits for what never comes, or was stopped by the bound. */
  readonly outcome: "completed" | "stuck" | "stopped";
  readonly entered: readonly { readonly element: Id; readonly times: number }[];
  readonly log: readonly WalkStep[];
  /** Where tokens are left: the nodes they stand before, or that are under way. */
  readonly left: readonly Id[];
}

/** A scope under way: the process, or a sub-process inside another. */
interface Instance {
  readonly around: Instance | undefined;
  readonly net: ScopeNet;
  state: ScopeState;
  /** Sub-processes under way in it, by their node. */
  readonly inside: Map<number, Instance>;
  /** When each node could first act, so that what waits longest goes first. */
  readonly since: Map<number, number>;
}

/**
 * Plays one case with tokens, one step at a time. What can happen longest happens next, in the order of the file among equals, so
 * that parallel branches go on in turn and the same choices give the same run.
 * @throws RangeError for a process that is not in the model
 * O(steps × nodes).
 */
export function walk(model: Model, process: Id, choices: WalkChoices = {}): Walked {
  if (!model.elements.has(process)) throw new RangeError(`There is no process "${process}" in this model.`);
  return new Walk(model, choices).run(process);
}

class Walk {
  readonly #log: WalkStep[] = [];
  readonly #visits = new Map<Id, number>();
  readonly #fire: Set<Id>;
  #step = 0;

  constructor(
    private readonly model: Model,
    private readonly choices: WalkChoices,
  ) {
    this.#fire = new Set(choices.fire);
  }

  run(process: Id): Walked {
    const root = this.#open(process, undefined, this.choices.start);
    const bound = this.choices.bound ?? 10_000;
    let outcome: Walked["outcome"] = "stuck";
    for (; ; this.#step++) {
      if (isOver(root.net, root.state)) {
        outcome = "completed";
        break;
      }
      if (this.#step >= bound) {
        outcome = "stopped";
        break;
      }
      if (!this.#advance(root)) break;
    }
    const times = new Map<Id, number>();
    for (const { element, event } of this.#log)
      if (event === "entered") times.set(element, (times.get(element) ?? 0) + 1);
    return {
      outcome,
      entered: [...times].map(([element, count]) => ({ element, times: count })),
      log: this.#log,
      left: outcome === "completed" ? [] : this.#waiting(root),
    };
  }

  #open(scope: Id, around: Instance | undefined, start?: Id): Instance {
    const net = scopeNetOf(this.model, scope, () => true, true);
    const states = initialStates(net);
    const at =
      start === undefined
        ? 0
        : net.entries.findIndex(([flow]) => net.nodes[net.flows[flow as number]?.to ?? -1]?.id === start);
    const state = states[Math.max(0, at)] ?? new Uint8Array(net.flows.length + 2 * net.nodes.length);
    return { around, net, state, inside: new Map(), since: new Map() };
  }

  /** One step somewhere: inside a sub-process first, then here. False where nothing can happen. */
  #advance(instance: Instance): boolean {
    const { net } = instance;
    const moves = movesOf(net, instance.state).filter((move) => this.#may(instance, move));
    const fired = moves.find((move) => this.#isFired(net.nodes[move.node] as NetNode));
    if (!fired) for (const inner of instance.inside.values()) if (this.#advance(inner)) return true;
    const own = fired
      ? [fired]
      : moves.filter((move) => net.nodes[move.node]?.kind !== "called" || move.stop === move.node);
    const able = new Set(own.map((move) => move.node));
    for (const node of [...instance.since.keys()]) if (!able.has(node)) instance.since.delete(node);
    for (const node of able) if (!instance.since.has(node)) instance.since.set(node, this.#step);
    const next = [...able].sort(
      (a, b) => (instance.since.get(a) as number) - (instance.since.get(b) as number) || a - b,
    )[0];
    if (next === undefined) return false;
    const move = this.#chosen(
      instance,
      own.filter((one) => one.node === next),
    );
    instance.since.delete(next);
    this.#perform(instance, move);
    return true;
  }

  /** A sub-process ends when its inside has; all else may happen. */
  #may({ inside }: Instance, move: Move): boolean {
    if (move.stop === undefined || move.stop !== move.node) return true;
    const inner = inside.get(move.stop);
    return inner === undefined || isOver(inner.net, inner.state);
  }

  #isFired(node: NetNode): boolean {
    if (node.kind !== "called") return false;
    return this.#fire.has(node.id) || flowNodesIn(this.model, node.id).some((start) => this.#fire.has(start.id));
  }

  /** Among the ways out of one node: those named for this visit, else the default, else the first of the file. */
  #chosen({ net }: Instance, moves: readonly Move[]): Move {
    const [first] = moves as [Move, ...Move[]];
    const node = net.nodes[first.node] as NetNode;
    if (moves.length === 1) return first;
    const named = this.choices.choose?.get(node.id);
    const visit = this.#visits.get(node.id) ?? 0;
    const wanted = named?.[Math.min(visit, named.length - 1)];
    const idsOf = (move: Move) => move.give.flatMap((flow) => net.flows[flow]?.id ?? []);
    if (wanted) {
      this.#visits.set(node.id, visit + 1);
      const always = node.outs.filter(
        (way) => !node.conditional.includes(way) && way !== node.fallback && node.kind === "each",
      );
      const set = new Set([...wanted, ...always.flatMap((flow) => net.flows[flow]?.id ?? [])]);
      const match = moves.find((move) => idsOf(move).length === set.size && idsOf(move).every((id) => set.has(id)));
      if (match) return match;
    }
    const usual = this.model.elements.get(node.id)?.default;
    const byDefault = moves.find((move) => idsOf(move).includes(String(usual)));
    return byDefault ?? moves.find((move) => move.give.length > 0) ?? first;
  }

  #perform(instance: Instance, move: Move): void {
    const { net, inside } = instance;
    const node = net.nodes[move.node] as NetNode;
    const isExit = move.stop === move.node;
    this.#log.push({ step: this.#step + 1, element: node.id, event: isExit ? "left" : "entered" });
    if (node.kind === "called" && !isExit) this.#wentOff(node);
    instance.state = afterMove(net, instance.state, move);
    if (move.clears) inside.clear();
    if (move.stop !== undefined) inside.delete(move.stop);
    if (move.start !== undefined && this.#hasInside(node)) inside.set(move.start, this.#open(node.id, instance));
    if (node.kind === "clear") this.#raise(instance, node);
  }

  /** Each event that was told to go off does so once. */
  #wentOff(node: NetNode): void {
    this.#fire.delete(node.id);
    for (const start of flowNodesIn(this.model, node.id)) this.#fire.delete(start.id);
  }

  #hasInside(node: NetNode): boolean {
    const element = this.model.elements.get(node.id);
    return element !== undefined && isSubProcess(element.type) && flowNodesIn(this.model, node.id).length > 0;
  }

  /** An error or a cancellation goes to the boundary event that catches it: of this sub-process, else of one further out. */
  #raise(instance: Instance, end: NetNode): void {
    const element = this.model.elements.get(end.id) as Element;
    const trigger = triggerOf(this.model, element);
    if (trigger === "terminateEventDefinition") return;
    for (let here: Instance | undefined = instance; here; here = here.around) {
      const { scope } = here.net;
      const catcher = childrenOf(this.model, this.model.elements.get(scope)?.parent ?? "").find(
        (event) =>
          event.type === "boundaryEvent" &&
          event.attachedToRef === scope &&
          triggerOf(this.model, event) === trigger &&
          catches(errorOf(this.model, event), errorOf(this.model, element)),
      );
      if (catcher) {
        this.#fire.add(catcher.id);
        return;
      }
      // Nobody catches it here, so that this scope ends with it too.
      here.state = new Uint8Array(here.state.length);
      here.inside.clear();
    }
  }

  #waiting({ net, state, inside }: Instance): Id[] {
    const here = net.flows.flatMap(({ to }, flow) => (state[flow] !== 0 ? (net.nodes[to]?.id ?? []) : []));
    const under = net.nodes.flatMap((node, at) => (state[net.flows.length + at] !== 0 ? [node.id] : []));
    return [...new Set([...here, ...under, ...[...inside.values()].flatMap((inner) => this.#waiting(inner))])];
  }
}

const errorOf = (model: Model, event: Element): Id | undefined =>
  eventDefinitionsOf(model, event.id).find((one) => one.type === "errorEventDefinition")?.errorRef as Id | undefined;
/** An event that names no error catches every one. */
const catches = (caught: Id | undefined, thrown: Id | undefined) => caught === undefined || caught === thrown;
