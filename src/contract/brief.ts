import { z } from "zod";
import { type BriefContent, briefContentSchema } from "@/core/brief";
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
  /** Builds the processes of a description, or adds to them what its text has grown by. */
  buildProcesses: asks<{
    built: readonly BuiltProcess[];
    refused: readonly { readonly name: string; readonly reason: string }[];
  }>()({
    input: z.object({ version: id, frames: z.array(z.string()).optional() }),
    right: "edit",
    on: (input) => [version(input.version)],
  }),
});
