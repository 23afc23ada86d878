import { z } from "zod";
import type { Manifest } from "@/core/handoff";
import { asks, named, version } from "./contract";
import { id } from "./inputs";

export interface HandoffRow {
  readonly id: string;
  readonly revision: number;
  readonly at: string;
  readonly member: string;
  readonly manifest: Manifest;
  readonly bytes: number;
}

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
  /** The bytes of a package as they were made. */
  downloadPackage: asks<{ bytes: Uint8Array; name: string }>()({
    input: z.object({ version: id, handoff: id }),
    right: "read",
    on: here,
  }),
});
