import { z } from "zod";
import { say } from "../../messages";
import { type Figure, figureId, type Model, processesOf, type XmlNode } from "../../model";
import {
  distributionSchema,
  holderIn,
  isZone,
  type ParameterName,
  parameterNames,
  parameters,
  simulationOf,
  spreadSchema,
  takeFigures,
  withCalendar,
  withDrawn,
  withNewScenario,
  withoutScenario,
  withParameter,
  withSites,
  withWords,
} from "../../scenario";
import { type Change, refuse } from "../kernel/change";
import { makeHolder } from "./setEstimate";

const id = z.string().min(1).max(200);
const scenario = id;
/** The scenario that estimates stand in, which a model without any gets with its first word. */
export const firstScenario = "estimates";

export const setAssumptionSchema = z.object({
  type: z.literal("setAssumption"),
  scenario,
  element: id,
  parameter: z.enum(parameterNames as [ParameterName, ...ParameterName[]]),
  /** A distribution (times in seconds, rates for an hour), an expression, or the id of a calendar; null takes it off. */
  value: z.union([distributionSchema, z.string().min(1).max(2_000)]).nullable(),
});
export const addScenarioSchema = z.object({
  type: z.literal("addScenario"),
  id,
  name: z.string().min(1).max(200),
  inherits: id.optional(),
});
export const dropScenarioSchema = z.object({ type: z.literal("dropScenario"), id });
export const setScenarioSchema = z.object({
  type: z.literal("setScenario"),
  id,
  words: z.object({
    name: z.string().min(1).max(200).optional(),
    inherits: id.nullable().optional(),
    currency: z.string().min(1).max(20).optional(),
    replications: z.number().int().min(1).max(10_000).nullable().optional(),
    seed: z.number().int().min(0).max(Number.MAX_SAFE_INTEGER).nullable().optional(),
    start: z.string().max(40).nullable().optional(),
    duration: z.number().min(0).max(1e10).nullable().optional(),
    warmUp: z.number().min(0).max(1e10).nullable().optional(),
    zone: z.string().min(1).max(100).nullable().optional(),
  }),
});
/** A name of a site: what two of them are kept by is written with an arrow between. */
const site = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[^<>]*$/);
export const setSitesSchema = z.object({
  type: z.literal("setSites"),
  scenario,
  words: z.union([
    z.object({
      system: id,
      site: site.nullable().optional(),
      capacity: z.number().int().min(1).max(1_000_000).nullable().optional(),
    }),
    z.object({
      from: site,
      to: site,
      /** Seconds. */
      delay: distributionSchema.nullable().optional(),
      capacity: z.number().int().min(1).max(1_000_000).nullable().optional(),
    }),
  ]),
});
export const setDrawnSchema = z.object({
  type: z.literal("setDrawn"),
  scenario,
  process: id,
  /** The piece of data, by its path: "Connection application.rated power". */
  path: z
    .string()
    .max(1_000)
    .refine((path) => path.split(".").every((part) => part.trim() !== "")),
  /** Null takes it off. */
  spread: spreadSchema.nullable(),
});
export const setCalendarSchema = z.object({
  type: z.literal("setCalendar"),
  scenario,
  id,
  name: z.string().min(1).max(200),
  /** In the iCalendar format; null takes it away. */
  text: z.string().max(200_000).nullable(),
});

/** Says of an element what a scenario assumes. */
export function setAssumption(change: Change, command: z.infer<typeof setAssumptionSchema>): void {
  const { element, parameter, value } = command;
  change.element(element);
  if (value === null && !holderIn(change.model)) return;
  const { as } = parameters[parameter];
  const isText = as === "expression" || as === "calendar" || as === "text";
  if (typeof value === "string" && !isText) refuse("no-value", say`"${value}" is no value for this.`, [element]);
  if (value !== null && typeof value !== "string" && isText)
    refuse("no-value", say`A number is no value for this.`, [element]);
  if (parameter === "probability" && value !== null && typeof value !== "string") {
    const share = value.kind === "constant" ? value.value : Number.NaN;
    if (!(share >= 0 && share <= 1)) refuse("no-share", say`A share is from 0 to 100 %.`, [element]);
  }
  rewrite(change, command.scenario, (data) =>
    withParameter(data, command.scenario, element, parameter, value ?? undefined),
  );
}

