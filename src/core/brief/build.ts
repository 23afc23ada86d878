import { type Draft, giveRole, type NamedEntry } from "../capture";
import type { Kind } from "../commands";
import { foldedName } from "../directory";
import {
  boundaryEventsOf,
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  incomingOf,
  laneOf,
  nameOf,
  outgoingOf,
  participantsOf,
  processesOf,
  referrersOf,
  scopeOf,
  shapesOf,
} from "../model";
import type { Frame, FrameDecision, FrameItem, FramePath, FrameStep, FrameTrigger, Thing } from "./frames";
import { linksOf, nodeOf } from "./links";
import { readTime } from "./times";
import { stateName } from "./wording";

export interface BuildContext {
  readonly organisation: string;
  /** Marks built before: what was deleted since is not made again. */
  readonly built: ReadonlySet<string>;
  readonly resolve: (kind: "role" | "system" | "document", name: string) => NamedEntry;
  /** The BPMN id of the process that stands behind a part or shared activity. */
  readonly calledProcess: (key: string) => Id | undefined;
}

/**
 * Builds a frame into a model's process: pool, lanes, closed pools, a start for each trigger, steps in the order of the text,
 * decisions with their paths, an end. What is there already is left as it is; what is new in the text is put between the neighbours
 * it has there, so that running it again after the text grew only adds. Gives the marks that are now built.
 */
export function buildFrame(draft: Draft, frame: Frame, context: BuildContext): string[] {
  return new FrameBuilder(draft, frame, context).build();
}

/** Where the next new element goes: onto a flow, and into the lane of what stands before it. */
interface Cursor {
  readonly flow: Id;
  readonly after: Id;
}

class FrameBuilder {
  readonly #built: string[] = [];
  readonly #process: Element;
  readonly #diagram: Id;

  constructor(
    readonly draft: Draft,
    readonly frame: Frame,
    readonly context: BuildContext,
  ) {
    const process = processesOf(draft.model)[0];
    const diagram = [...draft.model.diagrams].sort((a, b) => a.order - b.order)[0];
    if (!process || !diagram) draft.refuse("no-process", "There is no process to build into.");
    this.#process = process as Element;
    this.#diagram = (diagram as { id: Id }).id;
  }

  build(): string[] {
    const { draft, frame } = this;
    const start = this.#skeleton();
    for (const party of frame.parties) this.#party(party);
    for (const trigger of frame.triggers) this.#hearFrom(trigger);
    const first = outgoingOf(draft.model, start)[0];
    const cursor = first && this.#items(frame.items, { flow: first.id, after: start });
    if (frame.result && cursor) this.#result(frame.result.id, cursor);
    this.#moreStarts();
    return this.#built;
  }

