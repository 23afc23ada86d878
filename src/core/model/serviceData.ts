import type { Element, Id } from "./element";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";

/**
 * What we keep of services beside the standard's interfaces, operations and messages: where one that exists was read from, and of one
 * that could be built what it comes from and what was decided about it.
 */
/** Where an interface that exists outside was read from. */
export interface DescriptionSource {
  /** The file's name. */
  readonly source: string;
  readonly format: string;
  /** The version its author gave it; "" for none. */
  readonly version: string;
}

export function descriptionOf(element: Element): DescriptionSource | undefined {
  const node = ownNodes(element, "description")[0];
  const source = node && attribute(node, "source");
  if (!node || source === undefined) return undefined;
  return { source, format: attribute(node, "format") ?? "", version: attribute(node, "version") ?? "" };
}

export function withDescription(element: Element, { source, format, version }: DescriptionSource) {
  return replaced(element, "description", [
    ownElement("description", [
      ["source", source],
      ["format", format],
      ["version", version],
    ]),
  ]);
}

/** One piece of data in a message, by the description it was read from. */
export interface DataField {
  readonly name: string;
  readonly type: string;
  readonly isRequired: boolean;
}

export function dataFieldsOf(element: Element): DataField[] {
  return ownNodes(element, "field").flatMap((node) => {
    const name = attribute(node, "name");
    if (name === undefined) return [];
    return [{ name, type: attribute(node, "type") ?? "", isRequired: attribute(node, "required") === "true" }];
  });
}

export function withDataFields(element: Element, fields: readonly DataField[]) {
  return replaced(
    element,
    "field",
    fields.map(({ name, type, isRequired }) =>
      ownElement("field", [
        ["name", name],
        ["type", type],
        ["required", String(isRequired)],
      ]),
    ),
  );
}

/** How an operation that exists outside is reached: method and path, or the style of its binding. The standard's own place holds a name only. */
export function addressOf(operation: Element): string {
  const node = ownNodes(operation, "address")[0];
  return (node && attribute(node, "is")) ?? "";
}

export function withAddress(operation: Element, address: string) {
  return replaced(operation, "address", address === "" ? [] : [ownElement("address", [["is", address]])]);
}

/** What gives a piece of data that a call needs, or takes one that it gives, where the names do not tell. */
export interface FieldUse {
  readonly direction: "in" | "out";
  readonly field: string;
  /** A document of the step, or words of a person. */
  readonly is: string;
}

export function fieldUsesOf(step: Element): FieldUse[] {
  return ownNodes(step, "maps").flatMap((node) => {
    const [field, is] = [attribute(node, "field"), attribute(node, "is")];
    if (field === undefined || is === undefined) return [];
    return [{ direction: attribute(node, "direction") === "out" ? "out" : "in", field, is }];
  });
}

export function withFieldUses(step: Element, uses: readonly FieldUse[]) {
  return replaced(
    step,
    "maps",
    uses.map(({ direction, field, is }) =>
      ownElement("maps", [
        ["direction", direction],
        ["field", field],
        ["is", is],
      ]),
    ),
  );
}

/** What is to come of a candidate service. */
export const decisions = ["build", "buy", "reuse", "leave"] as const;
export interface Decision {
  readonly what: (typeof decisions)[number];
  readonly reason: string;
  readonly member: string;
  /** ISO 8601, a day. */
  readonly date: string;
}

/** Of an interface that is a candidate service: the lane, activity or process it was derived from, and what was said of it. */
export interface CandidateSource {
  readonly of: Id;
  readonly decision: Decision | undefined;
  /** Figures by criterion, where somebody gave one by hand. */
  readonly figures: { readonly [criterion: string]: number };
}

export function candidateSourceOf(element: Element): CandidateSource | undefined {
  const node = ownNodes(element, "candidate")[0];
  const of = node && attribute(node, "of");
  if (!node || of === undefined) return undefined;
  const what = decisions.find((one) => one === attribute(node, "decision"));
  const said = (name: string) => attribute(node, name) ?? "";
  return {
    of,
    decision: what && { what, reason: said("reason"), member: said("member"), date: said("date") },
    figures: Object.fromEntries(
      ownNodes(element, "figure").flatMap((figure) => {
        const value = Number(attribute(figure, "value"));
        return Number.isFinite(value) ? [[attribute(figure, "criterion") ?? "", value]] : [];
      }),
    ),
  };
}

export function withCandidateSource(element: Element, { of, decision, figures }: CandidateSource) {
  const candidate = ownElement("candidate", [
    ["of", of],
    ...(decision
      ? ([
          ["decision", decision.what],
          ["reason", decision.reason],
          ["member", decision.member],
          ["date", decision.date],
        ] as const)
      : []),
  ]);
  const extension = replaced(element, "candidate", [candidate]);
  return replaced(
    { ...element, ...(extension && { extension }) },
    "figure",
    Object.entries(figures).map(([criterion, value]) =>
      ownElement("figure", [
        ["criterion", criterion],
        ["value", String(value)],
      ]),
    ),
  );
}

/** The activity an operation of a candidate comes from; undefined for one that somebody added. */
export function tracedTo(operation: Element): Id | undefined {
  const node = ownNodes(operation, "trace")[0];
  return node && attribute(node, "of");
}

export function withTrace(operation: Element, of: Id) {
  return replaced(operation, "trace", [ownElement("trace", [["of", of]])]);
}

/** How much a criterion counts when candidates are weighed, and whether more of it speaks for one. */
export interface Weight {
  readonly criterion: string;
  readonly weight: number;
  readonly isLessBetter: boolean;
}

/** The weights of a model's candidates; none where nobody said any. */
export function weightsOf(definitions: Element): Weight[] {
  return ownNodes(definitions, "weight").flatMap((node) => {
    const [criterion, weight] = [attribute(node, "criterion"), Number(attribute(node, "value"))];
    if (criterion === undefined || !(weight >= 0)) return [];
    return [{ criterion, weight, isLessBetter: attribute(node, "better") === "less" }];
  });
}

export function withWeights(definitions: Element, weights: readonly Weight[]) {
  return replaced(
    definitions,
    "weight",
    weights.map(({ criterion, weight, isLessBetter }) =>
      ownElement("weight", [
        ["criterion", criterion],
        ["value", String(weight)],
        ["better", isLessBetter ? "less" : "more"],
      ]),
    ),
  );
}
