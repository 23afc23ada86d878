import { plan } from "../../capture";
import { emptyModel, type Model } from "../../model";
import { expectOk } from "../../testing/models";
import { buildFrame } from "../build";
import type { Frame } from "../frames";

export interface Built {
  readonly model: Model;
  /** Marks built before and now. */
  readonly built: readonly string[];
}

/** Builds a frame into a model, with directory entries named after themselves and called processes after their frames. */
export function builtInto(frame: Frame, start: Model, before: readonly string[] = []): Built {
  let count = start.elements.size;
  let marks: string[] = [];
  const done = plan(
    start,
    (of) => {
      do count++;
      while (start.elements.has(`${of}-${count}`));
      return `${of}-${count}`;
    },
    (draft) => {
      marks = buildFrame(draft, frame, {
        organisation: "Quillmere Power Cooperative",
        built: new Set(before),
        resolve: (kind, name) => ({ entry: `${kind}-${name}`, name }),
        calledProcess: (key) => `process-of-${key}`,
      });
      return undefined;
    },
  );
  return { model: expectOk(done).model, built: [...before, ...marks] };
}

export const emptyProcess = (): Model =>
  emptyModel({ definitions: "definitions", process: "process", diagram: "page" }, "Process");