  #link(element: Id, marks: readonly string[]): void {
    this.#built.push(...marks);
    if (marks.length > 0) this.draft.do({ type: "linkWords", id: element, marks: [...marks] });
  }

  #links() {
    return linksOf(this.draft.model);
  }

  /** Whether a mark's element was made before; it may be gone by now. */
  #wasBuilt(mark: string): boolean {
    return this.context.built.has(mark) || this.#links().has(mark);
  }

  /** The pool with a start and an end, as far as they are missing. Gives the first start. */
  #skeleton(): Id {
    const { draft } = this;
    const nodes = flowNodesIn(draft.model, this.#process.id);
    const there = nodes.find((node) => node.type === "startEvent");
    if (there) return this.#adopt(there);
    if (nodes.length > 0)
      return draft.refuse(
        "no-start",
        `"${nameOf(draft.model, this.#process.id)}" has steps but no start event to build from. Give it one first.`,
      );
    const pools = participantsOf(draft.model).filter((pool) => pool.processRef === this.#process.id);
    if (pools.length === 0) {
      const id = draft.newId("participant");
      const name = this.context.organisation || nameOf(draft.model, this.#process.id);
      const at = { x: 500, y: 300 };
      draft.do({ type: "place", diagram: this.#diagram, id, kind: { type: "participant" }, at, name });
      pools.push(draft.element(id) as (typeof pools)[number]);
    }
    const bounds = shapesOf(draft.model, (pools[0] as Element).id)[0]?.bounds ?? {
      x: 100,
      y: 100,
      width: 600,
      height: 200,
    };
    const start = draft.newId("startEvent");
    const [trigger] = this.frame.triggers;
    const at = { x: bounds.x + 96, y: bounds.y + bounds.height / 2 };
    draft.do({
      type: "place",
      diagram: this.#diagram,
      id: start,
      kind: startKind(trigger),
      at,
      name: trigger?.name ?? "",
    });
    if (trigger) this.#furnishStart(start, trigger);
    this.#end(start, undefined);
    return start;
  }

  /** A start that was there before the brief stands for its first trigger, unless it has words already. */
  #adopt(start: Element): Id {
    const [trigger] = this.frame.triggers;
    if (!trigger || this.#wasBuilt(trigger.mark.id)) return start.id;
    if (!start.name) this.draft.do({ type: "rename", id: start.id, name: trigger.name });
    this.#link(start.id, [trigger.mark.id]);
    return start.id;
  }

  #furnishStart(start: Id, trigger: FrameTrigger): void {
    const time = trigger.time === undefined ? undefined : readTime(trigger.time);
    if (time?.kind === "cycle") this.draft.do({ type: "setTimer", event: start, kind: "timeCycle", text: time.iso });
    this.#link(start, [trigger.mark.id]);
  }

  /** Further triggers that were put into this process: each a start of its own, leading to the same first step. */
  #moreStarts(): void {
    const { draft } = this;
    const [first] = flowNodesIn(draft.model, this.#process.id).filter((node) => node.type === "startEvent");
    const target = first && outgoingOf(draft.model, first.id)[0]?.targetRef;
    for (const trigger of this.frame.triggers.slice(1)) {
      if (!first || typeof target !== "string" || this.#wasBuilt(trigger.mark.id)) continue;
      const bounds = shapesOf(draft.model, first.id)[0]?.bounds ?? { x: 160, y: 160, width: 32, height: 32 };
      const id = draft.newId("startEvent");
      const at = { x: bounds.x + 16, y: bounds.y + 88 };
      draft.do({ type: "place", diagram: this.#diagram, id, kind: startKind(trigger), at, name: trigger.name });
      draft.do({ type: "connect", diagram: this.#diagram, id: draft.newId("flow"), source: id, target });
      this.#furnishStart(id, trigger);
      this.#hearFrom(trigger);
    }
  }

  #party(party: Thing): Id {
    const { draft } = this;
    const known = participantsOf(draft.model).find((pool) => foldedName(pool.name ?? "") === foldedName(party.name));
    if (known) {
      this.#link(known.id, party.marks);
      return known.id;
    }
    const id = draft.newId("participant");
    const at = { x: 400, y: 0 };
    draft.do({
      type: "place",
      diagram: this.#diagram,
      id,
      kind: { type: "participant", closed: true },
      at,
      name: party.name,
    });
    this.#link(id, party.marks);
    return id;
  }

  /** A message from the party that sets the work off. */
  #hearFrom(trigger: FrameTrigger): void {
    const start = nodeOf(this.draft.model, this.#links(), trigger.mark.id);
    if (!trigger.from || !start || this.draft.element(start).type !== "startEvent") return;
    const [definition] = eventDefinitionsOf(this.draft.model, start);
    if (definition?.type !== "messageEventDefinition") return;
    this.#message(this.#party({ name: trigger.from, marks: [] }), start);
  }

  #message(source: Id, target: Id): void {
    const { draft } = this;
    const known = referrersOf(draft.model, source, "sourceRef").some((flow) => flow.targetRef === target);
    if (!known) draft.do({ type: "connect", diagram: this.#diagram, id: draft.newId("message"), source, target });
  }

  /** Writes items one after another onto a flow; gives where it goes on. */
  #items(items: readonly FrameItem[], from: Cursor): Cursor {
    let cursor = from;
    items.forEach((item, at) => {
      const mark = markOf(item);
      const there = nodeOf(this.draft.model, this.#links(), mark);
      if (there) cursor = this.#keep(item, there) ?? this.#beforeNext(items.slice(at + 1)) ?? cursor;
      else if (!this.context.built.has(mark)) cursor = this.#add(item, cursor);
    });
    return cursor;
  }

  /** Where an item was built before: what is new inside it is added. Gives where it goes on behind it, if that is plain. */
  #keep(item: FrameItem, element: Id): Cursor | undefined {
    const { draft } = this;
    if (item.kind === "decision") {
      for (const path of item.paths) {
        const flow = outgoingOf(draft.model, element).find(
          (one) => foldedName(one.name ?? "") === foldedName(path.answer),
        );
        if (flow) this.#items(path.items, { flow: flow.id, after: element });
      }
      return this.#behindBlock(element);
    }
    if (item.kind === "step") this.#furnish(item, element);
    const flows = outgoingOf(draft.model, element);
    return flows[0] ? { flow: flows[0].id, after: element } : undefined;
  }

  #beforeNext(items: readonly FrameItem[]): Cursor | undefined {
    for (const item of items) {
      const there = nodeOf(this.draft.model, this.#links(), markOf(item));
      const flow = there && incomingOf(this.draft.model, there)[0];
      if (flow) return { flow: flow.id, after: flow.sourceRef as Id };
    }
    return undefined;
  }

  /** Behind the join in which all ways of a split that do not end meet again. */
  #behindBlock(split: Id): Cursor | undefined {
    const { model } = this.draft;
    const reached = outgoingOf(model, split).map((flow) => reachedFrom(model, flow.targetRef as Id));
    const going = reached.filter((ids) =>
      [...ids].some((id) => model.elements.get(id)?.type !== "endEvent" && incomingOf(model, id).length > 1),
    );
    const [first, ...others] = going;
    const join =
      first && [...first].find((id) => others.every((ids) => ids.has(id)) && incomingOf(model, id).length > 1);
    const flow = join && outgoingOf(model, join)[0];
    return flow ? { flow: flow.id, after: join as Id } : undefined;
  }

  #add(item: FrameItem, cursor: Cursor): Cursor {
    switch (item.kind) {
      case "step":
        return this.#step(item, cursor);
      case "decision":
        return this.#decision(item, cursor);
      case "wait": {
        const kind: Kind = { type: "intermediateCatchEvent", trigger: "timerEventDefinition" };
        const next = this.#insert(kind, item.name, cursor, [item.mark]);
        if (item.duration)
          this.draft.do({ type: "setTimer", event: next.after, kind: "timeDuration", text: item.duration });
        return next;
      }
      case "milestone":
        return this.#insert({ type: "intermediateThrowEvent" }, item.name, cursor, [item.mark]);
      case "part":
        return this.#part(item, cursor);
    }
  }

  /** Puts one new element onto the cursor's flow, into the lane of what stands before it. */
  #insert(kind: Kind, name: string, cursor: Cursor, marks: readonly string[]): Cursor {
    const { draft } = this;
    const id = draft.newId(kind.type);
    const flow = draft.newId("flow");
    draft.do({ type: "insertOnFlow", diagram: draft.pageOf(cursor.flow), onFlow: cursor.flow, id, flow, kind });
    if (name) draft.do({ type: "rename", id, name });
    const lane = laneOf(draft.model, cursor.after);
    if (lane && laneOf(draft.model, id)?.id !== lane.id && scopeOf(draft.model, id)?.id === this.#process.id)
      draft.do({ type: "moveToLane", diagram: draft.pageOf(id), ids: [id], lane: lane.id });
    this.#link(id, marks);
    return { flow: outgoingOf(draft.model, id)[0]?.id ?? flow, after: id };
  }

  #step(step: FrameStep, cursor: Cursor): Cursor {
    const { draft } = this;
    const next = this.#insert(stepKind(step), step.name, cursor, [step.mark]);
    const id = next.after;
    if (step.calls) {
      const called = this.context.calledProcess(step.calls);
      if (called) draft.do({ type: "setField", id, field: "calledElement", value: called });
    }
    if (step.isForEach && this.frame.triggers.some((trigger) => trigger.time !== undefined))
      draft.do({ type: "setRepetition", activity: id, id: draft.newId("each"), repetition: "parallel" });
    if (step.role) this.#role(id, step.role);
    if (step.awaits) this.#message(this.#party(step.awaits), id);
    if (step.sendsTo) this.#message(id, this.#party(step.sendsTo));
    const times = step.times.map((time) => `${time.name.charAt(0).toUpperCase()}${time.name.slice(1)}.`).join(" ");
    if (times) draft.do({ type: "describe", id, text: times });
    this.#furnish(step, id);
    return { ...next, flow: outgoingOf(draft.model, id)[0]?.id ?? next.flow };
  }

  #role(id: Id, role: Thing): void {
    giveRole(this.draft, id, this.context.resolve("role", role.name));
    const lane = laneOf(this.draft.model, id);
    if (lane) this.#link(lane.id, role.marks);
  }

  /** Systems, documents and times a step does not have yet. */
  #furnish(step: FrameStep, id: Id): void {
    const { draft, context } = this;
    for (const system of step.systems) {
      if (system.marks.every((mark) => this.#isLinked(id, mark))) continue;
      draft.do({ type: "useSystem", step: id, system: context.resolve("system", system.name), use: system.use });
      this.#link(id, system.marks);
    }
    for (const { name, direction, marks } of step.documents) {
      if (marks.every((mark) => this.#isLinked(id, mark))) continue;
      const document = context.resolve("document", name);
      const association = draft.newId("paper");
      draft.do({ type: "giveDocument", diagram: draft.pageOf(id), step: id, document, direction, id: association });
      this.#link(id, marks);
    }
    for (const time of step.times) this.#link(id, time.marks);
    const { deadline } = step;
    if (!deadline || this.#wasBuilt(deadline.mark)) return;
    const event = draft.newId("boundaryEvent");
    const kind: Kind = { type: "boundaryEvent", trigger: "timerEventDefinition" };
    draft.do({ type: "attach", diagram: draft.pageOf(id), host: id, id: event, kind });
    draft.do({ type: "rename", id: event, name: deadline.name });
    draft.do({ type: "setTimer", event, kind: "timeDuration", text: deadline.duration });
    this.#link(event, [deadline.mark]);
    const flow = this.#end(event, deadline.path.ends);
    this.#items(deadline.path.items, { flow, after: id });
  }

  #isLinked(id: Id, mark: string): boolean {
    return this.context.built.has(mark) && (this.#links().get(mark) ?? []).includes(id);
  }

  /** An end behind an element. Gives the flow to it. */
  #end(from: Id, ends: FramePath["ends"]): Id {
    const { draft } = this;
    const [id, flow] = [draft.newId("endEvent"), draft.newId("flow")];
    draft.do({ type: "append", diagram: draft.pageOf(from), from, id, flow, kind: { type: "endEvent" } });
    if (ends) {
      draft.do({ type: "rename", id, name: ends.name });
      this.#link(id, [ends.mark]);
    }
    return flow;
  }

  #decision(decision: FrameDecision, cursor: Cursor): Cursor {
    const { draft } = this;
    const split = this.#insert({ type: "exclusiveGateway" }, decision.question, cursor, [decision.mark]);
    if (decision.role) this.#role(split.after, decision.role);
    const gateway = split.after;
    let main = split.flow;
    const going = decision.paths.filter((path) => !path.ends);
    const meets = going.length > 1;
    let next: Cursor = split;
    let join: Id | undefined;
    if (meets) {
      next = this.#insert({ type: "exclusiveGateway" }, "", { flow: main, after: gateway }, []);
      join = next.after;
      main = incomingOf(draft.model, join)[0]?.id ?? main;
    }
    // One path keeps the flow that is there: the first that goes on.
    const keeper = going[0] ?? decision.paths[0];
    for (const path of decision.paths) {
      let flow = main;
      if (path !== keeper) {
        if (path.ends) flow = this.#end(gateway, path.ends);
        else {
          flow = draft.newId("flow");
          draft.do({ type: "connect", diagram: draft.pageOf(gateway), id: flow, source: gateway, target: join as Id });
        }
      }
      draft.do({ type: "rename", id: flow, name: path.answer });
      if (path.mark) this.#link(flow, [path.mark]);
      if (path === usualOf(decision)) draft.do({ type: "setField", id: gateway, field: "default", value: flow });
      const last = this.#items(path.items, { flow, after: gateway });
      if (path === keeper && !meets) next = last;
    }
    if (join !== undefined) {
      const flow = outgoingOf(draft.model, join)[0];
      return flow ? { flow: flow.id, after: join } : next;
    }
    return next;
  }

  /** A part factored out of the text: a sub-process with a page of its own, or a call. */
  #part(item: FrameItem & { kind: "part" }, cursor: Cursor): Cursor {
    const { draft } = this;
    const { part } = item;
    if (part.kind === "process") {
      const next = this.#insert({ type: "callActivity" }, part.name, cursor, [part.id, ...item.marks]);
      const called = this.context.calledProcess(part.id);
      if (called) draft.do({ type: "setField", id: next.after, field: "calledElement", value: called });
      return next;
    }
    const next = this.#insert({ type: "subProcess" }, part.name, cursor, [part.id]);
    const page = draft.newId("page");
    draft.do({ type: "addPage", id: page, element: next.after });
    const start = draft.newId("startEvent");
    draft.do({ type: "place", diagram: page, id: start, kind: { type: "startEvent" }, at: { x: 80, y: 120 } });
    const flow = this.#end(start, undefined);
    this.#items(item.items, { flow, after: start });
    draft.do({ type: "tidy", diagram: page });
    return next;
  }

  /** Names the end the main path comes to, and ties it to the words of the result. */
  #result(mark: string, cursor: Cursor): void {
    const { draft } = this;
    if (this.#wasBuilt(mark)) return;
    const end = this.#endBehind(cursor.flow);
    if (!end) return;
    const { result } = this.frame;
    if (!draft.element(end).name && result) draft.do({ type: "rename", id: end, name: stateName(result.text) });
    this.#link(end, [mark]);
  }

  #endBehind(flow: Id): Id | undefined {
    const { model } = this.draft;
    const seen = new Set<Id>();
    for (let id = model.elements.get(flow)?.targetRef as Id | undefined; id && !seen.has(id); ) {
      seen.add(id);
      if (model.elements.get(id)?.type === "endEvent") return id;
      id = outgoingOf(model, id)[0]?.targetRef as Id | undefined;
    }
    return undefined;
  }
}

/** The path most cases take, as far as a text tells: one that goes on without doing more. */
function usualOf(decision: FrameDecision): FramePath {
  const going = decision.paths.filter((path) => !path.ends);
  return (
    going.find((path) => path.items.length === 0) ??
    going.find((path) => path.answer === "yes") ??
    going[0] ??
    (decision.paths[0] as FramePath)
  );
}

const markOf = (item: FrameItem): string => (item.kind === "part" ? item.part.id : item.mark);

function startKind(trigger: FrameTrigger | undefined): Kind {
  if (trigger?.time !== undefined) return { type: "startEvent", trigger: "timerEventDefinition" };
  return { type: "startEvent", ...(trigger?.from && { trigger: "messageEventDefinition" as const }) };
}

function stepKind(step: FrameStep): Kind {
  if (step.calls) return { type: "callActivity" };
  if (step.awaits) return { type: "receiveTask" };
  if (step.bySystem) return { type: "serviceTask" };
  if (step.sendsTo) return { type: "sendTask" };
  return { type: step.systems.length > 0 ? "userTask" : "task" };
}

/** Everything flows lead to from an element, itself first, nearest first. */
function reachedFrom(model: Draft["model"], from: Id): Set<Id> {
  const seen = new Set<Id>([from]);
  for (const id of seen) {
    for (const flow of outgoingOf(model, id)) seen.add(flow.targetRef as Id);
    for (const event of boundaryEventsOf(model, id)) seen.add(event.id);
  }
  return seen;
}
