import { documentsOf, rolesOf } from "../directory";
import {
  childrenOf,
  type Element,
  type Expression,
  eventDefinitionsOf,
  foreignExtension,
  type Id,
  isFlowNode,
  laneOf,
  type Model,
  nameOf,
  participantOf,
  referrersOf,
  sameJson,
  systemsOf,
  wordFor,
} from "../model";
import { isCompared } from "./compared";
import { decisionLine, formLines, heldLines } from "./dataLines";
import { article, fieldWords } from "./fieldWords";
import { type MatchBy, matchElements } from "./match";

export type ComparedField =
  | "name"
  | "type"
  | "lane"
  | "parent"
  | "source"
  | "target"
  | "condition"
  | "default"
  | "documentation"
  | "roles"
  | "systems"
  | "documents"
  | "timer"
  | "markers"
  | "extension"
  | "decision"
  | "form"
  | "holds";

export interface FieldChange {
  readonly field: ComparedField;
  readonly from: string;
  readonly to: string;
  /** The same for programs, where a type is among the words: types as the standard writes them. */
  readonly standard?: { readonly from: string; readonly to: string };
}

export interface Named {
  readonly id: Id;
  readonly type: string;
  readonly name: string;
}

/** One element's difference. `from` is on the old side, `to` on the new one. */
export interface Change {
  readonly kind: "new" | "gone" | "changed" | "moved";
  readonly from?: Named;
  readonly to?: Named;
  readonly fields: readonly FieldChange[];
  /** In a sentence, as a manager reads it. */
  readonly words: string;
}

export interface Comparison {
  /** The elements taken for the same, from the old side to the new one. */
  readonly pairs: ReadonlyMap<Id, Id>;
  readonly changes: readonly Change[];
  readonly unchanged: number;
}

/**
 * What differs between two models, element by element and field by field. Geometry is no difference. O(elements).
 * References are compared through the matching: a flow that still leads to the same step has not changed, whatever its id.
 */
export function compareModels(from: Model, to: Model, by?: MatchBy): Comparison {
  const pairs = matchElements(from, to, by);
  const matched = new Set(pairs.values());
  const changes: Change[] = [];
  let unchanged = 0;
  for (const after of inOrder(to)) {
    if (matched.has(after.id)) continue;
    const named = namedOf(to, after);
    changes.push({ kind: "new", to: named, fields: [], words: `${said(to, after)} is new${placeWords(to, after)}.` });
  }
  for (const before of inOrder(from)) {
    const other = pairs.get(before.id);
    if (other === undefined) {
      changes.push({ kind: "gone", from: namedOf(from, before), fields: [], words: `${said(from, before)} is gone.` });
      continue;
    }
    const after = to.elements.get(other) as Element;
    const fields = fieldChanges(from, before, to, after, pairs);
    if (fields.length === 0) unchanged++;
    else {
      changes.push({
        kind: fields.some(({ field }) => field === "lane" || (field === "parent" && poolOf(to, after)))
          ? "moved"
          : "changed",
        from: namedOf(from, before),
        to: namedOf(to, after),
        fields,
        words: `${said(to, after)} ${fields.map((field) => fieldWords(field).text).join("; ")}.`,
      });
    }
  }
  const rank = { moved: 0, new: 1, gone: 2, changed: 3 } as const;
  const flowLast = (change: Change) => ((change.to ?? change.from)?.type.endsWith("Flow") ? 1 : 0);
  changes.sort((a, b) => flowLast(a) - flowLast(b) || rank[a.kind] - rank[b.kind]);
  return { pairs, changes, unchanged };
}

const inOrder = (model: Model) =>
  [...model.elements].filter(isCompared).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

function namedOf(model: Model, element: Element): Named {
  return { id: element.id, type: element.type, name: nameOf(model, element.id) };
}

/** An element as a sentence begins with it. */
function said(model: Model, element: Element): string {
  const name = nameOf(model, element.id);
  if (element.type === "sequenceFlow" || element.type === "messageFlow") {
    const end = (id: unknown) => {
      const target = model.elements.get(String(id));
      return target ? nameOf(model, target.id) || article(wordFor(target.type)) : "nowhere";
    };
    return `The ${wordFor(element.type)}${name ? ` “${name}”` : ""} from ${end(element.sourceRef)} to ${end(element.targetRef)}`;
  }
  return name || `A ${wordFor(element.type)}`;
}

function placeWords(model: Model, element: Element): string {
  if (element.type.endsWith("Flow") || element.type === "participant") return "";
  const lane = element.type === "lane" ? undefined : laneOf(model, element.id);
  return `, ${article(wordFor(element.type))}${lane && nameOf(model, lane.id) ? ` done by ${nameOf(model, lane.id)}` : ""}`;
}

