import { z } from "zod";
import { type BriefContent, briefContentSchema, type Growth } from "@/core/brief";
import { asks, named, process, version } from "./contract";
import { id, sequenceNumber } from "./inputs";

export interface BriefLink {
  readonly mark: string;
  readonly version: string;
  readonly element: string;
  readonly name: string;
}

export interface ToldProcess {
  readonly id: string;
  readonly name: string;
  readonly version: string;
}

/** The description a process shares with others, what became of it, and which elements stand for its words. */
export interface BriefData {
  readonly generation: number;
  readonly brief: { readonly id: string; readonly revision: number; readonly content: BriefContent } | null;
  readonly processes: readonly ToldProcess[];
  readonly links: readonly BriefLink[];
}

export interface BuiltProcess {
  readonly frame: string;
  readonly process: string;
  readonly version: string;
  readonly name: string;
  /** Elements the flow passes that were made now. */
  readonly added: number;
}

export interface ProcessGrowth extends Growth {
  readonly frame: string;
  readonly version: string;
  readonly name: string;
  /** Whether anything stands in it yet. */
  readonly hasSteps: boolean;
}

export const brief = named({
  openBrief: asks<BriefData>()({
    input: z.object({ process: id }),
    right: "read",
    on: (input) => [process(input.process)],
  }),
  /** Keeps a description. One that was changed elsewhere since is not overwritten: the answer is a refusal. */
  saveBrief: asks<{ revision: number }>()({
    input: z.object({
      process: id,
      brief: id,
      base: sequenceNumber,
      generation: sequenceNumber.optional(),
      save: z.string().max(100).default(""),
      /** Saves made on the same base whose answers never came: what they wrote is the sender's own. */
      unanswered: z.array(z.string().min(1).max(100)).max(1000).default([]),
      content: briefContentSchema,
    }),
    right: "edit",
    on: (input) => [process(input.process)],
  }),
  /** What building again would add to processes that are there, and what of them the text says otherwise by now. */
  previewBuild: asks<{ processes: readonly ProcessGrowth[] }>()({
    input: z.object({ version: id, frames: z.array(z.string()).optional() }),
    right: "read",
    on: (input) => [version(input.version)],
  }),
  /**
   * Builds the processes of a description, or adds to them what its text has grown by: all of them, or none where one of them cannot
   * be built.
   */
  buildProcesses: asks<{ built: readonly BuiltProcess[] }>()({
    input: z.object({
      version: id,
      frames: z.array(z.string()).optional(),
      /** Marks that are not built, now or later. */
      leave: z.array(z.string().max(120)).max(10_000).default([]),
      /** Marks whose elements take the name the text gives them by now. */
      rename: z.array(z.string().max(120)).max(10_000).default([]),
      /** Elements that go, since their words have gone. */
      drop: z
        .array(z.object({ version: id, element: id }))
        .max(10_000)
        .default([]),
    }),
    right: "edit",
    on: (input) => [version(input.version)],
  }),
});
