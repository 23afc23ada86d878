import type { z } from "zod";

/**
 * What somebody needs to be allowed to do something. Each use case asks for one of these on one thing; who has which is decided in one
 * place (server/kernel/rights).
 */
export const rights = [
  /** Looks at it, plays it, takes it out as a file. */
  "read",
  /** Changes what it says: model, description, walks, directory. */
  "edit",
  /** Makes, names, moves, copies and deletes what there is: areas, processes, versions; adopts a to-be. */
  "arrange",
  /** Accepts findings, says what is checked, signs. */
  "judge",
  /** Says something about what there is. */
  "comment",
  /** Makes packages for developers. */
  "hand off",
  /** Starts processes up and supervises what is run. */
  "operate",
  /** Works cases: begins them, takes work on, completes it. */
  "work",
  /** The workspace as a whole: backups, rules for all. */
  "own",
] as const;
export type Right = (typeof rights)[number];

/** What a right is asked on. */
export type Thing =
  | { readonly kind: "workspace" | "directory" }
  | { readonly kind: "area" | "process" | "version"; readonly id: string };

export const workspace: Thing = { kind: "workspace" };
export const directory: Thing = { kind: "directory" };
export const area = (id: string): Thing => ({ kind: "area", id });
export const process = (id: string): Thing => ({ kind: "process", id });
export const version = (id: string): Thing => ({ kind: "version", id });

/** What window and server say to each other about one use case: its name, what is sent, what is answered, who may. */
export interface Contract<Sent = unknown, Given = unknown, Output = unknown> {
  readonly name: string;
  /** What is sent; looked at before anything is done. */
  readonly input: z.ZodType<Given, Sent>;
  readonly right: Right;
  /** The things the right is needed on: every one that is read or written. */
  on(input: Given): readonly Thing[];
  /** Only for the compiler: what is answered. */
  readonly output?: Output;
}

/** `asks<Output>()({ input, right, on })`: the terms of a use case whose answer is an `Output`. */
export const asks =
  <Output>() =>
  <Schema extends z.ZodType>(terms: {
    readonly input: Schema;
    readonly right: Right;
    readonly on: (input: z.output<Schema>) => readonly Thing[];
  }): Contract<z.input<Schema>, z.output<Schema>, Output> =>
    ({ name: "", ...terms }) as never;

/** Gives each contract the name it stands under. */
export function named<Contracts extends { readonly [name: string]: Contract }>(contracts: Contracts): Contracts {
  return Object.fromEntries(
    Object.entries(contracts).map(([name, contract]) => [name, { ...contract, name }]),
  ) as unknown as Contracts;
}

/** What is answered to a contract. */
export type AnswerOf<Asked extends { readonly output?: unknown }> = Exclude<Asked["output"], undefined>;

/** An answer to what only does something. */
export type Done = { readonly [nothing: string]: never };
