import type { Id } from "../model";
import type { Move } from "./scopeState";

/**
 * What a node can do:
 * - `pass`: tokens go through it; `begin`: it comes under way; `finish`: it ends, and tokens go on;
 * - `again`: one more round of a repeated activity, the last one being over;
 * - `fire`: an event at an edge, or the start of an event sub-process, goes off;
 * - `pick`: a step of an ad-hoc sub-process is done next.
 */
export type Deed = "pass" | "begin" | "finish" | "again" | "fire" | "pick";

/** One thing that can happen next in a case. Acts of one node in one scope are alternatives. */
export interface Act {
  /** The scope it happens in, by key, and the node. */
  readonly at: string;
  readonly node: Id;
  readonly does: Deed;
  /** The sequence flows that get a token; none where it only begins or where a link is followed. */
  readonly flows: readonly Id[];
  readonly move: Move;
}
