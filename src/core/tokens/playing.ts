import { holds } from "../feel";
import { type Element, type Id, processOf } from "../model";
import { type Act, actsOf } from "./acts";
import {
  beginCase,
  type CaseState,
  type Instance,
  instancesOf,
  isCaseOver,
  loopOf,
  standingAt,
  type World,
} from "./caseState";
import { actTaking, type FireChoice, flowsByData, forVisit, type WalkChoices } from "./choices";
import type { Happened } from "./moving";
import { step } from "./step";

/** One line of a log. Elements of a called process say which. */
export interface WalkStep {
  readonly step: number;
  readonly element: Id;
  readonly event: Happened["event"];
  readonly flows: readonly Id[];
  readonly process: Id;
}

/** A case being played: where it stands, what has happened, and what was chosen, so that it can be told again. */
export interface Playing {
  readonly state: CaseState;
  readonly step: number;
  readonly log: readonly WalkStep[];
  readonly told: WalkChoices;
  /** Since which step each node can act, so that what waits longest goes first. */
  readonly since: ReadonlyMap<string, number>;
}

/** How the next act was found: told, by data, by default, as the first in the file, or the only one there is. */
export type Reason = "told" | "data" | "default" | "first" | "only";

export interface Next {
  readonly act: Act;
  readonly times?: number;
  readonly reason: Reason;
}

const place = (act: Act) => `${act.at} ${act.node}`;

/** A case of a process, before its first step. */
export function beginPlaying(world: World, process: Id, start?: Id): Playing {
  const playing = {
    state: beginCase(world, process, start),
    step: 0,
    log: [],
    told: start === undefined ? {} : { start },
    since: new Map<string, number>(),
  };
  return { ...playing, since: waitingSince(world, playing) };
}

function waitingSince(world: World, { state, since, step }: Playing): ReadonlyMap<string, number> {
  return new Map(actsOf(world, state).map((act) => [place(act), since.get(place(act)) ?? step]));
}

/** The case after an act; what was chosen by it is noted. */
export function played(world: World, before: Playing, act: Act, times?: number): Playing {
  const { state, happened } = step(world, before.state, act, times);
  const scopes = new Map([...instancesOf(before.state), ...instancesOf(state)].map((one) => [one.key, one]));
  const after = before.step + 1;
  const log = [
    ...before.log,
    ...happened.map(({ at, node, event, flows }): WalkStep => {
      const { net, model } = scopes.get(at) as Instance;
      return { step: after, element: node, event, flows, process: processOf(model, net.scope)?.id ?? net.scope };
    }),
  ];
  const since = new Map(before.since);
  since.delete(place(act));
  const next: Playing = { state, step: after, log, told: noted(world, before, act, times), since };
  return { ...next, since: waitingSince(world, next) };
}

/** What was told so far, and this act, where it was one of several. */
function noted(world: World, { state, told, log }: Playing, act: Act, times: number | undefined): WalkChoices {
  const add = <Entry>(all: ReadonlyMap<Id, readonly Entry[]> | undefined, entry: Entry) =>
    new Map([...(all ?? []), [act.node, [...(all?.get(act.node) ?? []), entry]]]);
  if (act.does === "fire") {
    const last = log.at(-1)?.element;
    const fire: FireChoice =
      last === undefined
        ? { element: act.node }
        : { element: act.node, after: { element: last, times: enteredTimes(log, last) } };
    return { ...told, fire: [...(told.fire ?? []), fire] };
  }
  if (act.does === "begin" && times !== undefined) return { ...told, times: add(told.times, times) };
  const instance = instancesOf(state).find((one) => one.key === act.at);
  if (act.does === "finish") {
    const under = instance?.underWay.get(act.move.node);
    if (under && under.times === undefined) told = { ...told, times: add(told.times, under.finished + 1) };
  }
  const others = actsOf(world, state).filter(
    (one) => place(one) === place(act) && one.does === act.does && one.does !== "pick",
  );
  return others.length > 1 ? { ...told, choose: add(told.choose, act.flows) } : told;
}

export const enteredTimes = (log: readonly WalkStep[], element: Id) =>
  log.reduce((sum, line) => sum + (line.element === element && line.event !== "left" ? 1 : 0), 0);

