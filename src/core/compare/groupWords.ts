import { capital, type Said, say, shortListOf, term } from "../messages";
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
  termFor,
  wordFor,
} from "../model";
import type { Change } from "./changes";
import { isFlow } from "./compared";
import { article, fieldWords } from "./fieldWords";
import type { Draft, Sides } from "./groups";
import type { Regrouped } from "./stars";

const nothing = say``;
const aTerm = (type: string): Said => term(article(wordFor(type)));

/** One change in a sentence, as a manager reads it. */
export const groupWords = (sides: Sides, draft: Draft): Said => capital(wordsOf(sides, draft));

function wordsOf(sides: Sides, draft: Draft): Said {
  const [lead] = draft.changes;
  if (draft.kind === "replaced") return replacedWords(sides, draft);
  if (lead && draft.kind === "new") return newWords(sides, draft, lead);
  if (lead && draft.kind === "gone") return goneWords(sides, draft, lead);
  if (lead && (draft.kind === "changed" || draft.kind === "moved") && lead.to) {
    return say`${subject(sides.to, lead.to.id)} ${changedWords(sides, draft, lead)}.`;
  }
  if (draft.orders.length > 0)
    return joined(draft.orders.map((order) => say`${subject(sides.to, order.step)} ${orderWords(sides, order)}`));
  return reroutedWords(sides, draft);
}

const apart = (parts: readonly Said[]): Said =>
  parts.length === 0 ? nothing : parts.reduce((all, part) => say`${all}; ${part}`);
const joined = (parts: readonly Said[]): Said => say`${apart(parts)}.`;

/** Changed in its own fields, and in how it stands to others. */
function changedWords(sides: Sides, { orders }: Draft, { fields }: Change): Said {
  const told = fields.filter(({ field }) => field !== "lane" || orders.length === 0).map((field) => fieldWords(field));
  const lane = orders.length > 0 ? fields.find(({ field }) => field === "lane") : undefined;
  const moved: Said = lane?.to
    ? say`is now done by ${{ name: lane.to }} `
    : orders.length > 0
      ? say`is now done `
      : nothing;
  const parts: Said[] = [...told];
  if (orders.length > 0) {
    const places = orders.map((order) => placeWords(sides, order));
    parts.unshift(say`${moved}${shortListOf(places)}`);
  }
  return apart(parts);
}

/** "in parallel with A and B", as it follows "is done". */
function placeWords({ to }: Sides, { kind, is, others }: Regrouped): Said {
  const names = shortListOf(others.map((id) => subject(to, id)));
  if (kind === "parallel") return say`in parallel with ${names}`;
  if (kind === "alternative") return say`instead of ${names}, never both`;
  return is === "before" ? say`before ${names}` : say`after ${names}`;
}

function orderWords(sides: Sides, order: Regrouped): Said {
  const { kind, is, others, step } = order;
  const names = shortListOf(others.map((id) => subject(sides.to, id)));
  switch (kind) {
    case "parallel":
      return say`is now done in parallel with ${names}${was(sides, step, others)}`;
    case "alternative":
      return say`is now done instead of ${names}, never both`;
    case "sequential":
      return is === "before"
        ? say`now comes before ${names}${was(sides, step, others)}`
        : say`now comes after ${names}${was(sides, step, others)}`;
    case "reordered":
      return is === "before"
        ? say`now comes before ${names}, no longer after`
        : say`now comes after ${names}, no longer before`;
  }
}

function was({ back, order }: Sides, step: Id, others: readonly Id[]): Said {
  const relations = new Set(others.map((other) => order.from.relation(back.get(step) ?? "", back.get(other) ?? "")));
  const [relation] = relations;
  if (relations.size !== 1) return nothing;
  switch (relation) {
    case "before":
      return say`, no longer before`;
    case "after":
      return say`, no longer after`;
    case "parallel":
      return say`, no longer in parallel`;
    case "alternative":
      return say`, no longer instead`;
    default:
      return nothing;
  }
}

