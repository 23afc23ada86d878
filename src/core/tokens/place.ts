import type { Id } from "../model";
import type { Act, Deed } from "./acts";
import type { Compiled } from "./compiled";
import type { NetNode } from "./scopeNet";
import { joinsOf, type Move, movesAt, noMoreCanCome, type ScopeState } from "./scopeState";

/** One thing that happened: a node was entered or left, or its work was undone. */
export interface Happened {
  readonly at: string;
  readonly node: Id;
  readonly event: "entered" | "left" | "undone";
  /** The sequence flows a token went along. */
  readonly flows: readonly Id[];
}

export interface UnderWay {
  readonly times: number | undefined;
  finished: number;
  places: Place[];
}

export const noActs: readonly Act[] = [];
const noPlaces: readonly Place[] = [];

/** A scope under way in a case that is being played: its tokens, and what each node can do now, found out again only where it may have changed. */
export class Place {
  readonly state: ScopeState;
  readonly underWay = new Map<number, UnderWay>();
  readonly finished: Id[] = [];
  /** Tokens and activities under way: none left, and the scope is over. */
  busy = 0;
  /** Tokens before nodes that look at all tokens of the scope. */
  watched = 0;
  /** Whether it is under way in its case, and was not closed. */
  isOpen = true;
  /** By node: what it can do now; and the nodes that can do something, in no order, with the place of each in that list. */
  readonly acts: (readonly Act[])[];
  readonly ready: number[] = [];
  readonly readyAt: Int32Array;
  readonly dirty: number[] = [];
  readonly isDirty: Uint8Array;
  /** Acts that are the same whenever a scope of this kind stands at this place. */
  known: KnownActs;

  constructor(
    public key: string,
    readonly scope: Compiled,
    public outer: Place | undefined,
    /** The node of the outer scope that stands for it. */
    public node: number,
  ) {
    const { flows, nodes } = scope.net;
    this.state = new Uint32Array(flows.length + 2 * nodes.length);
    // Without a token no node can do anything; each is looked at when one comes.
    this.acts = new Array(nodes.length).fill(noActs);
    this.readyAt = new Int32Array(nodes.length).fill(-1);
    this.isDirty = new Uint8Array(nodes.length);
    this.known = knownActs(scope, key);
  }

  /** As new, for another case: what it is made of is a good part of what a case costs. O(its scope, and that as numbers). */
  anew(key: string, outer: Place | undefined, node: number): this {
    if (key !== this.key) this.known = knownActs(this.scope, key);
    this.key = key;
    this.outer = outer;
    this.node = node;
    this.state.fill(0);
    if (this.underWay.size > 0) this.underWay.clear();
    if (this.finished.length > 0) this.finished.length = 0;
    this.busy = 0;
    this.watched = 0;
    this.isOpen = true;
    for (let one = this.ready.pop(); one !== undefined; one = this.ready.pop()) {
      this.acts[one] = noActs;
      this.readyAt[one] = -1;
    }
    for (let one = this.dirty.pop(); one !== undefined; one = this.dirty.pop()) this.isDirty[one] = 0;
    return this;
  }

  /** What a node can do may have changed. */
  look(node: number): void {
    if (this.isDirty[node] === 1) return;
    this.isDirty[node] = 1;
    this.dirty.push(node);
  }

  /** A scope that is over, or no longer, lets the activity it is the inside of end, or not. */
  count(change: number): void {
    const was = this.busy;
    this.busy += change;
    if ((was === 0) === (this.busy === 0)) return;
    this.outer?.look(this.node);
    // Event sub-processes may begin while their scope is alive.
    this.lookAround();
  }

  /** A token of the scope moved: what looks at all of them may do something else, but for a join that none has come to. */
  lookAround(): void {
    const { watchful, watchesAll, net } = this.scope;
    if (this.watched === 0 && !watchesAll) return;
    for (const node of watchful)
      if ((net.nodes[node] as NetNode).ins.length === 0 || this.tokensBefore(node) > 0) this.look(node);
  }

  tokensBefore(node: number): number {
    const { ins } = this.scope.net.nodes[node] as NetNode;
    let tokens = 0;
    for (let way = 0; way < ins.length; way++) tokens += this.state[ins[way] as number] as number;
    return tokens;
  }

  /** Nodes that a token stands before, or that are under way with nothing inside that could still happen. */
  waiting(): number[] {
    const { net } = this.scope;
    const found = new Set<number>();
    for (let flow = 0; flow < net.flows.length; flow++)
      if (this.state[flow] !== 0) found.add(this.scope.to[flow] as number);
    for (let node = 0; node < net.nodes.length; node++)
      if (this.state[net.flows.length + node] !== 0 && !this.underWay.get(node)?.places.some((inner) => inner.busy > 0))
        found.add(node);
    return [...found];
  }

  put(flow: number, tokens: number): void {
    this.state[flow] = (this.state[flow] as number) + tokens;
    if (this.scope.isWatched[flow] === 1) this.watched += tokens;
    this.count(tokens);
    this.look(this.scope.to[flow] as number);
  }

  setActive(node: number, isActive: boolean): void {
    const at = this.scope.net.flows.length + node;
    const before = this.state[at] as number;
    const after = isActive ? 1 : 0;
    if (before === after) return;
    this.state[at] = after;
    this.count(after - before);
    this.look(node);
    for (const edge of this.scope.edges[node] as readonly number[]) this.look(edge);
  }

  setFired(node: number, what: number): void {
    const { flows, nodes } = this.scope.net;
    this.state[flows.length + nodes.length + node] = what;
    this.look(node);
  }

