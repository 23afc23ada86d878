import { stepSheetOf } from "@/core/capture";
import { type FieldKind, piecesOfProcess } from "@/core/data";
import { roleOfLane } from "@/core/directory";
import {
  type Element,
  entryOf,
  eventDefinitionsOf,
  type Id,
  isActivity,
  laneOf,
  type Model,
  nameOf,
  outgoingOf,
  processesOf,
  systemsOf,
  triggerOf,
} from "@/core/model";
import type { DrawnKind, Input, ParameterName, Scenario } from "@/core/scenario";
import { dataAsked, type World } from "@/core/tokens";
import { typeWord } from "../../messages";

/** What a cell says: of an element, or of what lies between two sites. */
export type CellName = ParameterName | "delay" | "capacity" | "drawn";

/** A row of the scenario sheet: of one element, with the figures that its kind has. */
export interface SheetRow {
  readonly element: Id;
  readonly kind: "start" | "step" | "decision" | "share" | "event" | "people" | "data" | "system" | "way";
  readonly name: string;
  readonly by: string;
  readonly depth: number;
  readonly says: readonly CellName[];
  /** Of a resource: its directory entry. */
  readonly entry?: Id;
  /** Of an answer: the question it answers. */
  readonly question?: string;
  /** What the model itself says: the time of a timer. */
  readonly drawn?: string;
  /** Of a step: who there is to take, by id. */
  readonly people?: ReadonlyMap<Id, string>;
  /** Of a way: the two sites. */
  readonly between?: readonly [from: string, to: string];
  /** Of a piece of data: the process it is of, where in its data it is, and what it can be. */
  readonly data?: {
    readonly process: Id;
    readonly path: string;
    readonly kind: DrawnKind;
    readonly choices?: readonly string[];
  };
}

const hasChoice = (type: string) =>
  type === "exclusiveGateway" ||
  type === "inclusiveGateway" ||
  type === "eventBasedGateway" ||
  type === "complexGateway";

/** The rows in the order of the step sheet: starts first, then steps, decisions and events, at last who does them. O(elements). */
export function sheetRows(model: Model): readonly SheetRow[] {
  const seen = new Set<Id>();
  const sheet = processesOf(model).flatMap(({ id }) => stepSheetOf(model, id));
  const rows = sheet.flatMap((row) => {
    const element = row.kind === "step" && row.element !== undefined ? model.elements.get(row.element) : undefined;
    if (!element || seen.has(element.id)) return [];
    seen.add(element.id);
    return nodeRows(model, element, row.depth);
  });
  const people = [...model.elements].filter(({ type }) => type === "resource").map(peopleRow);
  return [...rows, ...people];
}

/** The rows of one element, as a tray shows them: of a decision its answers, of a flow its share, of a lane those who work in it. */
export function rowsOf(model: Model, element: Element): readonly SheetRow[] {
  if (element.type === "sequenceFlow") {
    const source = model.elements.get(String(element.sourceRef));
    return source ? nodeRows(model, source, 0).filter((row) => row.element === element.id) : [];
  }
  if (element.type !== "lane") return nodeRows(model, element, 0).filter(({ says }) => says.length > 0);
  const role =
    typeof element.partitionElementRef === "string" ? model.elements.get(element.partitionElementRef) : undefined;
  return role?.type === "resource" ? [peopleRow(role)] : [];
}

/** Remembered while a model is the same: every step of a sheet asks. */
const knownPeople = new WeakMap<Model, ReadonlyMap<Id, string>>();
function peopleIn(model: Model): ReadonlyMap<Id, string> {
  const known = knownPeople.get(model);
  if (known) return known;
  const people = new Map(
    [...model.elements].filter(({ type }) => type === "resource").map(({ id, name }) => [id, name ?? id] as const),
  );
  knownPeople.set(model, people);
  return people;
}

function peopleRow(resource: Element): SheetRow {
  const entry = entryOf(resource);
  return {
    element: resource.id,
    kind: "people",
    name: resource.name ?? resource.id,
    by: "",
    depth: 0,
    says: ["quantity", "unitCost", "availability", "site"],
    ...(entry !== undefined && { entry }),
  };
}

