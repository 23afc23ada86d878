import { z } from "zod";
import { lensSchema } from "@/core/lens";
import { area, asks, named, version, workspace } from "./contract";
import { id, revisionNumber } from "./inputs";
import { mostLenses } from "./lenses";

/** A process that was here already when a file was read, and has its process id; `isEqual`: it holds the very same. */
export interface SameProcess {
  readonly version: string;
  readonly name: string;
  readonly isEqual: boolean;
}

const bytes = z.instanceof(Uint8Array);
const exported = z.object({ version: id, revision: revisionNumber.optional() });
const here = (input: { readonly version: string }) => [version(input.version)];

/** What goes in and out as files. */
export const files = named({
  /** A BPMN file, or a step sheet as CSV, becomes a process. */
  importFile: asks<{ process: string; version: string; same: SameProcess | null }>()({
    input: z.object({
      name: z.string().min(1).max(300),
      area: id,
      bytes,
      /** Aborted when who asked for it has given up: reading ends, and nothing is kept. */
      signal: z.instanceof(AbortSignal).optional(),
    }),
    right: "arrange",
    on: (input) => [area(input.area)],
  }),
  /** A BPMN file becomes a to-be of the process that a version belongs to, beside that version. */
  importToBe: asks<{ version: string }>()({
    input: z.object({
      source: id,
      name: z.string().min(1).max(200),
      bytes,
      signal: z.instanceof(AbortSignal).optional(),
    }),
    right: "arrange",
    on: ({ source }) => [version(source)],
  }),
  exportBpmn: asks<{ text: string }>()({ input: exported, right: "read", on: here }),
  /** The step sheet of a version's first process, or of the one that is named. */
  exportSheet: asks<{ text: string }>()({
    input: exported.extend({ process: z.string().optional() }),
    right: "read",
    on: here,
  }),
  /** A page of a version, or some of its elements, as a picture or on paper. */
  exportPicture: asks<{ bytes: Uint8Array }>()({
    input: exported.extend({
      format: z.enum(["svg", "png", "pdf"]),
      diagram: z.string().optional(),
      scale: z.number().min(1).max(4).default(1),
      paper: z.enum(["A4", "A3"]).default("A4"),
      spread: z.enum(["fit", "tile"]).default("fit"),
      legend: z.boolean().default(true),
      elements: z.array(z.string()).max(20_000).default([]),
      /** What lenses mark, as it is seen. */
      lenses: z
        .array(
          lensSchema
            .pick({ name: true, pen: true, line: true, sign: true })
            .extend({ marked: z.array(z.string().max(1_000)).max(20_000) }),
        )
        .max(60)
        .default([]),
      /** Lenses by their ids: what they mark is found out. */
      lensIds: z.array(id).max(mostLenses).default([]),
      /** Who calls whom instead of a page: in a kept walk, else on all paths of a process (the first, where none is named). */
      sequence: z.object({ process: z.string().max(500).optional(), walk: id.optional() }).optional(),
    }),
    right: "read",
    on: here,
  }),
  /** Keeps a file with the workspace, for an element to name. */
  keepFile: asks<{ id: string; name: string; size: number }>()({
    input: z.object({ name: z.string().trim().min(1).max(200), bytes }),
    right: "edit",
    on: () => [workspace],
  }),
  openFile: asks<{ name: string; type: string; bytes: Uint8Array }>()({
    input: z.object({ id }),
    right: "read",
    on: () => [workspace],
  }),
  /** The whole workspace as one file, of one moment. Restoring it and backing up again gives the same bytes. */
  backup: asks<{ bytes: Uint8Array }>()({ input: z.object({}), right: "own", on: () => [workspace] }),
  /** Puts a backup in the place of everything there is, all or nothing; what it replaces is kept beside the workspace. */
  restore: asks<{ keptAs: string | null }>()({ input: z.object({ bytes }), right: "own", on: () => [workspace] }),
});