/**
 * What happens next by itself: events that were told to go off, else what can happen longest, in the order of the file among
 * equals, so that parallel branches go on in turn and the same choices give the same run.
 * @returns undefined where nothing can happen
 */
export function nextAct(world: World, playing: Playing, choices: WalkChoices): Next | undefined {
  const acts = actsOf(world, playing.state);
  const fired = acts.find((act) => act.does === "fire" && isToFire(world, playing, act, choices));
  if (fired) return { act: fired, reason: "told" };
  const own = acts.filter((act) => act.does !== "fire");
  const since = (act: Act) => playing.since.get(place(act)) ?? playing.step;
  const first = own
    .filter((act) => act.does !== "pick")
    .reduce<Act | undefined>((best, act) => (best === undefined || since(act) < since(best) ? act : best), undefined);
  const picked = own.find((act) => act.does === "pick" && enteredTimes(playing.log, act.node) === 0);
  if (!first || (picked && first.does === "finish")) return picked && { act: picked, reason: "first" };
  return chosen(
    playing,
    own.filter((act) => place(act) === place(first)),
    choices,
  );
}

function isToFire({ model }: World, { log }: Playing, act: Act, { fire = [] }: WalkChoices): boolean {
  const isMeant = ({ element }: FireChoice) => element === act.node || model.elements.get(element)?.parent === act.node;
  const told = fire.filter(isMeant)[enteredTimes(log, act.node)];
  return told !== undefined && (!told.after || enteredTimes(log, told.after.element) >= told.after.times);
}

/** Among the alternatives of one node: what was told for this visit, what data decides, the default, the first of the file. */
function chosen(playing: Playing, acts: readonly Act[], choices: WalkChoices): Next {
  const [first] = acts as [Act, ...Act[]];
  const instance = instancesOf(playing.state).find((one) => one.key === first.at) as Instance;
  const { model } = instance;
  const node = model.elements.get(first.node) as Element;
  const visit = playing.log.filter((line) => line.element === first.node && line.event === "left").length;
  const wanted = forVisit(choices.times?.get(first.node), visit);
  if (first.does === "begin") return { act: first, ...(wanted !== undefined && { times: wanted }), reason: "only" };
  const again = acts.find((act) => act.does === "again");
  const finishes = acts.filter((act) => act !== again);
  if (again) {
    if (finishes.length === 0) return { act: again, reason: "only" };
    const done = (instance.underWay.get(again.move.node)?.finished ?? 0) + 1;
    const condition = loopOf(model, node.id)?.loopCondition as { readonly text: string } | undefined;
    const goesOn = wanted === undefined ? holds(condition?.text ?? "", choices.data ?? {}) : done < wanted;
    if (goesOn) return { act: again, reason: wanted === undefined ? "data" : "told" };
  }
  if (finishes.length === 1)
    return { act: finishes[0] as Act, reason: again && wanted === undefined ? "first" : "only" };
  const told = forVisit(choices.choose?.get(node.id), playing.told.choose?.get(node.id)?.length ?? 0);
  const byTold = told && actTaking(model, node, finishes, told);
  if (byTold) return { act: byTold, reason: "told" };
  const flows = choices.data && flowsByData(model, node, choices.data);
  const byData = flows && actTaking(model, node, finishes, flows);
  if (byData) return { act: byData, reason: "data" };
  const byDefault = typeof node.default === "string" ? actTaking(model, node, finishes, [node.default]) : undefined;
  if (byDefault) return { act: byDefault, reason: "default" };
  return { act: finishes.find((act) => act.flows.length > 0) ?? (finishes[0] as Act), reason: "first" };
}

/** How a case that was played has come out. */
export function outcomeOf(world: World, { state }: Playing): "completed" | "stuck" | "under way" {
  if (isCaseOver(state)) return "completed";
  return actsOf(world, state).length === 0 ? "stuck" : "under way";
}

/** Where tokens are left: the nodes they stand before, or that are under way. */
export const leftAt = ({ state }: Playing): Id[] => [...new Set(standingAt(state).map(({ node }) => node))];
