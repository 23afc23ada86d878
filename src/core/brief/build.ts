import { type Draft, giveRole } from "../capture";
import type { Kind } from "../commands";
import { foldedName, rolesOf } from "../directory";
import { boundaryEventsOf, type Element, type Id, incomingOf, laneOf, outgoingOf } from "../model";
import { type Cursor, FrameFlow, join } from "./buildFlow";
import type { BuildContext } from "./buildGround";
import type { Frame, FrameDecision, FrameItem, FrameParallel, FramePath, FrameStep, Thing } from "./frames";
import { nodeOf } from "./links";
import { stateName } from "./reading/states";

/**
 * Builds a frame into a model's process: pool, lanes, closed pools, a start for each trigger, steps in the order of the text,
 * decisions with their paths, an end. What is there already is left as it is; what is new in the text is put between the neighbours
 * it has there, so that running it again after the text grew only adds. Gives the marks that are now built.
 */
export function buildFrame(draft: Draft, frame: Frame, context: BuildContext): string[] {
  return new FrameBuilder(draft, frame, context).build();
}

class FrameBuilder extends FrameFlow {
  build(): string[] {
    const { draft, frame } = this;
    const start = this.skeleton();
    for (const party of frame.parties) this.party(party);
    for (const trigger of frame.triggers) this.hearFrom(trigger);
    const first = outgoingOf(draft.model, start)[0];
    const cursor = first && this.#items(frame.items, { flow: first.id, after: start });
    if (frame.result && cursor) this.#result(frame.result.id, cursor);
    this.moreStarts();
    return this.built;
  }

