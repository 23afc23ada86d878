import { type NewId, plan } from "../capture";
import { foldedName } from "../directory";
import { type Element, emptyModel, entryOf, type Id, type Model, type Problem, type Result, Table } from "../model";
import { buildFrame } from "./build";
import type { BriefContent } from "./document";
import { type Frame, framesOf } from "./frames";
import { readBrief } from "./sentences";

/** What the process of a text's frame is called in a file, by the frame's place. */
export const processId = (at: number): Id => `process-${at + 1}`;

/** A process as it would be built from a text. */
export interface BuiltFrame {
  readonly frame: Frame;
  readonly process: Id;
  readonly model: Model;
}

/**
 * Builds every process a text tells of, each in a model of its own and laid out, with roles, systems and documents named after
 * themselves. Fails with the problems of the first that cannot be built. O(steps² of a process).
 */
export function buildAll(content: BriefContent, isDrawn = true): Result<readonly BuiltFrame[]> {
  const frames = framesOf(readBrief(content.document), content);
  let count = 0;
  const newId: NewId = (of) => `${of}-${++count}`;
  const processes = new Map(frames.map((frame, at) => [frame.key, processId(at)]));
  const built: BuiltFrame[] = [];
  for (const [at, frame] of frames.entries()) {
    const ids = { definitions: "definitions", process: processId(at), diagram: `page-${at + 1}` };
    const made = plan(
      emptyModel(ids, frame.name),
      newId,
      (draft) => {
        buildFrame(draft, frame, {
          organisation: content.organisation || frame.name,
          built: new Set(),
          resolve: (kind, name) => ({ entry: `${kind}-${foldedName(name).replace(/[^\p{L}\p{N}]+/gu, "-")}`, name }),
          calledProcess: (key) => processes.get(key),
        });
        if (isDrawn) draft.do({ type: "tidy", diagram: ids.diagram });
        return undefined;
        // Nobody sees how flows run before the page is laid out, and nobody sees a page that is not.
      },
      true,
    );
    if (!made.ok) return made satisfies { ok: false; problems: readonly Problem[] };
    built.push({ frame, process: ids.process, model: made.value.model });
  }
  return { ok: true, value: built };
}

/**
 * The models of several processes as one, with a page each: what a file holds. Their ids differ, but for that of the definitions;
 * what stands for one entry of the directory is there once.
 */
export function asOneModel(models: readonly Model[]): Model {
  const [first, ...others] = models;
  if (!first) return emptyModel({ definitions: "definitions", process: "process-1", diagram: "page-1" }, "Process");
  const entries = new Map<string, Id>();
  const twice = new Map<unknown, Id>();
  for (const { elements } of models)
    for (const element of elements) {
      const entry = element.type === "resource" ? entryOf(element) : undefined;
      const known = entry && entries.get(entry);
      if (known) twice.set(element.id, known);
      else if (entry) entries.set(entry, element.id);
    }
  const pointed = (element: Element): Element => ({
    ...element,
    ...Object.fromEntries(
      Object.entries(element).flatMap(([field, value]) => (twice.has(value) ? [[field, twice.get(value)]] : [])),
    ),
  });
  const all = <Row extends { readonly id: Id; readonly order: number }>(
    pick: (model: Model) => Iterable<Row>,
    isTop: (row: Row) => boolean,
  ) =>
    Table.from(
      [first, ...others].flatMap((model, at) =>
        [...pick(model)].map((row): [Id, Row] => [
          row.id,
          isTop(row) ? { ...row, order: row.order + at * 10_000 } : row,
        ]),
      ),
    );
  return {
    ...first,
    elements: all<Element>(
      ({ elements }) => [...elements].filter(({ id }) => !twice.has(id)).map(pointed),
      (element) => element.parent === first.root,
    ),
    diagrams: all(
      ({ diagrams }) => diagrams,
      () => true,
    ),
    shapes: all(
      ({ shapes }) => shapes,
      () => false,
    ),
    edges: all(
      ({ edges }) => edges,
      () => false,
    ),
    figures: Table.empty(),
  };
}
