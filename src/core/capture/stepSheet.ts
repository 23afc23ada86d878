import {
  boundaryEventsOf,
  type Element,
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  isGateway,
  isSubProcess,
  type Model,
  outgoingOf,
} from "../model";
import { type Branching, branchingOf } from "./branching";
import type { StepLead, StepRow } from "./stepRow";

/**
 * A process as rows, top to bottom, whatever its flow looks like: each flow node is in one row, each sequence flow is either the
 * way from a row to the next, a path row or a jump row. What no flow reaches stands at the end.
 * O(nodes + flows) apart from branches, which cost O(ways × (nodes + flows)) each.
 */
export function stepSheetOf(model: Model, process: Id): readonly StepRow[] {
  const writer = new SheetWriter(model);
  writer.writeScope(process, 0, "");
  return writer.rows;
}

/** Counts the steps of one sequence: "1", "2" in the process, "3a1" on a path, "3.1" in a sub-process. */
interface Numbering {
  readonly prefix: string;
  last: number;
}

interface Walk {
  readonly from: Id;
  readonly depth: number;
  readonly lead: StepLead;
  readonly numbering: Numbering;
  /** Where the rows lead to without saying so: the join of the block they stand in. */
  readonly join: Id | undefined;
}

class SheetWriter {
  readonly rows: StepRow[] = [];
  readonly #passed = new Set<Id>();
  /** Steps whose rows are to come further down, on a way under way; no other path walks into them before. */
  readonly #awaited = new Set<Id>();
  readonly #numbers = new Map<Id, string>();
  readonly #letters = new Map<Id, number>();

  constructor(readonly model: Model) {}

