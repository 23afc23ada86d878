import { z } from "zod";
import { asks, named, workspace } from "./contract";
import { id } from "./inputs";
import type { Callable } from "./version";

export interface Found {
  readonly kind: "process" | "element" | "entry" | "decision";
  readonly title: string;
  readonly detail: string;
  readonly version?: string;
  readonly element?: string;
  readonly entry?: string;
  /** The file of decisions, and the decision in it. */
  readonly file?: string;
  readonly decision?: string;
}

export interface SearchRow {
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
  readonly element: string;
  readonly name: string;
  readonly type: string;
  /** The words around what was typed; nothing where it stands in the name only. */
  readonly excerpt: string;
}

const on = () => [workspace];

export const finding = named({
  /** Processes, elements of any head, directory entries and decisions by a part of their name. */
  find: asks<{ found: readonly Found[] }>()({
    input: z.object({ text: z.string().trim().min(1).max(100) }),
    right: "read",
    on,
  }),
  /** Elements of all processes by words, type, role, system; each condition that is given must hold. */
  searchElements: asks<{ total: number; rows: readonly SearchRow[] }>()({
    input: z.object({
      text: z.string().trim().max(100).default(""),
      type: z.string().max(60).optional(),
      role: id.optional(),
      system: id.optional(),
    }),
    right: "read",
    on,
  }),
  /** Types that elements of the workspace have, with how many of each. */
  listTypes: asks<{ types: readonly { readonly type: string; readonly count: number }[] }>()({
    input: z.object({}),
    right: "read",
    on,
  }),
  /** Processes a call activity can name, by the id they have in files. The as-is of each stands for it. */
  listCallable: asks<{ callable: readonly Callable[] }>()({ input: z.object({}), right: "read", on }),
});