function fieldChanges(
  from: Model,
  before: Element,
  to: Model,
  after: Element,
  pairs: ReadonlyMap<Id, Id>,
): FieldChange[] {
  const found: FieldChange[] = [];
  const compare = (field: ComparedField, first: string, second: string) => {
    if (first !== second) found.push({ field, from: first, to: second });
  };
  /** The same thing on both sides is no change even if it is called differently; its own entry says that. */
  const reference = (field: ComparedField, first: Id | undefined, second: Id | undefined) => {
    if (first === undefined && second === undefined) return;
    if (first !== undefined && second !== undefined && (pairs.get(first) ?? first) === second) return;
    const named = (words: (type: string) => string) => {
      const name = (model: Model, id: Id | undefined) =>
        id === undefined ? "" : nameOf(model, id) || words(model.elements.get(id)?.type ?? id);
      return { from: name(from, first), to: name(to, second) };
    };
    const [told, standard] = [named(wordFor), named((type) => type)];
    found.push({ field, ...told, ...(sameJson(told, standard) ? {} : { standard }) });
  };
  compare("name", nameOf(from, before.id), nameOf(to, after.id));
  const [kind, otherKind] = [typeWords(from, before), typeWords(to, after)];
  if (kind !== otherKind) {
    const standard = { from: standardType(from, before), to: standardType(to, after) };
    found.push({ field: "type", from: kind, to: otherKind, standard });
  }
  if (!before.type.endsWith("Flow")) reference("lane", laneIdOf(from, before), laneIdOf(to, after));
  const scope = (model: Model, element: Element) => {
    const parent = model.elements.get(element.parent ?? "");
    return parent && isCompared(parent) ? parent.id : undefined;
  };
  const [pool, otherPool] = [poolOf(from, before), poolOf(to, after)];
  if (pool && otherPool && scope(from, before) === undefined && scope(to, after) === undefined)
    reference("parent", pool, otherPool);
  else reference("parent", scope(from, before), scope(to, after));
  if (before.type.endsWith("Flow")) {
    reference("source", before.sourceRef as Id, after.sourceRef as Id);
    reference("target", before.targetRef as Id, after.targetRef as Id);
  }
  compare("condition", conditionOf(before), conditionOf(after));
  reference("default", before.default as Id | undefined, after.default as Id | undefined);
  compare("documentation", documentationOf(before), documentationOf(after));
  compare("roles", rolesWords(from, before), rolesWords(to, after));
  compare(
    "systems",
    systemsOf(before)
      .map((system) => system.name)
      .sort()
      .join(", "),
    systemsOf(after)
      .map((system) => system.name)
      .sort()
      .join(", "),
  );
  compare("documents", documentWords(from, before), documentWords(to, after));
  compare("timer", timerOf(from, before), timerOf(to, after));
  compare("markers", markersOf(from, before), markersOf(to, after));
  compare("decision", decisionLine(before), decisionLine(after));
  compare("form", formLines(before), formLines(after));
  compare("holds", heldLines(from, before), heldLines(to, after));
  if (!sameJson(technical(before), technical(after)))
    found.push({ field: "extension", from: JSON.stringify(technical(before)), to: JSON.stringify(technical(after)) });
  return found;
}

/** The pool a step stands in right away: where there are pools without lanes, nothing else says who does it. */
function poolOf(model: Model, element: Element): Id | undefined {
  if (!isFlowNode(element.type) || model.elements.get(element.parent ?? "")?.type !== "process") return undefined;
  return participantOf(model, element.id)?.id;
}

function laneIdOf(model: Model, element: Element): Id | undefined {
  if (element.type === "lane" || element.type === "participant") return undefined;
  // What stands inside a sub-process or at a step's edge goes where that goes; only the outer one has moved.
  const isListed = referrersOf(model, element.id, "flowNodeRef").length > 0;
  return isListed ? laneOf(model, element.id)?.id : undefined;
}

function typeWords(model: Model, element: Element): string {
  const triggers = eventDefinitionsOf(model, element.id).map((definition) =>
    wordFor(definition.type).replace(" event definition", ""),
  );
  return [triggers.join(" and "), wordFor(element.type)].filter(Boolean).join(" ");
}

const conditionOf = (element: Element) => (element.conditionExpression as Expression | undefined)?.text.trim() ?? "";
const documentationOf = (element: Element) =>
  (element.documentation ?? []).map((documentation) => documentation.text).join("\n");

function rolesWords(model: Model, element: Element): string {
  return rolesOf(model, element.id)
    .filter((role) => role.from === "step")
    .map((role) => `${role.name} ${role.part}`)
    .sort()
    .join(", ");
}

function documentWords(model: Model, element: Element): string {
  return documentsOf(model, element.id)
    .map((document) => `${document.name} (${document.direction === "in" ? "needed" : "given"})`)
    .sort()
    .join(", ");
}

function timerOf(model: Model, element: Element): string {
  return eventDefinitionsOf(model, element.id)
    .flatMap((definition) =>
      (["timeDate", "timeDuration", "timeCycle"] as const).flatMap(
        (field) => (definition[field] as Expression | undefined)?.text ?? [],
      ),
    )
    .join(", ");
}

function markersOf(model: Model, element: Element): string {
  const loop = childrenOf(model, element.id, "loopCharacteristics")[0];
  return [
    loop?.type === "standardLoopCharacteristics" && "looped",
    loop?.type === "multiInstanceLoopCharacteristics" &&
      (loop.isSequential === true ? "done for each in turn" : "done for each at once"),
    element.isForCompensation === true && "for compensation",
    element.triggeredByEvent === true && "set off by an event",
    element.cancelActivity === false && "non-interrupting",
    element.isInterrupting === false && "non-interrupting",
  ]
    .filter(Boolean)
    .join(", ");
}

/** Attributes and extension elements of others: what developers add. */
function technical(element: Element) {
  return { attributes: element.foreignAttributes ?? [], elements: foreignExtension(element) };
}

/** A type and what triggers it, in the standard's own names. */
function standardType(model: Model, element: Element): string {
  return [element.type, ...eventDefinitionsOf(model, element.id).map(({ type }) => type)].join(", ");
}
