import { capital, listOf, type Said, say } from "../messages";
import {
  type Element,
  eventDefinitionsOf,
  type Id,
  isActivity,
  isSubProcess,
  nameOf,
  outgoingOf,
  termFor,
} from "../model";
import type { Act } from "./acts";
import type { Case } from "./case";
import { actsOf, type Instance } from "./standing";
import { loopOf, type World } from "./world";

const all = (count: number): Said => (count === 2 ? say`both` : say`all ${count}`);

/** What a node does or waits for where a token stands before it, in a sentence (BPMN 2.0, 13.3 and 13.4, in plain words). */
export function explain(world: World, state: Case, instance: Instance, node: Id): Said {
  const { model, net } = instance;
  const element = model.elements.get(node) as Element;
  const own = net.nodes.find((one) => one.id === node);
  const ins = own?.ins.length ?? 0;
  const outs = own?.outs.length ?? 0;
  const come = own?.ins.filter((flow) => (instance.state[flow] as number) > 0).length ?? 0;
  const acts = actsOf(world, state).filter((act) => act.at === instance.key && act.node === node);
  switch (element.type) {
    case "parallelGateway":
      if (ins > 1 && come < ins) return say`Waits for ${all(ins)}, a parallel join: ${come} of ${ins} have come.`;
      return outs > 1
        ? say`Goes on along ${all(outs)} ways at once: a parallel split.`
        : say`${capital(all(ins))} have come: the parallel join lets one token on.`;
    case "exclusiveGateway":
      return outs > 1
        ? say`Takes exactly one of ${outs} ways: a decision.`
        : say`Lets each token through as it comes: an exclusive join waits for nobody.`;
    case "inclusiveGateway":
      if (ins > 1 && acts.length === 0)
        return say`Waits for every token that can still come: an inclusive join. ${come === 1 ? say`1 token` : say`${come} tokens`} so far.`;
      return outs > 1
        ? say`Takes one or more of ${outs} ways: an inclusive decision.`
        : say`Nothing else can come: the inclusive join lets one token on.`;
    case "complexGateway":
      return acts.length === 0
        ? say`Waits until ${own?.needs ?? 1} of ${ins} have come: a complex join.`
        : say`Has gone off, or does so now; what comes later is taken for nothing: a complex join.`;
    case "eventBasedGateway":
      return say`Waits for whichever event comes first: the others then no longer count.`;
  }
  if (element.type === "endEvent") return endWords(eventDefinitionsOf(model, node)[0]?.type);
  if (isActivity(element.type)) return activityWords(instance, element, acts);
  if (element.type === "startEvent") return say`The case begins here.`;
  if (element.type === "intermediateCatchEvent")
    return say`Waits for ${eventWords(eventDefinitionsOf(model, node)[0]?.type)}.`;
  return say`Comes next.`;
}

function activityWords({ model, underWay, net }: Instance, element: Element, acts: readonly Act[]): Said {
  const one = underWay.get(net.nodes.findIndex((node) => node.id === element.id));
  const edges = acts.some((act) => act.does === "finish" || act.does === "again");
  if (one && loopOf(model, element.id))
    return one.times === undefined
      ? say`Is done again and again until it is enough: ${one.finished === 0 ? say`1 time` : say`${one.finished + 1} times`} so far.`
      : say`Is done for each of ${one.times}: this is number ${Math.min(one.finished + 1, one.times)}.`;
  if (one)
    return isSubProcess(element.type)
      ? say`Is under way: it ends when everything inside has ended.`
      : say`The called process is under way.`;
  if (edges) return say`Is under way: it is finished, or an event at its edge goes off.`;
  const several = outgoingOf(model, element.id).length;
  return several > 1 ? say`Is to be done; then the case goes on along several ways at once.` : say`Is to be done.`;
}

const endWords = (trigger: string | undefined): Said =>
  trigger === "terminateEventDefinition"
    ? say`Ends the whole case at once, whatever else is under way.`
    : trigger === "errorEventDefinition"
      ? say`Ends this scope with an error, which is caught at its edge or further out.`
      : trigger === "cancelEventDefinition"
        ? say`Cancels the transaction: what was done in it is undone.`
        : say`Takes the token: this path has ended.`;

const eventWords = (trigger: string | undefined): Said =>
  ({
    messageEventDefinition: say`a message`,
    timerEventDefinition: say`a moment in time`,
    signalEventDefinition: say`a signal`,
    conditionalEventDefinition: say`a condition to come true`,
    linkEventDefinition: say`a token from the link of its name`,
  })[trigger ?? ""] ?? say`its event`;

/** An act as a person would say it. */
export function actWords(instance: Instance, act: Act): Said {
  const { model } = instance;
  const element = model.elements.get(act.node) as Element;
  const name = nameOf(model, act.node) || termFor(element.type);
  const ways = act.flows.map(
    (flow) => nameOf(model, flow) || nameOf(model, String(model.elements.get(flow)?.targetRef)) || say`on`,
  );
  if (act.does === "again") return say`${name}: once more`;
  if (act.does === "finish") return say`${name}: finished${ways.length > 1 ? say`, ${listOf(ways)}` : say``}`;
  if (act.does === "begin") return say`${name}: begin`;
  if (act.does === "fire") return say`${name}: goes off`;
  return ways.length > 0 && element.type.endsWith("Gateway") ? listOf(ways) : say`${name}`;
}
