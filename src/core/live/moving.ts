import { capital, type Said, say } from "../messages";
import { called, type Element, type Id, type Model, termFor } from "../model";
import { type CaseScope, type Compiled, compiledScope, insideOf, type World } from "../tokens";
import type { LiveCase, Wait } from "./liveCase";

/** A case as it stands in another edition of its process; or why it cannot stand there. */
export type Moved =
  | { readonly isPossible: true; readonly moved: LiveCase }
  | { readonly isPossible: false; readonly why: readonly Said[] };

/**
 * Moves a case to another edition of its process: each token stands there where it stood, by the ids of what it stands on. A way that is
 * gone is replaced by another into the same node; what hung at an edge and is gone is not waited for any more. A case that stands at a step
 * which is gone, or which has become something else, cannot be moved. O(what is under way).
 */
export function movedCase(saved: LiveCase, from: World, to: World): Moved {
  const moving = new Moving(from, to);
  const pools = saved.tokens.pools.map((pool, at) => moving.scope(pool, from.model, to.model, String(at)));
  const waits = saved.waits.flatMap((wait) => moving.wait(wait) ?? []);
  if (moving.why.length > 0) return { isPossible: false, why: moving.why };
  const { keys } = moving;
  return {
    isPossible: true,
    moved: {
      ...saved,
      tokens: {
        pools: pools as CaseScope[],
        sent: saved.tokens.sent.filter(([flow]) => to.model.elements.get(flow)?.type === "messageFlow"),
      },
      waits,
      own: Object.fromEntries(
        Object.entries(saved.own).flatMap(([scope, data]) => {
          const key = keys.get(scope);
          return key === undefined ? [] : [[key, data] as const];
        }),
      ),
      happened: saved.happened.flatMap((happened) => {
        const gap = happened.indexOf(" ");
        const key = keys.get(happened.slice(0, gap));
        return key === undefined ? [] : [key + happened.slice(gap)];
      }),
    },
  };
}

/** What is found on the way: where scopes stand now, and what stands in the way. */
class Moving {
  readonly why: Said[] = [];

  /** By the key of a scope as it was: as it is. */
  readonly keys = new Map<string, string>();

  readonly #scopes = new Map<string, Compiled>();

  constructor(
    readonly from: World,
    readonly to: World,
  ) {}

