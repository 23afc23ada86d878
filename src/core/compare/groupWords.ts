import {
  type Element,
  type Id,
  incomingOf,
  isActivity,
  isEvent,
  isFlowNode,
  isGateway,
  laneOf,
  type Model,
  nameOf,
  outgoingOf,
  wordFor,
} from "../model";
import type { Change } from "./changes";
import { isFlow } from "./compared";
import { article, fieldWords } from "./fieldWords";
import type { Draft, Sides } from "./groups";
import { listed, named, type Phrase, phrase } from "./phrases";
import type { Regrouped } from "./stars";

/** One change in a sentence, as a manager reads it. */
export const groupWords = (sides: Sides, draft: Draft): Phrase => capital(wordsOf(sides, draft));

function wordsOf(sides: Sides, draft: Draft): Phrase {
  const [lead] = draft.changes;
  if (draft.kind === "replaced") return replacedWords(sides, draft);
  if (lead && draft.kind === "new") return newWords(sides, draft, lead);
  if (lead && draft.kind === "gone") return goneWords(sides, draft, lead);
  if (lead && (draft.kind === "changed" || draft.kind === "moved") && lead.to) {
    return phrase`${subject(sides.to, lead.to.id)} ${changedWords(sides, draft, lead)}.`;
  }
  if (draft.orders.length > 0)
    return joined(draft.orders.map((order) => phrase`${subject(sides.to, order.step)} ${orderWords(sides, order)}`));
  return reroutedWords(sides, draft);
}

const joined = (parts: readonly Phrase[]): Phrase => [
  ...parts.flatMap((part, at): Phrase => (at === 0 ? part : ["; ", ...part])),
  ".",
];

/** Changed in its own fields, and in how it stands to others. */
function changedWords(sides: Sides, { orders }: Draft, { fields }: Change): Phrase {
  const told = fields.filter(({ field }) => field !== "lane" || orders.length === 0).map((field) => fieldWords(field));
  const lane = orders.length > 0 ? fields.find(({ field }) => field === "lane") : undefined;
  const moved: Phrase = lane?.to
    ? phrase`is now done by ${named(lane.to)} `
    : orders.length > 0
      ? ["is now done "]
      : [];
  const parts: Phrase[] = told.map((words) => [words]);
  if (orders.length > 0) {
    const places = orders.map((order) => placeWords(sides, order));
    parts.unshift([...moved, ...listed(places)]);
  }
  return parts.flatMap((part, at): Phrase => (at === 0 ? part : ["; ", ...part]));
}

/** "in parallel with A and B", as it follows "is done". */
function placeWords({ to }: Sides, { kind, is, others }: Regrouped): Phrase {
  const names = listed(others.map((id) => subject(to, id)));
  if (kind === "parallel") return phrase`in parallel with ${names}`;
  if (kind === "alternative") return phrase`instead of ${names}, never both`;
  return is === "before" ? phrase`before ${names}` : phrase`after ${names}`;
}

function orderWords(sides: Sides, order: Regrouped): Phrase {
  const { kind, is, others, step } = order;
  const names = listed(others.map((id) => subject(sides.to, id)));
  switch (kind) {
    case "parallel":
      return phrase`is now done in parallel with ${names}${was(sides, step, others)}`;
    case "alternative":
      return phrase`is now done instead of ${names}, never both`;
    case "sequential":
      return phrase`now comes ${is} ${names}${was(sides, step, others)}`;
    case "reordered":
      return phrase`now comes ${is} ${names}, no longer ${is === "before" ? "after" : "before"}`;
  }
}

function was({ back, order }: Sides, step: Id, others: readonly Id[]): string {
  const relations = new Set(others.map((other) => order.from.relation(back.get(step) ?? "", back.get(other) ?? "")));
  const [relation] = relations;
  if (relations.size !== 1) return "";
  switch (relation) {
    case "before":
      return ", no longer before";
    case "after":
      return ", no longer after";
    case "parallel":
      return ", no longer in parallel";
    case "alternative":
      return ", no longer instead";
    default:
      return "";
  }
}

/** A name, or what stands for it: "the parallel gateway after Register". */
export function subject(model: Model, id: Id): Phrase {
  const name = nameOf(model, id);
  if (name) return named(name);
  const element = model.elements.get(id);
  if (!element) return ["nothing"];
  if (!isFlowNode(element.type)) return [article(wordFor(element.type))];
  const host = nameOf(model, String(element.attachedToRef ?? ""));
  if (element.attachedToRef && host) return phrase`the ${wordFor(element.type)} at ${named(host)}`;
  const [before] = stepsAround(model, id, "before");
  const [after] = stepsAround(model, id, "after");
  if (incomingOf(model, id).length > 1 && after)
    return phrase`the ${wordFor(element.type)} before ${named(nameOf(model, after))}`;
  if (before) return phrase`the ${wordFor(element.type)} after ${named(nameOf(model, before))}`;
  return [article(wordFor(element.type))];
}