/** What can be said of a node, and of the answers of a decision. */
function nodeRows(model: Model, element: Element, depth: number): readonly SheetRow[] {
  const { id, type } = element;
  const called = (one: Id) => nameOf(model, one) || typeWord(model.elements.get(one)?.type ?? "");
  const lane = laneOf(model, id);
  const by = lane ? (roleOfLane(model, lane)?.name ?? nameOf(model, lane.id)) : "";
  const base = { element: id, name: called(id), by, depth };
  if (type === "startEvent") {
    const inProcess = model.elements.get(element.parent ?? "")?.type === "process";
    return inProcess ? [{ ...base, kind: "start", says: ["interval"] }] : [];
  }
  if (isActivity(type)) {
    const hasInside = /ubProcess$|^transaction$/.test(type);
    const isWait = type === "receiveTask";
    const says: readonly CellName[] = isWait
      ? ["wait", "fixedCost"]
      : hasInside
        ? ["fixedCost"]
        : ["processing", "wait", "fixedCost", "selection"];
    return [{ ...base, kind: "step", says, ...(says.includes("selection") && { people: peopleIn(model) }) }];
  }
  if (hasChoice(type)) {
    const outs = outgoingOf(model, id);
    if (outs.length < 2) return [];
    return [
      { ...base, kind: "decision", says: [] },
      ...outs.map(
        (flow): SheetRow => ({
          element: flow.id,
          kind: "share",
          name: nameOf(model, flow.id) || called(String(flow.targetRef)),
          by: "",
          depth: depth + 1,
          says: ["probability"],
          question: base.name,
        }),
      ),
    ];
  }
  if (type !== "intermediateCatchEvent" && type !== "boundaryEvent") return [];
  const trigger = triggerOf(model, element);
  if (trigger === "linkEventDefinition" || trigger === "compensateEventDefinition") return [];
  const isThrown = ["errorEventDefinition", "escalationEventDefinition"].includes(trigger);
  const timer = eventDefinitionsOf(model, id).find((one) => one.type === "timerEventDefinition");
  const drawn = (["timeDuration", "timeDate", "timeCycle"] as const)
    .map((field) => (timer?.[field] as { readonly text?: string } | undefined)?.text)
    .find((text) => text !== undefined);
  return [
    {
      ...base,
      kind: "event",
      says: isThrown ? ["probability"] : ["interval"],
      ...(drawn !== undefined && { drawn }),
    },
  ];
}

/** The systems that are used, and where there are several sites, what lies between each two. O(elements + sites²). */
export function siteRows(model: Model, { of, sites }: Scenario): readonly SheetRow[] {
  const ofPeople = [...of.values()].flatMap(({ site }) => site ?? []);
  const systems = new Map([...model.elements].flatMap(systemsOf).map(({ entry, name }) => [entry, name]));
  const named = [
    ...new Set([...ofPeople, ...sites.ofSystems.values(), ...sites.links.flatMap(({ from, to }) => [from, to])]),
  ];
  const pairs = named.flatMap((from, at) => named.slice(at + 1).map((to) => [from, to] as const));
  const said = ([from, to]: readonly [string, string]) =>
    sites.links.some((link) => link.from === to && link.to === from) ? ([to, from] as const) : ([from, to] as const);
  return [
    ...[...systems].map(
      ([element, name]): SheetRow => ({ element, kind: "system", name, by: "", depth: 0, says: ["site", "capacity"] }),
    ),
    ...pairs.map(said).map(
      (between): SheetRow => ({
        element: between.join(" > "),
        kind: "way",
        name: between.join(" → "),
        by: "",
        depth: 0,
        says: ["delay", "capacity"],
        between,
      }),
    ),
  ];
}

/** What conditions and decisions ask for: pieces of the data of processes, and what nobody has described; and what is drawn already. O(fields + elements). */
export function dataRows(world: World, { of }: Scenario): readonly SheetRow[] {
  const { model } = world;
  const processes = processesOf(model);
  const asked = dataAsked(world);
  return processes.flatMap(({ id }, at) => {
    const drawn = (of.get(id)?.drawn ?? []).map(({ path }) => path);
    const pieces = piecesOfProcess(model, id).filter(
      ({ path, field }) => drawn.includes(path) || asked.has(path.split(".")[0] ?? "") || asked.has(field.name),
    );
    const known = new Set(pieces.flatMap(({ path, field }) => [path, path.split(".")[0] ?? "", field.name]));
    const others = [...(at === 0 ? asked.keys() : []), ...drawn].filter((path) => !known.has(path));
    const row = (path: string, kind: DrawnKind, choices?: readonly string[]): SheetRow => ({
      element: `${id} ${path}`,
      kind: "data",
      name: path.replaceAll(".", " · "),
      by: processes.length > 1 ? nameOf(model, id) : "",
      depth: 0,
      says: ["drawn"],
      data: { process: id, path, kind, ...(choices && { choices }) },
    });
    return [
      ...pieces.map(({ path, field }) => row(path, drawnKinds[field.kind] ?? "text", field.choices)),
      ...[...new Set(others)].map((path) => row(path, askedKinds[asked.get(path) ?? ""])),
    ];
  });
}
const drawnKinds: { readonly [kind in FieldKind]?: DrawnKind } = { number: "number", amount: "number", yesNo: "yesNo" };
const askedKinds: { readonly [type: string]: DrawnKind } = { number: "number", yesNo: "yesNo", text: "text" };

/** The inputs that can be turned: what is said of each row. */
export function inputsOf(
  rows: readonly SheetRow[],
): { readonly input: Input; readonly name: string; readonly what: Input["what"] }[] {
  const turns: { readonly [parameter in CellName]?: Input["what"] } = {
    quantity: "quantity",
    interval: "interval",
    processing: "processing",
    probability: "probability",
  };
  const kinds: readonly Input["what"][] = ["quantity", "interval", "processing", "probability"];
  return rows
    .flatMap((row) =>
      row.says.flatMap((parameter) => {
        const what = turns[parameter];
        return what
          ? [
              {
                input: { element: row.element, what },
                name: row.question ? `${row.question} ${row.name}` : row.name,
                what,
              },
            ]
          : [];
      }),
    )
    .sort((a, b) => kinds.indexOf(a.what) - kinds.indexOf(b.what));
}