  scope(saved: CaseScope, before: Model, after: Model, key: string): CaseScope | undefined {
    const known = before.elements.get(saved.scope);
    if (!after.elements.has(saved.scope)) {
      this.#tell(say`${known ? capital(called(before, known)) : say`“${saved.scope}”`} is not there any more.`);
      return undefined;
    }
    const old = compiledScope(this.from, before, saved.scope);
    const compiled = compiledScope(this.to, after, saved.scope);
    this.keys.set(saved.key, key);
    this.#scopes.set(key, compiled);
    const tokens = new Map<string, number>();
    for (const [on, count] of saved.tokens) {
      const way = this.#wayFor(on, old, compiled);
      if (way !== undefined) tokens.set(way, (tokens.get(way) ?? 0) + count);
    }
    const active: Id[] = [];
    for (const id of saved.active) {
      if (!this.#stays(id, old, compiled)) continue;
      if (isHeld(compiled, id)) active.push(id);
      // What nothing hangs on any more is done while the token still stands before it.
      else {
        const way = this.#wayInto(id, compiled);
        if (way !== undefined) tokens.set(way, (tokens.get(way) ?? 0) + 1);
      }
    }
    const underWay = saved.underWay.map(([node, what]) => {
      const [one, other] = [old.nodeAt.get(node), compiled.nodeAt.get(node)];
      // Said already of what is active.
      if (one === undefined || other === undefined) return [node, what] as const;
      const inside = insideOf(this.from, before, old.elements[one] as Element);
      const there = insideOf(this.to, after, compiled.elements[other] as Element);
      const step = capital(called(after, compiled.elements[other] as Element));
      if (inside && !there && what.scopes.length > 0) this.#tell(say`${step} has nothing inside any more.`);
      const scopes = what.scopes.flatMap((inner) => {
        const number = inner.key.slice(inner.key.lastIndexOf(":") + 1);
        if (!inside || !there) return [];
        return this.scope(inner, inside.model, there.model, `${key}/${other}:${number}`) ?? [];
      });
      return [node, { ...what, scopes }] as const;
    });
    return {
      key,
      scope: saved.scope,
      tokens: [...tokens],
      active,
      underWay,
      fired: saved.fired.filter(([node]) => typeOf(old, node) === typeOf(compiled, node)),
      finished: saved.finished.filter((node) => compiled.nodeAt.has(node)),
    };
  }

  /** A wait as it is there; none where what hung at an edge is gone. */
  wait(wait: Wait): Wait | undefined {
    const key = this.keys.get(wait.at);
    const scope = key === undefined ? undefined : this.#scopes.get(key);
    if (key === undefined || !scope?.nodeAt.has(wait.node)) return undefined;
    if (wait.event !== undefined && !scope.nodeAt.has(wait.event)) return undefined;
    return { ...wait, at: key };
  }

  /** What a token stands on there: the same, or another way into the same node. */
  #wayFor(on: string, old: Compiled, compiled: Compiled): string | undefined {
    const before = old.flowAt.get(on);
    const node = before === undefined ? undefined : old.net.nodes[old.to[before] ?? -1]?.id;
    if (node === undefined) {
      this.#tell(say`“${on}” is not there any more.`);
      return undefined;
    }
    if (!this.#stays(node, old, compiled)) return undefined;
    const at = compiled.nodeAt.get(node) ?? -1;
    const same = compiled.flowAt.get(on);
    if (same !== undefined && compiled.to[same] === at) return on;
    return this.#wayInto(node, compiled);
  }

  #wayInto(node: Id, compiled: Compiled): string | undefined {
    const at = compiled.nodeAt.get(node) ?? -1;
    const way = compiled.net.nodes[at]?.ins[0];
    if (way !== undefined) return compiled.flowKeys[way];
    const element = compiled.elements[at];
    this.#tell(say`Nothing leads to ${element ? called(compiled.model, element) : say`“${node}”`} any more.`);
    return undefined;
  }

  #stays(node: Id, old: Compiled, compiled: Compiled): boolean {
    const [before, after] = [elementOf(old, node), elementOf(compiled, node)];
    if (!before) return true;
    if (!after) {
      this.#tell(say`${capital(called(old.model, before))}, where it stands, is not there any more.`);
      return false;
    }
    const loops = [old.loops[old.nodeAt.get(node) ?? -1], compiled.loops[compiled.nodeAt.get(node) ?? -1]];
    if (before.type === after.type && (loops[0] === undefined) !== (loops[1] === undefined)) {
      const step = capital(called(old.model, before));
      this.#tell(
        loops[0]
          ? say`${step}, where it stands, was done several times and is done once now.`
          : say`${step}, where it stands, was done once and is done several times now.`,
      );
      return false;
    }
    if (before.type === after.type) return true;
    this.#tell(
      say`${capital(called(old.model, before))}, where it stands, is of another kind now: ${termFor(after.type)}, before ${termFor(before.type)}.`,
    );
    return false;
  }

  #tell(why: Said): void {
    if (!this.why.some(({ text }) => text === why.text)) this.why.push(why);
  }
}

const elementOf = (scope: Compiled, node: Id): Element | undefined => {
  const at = scope.nodeAt.get(node);
  return at === undefined ? undefined : scope.elements[at];
};

/** Whether a node is under way for itself, its token taken: something hangs on it, or is inside. */
const isHeld = ({ nodeAt, net }: Compiled, node: Id): boolean => {
  const kind = net.nodes[nodeAt.get(node) ?? -1]?.kind;
  return kind === "held" || kind === "called";
};

const typeOf = (scope: Compiled, node: Id): string | undefined => elementOf(scope, node)?.type;
