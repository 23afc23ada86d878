import { rules } from "../check";
import { rolesOf } from "../directory";
import { type Said, say } from "../messages";
import {
  calledProcessOf,
  calledVersionOf,
  childrenOf,
  dataFieldsOf,
  decidedBy,
  type Element,
  eventDefinitionsOf,
  foreignExtension,
  formOf,
  type Id,
  isA,
  laneOf,
  type Model,
  nameOf,
  outgoingOf,
  participantOf,
  typeInfo,
  wordFor,
} from "../model";
import { bindingOf, mappingOf, unmappedOf } from "../services";
import { writeTable } from "../table";

/** What a machine needs to be told of an element before it can do it. */
export const needNames = [
  "operation",
  "mapping",
  "script",
  "role",
  "form",
  "decision",
  "condition",
  "time",
  "process",
  "trigger",
  "payload",
  "correlation",
  "catch",
  "instances",
  "type",
] as const;
export type NeedName = (typeof needNames)[number];

/** Who can give what is missing: the analyst knows the business, the developer the systems. */
export type Giver = "analyst" | "developer";

export interface Need {
  readonly name: NeedName;
  readonly isThere: boolean;
  /** What is there, or what is missing. */
  readonly says: Said;
  readonly from: Giver;
}

export interface ChecklistRow {
  readonly element: Id;
  readonly name: string;
  /** The kind of element, in words. */
  readonly kind: string;
  /** The lane or pool that it is in; "" for none. */
  readonly role: string;
  readonly needs: readonly Need[];
}

export interface Checklist {
  readonly rows: readonly ChecklistRow[];
  readonly there: number;
  readonly needed: number;
}

/**
 * What a machine needs of each element of a model, what is there and what is missing. Where a rule of the check asks for the same,
 * the rule decides, so the two never say different things.
 * Source: BPMN 2.0, chapters 10 and 13 (what an executable process has), from memory. O(elements).
 */
export function checklistOf(model: Model): Checklist {
  const broken = brokenRules(model);
  const rows = [...model.elements].flatMap((element): ChecklistRow[] => {
    const needs = needsOf(model, element, (rule) => broken.get(rule)?.has(element.id) === true);
    if (needs.length === 0) return [];
    return [
      {
        element: element.id,
        name: rowName(model, element),
        kind: element.type === "sequenceFlow" ? "answer" : wordFor(element.type),
        role: roleName(model, element),
        needs,
      },
    ];
  });
  const all = rows.flatMap(({ needs }) => needs);
  return { rows, there: all.filter(({ isThere }) => isThere).length, needed: all.length };
}

const asked = new Set([
  "nothing-to-run",
  "no-role",
  "no-condition",
  "condition-in-words",
  "timer-without-time",
  "timer-in-words",
  "no-called-process",
  "trigger-unnamed",
  "throw-without-catch",
  "instances-uncounted",
]);

/** The elements each of the rules found something about. */
function brokenRules(model: Model): Map<string, Set<Id>> {
  return new Map(
    rules
      .filter(({ id }) => asked.has(id))
      .map((rule) => [rule.id, new Set(rule.find(model).flatMap(({ elements }) => elements))]),
  );
}

type Breaks = (rule: string) => boolean;

function needsOf(model: Model, element: Element, breaks: Breaks): Need[] {
  if (element.type === "sequenceFlow") return flowNeeds(model, element, breaks);
  if (element.type === "dataObject") return [typeNeed(model, element)];
  return [
    ...taskNeeds(model, element, breaks),
    ...eventNeeds(model, element, breaks),
    ...repetitionNeeds(model, element, breaks),
  ];
}

const need = (name: NeedName, isThere: boolean, from: Giver, there: Said, missing: Said): Need => ({
  name,
  isThere,
  from,
  says: isThere ? there : missing,
});