export function addScenario(change: Change, { id, name, inherits }: z.infer<typeof addScenarioSchema>): void {
  if (inherits !== undefined) known(change, inherits);
  rewrite(change, undefined, (data) => withNewScenario(data, id, name, inherits));
}

export function dropScenario(change: Change, { id }: z.infer<typeof dropScenarioSchema>): void {
  known(change, id);
  rewrite(change, undefined, (data) => withoutScenario(data, id));
}

export function setScenario(change: Change, { id, words }: z.infer<typeof setScenarioSchema>): void {
  const { name, inherits, currency, replications, seed, start, duration, warmUp, zone } = words;
  if (zone != null && !isZone(zone))
    refuse("no-zone", say`"${zone}" is no known time zone; write it like Europe/Lisbon.`);
  rewrite(change, id, (data) =>
    withWords(data, id, {
      ...(name !== undefined && { name }),
      ...(inherits !== undefined && { inherits }),
      ...(currency !== undefined && { currency }),
      ...(replications !== undefined && { replications }),
      ...(seed !== undefined && { seed }),
      ...(start !== undefined && { start }),
      ...(duration !== undefined && { duration }),
      ...(warmUp !== undefined && { warmUp }),
      ...(zone !== undefined && { zone }),
    }),
  );
}

/** Says where a system is and how many can use it at once, or what lies between two sites. */
export function setSites(change: Change, { scenario, words }: z.infer<typeof setSitesSchema>): void {
  rewrite(change, scenario, (data) =>
    withSites(
      data,
      scenario,
      "system" in words
        ? {
            system: words.system,
            ...(words.site !== undefined && { site: words.site }),
            ...(words.capacity !== undefined && { capacity: words.capacity }),
          }
        : {
            from: words.from,
            to: words.to,
            ...(words.delay !== undefined && { delay: words.delay }),
            ...(words.capacity !== undefined && { capacity: words.capacity }),
          },
    ),
  );
}

/** Says how a piece of data of a process is drawn for each case. */
export function setDrawn(change: Change, { scenario, process, path, spread }: z.infer<typeof setDrawnSchema>): void {
  const { type } = change.element(process);
  if (type !== "process" && type !== "startEvent")
    refuse("no-process", say`Data is drawn for the cases of a process.`, [process]);
  if (spread === null && !holderIn(change.model)) return;
  rewrite(change, scenario, (data) => withDrawn(data, scenario, process, path, spread ?? undefined));
}

export function setCalendar(change: Change, command: z.infer<typeof setCalendarSchema>): void {
  const { id, name, text } = command;
  rewrite(change, command.scenario, (data) =>
    withCalendar(data, command.scenario, { id, name, text: text ?? undefined }),
  );
}

const scenarioIds = (data: readonly XmlNode[]): string[] =>
  data
    .flatMap((node) => ("element" in node ? node.element.children : []))
    .flatMap((node) => ("element" in node && node.element.name.endsWith("Scenario") ? [node.element] : []))
    .flatMap(({ attributes }) => attributes.find(([name]) => name === "id")?.[1] ?? []);

function known(change: Change, scenario: string): void {
  if (!scenarioIds(simulationOf(change.model) ?? []).includes(scenario))
    refuse("no-scenario", say`This scenario is not there any more.`);
}

/** Changes the simulation data as a file has it, and takes the figures of it out again. */
function rewrite(
  change: Change,
  scenario: string | undefined,
  rewritten: (data: readonly XmlNode[]) => readonly XmlNode[],
): void {
  if (!holderIn(change.model)) {
    if (scenario !== undefined && scenario !== firstScenario)
      refuse("no-scenario", say`This scenario is not there any more.`);
    makeHolder(change, processesOf(change.model)[0]?.id ?? change.model.root);
  } else if (scenario !== undefined) known(change, scenario);
  const holder = holderIn(change.model);
  const before = simulationOf(change.model);
  if (!holder || !before) return;
  const { extension, figures } = takeFigures(rewritten(before));
  change.set("elements", holder.id, "extension", extension);
  setFigures(change, figures);
}

function setFigures(change: Change, figures: readonly Figure[]): void {
  const kept = new Set(figures.map(({ id }) => id));
  for (const { id } of [...(change.model as Model).figures]) if (!kept.has(id)) change.remove("figures", id);
  for (const { element, field, value } of figures) {
    const id = figureId(element, field);
    const there = change.model.figures.get(id);
    if (!there) change.insertRecord("figures", { id, element, field, value });
    else if (there.value !== value) change.set("figures", id, "value", value);
  }
}
