import { rolesOf } from "../directory";
import {
  attributesOf,
  childrenOf,
  type Element,
  type Id,
  isActivity,
  isFlowNode,
  isoSeconds,
  isSubProcess,
  laneOf,
  type Model,
  outgoingOf,
  systemsOf,
} from "../model";
import { estimatesOf, momentsOf, type Scenario } from "../scenario";
import { type LensField, type LensKind, lensKinds } from "./lens";

/** What is known of one element. What is not known is left out; of several (roles, systems) each counts. */
export interface Facts {
  readonly kinds: readonly LensKind[];
  readonly words: { readonly [field in "name" | "role" | "system" | "lane" | "site"]: readonly string[] };
  readonly amounts: { readonly [field in LensField]?: number };
  readonly own: { readonly [attribute: string]: string };
}

/** What the model itself does not say. */
export interface Surroundings {
  readonly scenario?: Scenario | undefined;
  /** Of a forecast: waiting and cost of steps each time, and how busy who does them is. */
  readonly forecast?:
    | {
        readonly elements: readonly {
          readonly id: Id;
          readonly by: readonly Id[];
          readonly count: number;
          readonly waitingMean: number;
          readonly processingMean: number;
          readonly costTotal: number;
        }[];
        readonly resources: readonly { readonly id: Id; readonly utilization: number }[];
      }
    | undefined;
  /** How many of each stand at an element. */
  readonly findings?: ReadonlyMap<Id, number>;
  readonly comments?: ReadonlyMap<Id, number>;
  readonly cases?: ReadonlyMap<Id, number>;
  readonly incidents?: ReadonlyMap<Id, number>;
  /** Of a log: the share of its cases that go otherwise than modelled at an element. */
  readonly deviates?: ReadonlyMap<Id, number>;
}

/** How many of something stand at each element, by where each stands. O(ids). */
export function countsAt(ids: readonly Id[]): ReadonlyMap<Id, number> {
  const found = new Map<Id, number>();
  for (const id of ids) found.set(id, (found.get(id) ?? 0) + 1);
  return found;
}

const byHand = new Set(["userTask", "manualTask", "task"]);
const bySystem = new Set(["serviceTask", "sendTask", "receiveTask", "scriptTask", "businessRuleTask"]);

function kindsOf(model: Model, element: Element): LensKind[] {
  const { type } = element;
  const isTimer = childrenOf(model, element.id, "eventDefinitions").some((one) => one.type === "timerEventDefinition");
  const holds: { readonly [kind in LensKind]: boolean } = {
    step: isActivity(type),
    byHand: byHand.has(type),
    bySystem: bySystem.has(type),
    decision: type.endsWith("Gateway") && outgoingOf(model, element.id).length > 1,
    event: type.endsWith("Event"),
    timer: isTimer,
    subProcess: isSubProcess(type),
    call: type === "callActivity",
    flow: type === "sequenceFlow",
  };
  return lensKinds.filter((kind) => holds[kind]);
}

/** A number that is no more than counting: where nothing stands, none does. */
const counted = (counts: ReadonlyMap<Id, number> | undefined, id: Id) => (counts ? (counts.get(id) ?? 0) : undefined);

/**
 * What is known of each flow node and sequence flow of a model. Working and waiting times are those of the forecast where there is one,
 * else what the scenario says on average, else the estimate of the step. O(elements + figures).
 */
export function factsOf(model: Model, around: Surroundings): ReadonlyMap<Id, Facts> {
  const { scenario, forecast } = around;
  const estimates = estimatesOf(model);
  const foreseen = new Map(forecast?.elements.map((one) => [one.id, one]));
  const busy = new Map(forecast?.resources.map((one) => [one.id, one.utilization]));
  const facts = new Map<Id, Facts>();
  for (const element of model.elements) {
    const { id, type } = element;
    if (!isFlowNode(type) && type !== "sequenceFlow") continue;
    const isStep = isActivity(type);
    const said = scenario?.of.get(id);
    const mean = (kinds: readonly ("wait" | "transfer" | "queue" | "processing")[]) => {
      const means = kinds.flatMap((kind) =>
        (said?.times[kind] ?? []).slice(0, 1).map((one) => momentsOf(one.value).mean),
      );
      return means.length === 0 ? undefined : means.reduce((sum, one) => sum + one, 0);
    };
    const now = foreseen.get(id);
    const estimate = estimates.get(id);
    const shares = (now?.by ?? []).flatMap((by) => busy.get(by) ?? []);
    const lane = isFlowNode(type) ? laneOf(model, id) : undefined;
    const amounts: { [field in LensField]?: number | undefined } = {
      takes:
        now?.processingMean ?? mean(["processing"]) ?? ((estimate?.time && isoSeconds(estimate.time)) || undefined),
      waits: now?.waitingMean ?? mean(["wait", "transfer", "queue"]),
      costs: now && now.count > 0 ? now.costTotal / now.count : estimate?.cost,
      busy: shares.length > 0 ? Math.max(...shares) : undefined,
      findings: counted(around.findings, id),
      comments: counted(around.comments, id),
      cases: counted(around.cases, id),
      incidents: counted(around.incidents, id),
      deviates: counted(around.deviates, id),
    };
    facts.set(id, {
      kinds: kindsOf(model, element),
      words: {
        name: element.name ? [element.name] : [],
        role: isStep ? rolesOf(model, id).flatMap(({ part, name }) => (part === "responsible" ? [name] : [])) : [],
        system: isStep ? systemsOf(element).map(({ name }) => name) : [],
        lane: lane?.name ? [lane.name] : [],
        site: lane && scenario?.of.get(lane.id)?.site ? [scenario.of.get(lane.id)?.site as string] : [],
      },
      amounts: Object.fromEntries(Object.entries(amounts).filter(([, amount]) => amount !== undefined)),
      own: Object.fromEntries(attributesOf(element).map(({ name, value }) => [name, value])),
    });
  }
  return facts;
}
