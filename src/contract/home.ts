import { z } from "zod";
import type { BriefSummary } from "@/core/brief";
import type { Summary } from "@/core/check";
import type { BuildState } from "@/core/handoff";
import type { LandscapeLink } from "@/core/landscape";
import { area, asks, type Done, named, process, version, workspace } from "./contract";
import { id, name } from "./inputs";

export interface HomeArea {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  /** Processes in it and in what it holds. */
  readonly processes: number;
}

/** What a process needs: worst first. */
export const needs = ["opening", "mending", "looking", "nothing"] as const;
export type Need = (typeof needs)[number];

export interface HomeProcess {
  readonly id: string;
  readonly name: string;
  readonly area: string;
  readonly need: Need;
  /** How much of its description the models account for; null where it has none, or it is not counted yet. */
  readonly brief: BriefSummary | null;
}

export interface HomeVersion {
  readonly id: string;
  readonly process: string;
  readonly kind: "as-is" | "to-be";
  readonly name: string;
  readonly source: string | null;
  readonly changedAt: string;
  readonly sequence: number;
  /** The last kept state; 0 where none is. */
  readonly revision: number;
  readonly handedOff: number;
  readonly live: { readonly runs: number; readonly incidents: number; readonly logs: number };
  /** Threads of comments that are open. */
  readonly comments: number;
  /** How its last round of review stands; lapsed where it was changed since. */
  readonly review: "asked" | "approved" | "rejected" | "lapsed" | null;
  /** How its build copies stood when they were last looked at: the one that asks for somebody first; null where it has none. */
  readonly builds: BuildState | null;
  /** Why it cannot be opened; null where it can. */
  readonly damaged: string | null;
  /** As last counted; null where it never was. */
  readonly summary: Summary | null;
}

export const homeOrders = ["own", "name", "changed", "findings"] as const;
export type HomeOrder = (typeof homeOrders)[number];

/** Processes shown at a time. */
export const homePage = 50;

export interface HomeData {
  readonly areas: readonly HomeArea[];
  /** Processes that were asked for: how many there are, and those from the wanted place on. */
  readonly total: number;
  readonly processes: readonly HomeProcess[];
  /** The versions of these processes. */
  readonly versions: readonly HomeVersion[];
  /** Versions shown whose numbers are being counted anew; asked again, they are there. */
  readonly counting: number;
}

/** What the table is put in groups by. */
export const homeGroups = ["none", "area", "need"] as const;
export type HomeGroup = (typeof homeGroups)[number];

/** Processes of one area that are drawn, at most; the table has all. */
export const mapShare = 40;

export interface MapArea extends Omit<HomeArea, "processes"> {
  /** Processes in it itself, and those of them that need attention. */
  readonly processes: number;
  readonly attention: number;
}

/** One end of a link on the map: a process that is drawn, or an area, for those of its processes that are not. */
export interface MapEnd {
  readonly of: "process" | "area";
  readonly id: string;
}

export interface MapLink extends Pick<LandscapeLink, "kind" | "names"> {
  readonly from: MapEnd;
  readonly to: MapEnd;
  /** How many links of single processes it stands for. */
  readonly count: number;
}

/** All processes as a map: areas as lanes, processes in those that are open, and what leads from one to another. */
export interface MapData {
  readonly areas: readonly MapArea[];
  /** The areas whose processes are given. */
  readonly unfolded: readonly string[];
  readonly processes: readonly HomeProcess[];
  readonly versions: readonly HomeVersion[];
  readonly links: readonly MapLink[];
  readonly total: number;
  /** Processes that need attention: something in them cannot be opened, an error or warning is open, or a kept walk goes otherwise. */
  readonly attention: number;
  readonly counting: number;
}

/** Areas, processes, versions: what there is. */
export const home = named({
  /** Areas, and a page of the processes in one of them, or in all. */
  openHome: asks<HomeData>()({
    input: z.object({
      area: id.nullable().default(null),
      /** A part of the name. */
      text: z.string().trim().max(100).default(""),
      order: z.enum(homeOrders).default("own"),
      group: z.enum(homeGroups).default("none"),
      /** Only those that need attention. */
      needing: z.boolean().default(false),
      from: z.number().int().min(0).max(1_000_000).default(0),
      count: z.number().int().min(1).max(200).default(homePage),
    }),
    right: "read",
    on: () => [workspace],
  }),
  createArea: asks<Done>()({
    input: z.object({ id, name, parent: id.nullable() }),
    right: "arrange",
    on: ({ parent }) => [parent === null ? workspace : area(parent)],
  }),
  renameArea: asks<Done>()({ input: z.object({ id, name }), right: "arrange", on: (input) => [area(input.id)] }),
  moveArea: asks<Done>()({
    input: z.object({ id, parent: id.nullable() }),
    right: "arrange",
    on: ({ id, parent }) => [area(id), parent === null ? workspace : area(parent)],
  }),
  /** What is in the area goes with it, and comes back with it. */
  deleteArea: asks<{ at: string }>()({
    input: z.object({ id }),
    right: "arrange",
    on: (input) => [area(input.id)],
  }),
  createProcess: asks<{ process: string; version: string }>()({
    input: z.object({ name, area: id, processId: id.optional(), versionId: id.optional(), bpmnId: id.optional() }),
    right: "arrange",
    on: (input) => [area(input.area)],
  }),
  renameProcess: asks<Done>()({
    input: z.object({ id, name }),
    right: "arrange",
    on: (input) => [process(input.id)],
  }),
  moveProcess: asks<Done>()({
    input: z.object({ id, area: id }),
    right: "arrange",
    on: (input) => [process(input.id), area(input.area)],
  }),
  copyProcess: asks<{ process: string; version: string }>()({
    input: z.object({ id, name, area: id }),
    right: "arrange",
    on: (input) => [process(input.id), area(input.area)],
  }),
  deleteProcess: asks<{ at: string }>()({
    input: z.object({ id }),
    right: "arrange",
    on: (input) => [process(input.id)],
  }),
  deleteVersion: asks<{ at: string }>()({
    input: z.object({ id }),
    right: "arrange",
    on: (input) => [version(input.id)],
  }),
  /** Everything that went at one moment comes back. */
  undelete: asks<Done>()({
    input: z.object({ at: z.iso.datetime({ offset: true }) }),
    right: "arrange",
    on: () => [workspace],
  }),
  /** All processes as a map. Without `unfolded` all areas are open, or none where they hold too much for one look. */
  openMap: asks<MapData>()({
    input: z.object({ unfolded: z.array(id).max(500).nullable().default(null) }),
    right: "read",
    on: () => [workspace],
  }),
});