/** A name, or what stands for it: "the parallel gateway after Register". */
export function subject(model: Model, id: Id): Said {
  const name = nameOf(model, id);
  if (name) return say`${{ name }}`;
  const element = model.elements.get(id);
  if (!element) return say`nothing`;
  if (!isFlowNode(element.type)) return aTerm(element.type);
  const host = nameOf(model, String(element.attachedToRef ?? ""));
  if (element.attachedToRef && host) return say`the ${termFor(element.type)} at ${{ name: host }}`;
  const [before] = stepsAround(model, id, "before");
  const [after] = stepsAround(model, id, "after");
  if (incomingOf(model, id).length > 1 && after)
    return say`the ${termFor(element.type)} before ${{ name: nameOf(model, after) }}`;
  if (before) return say`the ${termFor(element.type)} after ${{ name: nameOf(model, before) }}`;
  return aTerm(element.type);
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

const byWhom = (model: Model, id: Id): Said => {
  const lane = laneOf(model, id);
  const name = lane && nameOf(model, lane.id);
  return name ? say` done by ${{ name: name }}` : nothing;
};

/** Beside which steps a new one is done, and after which. */
function whereWords({ to, order }: Sides, id: Id): Said {
  const beside = [...to.elements]
    .filter((other) => isActivity(other.type) && other.parent === to.elements.get(id)?.parent)
    .filter((other) => order.to.relation(id, other.id) === "parallel" && nameOf(to, other.id));
  const before = stepsAround(to, id, "before");
  const after = stepsAround(to, id, "after");
  const parts: Said[] = [];
  if (beside.length > 0 && beside.length < 4)
    parts.push(say`in parallel with ${shortListOf(beside.map((other) => subject(to, other.id)))}`);
  if (before.length > 0)
    parts.push(
      say`after ${shortListOf(
        before.map((other) => subject(to, other)),
        "or",
      )}`,
    );
  else if (after.length > 0)
    parts.push(
      say`before ${shortListOf(
        after.map((other) => subject(to, other)),
        "or",
      )}`,
    );
  return parts.reduce((all, part) => say`${all}, ${part}`, nothing);
}

function newWords(sides: Sides, draft: Draft, lead: Change): Said {
  const { to } = sides;
  const element = to.elements.get(lead.to?.id ?? "") as Element;
  const inside = changedParent(draft, "new");
  if (inside.length > 0)
    return say`${subject(to, element.id)} is new: ${aTerm(element.type)} that takes in ${shortListOf(inside.map((change) => subject(to, change.to?.id ?? "")))}.`;
  const split = sides.split.find(({ id }) => id === element.id);
  const origin = split ? say`, split off from ${shortListOf(split.of.map((id) => subject(sides.from, id)))}` : nothing;
  if (isGateway(element.type)) {
    const ways = outgoingOf(to, element.id).map((flow) => {
      const answer = nameOf(to, flow.id);
      const [target] = isFlowNode(to.elements.get(flow.targetRef as Id)?.type)
        ? [subject(to, flow.targetRef as Id)]
        : [];
      return answer ? say`“${answer}” leads to ${target ?? say`nothing`}` : (target ?? say`nothing`);
    });
    const what = ways.length > 1 ? say`: ${shortListOf(ways)}` : nothing;
    return say`The decision ${subject(to, element.id)} is new${whereWords(sides, element.id)}${what}.`;
  }
  if (element.type === "boundaryEvent")
    return say`${subject(to, element.id)} is new, an event at ${subject(to, String(element.attachedToRef))}${leadingTo(to, element.id)}.`;
  if (isFlowNode(element.type))
    return say`${subject(to, element.id)} is new${origin}: ${aTerm(element.type)}${byWhom(to, element.id)}${whereWords(sides, element.id)}.`;
  return say`The ${termFor(element.type)} ${subject(to, element.id)} is new.`;
}

/** Steps that went into a new sub-process, or came out of one that is gone. */
const changedParent = ({ changes }: Draft, kind: "new" | "gone"): Change[] =>
  changes.filter(
    (change) =>
      change.kind !== kind && isFlowNode(change.to?.type) && change.fields.some(({ field }) => field === "parent"),
  );

function leadingTo(model: Model, id: Id): Said {
  const after = stepsAround(model, id, "after");
  return after.length > 0 ? say`, leading to ${shortListOf(after.map((one) => subject(model, one)))}` : nothing;
}

function goneWords({ from, to, merged }: Sides, draft: Draft, lead: Change): Said {
  const element = from.elements.get(lead.from?.id ?? "") as Element;
  const out = changedParent(draft, "gone");
  if (out.length > 0)
    return say`${subject(from, element.id)} is gone: ${shortListOf(out.map((change) => subject(to, change.to?.id ?? "")))} ${out.length > 1 ? say`stand` : say`stands`} in its place.`;
  const into = merged.find(({ id }) => id === element.id);
  if (into)
    return say`${subject(from, element.id)} is now part of ${shortListOf(into.of.map((id) => subject(to, id)))}.`;
  if (isGateway(element.type)) return say`The decision ${subject(from, element.id)} is gone.`;
  if (isFlowNode(element.type)) {
    const whom = byWhom(from, element.id);
    return say`${subject(from, element.id)}${whom.text !== "" ? say`,${whom},` : nothing} is gone.`;
  }
  return say`The ${termFor(element.type)} ${subject(from, element.id)} is gone.`;
}

function replacedWords({ from, to }: Sides, { changes }: Draft): Said {
  const fresh = changes.find((change) => change.kind === "new" && isFlowNode(change.to?.type))?.to?.id ?? "";
  const old = changes.find((change) => change.kind === "gone" && isFlowNode(change.from?.type))?.from?.id ?? "";
  const [after, before] = [to.elements.get(fresh), from.elements.get(old)];
  const [now, then] = [laneOf(to, fresh), laneOf(from, old)];
  const lanes = [now && nameOf(to, now.id), then && nameOf(from, then.id)];
  const whom =
    lanes[0] && lanes[1] && lanes[0] !== lanes[1]
      ? say` It is done by ${{ name: lanes[0] }}, not by ${{ name: lanes[1] }}.`
      : nothing;
  const types = after && before && after.type !== before.type ? say`, ${aTerm(after.type)},` : nothing;
  return say`${subject(to, fresh)}${types} takes the place of ${subject(from, old)}.${whom}`;
}

/** Ways alone: what leads where now, and no longer does. */
function reroutedWords({ from, to }: Sides, { changes }: Draft): Said {
  const gateways = changes.filter((change) => !isFlow((change.to ?? change.from)?.type ?? ""));
  const fresh = gateways.filter((change) => change.kind === "new").map((change) => subject(to, change.to?.id ?? ""));
  const gone = gateways
    .filter((change) => change.kind === "gone")
    .map((change) => subject(from, change.from?.id ?? ""));
  const parts: Said[] = [];
  if (fresh.length > 0) parts.push(say`${shortListOf(fresh)} ${fresh.length > 1 ? say`are` : say`is`} new`);
  if (gone.length > 0) parts.push(say`${shortListOf(gone)} ${gone.length > 1 ? say`are` : say`is`} gone`);
  const defaults = changes.filter((change) => change.fields.some(({ field }) => field === "default"));
  if (gateways.length === defaults.length)
    for (const change of changes) {
      if (isFlow((change.to ?? change.from)?.type ?? "")) parts.push(wayWords(from, to, change));
      else parts.push(say`${subject(to, change.to?.id ?? "")} ${apart(change.fields.map(fieldWords))}`);
    }
  return joined(parts);
}

function wayWords(from: Model, to: Model, change: Change): Said {
  const model = change.to ? to : from;
  const flow = model.elements.get((change.to ?? change.from)?.id ?? "") as Element;
  const answer = nameOf(model, flow.id);
  const way = flow.type === "messageFlow" ? say`message` : say`way`;
  const ends = say`from ${subject(model, String(flow.sourceRef))} to ${subject(model, String(flow.targetRef))}`;
  const called = answer ? say` “${answer}”` : nothing;
  if (change.kind === "new") return say`a ${way}${called} leads ${ends} now`;
  if (change.kind === "gone") return say`the ${way}${called} ${ends} is gone`;
  const old = from.elements.get(change.from?.id ?? "");
  const target = change.fields.some(({ field }) => field === "target");
  if (target && old)
    return say`after ${subject(to, String(flow.sourceRef))} comes ${subject(to, String(flow.targetRef))} instead of ${subject(from, String(old.targetRef))}`;
  return say`the ${way}${called} ${ends} ${apart(change.fields.map(fieldWords))}`;
}