  /** All tokens go, and all that is under way ends; `wholly`: what has gone off may go off again. */
  clear(wholly = false): void {
    const { flows, nodes } = this.scope.net;
    this.state.fill(0, 0, flows.length + (wholly ? 2 : 1) * nodes.length);
    this.watched = 0;
    this.count(-this.busy);
    for (let at = 0; at < nodes.length; at++) this.look(at);
  }
}

/** By flow, what the node it leads to does with its token; by node, how it ends, joins or goes off. Filled as they are needed. */
interface KnownActs {
  readonly passing: (readonly Act[] | undefined)[];
  readonly finishing: (readonly Act[] | undefined)[];
  readonly joining: (readonly Act[] | undefined)[];
  readonly firing: (readonly Act[] | undefined)[];
  /** By node, then by the ways in that have a token, a bit each: what an inclusive gateway does with those, when no more can come. */
  readonly joiningSome: (Map<number, JoiningSome> | undefined)[];
}

interface JoiningSome {
  readonly waiting: readonly number[];
  readonly acts: readonly Act[];
}

/** As many ways in as have a bit each. */
const mostBits = 30;

// A scope that stands at the same place in case after case has the same acts there; so many places are remembered of each.
const mostPlaces = 64;
const remembered = new WeakMap<Compiled, Map<string, KnownActs>>();
function knownActs(scope: Compiled, key: string): KnownActs {
  let ofScope = remembered.get(scope);
  if (!ofScope) {
    ofScope = new Map();
    remembered.set(scope, ofScope);
  }
  let known = ofScope.get(key);
  if (!known) {
    known = { passing: [], finishing: [], joining: [], firing: [], joiningSome: [] };
    if (ofScope.size < mostPlaces) ofScope.set(key, known);
  }
  return known;
}

/** What a node can do by the net alone. */
export function movesOfPlace({ scope, state }: Place, at: number): readonly Move[] {
  const { net, passes, finishes } = scope;
  const node = net.nodes[at];
  if (node?.kind === "held" && state[net.flows.length + at] !== 0) return finishes[at] as readonly Move[];
  // Of two tokens that could go through a node the same way, it does not matter which goes first.
  const flow = node?.ins.find((way) => state[way] !== 0);
  return (flow === undefined ? undefined : passes[flow]) ?? movesAt(net, state, at);
}

/**
 * What a node can do where messages and rounds have no say in it, made once for a scope at its place; undefined where it is to be
 * found out.
 */
export function knownActsAt(place: Place, at: number): readonly Act[] | undefined {
  const { scope, state, known } = place;
  if (scope.asks[at] !== 0) return undefined;
  const { net } = scope;
  const node = net.nodes[at] as NetNode;
  switch (node.kind) {
    case "each":
    case "exclusive":
    case "end":
    case "clear":
      break;
    case "held":
      if (state[net.flows.length + at] === 0) break;
      if (scope.loops[at]) return undefined;
      for (const inner of place.underWay.get(at)?.places ?? noPlaces) if (inner.busy > 0) return noActs;
      known.finishing[at] ??= actsOf(place, scope.finishes[at], "finish");
      return known.finishing[at];
    case "parallel":
      for (const flow of node.ins) if (state[flow] === 0) return noActs;
      known.joining[at] ??= actsOf(place, joinsOf(net, at), "pass");
      return known.joining[at];
    case "inclusive": {
      if (node.ins.length > mostBits) return undefined;
      const some = joiningSome(place, at, node.ins);
      return some && noMoreCanCome(net, state, node.ins, at, some.waiting) ? some.acts : noActs;
    }
    case "called": {
      const { host } = node;
      if (host === undefined) return undefined;
      const { length } = net.flows;
      if (state[length + host] === 0 || state[length + net.nodes.length + at] !== 0) return noActs;
      known.firing[at] ??= actsOf(place, scope.fires[at], "fire");
      return known.firing[at];
    }
    default:
      return undefined;
  }
  for (const flow of node.ins) {
    if (state[flow] === 0) continue;
    known.passing[flow] ??= actsOf(place, scope.passes[flow], node.kind === "held" ? "begin" : "pass");
    return known.passing[flow];
  }
  return noActs;
}

/** Made once for the ways in that have a token; undefined where none has. */
function joiningSome(place: Place, at: number, ins: readonly number[]): JoiningSome | undefined {
  const { scope, state, known } = place;
  let bits = 0;
  for (let way = 0; way < ins.length; way++) if (state[ins[way] as number] !== 0) bits |= 1 << way;
  if (bits === 0) return undefined;
  let ofNode = known.joiningSome[at];
  if (!ofNode) {
    ofNode = new Map();
    known.joiningSome[at] = ofNode;
  }
  let made = ofNode.get(bits);
  if (!made) {
    const waiting = ins.filter((_, way) => (bits >>> way) & 1);
    made = { waiting, acts: actsOf(place, joinsOf(scope.net, at, waiting), "pass") };
    // Those of a gateway with many ways are too many to be kept.
    if (ofNode.size < mostPlaces) ofNode.set(bits, made);
  }
  return made;
}

const actsOf = (place: Place, moves: readonly Move[] | undefined, does: Deed): readonly Act[] =>
  (moves ?? []).map((move) => actOf(place, move, does));

export const actOf = ({ key, scope }: Place, move: Move, does: Deed): Act => ({
  at: key,
  node: scope.net.nodes[move.node]?.id as Id,
  does,
  flows: does === "pick" ? [] : move.give.flatMap((flow) => scope.net.flows[flow]?.id ?? []),
  move,
});