/** The nearest named steps before or after a node, gateways passed over. */
export function stepsAround(model: Model, id: Id, side: "before" | "after"): Id[] {
  const found: Id[] = [];
  const seen = new Set([id]);
  const queue = [id];
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    const flows = side === "before" ? incomingOf(model, at) : outgoingOf(model, at);
    for (const flow of flows) {
      const next = (side === "before" ? flow.sourceRef : flow.targetRef) as Id;
      if (seen.has(next)) continue;
      seen.add(next);
      const node = model.elements.get(next);
      if (node && (isActivity(node.type) || isEvent(node.type)) && nameOf(model, next)) found.push(next);
      else queue.push(next);
    }
  }
  return found;
}

const byWhom = (model: Model, id: Id): Phrase => {
  const lane = laneOf(model, id);
  const name = lane && nameOf(model, lane.id);
  return name ? phrase` done by ${named(name)}` : [];
};

/** Beside which steps a new one is done, and after which. */
function whereWords({ to, order }: Sides, id: Id): Phrase {
  const beside = [...to.elements]
    .filter((other) => isActivity(other.type) && other.parent === to.elements.get(id)?.parent)
    .filter((other) => order.to.relation(id, other.id) === "parallel" && nameOf(to, other.id));
  const before = stepsAround(to, id, "before");
  const after = stepsAround(to, id, "after");
  const parts: Phrase[] = [];
  if (beside.length > 0 && beside.length < 4)
    parts.push(phrase`in parallel with ${listed(beside.map((other) => subject(to, other.id)))}`);
  if (before.length > 0)
    parts.push(
      phrase`after ${listed(
        before.map((other) => subject(to, other)),
        "or",
      )}`,
    );
  else if (after.length > 0)
    parts.push(
      phrase`before ${listed(
        after.map((other) => subject(to, other)),
        "or",
      )}`,
    );
  return parts.flatMap((part): Phrase => [", ", ...part]);
}

function newWords(sides: Sides, draft: Draft, lead: Change): Phrase {
  const { to } = sides;
  const element = to.elements.get(lead.to?.id ?? "") as Element;
  const inside = changedParent(draft, "new");
  if (inside.length > 0)
    return phrase`${subject(to, element.id)} is new: ${article(wordFor(element.type))} that takes in ${listed(inside.map((change) => subject(to, change.to?.id ?? "")))}.`;
  const split = sides.split.find(({ id }) => id === element.id);
  const origin = split ? phrase`, split off from ${listed(split.of.map((id) => subject(sides.from, id)))}` : [];
  if (isGateway(element.type)) {
    const ways = outgoingOf(to, element.id).map((flow) => {
      const answer = nameOf(to, flow.id);
      const [target] = isFlowNode(to.elements.get(flow.targetRef as Id)?.type)
        ? [subject(to, flow.targetRef as Id)]
        : [];
      return answer ? phrase`“${answer}” leads to ${target ?? ["nothing"]}` : (target ?? ["nothing"]);
    });
    const what = ways.length > 1 ? phrase`: ${listed(ways)}` : [];
    return phrase`The decision ${subject(to, element.id)} is new${whereWords(sides, element.id)}${what}.`;
  }
  if (element.type === "boundaryEvent")
    return phrase`${subject(to, element.id)} is new, an event at ${subject(to, String(element.attachedToRef))}${leadingTo(to, element.id)}.`;
  if (isFlowNode(element.type))
    return phrase`${subject(to, element.id)} is new${origin}: ${article(wordFor(element.type))}${byWhom(to, element.id)}${whereWords(sides, element.id)}.`;
  return phrase`The ${wordFor(element.type)} ${subject(to, element.id)} is new.`;
}

/** Steps that went into a new sub-process, or came out of one that is gone. */
const changedParent = ({ changes }: Draft, kind: "new" | "gone"): Change[] =>
  changes.filter(
    (change) =>
      change.kind !== kind && isFlowNode(change.to?.type) && change.fields.some(({ field }) => field === "parent"),
  );

function leadingTo(model: Model, id: Id): Phrase {
  const after = stepsAround(model, id, "after");
  return after.length > 0 ? phrase`, leading to ${listed(after.map((one) => subject(model, one)))}` : [];
}

