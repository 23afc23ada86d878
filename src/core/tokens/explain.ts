import {
  type Element,
  eventDefinitionsOf,
  type Id,
  isActivity,
  isSubProcess,
  nameOf,
  outgoingOf,
  wordFor,
} from "../model";
import type { Act } from "./acts";
import type { Case } from "./case";
import { actsOf, type Instance } from "./standing";
import { loopOf, type World } from "./world";

const counted = (count: number, one: string) => `${count} ${one}${count === 1 ? "" : "s"}`;
const all = (count: number) => (count === 2 ? "both" : `all ${count}`);

/** What a node does or waits for where a token stands before it, in a sentence (BPMN 2.0, 13.3 and 13.4, in plain words). */
export function explain(world: World, state: Case, instance: Instance, node: Id): string {
  const { model, net } = instance;
  const element = model.elements.get(node) as Element;
  const own = net.nodes.find((one) => one.id === node);
  const ins = own?.ins.length ?? 0;
  const outs = own?.outs.length ?? 0;
  const come = own?.ins.filter((flow) => (instance.state[flow] as number) > 0).length ?? 0;
  const acts = actsOf(world, state).filter((act) => act.at === instance.key && act.node === node);
  switch (element.type) {
    case "parallelGateway":
      if (ins > 1 && come < ins) return `Waits for ${all(ins)}, a parallel join: ${come} of ${ins} have come.`;
      return outs > 1
        ? `Goes on along ${all(outs)} ways at once: a parallel split.`
        : `${all(ins) === "both" ? "Both" : `All ${ins}`} have come: the parallel join lets one token on.`;
    case "exclusiveGateway":
      return outs > 1
        ? `Takes exactly one of ${outs} ways: a decision.`
        : "Lets each token through as it comes: an exclusive join waits for nobody.";
    case "inclusiveGateway":
      if (ins > 1 && acts.length === 0)
        return `Waits for every token that can still come: an inclusive join. ${counted(come, "token")} so far.`;
      return outs > 1
        ? `Takes one or more of ${outs} ways: an inclusive decision.`
        : "Nothing else can come: the inclusive join lets one token on.";
    case "complexGateway":
      return acts.length === 0
        ? `Waits until ${own?.needs ?? 1} of ${ins} have come: a complex join.`
        : "Has gone off, or does so now; what comes later is taken for nothing: a complex join.";
    case "eventBasedGateway":
      return "Waits for whichever event comes first: the others then no longer count.";
  }
  if (element.type === "endEvent") return endWords(eventDefinitionsOf(model, node)[0]?.type);
  if (isActivity(element.type)) return activityWords(instance, element, acts);
  if (element.type === "startEvent") return "The case begins here.";
  if (element.type === "intermediateCatchEvent")
    return `Waits for ${eventWords(eventDefinitionsOf(model, node)[0]?.type)}.`;
  return "Comes next.";
}

function activityWords({ model, underWay, net }: Instance, element: Element, acts: readonly Act[]): string {
  const one = underWay.get(net.nodes.findIndex((node) => node.id === element.id));
  const edges = acts.some((act) => act.does === "finish" || act.does === "again");
  if (one && loopOf(model, element.id))
    return one.times === undefined
      ? `Is done again and again until it is enough: ${counted(one.finished + 1, "time")} so far.`
      : `Is done for each of ${one.times}: this is number ${Math.min(one.finished + 1, one.times)}.`;
  if (one)
    return isSubProcess(element.type)
      ? "Is under way: it ends when everything inside has ended."
      : "The called process is under way.";
  if (edges) return "Is under way: it is finished, or an event at its edge goes off.";
  const several = outgoingOf(model, element.id).length;
  return several > 1 ? `Is to be done; then the case goes on along several ways at once.` : "Is to be done.";
}

const endWords = (trigger: string | undefined) =>
  trigger === "terminateEventDefinition"
    ? "Ends the whole case at once, whatever else is under way."
    : trigger === "errorEventDefinition"
      ? "Ends this scope with an error, which is caught at its edge or further out."
      : trigger === "cancelEventDefinition"
        ? "Cancels the transaction: what was done in it is undone."
        : "Takes the token: this path has ended.";

const eventWords = (trigger: string | undefined): string =>
  ({
    messageEventDefinition: "a message",
    timerEventDefinition: "a moment in time",
    signalEventDefinition: "a signal",
    conditionalEventDefinition: "a condition to come true",
    linkEventDefinition: "a token from the link of its name",
  })[trigger ?? ""] ?? "its event";

/** An act as a person would say it. */
export function actWords(instance: Instance, act: Act): string {
  const { model } = instance;
  const element = model.elements.get(act.node) as Element;
  const name = nameOf(model, act.node) || wordFor(element.type);
  const ways = act.flows.map(
    (flow) => nameOf(model, flow) || nameOf(model, String(model.elements.get(flow)?.targetRef)) || "on",
  );
  if (act.does === "again") return `${name}: once more`;
  if (act.does === "finish") return `${name}: finished${ways.length > 1 ? `, ${ways.join(" and ")}` : ""}`;
  if (act.does === "begin") return `${name}: begin`;
  if (act.does === "fire") return `${name}: goes off`;
  return ways.length > 0 && element.type.endsWith("Gateway") ? ways.join(" and ") : name;
}
