import { type DocumentUse, documentsOf, type RoleAssignment, roleOfLane, rolesOf } from "../directory";
import {
  connectionsOf,
  durationWords,
  type Element,
  type Expression,
  eventDefinitionsOf,
  type Id,
  laneOf,
  type Model,
  nameOf,
  participantOf,
  systemsOf,
  timerWords,
  type UsedSystem,
} from "../model";
import { estimatesOf } from "../scenario";

/** What the columns of a step's row show. */
export interface StepCells {
  readonly name: string;
  /** Who is responsible; for what is no activity, whose lane it stands in. */
  readonly by: readonly Pick<RoleAssignment, "name" | "entry" | "from" | "element">[];
  /** The outside party that a message comes from or goes to. */
  readonly outside: string;
  readonly uses: readonly UsedSystem[];
  readonly needs: readonly DocumentUse[];
  readonly gives: readonly DocumentUse[];
  readonly guidance: string;
  /** How long it takes, in words, and what it costs; empty where nobody has said. */
  readonly time: string;
  readonly cost: string;
  /** What a timer waits for, in words; undefined for what is no timer. */
  readonly waits: string | undefined;
}

const remembered = new WeakMap<Model, Map<Id, StepCells>>();

/** The cells of a step's row. Remembered by model, since a table asks for the same rows again as it is scrolled. */
export function cellsOf(model: Model, step: Id): StepCells {
  let byStep = remembered.get(model);
  if (!byStep) {
    byStep = new Map();
    remembered.set(model, byStep);
  }
  let cells = byStep.get(step);
  if (!cells) {
    cells = readCells(model, step);
    byStep.set(step, cells);
  }
  return cells;
}

function readCells(model: Model, step: Id): StepCells {
  const element = model.elements.get(step) as Element;
  const documents = documentsOf(model, step);
  const estimate = estimatesOf(model).get(step);
  return {
    name: nameOf(model, step),
    by: byOf(model, step),
    outside: outsideParties(model, step),
    uses: systemsOf(element),
    needs: documents.filter((use) => use.direction === "in"),
    gives: documents.filter((use) => use.direction === "out"),
    guidance: element.documentation?.[0]?.text ?? "",
    time: estimate?.time === undefined ? "" : durationWords(estimate.time),
    cost: estimate?.cost === undefined ? "" : String(estimate.cost),
    waits: waitsOf(model, step),
  };
}

function waitsOf(model: Model, step: Id): string | undefined {
  const timer = eventDefinitionsOf(model, step).find(({ type }) => type === "timerEventDefinition");
  if (!timer) return undefined;
  for (const field of ["timeDate", "timeDuration", "timeCycle"] as const) {
    const said = (timer[field] as Expression | undefined)?.text;
    if (said) return timerWords(field, said);
  }
  return "";
}

function byOf(model: Model, step: Id): StepCells["by"] {
  // What sits at the edge of a step is nobody's work of its own.
  if (model.elements.get(step)?.type === "boundaryEvent") return [];
  const responsible = rolesOf(model, step).filter((role) => role.part === "responsible");
  if (responsible.length > 0) return responsible;
  const lane = laneOf(model, step);
  const role = lane && roleOfLane(model, lane);
  return lane && role ? [{ ...role, from: "lane", element: lane.id }] : [];
}

function outsideParties(model: Model, step: Id): string {
  const pools = connectionsOf(model, step).flatMap((flow) => {
    if (flow.type !== "messageFlow") return [];
    const other = flow.sourceRef === step ? flow.targetRef : flow.sourceRef;
    const pool = participantOf(model, other as Id);
    return pool ? [nameOf(model, pool.id)] : [];
  });
  return [...new Set(pools)].join(", ");
}
