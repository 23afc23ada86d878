import { type Command, perform } from "../../commands";
import { listOf, type Said, say, withCommas } from "../../messages";
import { called, type Element, type Id, incomingOf, isActivity, type Model, nameOf, outgoingOf } from "../../model";
import type { Found, Repair, Rule, RuleGroup } from "../finding";
import { behaviourOf, deadNodesOf, type ScopeBehaviour } from "../soundness";

const group: RuleGroup = "behaviour";
const scopesOf = (model: Model): readonly ScopeBehaviour[] => behaviourOf(model).flatMap((process) => process.scopes);

/** The named steps that come right before or behind a node, through gateways and events. */
function stepsNextTo(model: Model, node: Id, side: "before" | "behind"): string[] {
  const found: string[] = [];
  const seen = new Set<Id>([node]);
  const queue = [node];
  for (let at = 0; at < queue.length && found.length < 4; at++) {
    const flows = side === "before" ? incomingOf(model, queue[at] as Id) : outgoingOf(model, queue[at] as Id);
    for (const flow of flows) {
      const id = (side === "before" ? flow.sourceRef : flow.targetRef) as Id;
      const element = model.elements.get(id);
      if (!element || seen.has(id)) continue;
      seen.add(id);
      if (isActivity(element.type) && nameOf(model, id)) found.push(nameOf(model, id));
      else queue.push(id);
    }
  }
  return found;
}

/** How many things are wrong with the behaviour of a model. */
const faultsOf = (model: Model) =>
  scopesOf(model).reduce(
    (sum, scope) =>
      sum +
      [scope.deadlock, scope.livelock, scope.doubled].filter(Boolean).length +
      (deadNodesOf(model, scope).length > 0 ? 1 : 0),
    0,
  );

/** The kind for a join that leaves least wrong, if that is less than there is: each was tried before it is offered; among equals the plainest. */
function betterJoin(model: Model, join: Element | undefined, kinds: readonly Element["type"][]): readonly Repair[] {
  // Where not everything could be looked at once, it cannot be twice.
  if (!join?.type.endsWith("Gateway") || behaviourOf(model).some((process) => !process.complete)) return [];
  const words = {
    parallelGateway: say`all of them`,
    inclusiveGateway: say`those that were taken`,
    exclusiveGateway: say`none: each goes on by itself`,
  };
  let [least, best] = [faultsOf(model), undefined as Repair | undefined];
  for (const to of kinds) {
    const command: Command = { type: "retype", id: join.id, to };
    const done = to === join.type ? undefined : perform(model, command);
    const left = done?.ok ? faultsOf(done.value.model) : least;
    if (left >= least) continue;
    least = left;
    best = { label: say`Let it wait for ${words[to as keyof typeof words]}`, commands: [command] };
  }
  return best ? [best] : [];
}

export const lackOfSynchronization: Rule = {
  id: "lack-of-synchronization",
  group,
  severity: "error",
  wants: say`No step runs twice because two ways meet without waiting for each other.`,
  find: (model) =>
    scopesOf(model).flatMap(({ doubled, net }): Found[] => {
      if (!doubled) return [];
      const join = model.elements.get(net.nodes[net.flows[doubled.flow]?.from ?? -1]?.id ?? "");
      if (!join) return [];
      const before = stepsNextTo(model, join.id, "before").filter((name) => name !== nameOf(model, join.id));
      const behind = stepsNextTo(model, join.id, "behind");
      const what = behind.length > 0 ? listOf(behind.slice(0, 2)) : say`what follows`;
      const when = before.length > 1 ? say`After ${listOf(before)} finish, ${what} runs` : say`Here ${what} can run`;
      const repairs = betterJoin(model, join, ["parallelGateway", "inclusiveGateway"]);
      return [
        {
          elements: [join.id],
          message: say`${when} twice: ${called(model, join)} lets everything through as it comes, and two tokens can come in one case. Join the ways with the kind of gateway that parted them.`,
          witness: doubled.witness,
          ...(repairs.length > 0 && { repairs }),
        },
      ];
    }),
};

/** What a case that is stuck waits for: the steps that would have to come, as far as they have names. */
function awaitedFrom(model: Model, flows: readonly Id[]): Said {
  const names = flows.map((flow) => {
    const source = model.elements.get(String(model.elements.get(flow)?.sourceRef));
    return (source && nameOf(model, source.id)) || nameOf(model, flow);
  });
  const known = [...new Set(names)].filter(Boolean).map((name) => say`“${name}”`);
  if (known.length === 0 || known.length < new Set(flows).size) return say`more than will ever come`;
  return say`what would come from ${listOf(known)}, and on this run never does`;
}

export const deadlock: Rule = {
  id: "deadlock",
  group,
  severity: "error",
  wants: say`No case gets stuck.`,
  find: (model) =>
    scopesOf(model).flatMap(({ deadlock: stuck }): Found[] => {
      const [first] = stuck?.waiting ?? [];
      if (!stuck || first === undefined) return [];
      const waiting = stuck.waiting.map((id) => model.elements.get(id)).filter((one) => one !== undefined);
      const join = waiting.find((one) => one.type.endsWith("Gateway"));
      const repairs = betterJoin(model, join, ["exclusiveGateway", "inclusiveGateway"]);
      return [
        {
          elements: stuck.waiting,
          message: say`A case can get stuck at ${listOf(waiting.map((one) => called(model, one)))}: it waits there for ${awaitedFrom(model, stuck.awaited)}. Let a join wait only for what the split before it really sends.`,
          witness: stuck.witness,
          ...(stuck.awaited.length > 0 && { awaited: stuck.awaited }),
          ...(repairs.length > 0 && { repairs }),
        },
      ];
    }),
};

export const livelock: Rule = {
  id: "livelock",
  group,
  severity: "error",
  wants: say`Every case can come to an end.`,
  find: (model) =>
    scopesOf(model).flatMap(({ livelock: lost }): Found[] =>
      lost
        ? [
            {
              elements: lost.within,
              message: say`Once a case comes to ${listOf(lost.within.map((id) => called(model, model.elements.get(id) as Element)))}, it can go on for ever and never end. Give the loop a way out.`,
              witness: lost.witness,
            },
          ]
        : [],
    ),
};

export const deadElement: Rule = {
  id: "dead-element",
  group,
  severity: "error",
  wants: say`Every step is reached by some case.`,
  find: (model) =>
    scopesOf(model).flatMap((scope): Found[] => {
      const dead = deadNodesOf(model, scope);
      if (dead.length === 0) return [];
      const named = dead.slice(0, 3).map((node) => called(model, node));
      const more = dead.length > 3 ? say` and ${dead.length - 3} more` : say``;
      return [
        {
          elements: dead.map((node) => node.id),
          message: say`No case ever reaches ${dead.length > 3 ? withCommas(named) : listOf(named)}${more}. Mend what keeps cases away, or take it out.`,
        },
      ];
    }),
};

export const behaviourUnknown: Rule = {
  id: "behaviour-unknown",
  group,
  severity: "warning",
  wants: say`Behaviour is known: all that can happen was looked at.`,
  find: (model) =>
    behaviourOf(model)
      .filter((process) => process.sound === null)
      .map((process) => ({
        elements: [process.process],
        message: say`${nameOf(model, process.process) || say`This process`} can be in more states than can be looked at (${process.states} were), so nobody can say whether a case gets stuck or runs a step twice. Make blocks of what is tangled: each split with its join.`,
      })),
};