  /** Writes items one after another onto a flow; gives where it goes on. */
  #items(items: readonly FrameItem[], from: Cursor): Cursor {
    let cursor = from;
    items.forEach((item, at) => {
      const mark = markOf(item);
      const there = nodeOf(this.draft.model, this.links(), mark);
      if (there)
        cursor = this.#keep(item, there, items.slice(at + 1)) ?? this.#beforeNext(items.slice(at + 1)) ?? cursor;
      else if (!this.context.built.has(mark)) cursor = this.#add(item, cursor);
    });
    return cursor;
  }

  /** Where an item was built before: what is new inside it is added. Gives where it goes on behind it, if that is plain. */
  #keep(item: FrameItem, element: Id, next: readonly FrameItem[]): Cursor | undefined {
    const { draft } = this;
    if (item.kind === "decision") {
      for (const path of item.paths) {
        const flow = outgoingOf(draft.model, element).find(
          (one) => foldedName(one.name ?? "") === foldedName(path.answer),
        );
        if (!flow) continue;
        this.#items(path.items, { flow: flow.id, after: element });
        this.#endLater(path, flow);
        this.#goOnLater(path, flow, item.mark, () => this.#whereOthersGo(item, path, next));
      }
      return this.#behindBlock(element);
    }
    if (item.kind === "step") {
      this.#furnish(item, element);
      if (item.role && !rolesOf(draft.model, element).some(({ part }) => part === "responsible"))
        this.#role(element, item.role);
      const late = item.deadline && nodeOf(draft.model, this.links(), item.deadline.mark);
      const flow = late && outgoingOf(draft.model, late)[0];
      if (item.deadline && flow && draft.element(late).type === "boundaryEvent") {
        this.#endLater(item.deadline.path, flow);
        this.#goOnLater(item.deadline.path, flow, item.deadline.mark, () => outgoingOf(draft.model, element)[0]);
      }
      return this.#behindStep(item, element);
    }
    const flows = outgoingOf(draft.model, element);
    return flows[0] ? { flow: flows[0].id, after: element } : undefined;
  }

  /** A path that was built before, and of which it was settled since that it ends: its way to the others is taken away. */
  #endLater(path: FramePath, first: Element): void {
    const { draft } = this;
    if (path.back && !path.ends) this.#leadBackLater(path, first, path.back);
    if (!path.ends || this.#isThere(path.ends.mark)) return;
    const flow = this.#lastFlowOf(path, first);
    if (!flow) return;
    const target = draft.element(flow.targetRef as Id);
    if (target.type === "endEvent") {
      this.nameEnd(flow.id, path.ends);
      return;
    }
    draft.do({ type: "delete", ids: [flow.id] });
    const left = this.end(flow.sourceRef as Id, path.ends);
    if (flow.name) draft.do({ type: "rename", id: left, name: flow.name });
    this.dropJoinOfOne(target);
  }

  /** An end of the text that was deleted since stays so; one that an answer says is drawn as long as the answer stands. */
  #isThere(end: string): boolean {
    return end.endsWith(":end") ? nodeOf(this.draft.model, this.links(), end) !== undefined : this.wasBuilt(end);
  }

  /**
   * A path that an answer had led to an end or back, and of which it was settled since that it goes on: it joins the others.
   * @param others the flow by which others come to where it goes on
   */
  #goOnLater(path: FramePath, first: Element, asked: string, others: () => Element | undefined): void {
    if (path.ends || path.back) return;
    const { draft } = this;
    const flow = this.#lastFlowOf(path, first);
    const last = path.items.at(-1);
    if (!flow) return;
    const of = last ? markOf(last) : asked;
    const target = draft.element(flow.targetRef as Id);
    const isEnd = target.type === "endEvent" && this.#isLinkedNow(target.id, `${of}:end`);
    // Built with its answer, the flow a path begins with has the words; answered later, the one it is left by.
    const [led] = [first.id, flow.id].filter((id) => this.#isLinkedNow(id, `${of}:back`));
    const isBack = led !== undefined;
    const way = isEnd || isBack ? others() : undefined;
    if (!way || way.id === flow.id || way.targetRef === target.id) return;
    const meeting = this.meetOn(way);
    draft.do({ type: "reconnect", diagram: draft.pageOf(flow.id), connection: flow.id, end: "target", to: meeting });
    if (isBack) draft.do({ type: "unlinkWords", id: led, marks: [`${of}:back`] });
    this.#dropUnreached(target);
  }

  /** What a flow led to until now: an end that nothing leads to any more goes, and a join of one way. */
  #dropUnreached(target: Element): void {
    const { draft } = this;
    if (target.type === "endEvent" && incomingOf(draft.model, target.id).length === 0)
      draft.do({ type: "delete", ids: [target.id] });
    else this.dropJoinOfOne(target);
  }

  #isLinkedNow = (id: Id, mark: string) => (this.links().get(mark) ?? []).includes(id);

  /** The flow by which the other answers of a decision come to what follows it. */
  #whereOthersGo(decision: FrameDecision, path: FramePath, next: readonly FrameItem[]): Element | undefined {
    const { draft } = this;
    const split = nodeOf(draft.model, this.links(), decision.mark);
    const other = decision.paths.find((one) => one !== path && !one.ends && !one.back);
    const first =
      split &&
      other &&
      outgoingOf(draft.model, split).find((one) => foldedName(one.name ?? "") === foldedName(other.answer));
    if (first) return this.#lastFlowOf(other, first);
    const behind = this.#beforeNext(next);
    return behind && draft.element(behind.flow);
  }

  /** The flow a path is left by. */
  #lastFlowOf(path: FramePath, first: Element): Element | undefined {
    const { model } = this.draft;
    const last = path.items.map((item) => nodeOf(model, this.links(), markOf(item))).findLast((id) => id !== undefined);
    return last === undefined ? first : outgoingOf(model, last)[0];
  }

  /** The same for a path of which it was settled that it goes back. */
  #leadBackLater(path: FramePath, first: Element, back: NonNullable<FramePath["back"]>): void {
    const { draft } = this;
    const flow = this.#lastFlowOf(path, first);
    const earlier = nodeOf(draft.model, this.links(), back.to);
    if (!flow || earlier === undefined) return;
    const target = draft.element(flow.targetRef as Id);
    const leadsThere =
      target.id === earlier || outgoingOf(draft.model, target.id).some((one) => one.targetRef === earlier);
    if (leadsThere) return;
    const meeting = this.meetBefore(earlier);
    if (back.mark) this.link(flow.id, [back.mark]);
    const diagram = draft.pageOf(flow.id);
    draft.do({ type: "reconnect", diagram, connection: flow.id, end: "target", to: meeting });
    this.#dropUnreached(target);
  }

  #beforeNext(items: readonly FrameItem[]): Cursor | undefined {
    for (const item of items) {
      const there = nodeOf(this.draft.model, this.links(), markOf(item));
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
      case "parallel":
        return this.#parallel(item, cursor);
      case "wait": {
        const kind: Kind = { type: "intermediateCatchEvent", trigger: waitTriggers[item.trigger] };
        const next = this.insert(kind, item.name, cursor, [item.mark]);
        if (item.duration)
          this.draft.do({ type: "setTimer", event: next.after, kind: "timeDuration", text: item.duration });
        return next;
      }
      case "milestone":
        return this.insert({ type: "intermediateThrowEvent" }, item.name, cursor, [item.mark]);
      case "part":
        return this.#part(item, cursor);
    }
  }

  #step(step: FrameStep, cursor: Cursor): Cursor {
    const { draft } = this;
    const next = this.insert(stepKind(step), step.name, cursor, [step.mark, ...step.alsoMarks]);
    const id = next.after;
    if (step.calls) {
      const called = this.context.calledProcess(step.calls);
      if (called) draft.do({ type: "setField", id, field: "calledElement", value: called });
    }
    const isBatch = this.frame.triggers.some((trigger) => trigger.time !== undefined);
    if (step.isForEach || (step.isForAll && isBatch))
      draft.do({ type: "setRepetition", activity: id, id: draft.newId("each"), repetition: "parallel" });
    if (step.role) this.#role(id, step.role);
    if (step.awaits) this.message(this.party(step.awaits), id);
    if (step.sendsTo) this.message(id, this.party(step.sendsTo));
    const times = step.times.map((time) => `${time.name.charAt(0).toUpperCase()}${time.name.slice(1)}.`).join(" ");
    if (times) draft.do({ type: "describe", id, text: times });
    this.#furnish(step, id);
    return this.#behindStep(step, id) ?? next;
  }

  /** Where it goes on behind a step: where what happens without it in time goes on too, behind the join of both. */
  #behindStep({ deadline }: FrameStep, id: Id): Cursor | undefined {
    const { model } = this.draft;
    const [flow] = outgoingOf(model, id);
    if (!flow) return undefined;
    const target = flow.targetRef as Id;
    const bothGoOn = deadline !== undefined && !deadline.path.ends && !deadline.path.back;
    const isJoin = model.elements.get(target)?.type === "exclusiveGateway" && incomingOf(model, target).length > 1;
    const behind = bothGoOn && isJoin ? outgoingOf(model, target)[0] : undefined;
    return behind ? { flow: behind.id, after: target } : { flow: flow.id, after: id };
  }

  #role(id: Id, role: Thing): void {
    giveRole(this.draft, id, this.context.resolve("role", role.name));
    const lane = laneOf(this.draft.model, id);
    if (lane) this.link(lane.id, role.marks);
  }

  /** Systems, documents and times a step does not have yet. */
  #furnish(step: FrameStep, id: Id): void {
    const { draft, context } = this;
    for (const system of step.systems) {
      if (system.marks.every((mark) => this.#isLinked(id, mark))) continue;
      draft.do({ type: "useSystem", step: id, system: context.resolve("system", system.name), use: system.use });
      this.link(id, system.marks);
    }
    for (const { name, direction, marks } of step.documents) {
      if (marks.every((mark) => this.#isLinked(id, mark))) continue;
      const document = context.resolve("document", name);
      const association = draft.newId("paper");
      draft.do({ type: "giveDocument", diagram: draft.pageOf(id), step: id, document, direction, id: association });
      this.link(id, marks);
    }
    for (const time of step.times) this.link(id, time.marks);
    const { deadline } = step;
    if (!deadline || this.wasBuilt(deadline.mark)) return;
    const event = draft.newId("boundaryEvent");
    const kind: Kind = { type: "boundaryEvent", trigger: "timerEventDefinition" };
    draft.do({ type: "attach", diagram: draft.pageOf(id), host: id, id: event, kind });
    draft.do({ type: "rename", id: event, name: deadline.name });
    draft.do({ type: "setTimer", event, kind: "timeDuration", text: deadline.duration });
    this.link(event, [deadline.mark]);
    const flow = this.leave(event, deadline.path, () => this.meetBehind(id));
    this.#items(deadline.path.items, { flow, after: id });
  }

  #isLinked(id: Id, mark: string): boolean {
    return this.context.built.has(mark) && (this.links().get(mark) ?? []).includes(id);
  }
  #decision(decision: FrameDecision, cursor: Cursor): Cursor {
    const { draft } = this;
    const around = this.#decisionAround(decision);
    if (around) return around;
    const split = this.insert({ type: "exclusiveGateway" }, decision.question, cursor, [decision.mark]);
    if (decision.role) this.#role(split.after, decision.role);
    const gateway = split.after;
    let main = split.flow;
    const going = decision.paths.filter((path) => !path.ends && !path.back);
    const meets = going.length > 1;
    let next: Cursor = split;
    let meeting: Id | undefined;
    if (meets) {
      next = this.insert(join, "", { flow: main, after: gateway }, []);
      meeting = next.after;
      main = incomingOf(draft.model, meeting)[0]?.id ?? main;
    }
    // One path keeps the flow that is there: the first that goes on.
    const keeper = going[0] ?? decision.paths[0];
    for (const path of decision.paths) {
      let flow = main;
      if (path !== keeper) flow = this.leave(gateway, path, () => meeting as Id);
      else if (path.ends) this.nameEnd(flow, path.ends);
      draft.do({ type: "rename", id: flow, name: path.answer });
      if (path.mark) this.link(flow, [path.mark]);
      if (path === usualOf(decision)) draft.do({ type: "setField", id: gateway, field: "default", value: flow });
      const last = this.#items(path.items, { flow, after: gateway });
      if (path === keeper && !meets) next = last;
    }
    if (meeting !== undefined) {
      const flow = outgoingOf(draft.model, meeting)[0];
      return flow ? { flow: flow.id, after: meeting } : next;
    }
    return next;
  }

  /** A decision that the text got after its steps were built: it goes round them, from before the first to behind the last. */
  #decisionAround(decision: FrameDecision): Cursor | undefined {
    const { draft } = this;
    const there = (path: FramePath) =>
      path.items.flatMap((item) => nodeOf(draft.model, this.links(), markOf(item)) ?? []);
    const path = decision.paths.find((one) => there(one).length > 0);
    const [first] = path ? there(path) : [];
    const last = path && there(path).at(-1);
    const into = first === undefined ? undefined : incomingOf(draft.model, first)[0];
    if (!path || !into || first === undefined || last === undefined) return undefined;
    const cursor = { flow: into.id, after: into.sourceRef as Id };
    const split = this.insert({ type: "exclusiveGateway" }, decision.question, cursor, [decision.mark]);
    if (decision.role) this.#role(split.after, decision.role);
    draft.do({ type: "rename", id: split.flow, name: path.answer });
    if (path.mark) this.link(split.flow, [path.mark]);
    const meeting = this.meetBehind(last);
    for (const other of decision.paths) {
      if (other === path) continue;
      const flow = this.leave(split.after, other, () => meeting);
      draft.do({ type: "rename", id: flow, name: other.answer });
      if (other.mark) this.link(flow, [other.mark]);
      if (other === usualOf(decision)) draft.do({ type: "setField", id: split.after, field: "default", value: flow });
      this.#items(other.items, { flow, after: split.after });
    }
    if (path === usualOf(decision))
      draft.do({ type: "setField", id: split.after, field: "default", value: split.flow });
    this.#items(path.items, { flow: split.flow, after: split.after });
    this.#endLater(path, draft.element(split.flow));
    const behind = draft.model.elements.has(meeting) ? outgoingOf(draft.model, meeting)[0] : undefined;
    return behind ? { flow: behind.id, after: meeting } : split;
  }

  /** A split and its join, with what goes on side by side between them. */
  #parallel(item: FrameParallel, cursor: Cursor): Cursor {
    const { draft } = this;
    const split = this.insert({ type: "parallelGateway" }, "", cursor, [item.mark]);
    const meeting = this.insert({ type: "parallelGateway" }, "", split, []);
    const [first = [], ...others] = item.branches;
    const main = incomingOf(draft.model, meeting.after)[0];
    if (main) this.#items(first, { flow: main.id, after: split.after });
    for (const branch of others) {
      const flow = draft.newId("flow");
      draft.do({
        type: "connect",
        diagram: draft.pageOf(split.after),
        id: flow,
        source: split.after,
        target: meeting.after,
      });
      this.#items(branch, { flow, after: split.after });
    }
    const flow = outgoingOf(draft.model, meeting.after)[0];
    return flow ? { flow: flow.id, after: meeting.after } : meeting;
  }

  /** A part factored out of the text: a sub-process with a page of its own, or a call. */
  #part(item: FrameItem & { kind: "part" }, cursor: Cursor): Cursor {
    const { draft } = this;
    const { part } = item;
    if (part.kind === "process") {
      const next = this.insert({ type: "callActivity" }, part.name, cursor, [part.id, ...item.marks]);
      const called = this.context.calledProcess(part.id);
      if (called) draft.do({ type: "setField", id: next.after, field: "calledElement", value: called });
      return next;
    }
    const next = this.insert({ type: "subProcess" }, part.name, cursor, [part.id]);
    const page = draft.newId("page");
    draft.do({ type: "addPage", id: page, element: next.after });
    const start = draft.newId("startEvent");
    draft.do({ type: "place", diagram: page, id: start, kind: { type: "startEvent" }, at: { x: 80, y: 120 } });
    const flow = this.end(start, undefined);
    this.#items(item.items, { flow, after: start });
    draft.do({ type: "tidy", diagram: page });
    return next;
  }

  /** Names the end the main path comes to, and ties it to the words of the result. */
  #result(mark: string, cursor: Cursor): void {
    const { draft } = this;
    if (this.wasBuilt(mark)) return;
    const end = this.endBehind(cursor.flow);
    if (!end) return;
    const { result } = this.frame;
    if (!draft.element(end).name && result) draft.do({ type: "rename", id: end, name: stateName(result.text) });
    this.link(end, [mark]);
  }
}

const waitTriggers = {
  timer: "timerEventDefinition",
  message: "messageEventDefinition",
  condition: "conditionalEventDefinition",
} as const;

/** The path most cases take, as far as a text tells: one that goes on without doing more. */
function usualOf(decision: FrameDecision): FramePath {
  const going = decision.paths.filter((path) => !path.ends && !path.back);
  return (
    going.find((path) => path.items.length === 0) ??
    going.find((path) => path.answer === "yes") ??
    going.find((path) => path.answer === "otherwise") ??
    going[0] ??
    (decision.paths[0] as FramePath)
  );
}

const markOf = (item: FrameItem): string => (item.kind === "part" ? item.part.id : item.mark);
function stepKind(step: FrameStep): Kind {
  if (step.calls) return { type: "callActivity" };
  if (step.awaits || step.isWait) return { type: "receiveTask" };
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
