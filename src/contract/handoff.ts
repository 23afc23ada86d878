import { z } from "zod";
import type { Description } from "@/core/descriptions";
import type { BuildState, Manifest, SyncChange, SyncConflict } from "@/core/handoff";
import type { StoredModel } from "@/core/model";
import { asks, type Done, named, version, workspace } from "./contract";
import { id } from "./inputs";

export interface HandoffRow {
  readonly id: string;
  readonly revision: number;
  readonly at: string;
  readonly member: string;
  readonly manifest: Manifest;
  readonly bytes: number;
}

/** A developers' file that a version is tied to, and how it stands now. */
export interface BuildCopyRow {
  readonly id: string;
  readonly place: string;
  readonly branch: string;
  readonly path: string;
  readonly state: BuildState;
  /** Why it cannot be read, with line and column where there are any. */
  readonly problem: string | null;
  readonly brings: readonly SyncChange[];
  readonly sends: readonly SyncChange[];
  readonly conflicts: readonly SyncConflict[];
  readonly isRewritten: boolean;
  /** The last sync; null before the first. */
  readonly last: {
    readonly at: string;
    readonly member: string;
    readonly mark: string;
    readonly revision: number;
  } | null;
  readonly steps: readonly {
    readonly what: string;
    readonly at: string;
    readonly member: string;
    readonly mark: string | null;
    readonly changes: readonly string[];
  }[];
}

export interface PlaceRow {
  readonly id: string;
  readonly kind: "folder" | "git";
  readonly at: string;
  /** Whether a simulated developer works there. */
  readonly isDemo: boolean;
}

export interface DescriptionRow {
  /** The file's name. */
  readonly name: string;
  readonly description: Description;
  readonly member: string;
  readonly at: string;
}

/** As much as is read of a description. */
const mostDescription = 16 * 1024 * 1024;
const path = z
  .string()
  .max(400)
  .regex(
    /^(?!\/)(?!.*(^|\/)\.{1,2}(\/|$))(?!-)[^\0\n\\:]+\.bpmn$/u,
    "A path in the place that ends in .bpmn, such as processes/connect.bpmn.",
  );
const branch = z
  .string()
  .max(200)
  .regex(
    /^$|^(?!-)(?!.*(\.\.|\/\/|@\{|\.lock(\/|$)))[\p{L}\p{N}_][\p{L}\p{N}_./-]*(?<![./])$/u,
    "A name of letters, digits, slashes and hyphens.",
  );
const decisions = z
  .record(z.string().max(2_000), z.union([z.enum(["ours", "theirs"]), z.object({ text: z.string().max(100_000) })]))
  .default({});
const copy = z.object({ version: id, copy: id });

const here = (input: { readonly version: string }) => [version(input.version)];

export const handoff = named({
  listHandoffs: asks<{ handoffs: readonly HandoffRow[] }>()({
    input: z.object({ version: id }),
    right: "read",
    on: here,
  }),
  /** Hands off what the version holds now: a revision is kept, and its package with it. Refused while an error is open. */
  handOff: asks<{ handoff: string; revision: number }>()({
    input: z.object({ version: id }),
    right: "hand off",
    on: here,
  }),
  /** What the descriptions of services say that exist already. */
  listDescriptions: asks<{ descriptions: readonly DescriptionRow[] }>()({
    input: z.object({}),
    right: "read",
    on: () => [workspace],
  }),
  /** Reads a description, in place of what one of that name said before. */
  importDescription: asks<{ operations: number; problems: readonly string[] }>()({
    input: z.object({
      name: z.string().min(1).max(200),
      text: z.string().max(mostDescription),
      /** Files it leads to, as they were chosen together with it. */
      beside: z
        .array(z.object({ name: z.string().min(1).max(200), text: z.string().max(mostDescription) }))
        .max(99)
        .default([]),
    }),
    right: "edit",
    on: () => [workspace],
  }),
  removeDescription: asks<Done>()({
    input: z.object({ name: z.string().max(200) }),
    right: "edit",
    on: () => [workspace],
  }),
  /** The developers' files a version is tied to, each looked at now, and the places there may be more. */
  lookAtBuildCopies: asks<{ copies: readonly BuildCopyRow[]; places: readonly PlaceRow[] }>()({
    input: z.object({ version: id }),
    right: "read",
    on: here,
  }),
  tieBuildCopy: asks<{ copy: string }>()({
    input: z.object({ version: id, place: z.string().max(1_000), branch, path }),
    right: "hand off",
    on: here,
  }),
  untieBuildCopy: asks<Done>()({ input: copy, right: "hand off", on: here }),
  /** Writes what the model changed into the developers' file. Refused while that has changes which the model has not. */
  sendToBuildCopy: asks<{ mark: string }>()({ input: copy, right: "hand off", on: here }),
  /** Takes over into the model what the developers changed: all, or some changes with what has to come along. */
  takeOverBuildCopy: asks<{ sequence: number }>()({
    input: copy.extend({
      take: z.union([z.literal("all"), z.array(z.string().max(2_000)).min(1).max(10_000)]),
      decisions,
    }),
    right: "edit",
    on: here,
  }),
  /** What stands in a developers' file, as a model of the same elements, to be looked at beside the version. */
  openBuildCopy: asks<{ title: string; model: StoredModel }>()({ input: copy, right: "read", on: here }),
  /** Asks the demo's simulated developer to work on the file. */
  askDeveloper: asks<{ message: string }>()({ input: copy, right: "hand off", on: here }),
  /** The bytes of a package as they were made. */
  downloadPackage: asks<{ bytes: Uint8Array; name: string }>()({
    input: z.object({ version: id, handoff: id }),
    right: "read",
    on: here,
  }),
});
