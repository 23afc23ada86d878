import type { Id } from "../model";

/** A process that can be called: the record it is in the workspace, and the ids its model's processes have in files. */
export interface Callable {
  readonly process: string;
  readonly processIds: readonly Id[];
}

/** What a call says of what it calls: an id as files have it, and the record, where it was chosen here. */
export interface Call {
  readonly id: Id;
  readonly process?: string;
}

/**
 * Which record of a workspace a call leads to. A call that names a record leads there, if it still is of that id; else the record that
 * was made first of those with that id, so that a file read once more, or a copy, takes nobody's calls over.
 * @param callable in the order they were made
 */
export function resolver(callable: readonly Callable[]): (call: Call) => string | undefined {
  const byId = new Map<Id, string[]>();
  for (const { process, processIds } of callable)
    for (const id of processIds) byId.set(id, [...(byId.get(id) ?? []), process]);
  return ({ id, process }) => {
    const all = byId.get(id) ?? [];
    return process !== undefined && all.includes(process) ? process : all[0];
  };
}