function taskNeeds(model: Model, element: Element, breaks: Breaks): Need[] {
  switch (element.type) {
    case "serviceTask":
    case "sendTask":
    case "receiveTask": {
      const bound = bindingOf(model, element);
      const there = bound
        ? say`${bound.operation.name ?? bound.operation.id} of ${bound.interface.name ?? bound.interface.id}`
        : say`a message`;
      const needed = mappingOf(model, element).filter(({ direction, isRequired }) => direction === "in" && isRequired);
      const unmapped = unmappedOf(model, element).map(({ name }) => name);
      const given = say`${needed.map(({ name, is }) => `${name}: ${is}`).join(", ")}`;
      return [
        need("operation", !breaks("nothing-to-run"), "developer", there, say`the operation it calls`),
        ...(needed.length > 0
          ? [need("mapping", unmapped.length === 0, "analyst", given, say`what ${unmapped.join(", ")} is`)]
          : []),
      ];
    }
    case "scriptTask":
      return [need("script", !breaks("nothing-to-run"), "developer", say`a script`, say`the script it runs`)];
    case "businessRuleTask": {
      const by = decidedBy(element);
      const isThere = by !== undefined || isSaid(element.implementation) || speaksOf(element, /decision|rule|dmn/i);
      return [
        need(
          "decision",
          isThere,
          "analyst",
          by ? say`${by.name}` : say`a decision`,
          say`the decision table it decides by`,
        ),
      ];
    }
    case "userTask": {
      const roles = rolesOf(model, element.id).filter(({ part }) => part === "responsible");
      const isForm =
        formOf(element) !== undefined ||
        speaksOf(element, /form/i) ||
        childrenOf(model, element.id).some(({ type }) => type === "rendering");
      return [
        need("role", !breaks("no-role"), "analyst", say`${roles.map(({ name }) => name).join(", ")}`, say`who does it`),
        need("form", isForm, "analyst", say`a form`, say`the form it is filled in with`),
      ];
    }
    case "callActivity": {
      const process = calledProcessOf(element)?.name ?? (element.calledElement as string | undefined) ?? "";
      const version = calledVersionOf(element)?.name;
      const there = version ? say`${process}, ${version}` : say`${process}`;
      return [need("process", !breaks("no-called-process"), "analyst", there, say`the process it calls`)];
    }
    default:
      return [];
  }
}

function flowNeeds(model: Model, flow: Element, breaks: Breaks): Need[] {
  const source = model.elements.get(flow.sourceRef as Id);
  const text = (flow.conditionExpression as { readonly text: string } | undefined)?.text.trim() ?? "";
  const isAnswer =
    isA(source, "exclusiveGateway", "inclusiveGateway") &&
    outgoingOf(model, source.id).length > 1 &&
    source.default !== flow.id;
  if (!isAnswer && text === "") return [];
  const isThere = text !== "" && !breaks("no-condition") && !breaks("condition-in-words");
  const missing =
    text === "" ? say`its condition` : say`a condition a machine can decide: “${text.slice(0, 120)}” is not`;
  return [need("condition", isThere, "analyst", say`${text.slice(0, 120)}`, missing)];
}

function eventNeeds(model: Model, element: Element, breaks: Breaks): Need[] {
  const isEvent = typeInfo(element.type).content.has("eventDefinitions");
  const isReceiving = element.type === "receiveTask";
  if (!isEvent && !isReceiving) return [];
  const needs: Need[] = [];
  for (const definition of eventDefinitionsOf(model, element.id)) {
    if (definition.type === "timerEventDefinition") {
      const time = [definition.timeDate, definition.timeDuration, definition.timeCycle] as (
        | { text: string }
        | undefined
      )[];
      const text = time.find((one) => one?.text)?.text ?? "";
      const isThere = !breaks("timer-without-time") && !breaks("timer-in-words");
      const missing = text === "" ? say`when it goes off` : say`a time in ISO 8601: “${text}” is words`;
      needs.push(need("time", isThere, "analyst", say`${text}`, missing));
    }
    const named = triggerWords[definition.type];
    if (named) {
      const what = model.elements.get((definition[named.field] as Id | undefined) ?? "");
      needs.push(
        need(
          "trigger",
          !breaks("trigger-unnamed"),
          "analyst",
          say`${what?.name ?? named.word}`,
          say`which ${named.word}`,
        ),
      );
    }
    if (definition.type === "messageEventDefinition") needs.push(...messageNeeds(model, element, definition));
    if (
      (definition.type === "errorEventDefinition" || definition.type === "escalationEventDefinition") &&
      (element.type === "endEvent" || element.type === "intermediateThrowEvent")
    )
      needs.push(need("catch", !breaks("throw-without-catch"), "analyst", say`caught`, say`who catches it`));
  }
  if (isReceiving && element.messageRef !== undefined) needs.push(...messageNeeds(model, element, element));
  return needs;
}

const triggerWords: { readonly [type: string]: { readonly field: string; readonly word: string } } = {
  messageEventDefinition: { field: "messageRef", word: "message" },
  signalEventDefinition: { field: "signalRef", word: "signal" },
  errorEventDefinition: { field: "errorRef", word: "error" },
  escalationEventDefinition: { field: "escalationRef", word: "escalation" },
};

/** What a message carries; and, where a case that runs already waits for it, how the case is found. */
function messageNeeds(model: Model, element: Element, holder: Element): Need[] {
  const message = model.elements.get((holder.messageRef as Id | undefined) ?? "");
  const item = message && model.elements.get((message.itemRef as Id | undefined) ?? "");
  const fields = item ? dataFieldsOf(item) : [];
  const isTyped = item !== undefined && (isSaid(item.structureRef) || fields.length > 0);
  const there =
    fields.length > 0 ? say`${fields.map(({ name }) => name).join(", ")}` : say`${String(item?.structureRef ?? "")}`;
  const needs = [need("payload", isTyped, "analyst", there, say`what the message carries`)];
  const waits =
    element.type === "intermediateCatchEvent" || element.type === "boundaryEvent" || element.type === "receiveTask";
  if (waits && element.instantiate !== true) {
    const isFound = [...model.elements].some(
      ({ type }) => type === "correlationKey" || type === "correlationSubscription",
    );
    needs.push(need("correlation", isFound, "developer", say`a key`, say`by what its case is found`));
  }
  return needs;
}

