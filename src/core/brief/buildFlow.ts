import type { Kind } from "../commands";
import {
  type Element,
  edgesOf,
  type Id,
  incomingOf,
  laneOf,
  outgoingOf,
  type Point,
  participantsOf,
  scopeOf,
  shapesOf,
} from "../model";
import { FrameGround } from "./buildGround";
import type { FramePath } from "./frames";
import { nodeOf } from "./links";

/** Where the next new element goes: onto a flow, and into the lane of what stands before it. */
export interface Cursor {
  readonly flow: Id;
  readonly after: Id;
}

export const join: Kind = { type: "exclusiveGateway" };

/** How what is built hangs together: onto flows, away from them, where ways meet, where they end. */
export class FrameFlow extends FrameGround {
  /** Puts one new element onto the cursor's flow, into the lane of what stands before it. */
  protected insert(kind: Kind, name: string, cursor: Cursor, marks: readonly string[]): Cursor {
    const { draft } = this;
    const id = draft.newId(kind.type);
    const flow = draft.newId("flow");
    const diagram = draft.pageOf(cursor.flow);
    const at = this.besideWhereFlowLeadsAway(cursor);
    draft.do({ type: "insertOnFlow", diagram, onFlow: cursor.flow, id, flow, kind, ...(at && { at }) });
    if (name) draft.do({ type: "rename", id, name });
    const lane = laneOf(draft.model, cursor.after);
    if (lane && laneOf(draft.model, id)?.id !== lane.id && scopeOf(draft.model, id)?.id === this.process.id)
      draft.do({ type: "moveToLane", diagram: draft.pageOf(id), ids: [id], lane: lane.id });
    this.link(id, marks);
    return { flow: outgoingOf(draft.model, id)[0]?.id ?? flow, after: id };
  }

  /** A flow that leads around others may run along the border of its pool; what is put onto it stands beside what comes before it. */
  protected besideWhereFlowLeadsAway({ flow, after }: Cursor): Point | undefined {
    const { model } = this.draft;
    const boundsOf = (id: Id) => shapesOf(model, id)[0]?.bounds;
    const source = boundsOf(after);
    const target = boundsOf(model.elements.get(flow)?.targetRef as Id);
    const pool = participantsOf(model).find((one) => one.processRef === this.process.id);
    const around = pool && scopeOf(model, after)?.id === this.process.id ? boundsOf(pool.id) : undefined;
    if (!source || !target) return undefined;
    const isAway = (point: Point) => around && (point.y < around.y + 40 || point.y > around.y + around.height - 40);
    const course = edgesOf(model, flow)[0]?.waypoints ?? [];
    if (target.x > source.x + source.width && !course.some(isAway)) return undefined;
    return { x: source.x + source.width / 2, y: source.y + source.height / 2 };
  }

  /** The flow a path begins with: to an end of its own, back to a step before, or to where it meets the others. */
  protected leave(from: Id, path: FramePath, meet: () => Id): Id {
    if (path.ends) return this.end(from, path.ends);
    const earlier = path.back && nodeOf(this.draft.model, this.links(), path.back.to);
    const target = earlier ? this.meetBefore(earlier) : meet();
    const flow = this.draft.newId("flow");
    this.draft.do({ type: "connect", diagram: this.draft.pageOf(from), id: flow, source: from, target });
    if (earlier && path.back?.mark) this.link(flow, [path.back.mark]);
    return flow;
  }

  /** The join a flow leads to, made on it where there is none. */
  protected meetOn(flow: Element): Id {
    const { model } = this.draft;
    const target = flow.targetRef as Id;
    const isJoin = incomingOf(model, target).length > 1 && model.elements.get(target)?.type === "exclusiveGateway";
    return isJoin ? target : this.insert(join, "", { flow: flow.id, after: flow.sourceRef as Id }, []).after;
  }

  /** The join before an element, made where there is none. */
  protected meetBefore(element: Id): Id {
    const { model } = this.draft;
    const [flow, ...others] = incomingOf(model, element);
    const source = flow && model.elements.get(flow.sourceRef as Id);
    const isJoin = source?.type === "exclusiveGateway" && !source.name && outgoingOf(model, source.id).length === 1;
    if (others.length > 0 || !flow) return element;
    return isJoin ? source.id : this.insert(join, "", { flow: flow.id, after: flow.sourceRef as Id }, []).after;
  }

  /** The join behind an element. */
  protected meetBehind(element: Id): Id {
    const [flow] = outgoingOf(this.draft.model, element);
    return flow ? this.insert(join, "", { flow: flow.id, after: element }, []).after : element;
  }

  /** Where each way ends, the last of them has the end that is there. */
  protected nameEnd(flow: Id, ends: NonNullable<FramePath["ends"]>): void {
    const end = this.endBehind(flow);
    if (!end) return;
    if (!this.draft.element(end).name && ends.name) this.draft.do({ type: "rename", id: end, name: ends.name });
    this.link(end, [ends.mark]);
  }

  protected endBehind(flow: Id): Id | undefined {
    const { model } = this.draft;
    const seen = new Set<Id>();
    for (let id = model.elements.get(flow)?.targetRef as Id | undefined; id && !seen.has(id); ) {
      seen.add(id);
      if (model.elements.get(id)?.type === "endEvent") return id;
      id = outgoingOf(model, id)[0]?.targetRef as Id | undefined;
    }
    return undefined;
  }

  /** A join of one way joins nothing: what led to it leads on. */
  protected dropJoinOfOne(join: Element): void {
    const { draft } = this;
    const [way, ...others] = incomingOf(draft.model, join.id);
    const [behind, ...more] = outgoingOf(draft.model, join.id);
    const isJoin = join.type === "exclusiveGateway" && !join.name;
    if (!isJoin || !way || !behind || others.length > 0 || more.length > 0) return;
    const target = behind.targetRef as Id;
    draft.do({ type: "delete", ids: [behind.id] });
    draft.do({ type: "reconnect", diagram: draft.pageOf(join.id), connection: way.id, end: "target", to: target });
    draft.do({ type: "delete", ids: [join.id] });
  }
}
