import { z } from "zod";
import type { BriefSummary } from "@/core/brief";
import type { Summary } from "@/core/check";
import type { LandscapePicture } from "@/core/landscape";
import { area, asks, type Done, named, process, version, workspace } from "./contract";
import { id, name } from "./inputs";

export interface HomeArea {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  /** Processes in it and in what it holds. */
  readonly processes: number;
}

export interface HomeProcess {
  readonly id: string;
  readonly name: string;
  readonly area: string;
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

export interface LandscapeData extends Omit<LandscapePicture, "boxes"> {
  readonly boxes: readonly (LandscapePicture["boxes"][number] & { readonly version: string })[];
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
  /** Which process calls which, and which sends messages to which. */
  openLandscape: asks<LandscapeData>()({ input: z.object({}), right: "read", on: () => [workspace] }),
});
