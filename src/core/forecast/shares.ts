import type { Said } from "../messages";
import { type Element, nameOf } from "../model";
import type { Scenario } from "../scenario";
import type { Compiled } from "../tokens";
import { isDecidedByData } from "./caseData";
import { type Gaps, inProportion, takenWords } from "./gaps";

/**
 * Shares of the ways out of a node, by flow: as they are said; what is left goes to the default, or evenly to those of which nothing is
 * said. O(its ways out).
 */
export function shareWays(
  scenario: Scenario,
  gaps: Gaps,
  { net, elements, model }: Compiled,
  node: number,
  shares: Float64Array,
  names: ReadonlySet<string>,
): void {
  const { kind, outs, conditional } = net.nodes[node] ?? { kind: "end", outs: [], conditional: [] };
  const element = elements[node] as Element;
  const isOne = kind === "exclusive";
  const isSome = kind === "inclusive" || kind === "complex";
  const asked = isOne || isSome ? outs : conditional;
  if (asked.length < (isOne || isSome ? 2 : 1)) return;
  const isRace = element.type === "eventBasedGateway";
  const said = asked.map((flow) => {
    const { id, to } = net.flows[flow] ?? {};
    const target = to === undefined ? undefined : elements[to];
    // Behind an event-based gateway the share may be said of the event as well.
    const ofTarget = isRace && target ? scenario.of.get(target.id)?.probability : undefined;
    return (id === undefined ? undefined : scenario.of.get(id)?.probability) ?? ofTarget;
  });
  if (isRace && said.every((share) => share === undefined)) return;
  const missing = asked.filter((_, at) => said[at] === undefined);
  const isDefault = (flow: number) => net.flows[flow]?.id === element.default;
  const isByData = (isOne || isSome) && isDecidedByData(model, element, names);
  const tell = (taken: Said = takenWords.evenShares) =>
    isByData || gaps.add("share", element.id, nameOf(model, element.id) || element.id, taken);
  if (!isOne) {
    if (missing.length > 0 && !missing.every(isDefault)) tell();
    asked.forEach((flow, at) => {
      shares[flow] = said[at] ?? (isDefault(flow) ? 0 : 0.5);
    });
    return;
  }
  const sum = said.reduce<number>((all, share) => all + (share ?? 0), 0);
  const fallback = asked.find(isDefault);
  const left = Math.max(0, 1 - sum);
  const restTo =
    fallback !== undefined && missing.includes(fallback) && missing.length < asked.length ? [fallback] : missing;
  if (missing.length > 1 || missing.length === asked.length) tell();
  asked.forEach((flow, at) => {
    shares[flow] = said[at] ?? (restTo.includes(flow) ? left / restTo.length : 0);
  });
  const whole = asked.reduce((all, flow) => all + (shares[flow] as number), 0);
  // Thirds that were rounded make a whole.
  if (whole === 0) tell();
  else if (Math.abs(whole - 1) > 0.005) tell(inProportion(Number((whole * 100).toPrecision(3))));
  for (const flow of asked) shares[flow] = whole > 0 ? (shares[flow] as number) / whole : 1 / asked.length;
}
