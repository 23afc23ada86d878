import { drawMissingPages } from "../commands";
import { type Element, emptyModel, type Id, type Model, Table } from "../model";

/** Numbers from 0 up to below 1, the same for the same seed ("mulberry32", a public-domain 32-bit generator; from memory). */
export function seededRandom(seed: number): () => number {
  let state = Math.imul(seed + 1, 0x9e3779b1) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A process whose flows keep to no blocks: each step follows one of the few before it, and a share of further flows goes on to
 * steps some way down, or back.
 */
export function tangledProcess({ seed, nodes, lanes }: Omit<ProcessShape, "wild">): Model {
  const random = seededRandom(seed);
  const pick = (count: number) => Math.floor(random() * count);
  const writer = new ProcessWriter(lanes, pick);
  const ids = [writer.put("startEvent", { name: "Application received" })];
  for (let at = 1; at < nodes; at++) {
    const type = (["userTask", "userTask", "exclusiveGateway", "parallelGateway"] as const)[pick(4)] ?? "userTask";
    const id = writer.put(type, type === "userTask" ? { name: `Check the part ${at}` } : {});
    writer.flow(ids[Math.max(0, at - 1 - pick(5))] as Id, id);
    ids.push(id);
  }
  for (let more = 0; more < nodes / 2; more++) {
    const from = pick(nodes - 1);
    const to = pick(8) === 0 ? Math.max(1, from - pick(10)) : Math.min(nodes - 1, from + 1 + pick(10));
    if (from !== to) writer.flow(ids[from] as Id, ids[to] as Id);
  }
  const leads = new Set(writer.elements.map(([, element]) => element.sourceRef));
  for (const id of ids) if (!leads.has(id)) writer.flow(id, writer.put("endEvent", { name: "Done" }));
  return writer.finish();
}

interface ProcessShape {
  readonly seed: number;
  /** About as many flow nodes. */
  readonly nodes: number;
  readonly lanes: number;
  /** Whether steps have events at their edge, loops lead back, and paths jump; otherwise the process is made of blocks alone. */
  readonly wild?: boolean;
}

/** A process as people draw them: sequences, decisions, parallel blocks, loops, events at edges, ends on the way, lanes. */
export function randomProcess({ seed, nodes, lanes, wild = true }: ProcessShape): Model {
  const random = seededRandom(seed);
  const pick = (count: number) => Math.floor(random() * count);
  const writer = new ProcessWriter(lanes, pick);
  const put = writer.put.bind(writer);
  const flow = writer.flow.bind(writer);
  const tasks: Id[] = [];
  /** Steps whose path goes on at some step further down. */
  const jumping: Id[] = [];
  const task = () => {
    const id = put("userTask", { name: `Check the part ${writer.count}` });
    tasks.push(id);
    if (jumping.length > 0 && pick(3) === 0) flow(jumping.pop() as Id, id);
    return id;
  };

  /** Writes a stretch of the process behind a node; gives the node it ends at. */
  const stretch = (from: Id, size: number, depth: number): Id => {
    let at = from;
    let left = size;
    while (left > 0) {
      const kind = depth > 3 || left < 4 ? 0 : pick(10);
      if (kind < 6) {
        const next = task();
        flow(at, next);
        if (wild && pick(9) === 0) {
          const event = put("boundaryEvent", { attachedToRef: next, name: "10 days" });
          const handler = task();
          const end = put("endEvent", { name: "Lapsed" });
          flow(event, handler);
          flow(handler, end);
          left -= 2;
        }
        at = next;
        left -= 1;
        continue;
      }
      const isParallel = kind >= 8;
      const type = isParallel ? "parallelGateway" : "exclusiveGateway";
      const split = put(type, isParallel ? {} : { name: "Part complete?" });
      flow(at, split);
      const ways = 2 + (pick(4) === 0 ? 1 : 0);
      const share = Math.max(1, Math.floor((left - 2) / ways / (1 + pick(3))));
      const join = put(type);
      for (let way = 0; way < ways; way++) {
        const name = isParallel ? undefined : ["yes", "no", "later"][way];
        const inner = way === 1 && pick(3) === 0 ? 0 : share;
        if (inner === 0) {
          if (way === 1) flow(split, join, name);
          continue;
        }
        const first = task();
        flow(split, first, name);
        const last = stretch(first, inner - 1, depth + 1);
        const leaves = !isParallel && wild && way > 0;
        const fate = leaves ? pick(8) : 7;
        if (fate < 2) flow(last, put("endEvent", { name: "Refused" }));
        else if (fate === 2) jumping.push(last);
        else if (fate < 6) flow(last, tasks[Math.max(0, tasks.length - 2 - pick(12))] as Id);
        else flow(last, join);
        left -= inner;
      }
      at = join;
      left -= 2;
    }
    return at;
  };
  const first = put("startEvent", { name: "Application received" });
  const last = stretch(first, nodes - 2, 0);
  const end = put("endEvent", { name: "Plant connected" });
  flow(last, end);
  for (const id of jumping) flow(id, end);
  return writer.finish();
}

/** Writes elements one after another; now and then the work goes over to another lane. */
class ProcessWriter {
  readonly elements: [Id, Element][];
  count = 0;
  readonly #start = emptyModel({ definitions: "definitions", process: "process", diagram: "page" }, "Random");
  readonly #members: Id[][];
  #order = 10;
  #lane = 0;

  constructor(
    readonly lanes: number,
    readonly pick: (count: number) => number,
  ) {
    this.elements = [...this.#start.elements.entries()];
    this.#members = Array.from({ length: Math.max(1, lanes) }, () => []);
  }

  put(type: Element["type"], more: { [field: string]: unknown } = {}): Id {
    const id = `${type}-${++this.count}`;
    this.#add(id, type, "process", "flowElements", more);
    if (this.pick(6) === 0)
      this.#lane = Math.max(0, Math.min(this.#members.length - 1, this.#lane + (this.pick(3) === 0 ? -1 : 1)));
    if (type !== "boundaryEvent") this.#members[this.#lane]?.push(id);
    return id;
  }

  flow(sourceRef: Id, targetRef: Id, name?: string): Id {
    const id = `flow-${this.#order}`;
    this.#add(id, "sequenceFlow", "process", "flowElements", { sourceRef, targetRef, ...(name && { name }) });
    return id;
  }

  finish(): Model {
    if (this.lanes > 0) {
      this.#add("collaboration", "collaboration", this.#start.root, "rootElements");
      this.#add("pool", "participant", "collaboration", "participants", { name: "Cooperative", processRef: "process" });
      this.#add("lanes", "laneSet", "process", "laneSets");
      this.#members.forEach((flowNodeRef, at) => {
        this.#add(`lane-${at}`, "lane", "lanes", "lanes", { name: `Role ${at}`, flowNodeRef });
      });
    }
    return drawMissingPages({ ...this.#start, diagrams: Table.from([]), elements: Table.from(this.elements) });
  }

  #add(id: Id, type: Element["type"], parent: Id, slot: string, more: { [field: string]: unknown } = {}): void {
    this.elements.push([id, { id, type, parent, slot, order: this.#order++, ...more } as Element]);
  }
}
