import { flowNodesIn, type Id, isSubProcess, type Model, processesOf, triggerOf } from "../../model";
import { type ScopeNet, scopeNetOf } from "../../tokens";
import { type Behaviour, explore } from "./explore";
import { reduced } from "./reduce";

/** How many states of one scope are looked at, at most. */
const mostStates = 20_000;

export interface ScopeBehaviour extends Behaviour {
  readonly scope: Id;
  readonly net: ScopeNet;
}

/** What can go wrong in a process and in the sub-processes inside it, each as a scope of its own. */
export interface ProcessBehaviour {
  readonly process: Id;
  /** False where a run gets stuck, never ends, or runs something twice, or where no run reaches something; null where a bound was met before that was known. */
  readonly sound: boolean | null;
  readonly states: number;
  readonly complete: boolean;
  readonly scopes: readonly ScopeBehaviour[];
}

const remembered = new WeakMap<Model, readonly ProcessBehaviour[]>();

/**
 * The behaviour of every process of a model (van der Aalst, "The application of Petri nets to workflow management", Journal of
 * Circuits, Systems and Computers 8, 1998, for soundness; its rules are those of `docs` for `lane check`). Sub-processes are
 * looked at inside first: what cannot end inside is not passed outside. O(states of what is left after reduction).
 */
export function behaviourOf(model: Model, bound: number = mostStates): readonly ProcessBehaviour[] {
  const known = bound === mostStates ? remembered.get(model) : undefined;
  if (known) return known;
  const found = processesOf(model)
    .filter((process) => flowNodesIn(model, process.id).length > 0)
    .map((process) => processBehaviour(model, process.id, bound));
  if (bound === mostStates) remembered.set(model, found);
  return found;
}

function processBehaviour(model: Model, process: Id, bound: number): ProcessBehaviour {
  const scopes: ScopeBehaviour[] = [];
  const completes = new Map<Id, boolean>();
  const look = (scope: Id) => {
    for (const node of flowNodesIn(model, scope)) if (isSubProcess(node.type)) look(node.id);
    // Its steps are done in any order, or not at all.
    if (model.elements.get(scope)?.type === "adHocSubProcess") return;
    if (flowNodesIn(model, scope).length === 0) return;
    const net = scopeNetOf(model, scope, (inner) => completes.get(inner) ?? true);
    const behaviour = explore(reduced(net), net, bound);
    completes.set(scope, behaviour.canComplete || net.entries.length === 0);
    scopes.push({ scope, net, ...behaviour });
  };
  look(process);
  const bad = scopes.some(
    (scope) => scope.deadlock || scope.livelock || scope.doubled || deadNodesOf(model, scope).length > 0,
  );
  const complete = scopes.every((scope) => scope.complete);
  return {
    process,
    sound: bad ? false : complete ? true : null,
    states: scopes.reduce((sum, scope) => sum + scope.states, 0),
    complete,
    scopes: scopes.reverse(),
  };
}

/** Flow nodes of a scope that no run reaches; none where not all runs were seen. Compensation is reached by undoing, not by a run. */
export function deadNodesOf(
  model: Model,
  { scope, reached, complete }: Pick<ScopeBehaviour, "scope" | "reached" | "complete">,
) {
  if (!complete) return [];
  return flowNodesIn(model, scope).filter(
    (node) =>
      !reached.has(node.id) &&
      node.isForCompensation !== true &&
      !(node.type === "boundaryEvent" && triggerOf(model, node) === "compensateEventDefinition"),
  );
}
