import { flowNodesIn, type Id, nameOf, shapesOf } from "@/core/model";
import {
  type Act,
  actsOf,
  type Instance,
  instancesOf,
  outcomeOf,
  type Playing,
  standingAt,
  type World,
} from "@/core/tokens";

/** A node where the case stands, with what can happen there. */
export interface Place {
  readonly instance: Instance;
  readonly node: Id;
  readonly tokens: number;
  readonly acts: readonly Act[];
  /** Events at its edge that can go off. */
  readonly fires: readonly Act[];
  /** With the data of the case no condition holds here, and there is no default. */
  readonly isBarred: boolean;
}

export interface Standing {
  readonly world: World;
  readonly now: Playing;
  readonly outcome: ReturnType<typeof outcomeOf>;
  readonly places: readonly Place[];
  /** Event sub-processes that can begin. */
  readonly calls: readonly Act[];
  readonly instances: readonly Instance[];
  /** The scope whose page is shown. */
  readonly shown: Instance;
}

/**
 * Everything that is shown of a case as it stands.
 * @param looksAt the scope whose page is looked at, where a person picked one; otherwise the innermost in which something can happen
 * @param barred whether the data of the case lets it go nowhere from a node
 */
export function standingOf(
  world: World,
  now: Playing,
  looksAt: string | null = null,
  barred: (instance: Instance, node: Id) => boolean = () => false,
): Standing {
  const instances = instancesOf(world, now.state);
  const acts = actsOf(world, now.state);
  const fires = acts.filter((act) => act.does === "fire");
  const places = standingAt(world, now.state).map(({ instance, node, tokens }) => ({
    isBarred: barred(instance, node),
    instance,
    node,
    tokens,
    acts: acts.filter((act) => act.at === instance.key && act.node === node && act.does !== "fire"),
    fires: fires.filter(
      (act) => act.at === instance.key && instance.model.elements.get(act.node)?.attachedToRef === node,
    ),
  }));
  const picks = acts.filter((act) => act.does === "pick");
  const withPicks = [
    ...places,
    ...picks.map((act) => ({
      instance: instances.find((one) => one.key === act.at) as Instance,
      node: act.node,
      tokens: 0,
      acts: [act],
      fires: [],
      isBarred: false,
    })),
  ];
  const calls = fires.filter((act) => {
    const instance = instances.find((one) => one.key === act.at);
    return instance?.model.elements.get(act.node)?.triggeredByEvent === true;
  });
  // The page follows the innermost scope in which something can happen.
  const busy = [...instances].reverse().find((one) => acts.some((act) => act.at === one.key && act.does !== "fire"));
  const shown = instances.find((one) => one.key === looksAt) ?? busy ?? (instances[0] as Instance);
  const outcome = outcomeOf(world, now);
  // Where no condition holds and there is no default, the case is stuck, though a person may still lead it on.
  const isStuckByData =
    outcome === "under way" &&
    fires.length === 0 &&
    picks.length === 0 &&
    places.every((place) => place.isBarred || place.acts.length === 0);
  return { world, now, outcome: isStuckByData ? "stuck" : outcome, places: withPicks, calls, instances, shown };
}

/** The page on which the nodes of a scope are drawn. */
export function pageOfScope({ model, net }: Instance) {
  for (const node of flowNodesIn(model, net.scope)) {
    const shape = shapesOf(model, node.id)[0];
    if (shape) return model.diagrams.get(shape.diagram);
  }
  return undefined;
}

/** The scopes from the process to one, by name. */
export function trailOf(instances: readonly Instance[], shown: Instance): { key: string; name: string }[] {
  return instances
    .filter((one) => shown.key === one.key || shown.key.startsWith(`${one.key}/`))
    .map((one) => ({ key: one.key, name: nameOf(one.model, one.net.scope) || one.net.scope }));
}