function repetitionNeeds(model: Model, element: Element, breaks: Breaks): Need[] {
  const loop = childrenOf(model, element.id).find(({ type }) => type === "multiInstanceLoopCharacteristics");
  if (!loop) return [];
  const count = (loop.loopCardinality as { readonly text: string } | undefined)?.text;
  const data = model.elements.get((loop.loopDataInputRef as Id | undefined) ?? "");
  const there =
    count === undefined ? say`each of ${(data && nameOf(model, data.id)) || "its data"}` : say`${count} times`;
  return [need("instances", !breaks("instances-uncounted"), "analyst", there, say`for how many, or for each of what`)];
}

function typeNeed(model: Model, data: Element): Need {
  const item = model.elements.get((data.itemSubjectRef as Id | undefined) ?? "");
  const isTyped = item !== undefined && (isSaid(item.structureRef) || dataFieldsOf(item).length > 0);
  return need(
    "type",
    isTyped,
    "developer",
    say`${String(item?.structureRef ?? "its fields")}`,
    say`of which fields it is made`,
  );
}

const isSaid = (value: unknown): boolean =>
  typeof value === "string" && value.trim() !== "" && value !== "##unspecified";

/** Whether somebody else's attributes or elements with an element speak of something, whatever tool they are for. */
function speaksOf(element: Element, what: RegExp): boolean {
  const names = [
    ...(element.foreignAttributes ?? []).map(([name]) => name),
    ...foreignExtension(element).flatMap((node) => ("element" in node ? [node.element.name] : [])),
  ];
  return names.some((name) => what.test(name.slice(name.indexOf(":") + 1)));
}

function roleName(model: Model, element: Element): string {
  const holder = element.type === "sequenceFlow" ? (element.sourceRef as Id) : element.id;
  const lane = laneOf(model, holder);
  const pool = participantOf(model, holder);
  return (lane && nameOf(model, lane.id)) || (pool && nameOf(model, pool.id)) || "";
}

function rowName(model: Model, element: Element): string {
  if (element.type !== "sequenceFlow") return nameOf(model, element.id) || element.id;
  const source = nameOf(model, element.sourceRef as Id);
  return [source, element.name || "…"].filter((part) => part !== "").join(" → ");
}

/** What each need is called, in a heading. */
export const needWords: { readonly [name in NeedName]: string } = {
  operation: "Operation",
  script: "Script",
  role: "Role",
  form: "Form",
  decision: "Decision",
  condition: "Condition",
  time: "Time",
  process: "Called process",
  trigger: "Trigger",
  mapping: "Data of the call",
  payload: "Message content",
  correlation: "Correlation",
  catch: "Catch",
  instances: "Instances",
  type: "Data type",
};

const headings = ["Element", "Kind", "Role", "Needs", "State", "What", "From", "Id"] as const;

const linesOf = ({ rows }: Checklist) =>
  rows.flatMap((row) =>
    row.needs.map((one) => [
      row.name,
      row.kind,
      row.role,
      needWords[one.name],
      one.isThere ? "there" : "missing",
      one.says.text,
      one.isThere ? "" : one.from,
      row.element,
    ]),
  );

/** As a table with a line for each need. */
export const checklistCsv = (checklist: Checklist): string => writeTable([[...headings], ...linesOf(checklist)]);

/** What is missing comes first, by who gives it; then what is there. */
export function checklistMarkdown(checklist: Checklist, title: string): string {
  const cell = (text: string) => text.replace(/[\\|*_`<>[\]]/g, "\\$&").replace(/\s+/g, " ");
  const lines = linesOf(checklist);
  const table = (of: typeof lines) =>
    of.length === 0
      ? "Nothing.\n"
      : `| Element | Kind | Role | Needs | What |\n| --- | --- | --- | --- | --- |\n${of
          .map(
            ([name, kind, role, needs, , what]) =>
              `| ${[name, kind, role, needs, what].map((text) => cell(text ?? "")).join(" | ")} |`,
          )
          .join("\n")}\n`;
  const from = (giver: string) => lines.filter((line) => line[6] === giver);
  return `# ${cell(title)}: ready for automation\n\n${checklist.there} of ${checklist.needed} things a machine needs are there (${readyShare(checklist)} %).\n\n## Missing, from the analyst\n\n${table(from("analyst"))}\n## Missing, from the developer\n\n${table(from("developer"))}\n## There\n\n${table(lines.filter((line) => line[4] === "there"))}`;
}

/** How much of what is needed is there, in whole per cent; a hundred only where nothing is missing. */
export const readyShare = ({ there, needed }: Checklist): number =>
  needed === 0 ? 100 : Math.floor((100 * there) / needed);