  writeScope(scope: Id, depth: number, prefix: string): void {
    const nodes = flowNodesIn(this.model, scope);
    const numbering: Numbering = { prefix, last: 0 };
    const begin = (node: Element, lead: StepLead) => {
      if (!this.#passed.has(node.id)) this.#walk({ from: node.id, depth, lead, numbering, join: undefined }, scope);
    };
    for (const node of nodes) if (node.type === "startEvent") begin(node, "start");
    const attached = (node: Element) =>
      node.type === "boundaryEvent" && this.model.elements.has(String(node.attachedToRef));
    for (const node of nodes) if (incomingOf(this.model, node.id).length === 0 && !attached(node)) begin(node, "apart");
    for (const node of nodes) begin(node, "apart");
  }

  #walk({ from, depth, lead, numbering, join }: Walk, scope: Id): void {
    let node = this.model.elements.get(from);
    for (let how = lead; node; how = "flow") {
      const flows = this.#writeStep(node, depth, how, numbering, scope);
      let next: Element | undefined;
      if (flows.length > 1) {
        const branching = branchingOf(this.model, node, flows, this.#shut());
        if (branching.kind === "block") {
          this.#writeBlock(node, flows, branching.join, depth, scope);
          node = this.model.elements.get(branching.join);
          continue;
        }
        next = this.#writeBeside(node, flows, branching, depth, scope);
      } else next = flows[0];
      if (!next || next.targetRef === join) return;
      if (this.#jump(next, depth, scope)) return;
      node = this.model.elements.get(next.targetRef as Id);
    }
  }

  #shut(): ReadonlySet<Id> {
    return new Set([...this.#passed, ...this.#awaited]);
  }

  /** The row of a step with what belongs to it: its inside, the events at its edge. Gives the flows out of it. */
  #writeStep(node: Element, depth: number, lead: StepLead, numbering: Numbering, scope: Id): readonly Element[] {
    const { model } = this;
    this.#passed.add(node.id);
    const flows = outgoingOf(model, node.id).filter((flow) => model.elements.has(String(flow.targetRef)));
    const number = isNumbered(model, node, flows.length) ? `${numbering.prefix}${++numbering.last}` : "";
    this.#numbers.set(node.id, number);
    this.rows.push({ id: node.id, kind: "step", element: node.id, depth, number, scope, lead });
    if (isSubProcess(node.type)) this.writeScope(node.id, depth + 1, number ? `${number}.` : "");
    const events = boundaryEventsOf(model, node.id).filter((event) => !this.#passed.has(event.id));
    if (events.length > 0) {
      this.#keepingFree(
        flows.map((flow) => flow.targetRef as Id),
        () => {
          for (const event of events) {
            const inner: Numbering = { prefix: `${number}${this.#letter(node.id)}`, last: 0 };
            this.#walk({ from: event.id, depth: depth + 1, lead: "edge", numbering: inner, join: undefined }, scope);
          }
        },
      );
    }
    if (flows.length === 0 && node.type !== "endEvent")
      this.rows.push({ id: `stop:${node.id}`, kind: "stop", element: node.id, depth, scope });
    return flows;
  }

  #writeBlock(split: Element, flows: readonly Element[], join: Id, depth: number, scope: Id): void {
    this.#awaited.add(join);
    for (const flow of flows) {
      const letter = this.#writePath(split, flow, depth, false, scope);
      if (flow.targetRef !== join) this.#writeBranch(split, flow, letter, depth + 1, join, scope);
    }
    this.#awaited.delete(join);
  }

  /** The ways beside the main one, each to its end; then the main path's row. Gives the flow the sheet goes on with. */
  #writeBeside(
    split: Element,
    flows: readonly Element[],
    branching: Branching & { kind: "main" },
    depth: number,
    scope: Id,
  ): Element | undefined {
    const main = flows.find((flow) => flow.id === branching.flow) as Element;
    this.#keepingFree([main.targetRef as Id], () => {
      for (const flow of flows) {
        if (flow === main) continue;
        const letter = this.#writePath(split, flow, depth, false, scope);
        this.#writeBranch(split, flow, letter, depth + 1, undefined, scope);
      }
    });
    this.#writePath(split, main, depth, true, scope);
    return main;
  }

  /** Keeps what the sheet will come to by these steps out of the rows written meanwhile; they jump there instead. */
  #keepingFree(steps: readonly Id[], write: () => void): void {
    const kept = new Set<Id>();
    const keep = (id: Id) => {
      if (!this.#passed.has(id) && !this.#awaited.has(id)) kept.add(id);
    };
    steps.forEach(keep);
    for (const id of kept) for (const flow of outgoingOf(this.model, id)) keep(flow.targetRef as Id);
    for (const id of kept) this.#awaited.add(id);
    write();
    for (const id of kept) this.#awaited.delete(id);
  }

  #writePath(split: Element, flow: Element, depth: number, isMain: boolean, scope: Id): string {
    const letter = isMain ? "" : this.#letter(split.id);
    this.rows.push({ id: flow.id, kind: "path", flow: flow.id, of: split.id, depth, isMain, letter, scope });
    return letter;
  }

  #writeBranch(split: Element, flow: Element, letter: string, depth: number, join: Id | undefined, scope: Id): void {
    if (this.#jump(flow, depth, scope)) return;
    const prefix = `${this.#numbers.get(split.id) ?? ""}${letter}`;
    this.#walk({ from: flow.targetRef as Id, depth, lead: "flow", numbering: { prefix, last: 0 }, join }, scope);
  }

  /** Writes that a flow goes to a row elsewhere, where it does. */
  #jump(flow: Element, depth: number, scope: Id): boolean {
    const to = flow.targetRef as Id;
    if (!this.#passed.has(to) && !this.#awaited.has(to)) return false;
    const isBack = this.#passed.has(to) && reaches(this.model, to, flow.sourceRef as Id);
    this.rows.push({ id: `to:${flow.id}`, kind: "jump", flow: flow.id, to, isBack, depth, scope });
    return true;
  }

  #letter(step: Id): string {
    const count = this.#letters.get(step) ?? 0;
    this.#letters.set(step, count + 1);
    const letters = "abcdefghijklmnopqrstuvwxyz";
    return (count >= 26 ? letters[Math.floor(count / 26) - 1] : "") + (letters[count % 26] as string);
  }
}

/** Steps, waits and questions are counted; what begins, joins, ends or sits at an edge is not. */
function isNumbered(model: Model, node: Element, ways: number): boolean {
  if (isActivity(node.type)) return true;
  if (isGateway(node.type)) return ways > 1 || incomingOf(model, node.id).length < 2;
  return node.type === "intermediateCatchEvent" || node.type === "intermediateThrowEvent";
}

function reaches(model: Model, from: Id, to: Id): boolean {
  const seen = new Set<Id>([from]);
  for (const id of seen) {
    if (id === to) return true;
    for (const flow of outgoingOf(model, id)) seen.add(flow.targetRef as Id);
    for (const event of boundaryEventsOf(model, id)) seen.add(event.id);
  }
  return false;
}
