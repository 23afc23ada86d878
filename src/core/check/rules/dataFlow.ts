import { writtenData } from "../../data";
import { readCondition } from "../../feel";
import { say } from "../../messages";
import {
  called,
  dataOfProcess,
  type Element,
  flowNodesIn,
  type Id,
  type Model,
  outgoingOf,
  type ProcessDatum,
  processesOf,
} from "../../model";
import type { Found, Rule } from "../finding";

/** Data somebody has said something about: a property, or what has a schema. Papers that are only drawn may come from anywhere. */
const isKept = ({ isDrawn, schema }: ProcessDatum) => !isDrawn || schema !== undefined;

/** What a step needs and no way to it has written (Trčka, van der Aalst, Sidorova 2009: "missing data"). */
export const dataNotWritten: Rule = {
  id: "data-not-written",
  group: "completeness",
  severity: "warning",
  wants: say`Data is written before it is needed.`,
  find: (model) =>
    processesOf(model).flatMap((process): Found[] => {
      const data = dataOfProcess(model, process.id).filter(isKept);
      if (data.length === 0) return [];
      const { before, behind, reads, writes } = writtenData(model, process.id);
      const written = new Set([...writes.values()].flatMap((one) => [...one]));
      const found: Found[] = [];
      for (const { id, name } of data) {
        // What nothing here writes is given to the case.
        if (!written.has(id)) continue;
        const missing = (node: Id, of: ReadonlyMap<Id, ReadonlySet<Id>>) => of.get(node)?.has(id) === false;
        for (const [node, own] of reads)
          if (own.has(id) && missing(node, before)) found.push(needed(model, node, id, name, writes, say`needs`));
        for (const node of behind.keys())
          for (const flow of outgoingOf(model, node))
            if (missing(node, behind) && asks(flow, name))
              found.push(needed(model, node, id, name, writes, say`decides by`));
      }
      return found;
    }),
};

function needed(
  model: Model,
  node: Id,
  data: Id,
  name: string,
  writes: ReadonlyMap<Id, ReadonlySet<Id>>,
  does: ReturnType<typeof say>,
): Found {
  const element = model.elements.get(node) as Element;
  const witness = wayWithout(model, element, (one) => writes.get(one)?.has(data) ?? false);
  return {
    elements: [node],
    message: say`${called(model, element)} ${does} ${name}, and a case can come there before anything has written it. Write it earlier, or let the way that misses it go elsewhere.`,
    ...(witness && { witness }),
  };
}

/** A way from a start to a node that passes nothing of some kind, the shortest there is. O(nodes). */
function wayWithout(model: Model, to: Element, isBarred: (node: Id) => boolean): Id[] | undefined {
  if (to.parent === null) return undefined;
  const open: Id[][] = flowNodesIn(model, to.parent)
    .filter((one) => one.type === "startEvent")
    .map(({ id }) => [id]);
  const seen = new Set(open.map(([first]) => first));
  for (const way of open) {
    const last = way.at(-1) as Id;
    if (last === to.id) return way;
    if (isBarred(last)) continue;
    for (const { targetRef } of outgoingOf(model, last))
      if (targetRef !== undefined && !seen.has(targetRef)) {
        seen.add(targetRef);
        open.push([...way, targetRef]);
      }
  }
  return undefined;
}

/** What is written and nobody looks at (the same: "redundant data"). */
export const dataNotRead: Rule = {
  id: "data-not-read",
  group: "completeness",
  severity: "advice",
  wants: say`Data that is written is used.`,
  find: (model) =>
    processesOf(model).flatMap((process): Found[] => {
      const data = dataOfProcess(model, process.id).filter(isKept);
      if (data.length === 0) return [];
      const { reads, writes } = writtenData(model, process.id);
      const read = new Set([...reads.values()].flatMap((one) => [...one]));
      return data.flatMap(({ id, name }): Found[] => {
        const writers = [...writes].flatMap(([node, own]) => (own.has(id) ? [node] : []));
        if (
          writers.length === 0 ||
          read.has(id) ||
          [...model.elements].some((one) => asks(one, name) || names(one, name))
        )
          return [];
        return [
          {
            elements: writers,
            message: say`${name} is written by ${called(model, model.elements.get(writers[0] as Id) as Element)} and nothing reads it. Say who needs it, or leave it out.`,
          },
        ];
      });
    }),
};

/** Whether a condition asks for a piece of data. */
function asks(element: Element, name: string): boolean {
  return [element.conditionExpression, element.loopCondition, element.completionCondition].some((held) => {
    const text = (held as { readonly text?: string } | undefined)?.text;
    if (!text?.includes(name)) return false;
    const read = readCondition(text, [name]);
    return read.kind === "executable" && read.asks.includes(name);
  });
}
/** Whether a step is given it by a mapping, or goes over it. */
const names = (element: Element, name: string): boolean =>
  JSON.stringify(element.extension ?? []).includes(`"${name}`) || element.loopDataInputRef === name;
