import {
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  isSubProcess,
  type Model,
  outgoingOf,
  processesOf,
} from "../model";
import { scopeNetOf } from "../tokens";
import { verbObject } from "./rules/verbObject";
import { reduced } from "./soundness/reduce";

export type MeasureId =
  | "nodes"
  | "starts"
  | "ends"
  | "degree"
  | "inclusive"
  | "structured"
  | "verbObject"
  | "complexity";

/** A figure that says how hard a process is to understand. */
export interface Measure {
  readonly id: MeasureId;
  readonly value: number;
  /** The published threshold, where there is one: at most, or at least, this much. */
  readonly atMost?: number;
  readonly atLeast?: number;
  readonly source: string;
}

const guidelines = (number: string) =>
  `Mendling, Reijers, van der Aalst, “Seven process modeling guidelines (7PMG)”, Information and Software Technology 52 (2010), ${number}`;

/**
 * The measures behind the seven process modelling guidelines, and control-flow complexity. Structuredness is the share of nodes that
 * reduction takes out (J. Mendling, "Metrics for Process Models", 2008). Thresholds from memory; where the source gives none, none is
 * given. O(nodes + flows).
 */
export function measuresOf(model: Model, process: Id): Measure[] {
  const scopes = [process, ...subProcessesIn(model, process)];
  const nodes = scopes.flatMap((scope) => flowNodesIn(model, scope));
  const gateways = nodes.filter((node) => node.type.endsWith("Gateway"));
  const top = flowNodesIn(model, process);
  const degrees = gateways.map((node) => incomingOf(model, node.id).length + outgoingOf(model, node.id).length);
  const steps = nodes.filter((node) => isActivity(node.type) && node.name);
  const unclear = new Set(verbObject.find(model).flatMap(({ elements }) => elements));
  const clear = steps.filter((step) => !unclear.has(step.id)).length;
  return [
    { id: "nodes", value: nodes.length, atMost: 50, source: guidelines("G1 and G7") },
    { id: "degree", value: Math.max(0, ...degrees), source: guidelines("G2") },
    {
      id: "starts",
      value: top.filter((node) => node.type === "startEvent").length,
      atMost: 1,
      source: guidelines("G3"),
    },
    { id: "ends", value: top.filter((node) => node.type === "endEvent").length, atMost: 1, source: guidelines("G3") },
    { id: "structured", value: structuredness(model, scopes), atLeast: 1, source: guidelines("G4") },
    {
      id: "inclusive",
      value: gateways.filter((node) => node.type === "inclusiveGateway").length,
      atMost: 0,
      source: guidelines("G5"),
    },
    { id: "verbObject", value: steps.length === 0 ? 1 : clear / steps.length, atLeast: 1, source: guidelines("G6") },
    {
      id: "complexity",
      value: controlFlowComplexity(model, gateways),
      source: "J. Cardoso, “Control-flow complexity measurement of processes and Weyuker's properties” (2005)",
    },
  ];
}

/** Processes that have steps, which are what can be measured. */
export const measurable = (model: Model): Id[] =>
  processesOf(model)
    .map((process) => process.id)
    .filter((process) => flowNodesIn(model, process).length > 0);

function subProcessesIn(model: Model, scope: Id): Id[] {
  return flowNodesIn(model, scope)
    .filter((node) => isSubProcess(node.type))
    .flatMap((node) => [node.id, ...subProcessesIn(model, node.id)]);
}

/** 1 where everything is made of blocks; below, the share of nodes that are. */
function structuredness(model: Model, scopes: readonly Id[]): number {
  let whole = 0;
  let left = 0;
  for (const scope of scopes) {
    const net = scopeNetOf(model, scope);
    whole += net.nodes.length;
    // Start, end and events at edges stay in any net, and so does what they hang at.
    left += reduced(net).net.nodes.filter((node) => /^(exclusive|parallel|inclusive|complex)$/.test(node.kind)).length;
  }
  return whole === 0 ? 1 : 1 - left / whole;
}

/** Cardoso: an exclusive split adds its ways, an inclusive one all their combinations, a parallel one 1. */
function controlFlowComplexity(model: Model, gateways: readonly { readonly id: Id; readonly type: string }[]): number {
  return gateways.reduce((sum, { id, type }) => {
    const ways = outgoingOf(model, id).length;
    if (ways < 2) return sum;
    if (type === "parallelGateway") return sum + 1;
    return sum + (type === "inclusiveGateway" || type === "complexGateway" ? 2 ** Math.min(ways, 30) - 1 : ways);
  }, 0);
}