function goneWords({ from, to, merged }: Sides, draft: Draft, lead: Change): Phrase {
  const element = from.elements.get(lead.from?.id ?? "") as Element;
  const out = changedParent(draft, "gone");
  if (out.length > 0)
    return phrase`${subject(from, element.id)} is gone: ${listed(out.map((change) => subject(to, change.to?.id ?? "")))} ${out.length > 1 ? "stand" : "stands"} in its place.`;
  const into = merged.find(({ id }) => id === element.id);
  if (into) return phrase`${subject(from, element.id)} is now part of ${listed(into.of.map((id) => subject(to, id)))}.`;
  if (isGateway(element.type)) return phrase`The decision ${subject(from, element.id)} is gone.`;
  if (isFlowNode(element.type)) {
    const whom = byWhom(from, element.id);
    return phrase`${subject(from, element.id)}${whom.length > 0 ? phrase`,${whom},` : []} is gone.`;
  }
  return phrase`The ${wordFor(element.type)} ${subject(from, element.id)} is gone.`;
}

function replacedWords({ from, to }: Sides, { changes }: Draft): Phrase {
  const fresh = changes.find((change) => change.kind === "new" && isFlowNode(change.to?.type))?.to?.id ?? "";
  const old = changes.find((change) => change.kind === "gone" && isFlowNode(change.from?.type))?.from?.id ?? "";
  const [after, before] = [to.elements.get(fresh), from.elements.get(old)];
  const [now, then] = [laneOf(to, fresh), laneOf(from, old)];
  const lanes = [now && nameOf(to, now.id), then && nameOf(from, then.id)];
  const whom =
    lanes[0] && lanes[1] && lanes[0] !== lanes[1]
      ? phrase` It is done by ${named(lanes[0])}, not by ${named(lanes[1])}.`
      : [];
  const types = after && before && after.type !== before.type ? `, ${article(wordFor(after.type))},` : "";
  return phrase`${subject(to, fresh)}${types} takes the place of ${subject(from, old)}.${whom}`;
}

/** Ways alone: what leads where now, and no longer does. */
function reroutedWords({ from, to }: Sides, { changes }: Draft): Phrase {
  const gateways = changes.filter((change) => !isFlow((change.to ?? change.from)?.type ?? ""));
  const fresh = gateways.filter((change) => change.kind === "new").map((change) => subject(to, change.to?.id ?? ""));
  const gone = gateways
    .filter((change) => change.kind === "gone")
    .map((change) => subject(from, change.from?.id ?? ""));
  const parts: Phrase[] = [];
  if (fresh.length > 0) parts.push(phrase`${listed(fresh)} ${fresh.length > 1 ? "are" : "is"} new`);
  if (gone.length > 0) parts.push(phrase`${listed(gone)} ${gone.length > 1 ? "are" : "is"} gone`);
  const defaults = changes.filter((change) => change.fields.some(({ field }) => field === "default"));
  if (gateways.length === defaults.length)
    for (const change of changes) {
      if (isFlow((change.to ?? change.from)?.type ?? "")) parts.push(wayWords(from, to, change));
      else parts.push(phrase`${subject(to, change.to?.id ?? "")} ${change.fields.map(fieldWords).join("; ")}`);
    }
  return joined(parts);
}

function wayWords(from: Model, to: Model, change: Change): Phrase {
  const model = change.to ? to : from;
  const flow = model.elements.get((change.to ?? change.from)?.id ?? "") as Element;
  const answer = nameOf(model, flow.id);
  const way = flow.type === "messageFlow" ? "message" : "way";
  const ends = phrase`from ${subject(model, String(flow.sourceRef))} to ${subject(model, String(flow.targetRef))}`;
  const called = answer ? ` “${answer}”` : "";
  if (change.kind === "new") return phrase`a ${way}${called} leads ${ends} now`;
  if (change.kind === "gone") return phrase`the ${way}${called} ${ends} is gone`;
  const old = from.elements.get(change.from?.id ?? "");
  const target = change.fields.some(({ field }) => field === "target");
  if (target && old)
    return phrase`after ${subject(to, String(flow.sourceRef))} comes ${subject(to, String(flow.targetRef))} instead of ${subject(from, String(old.targetRef))}`;
  return phrase`the ${way}${called} ${ends} ${change.fields.map(fieldWords).join("; ")}`;
}

function capital([first, ...rest]: Phrase): Phrase {
  return typeof first === "string"
    ? [first.charAt(0).toUpperCase() + first.slice(1), ...rest]
    : first
      ? [first, ...rest]
      : [];
}
