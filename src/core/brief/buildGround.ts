import type { Draft, NamedEntry } from "../capture";
import type { Kind } from "../commands";
import { foldedName } from "../directory";
import { say } from "../messages";
import {
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  nameOf,
  outgoingOf,
  participantsOf,
  processesOf,
  referrersOf,
  shapesOf,
} from "../model";
import type { Frame, FramePath, FrameTrigger, Thing } from "./frames";
import { linksOf, nodeOf } from "./links";
import { readTime } from "./times";

export interface BuildContext {
  readonly organisation: string;
  /** Marks built before: what was deleted since is not made again. */
  readonly built: ReadonlySet<string>;
  readonly resolve: (kind: "role" | "system" | "document", name: string) => NamedEntry;
  /** The BPMN id of the process that stands behind a part or shared activity. */
  readonly calledProcess: (key: string) => Id | undefined;
}
/** What the steps of a frame are built upon: pools, starts, ends, messages with outside parties, ties to the words. */
export class FrameGround {
  protected readonly built: string[] = [];
  protected readonly process: Element;
  protected readonly diagram: Id;

  constructor(
    readonly draft: Draft,
    readonly frame: Frame,
    readonly context: BuildContext,
  ) {
    const process = processesOf(draft.model)[0];
    const diagram = [...draft.model.diagrams].sort((a, b) => a.order - b.order)[0];
    if (!process || !diagram) draft.refuse("no-process", say`There is no process to build into.`);
    this.process = process as Element;
    this.diagram = (diagram as { id: Id }).id;
  }
  protected link(element: Id, marks: readonly string[]): void {
    this.built.push(...marks);
    if (marks.length > 0) this.draft.do({ type: "linkWords", id: element, marks: [...marks] });
  }

  protected links() {
    return linksOf(this.draft.model);
  }

  /** Whether a mark's element was made before; it may be gone by now. */
  protected wasBuilt(mark: string): boolean {
    return this.context.built.has(mark) || this.links().has(mark);
  }

  /** The pool with a start and an end, as far as they are missing. Gives the first start. */
  protected skeleton(): Id {
    const { draft } = this;
    const nodes = flowNodesIn(draft.model, this.process.id);
    const there = nodes.find((node) => node.type === "startEvent");
    if (there) return this.#adopt(there);
    if (nodes.length > 0)
      return draft.refuse(
        "no-start",
        say`"${nameOf(draft.model, this.process.id)}" has steps but no start event to build from. Give it one first.`,
      );
    const pools = participantsOf(draft.model).filter((pool) => pool.processRef === this.process.id);
    if (pools.length === 0) {
      const id = draft.newId("participant");
      const name = this.context.organisation || nameOf(draft.model, this.process.id);
      const at = { x: 500, y: 300 };
      draft.do({ type: "place", diagram: this.diagram, id, kind: { type: "participant" }, at, name });
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
      diagram: this.diagram,
      id: start,
      kind: startKind(trigger),
      at,
      name: trigger?.name ?? "",
    });
    if (trigger) this.#furnishStart(start, trigger);
    this.end(start, undefined);
    return start;
  }

  /** A start that was there before the brief stands for its first trigger, unless it has words already. */
  #adopt(start: Element): Id {
    const [trigger] = this.frame.triggers;
    if (!trigger || this.wasBuilt(trigger.mark.id)) return start.id;
    if (!start.name) this.draft.do({ type: "rename", id: start.id, name: trigger.name });
    this.link(start.id, [trigger.mark.id]);
    return start.id;
  }

  #furnishStart(start: Id, trigger: FrameTrigger): void {
    const time = trigger.time === undefined ? undefined : readTime(trigger.time);
    if (time?.kind === "cycle") this.draft.do({ type: "setTimer", event: start, kind: "timeCycle", text: time.iso });
    this.link(start, [trigger.mark.id]);
  }

  /** Further triggers that were put into this process: each a start of its own, leading to the same first step. */
  protected moreStarts(): void {
    const { draft } = this;
    const [first] = flowNodesIn(draft.model, this.process.id).filter((node) => node.type === "startEvent");
    const target = first && outgoingOf(draft.model, first.id)[0]?.targetRef;
    for (const trigger of this.frame.triggers.slice(1)) {
      if (!first || typeof target !== "string" || this.wasBuilt(trigger.mark.id)) continue;
      const bounds = shapesOf(draft.model, first.id)[0]?.bounds ?? { x: 160, y: 160, width: 32, height: 32 };
      const id = draft.newId("startEvent");
      const at = { x: bounds.x + 16, y: bounds.y + 88 };
      draft.do({ type: "place", diagram: this.diagram, id, kind: startKind(trigger), at, name: trigger.name });
      draft.do({ type: "connect", diagram: this.diagram, id: draft.newId("flow"), source: id, target });
      this.#furnishStart(id, trigger);
      this.hearFrom(trigger);
    }
  }

  protected party(party: Thing): Id {
    const { draft } = this;
    const known = participantsOf(draft.model).find((pool) => foldedName(pool.name ?? "") === foldedName(party.name));
    if (known) {
      this.link(known.id, party.marks);
      return known.id;
    }
    const id = draft.newId("participant");
    const at = { x: 400, y: 0 };
    draft.do({
      type: "place",
      diagram: this.diagram,
      id,
      kind: { type: "participant", closed: true },
      at,
      name: party.name,
    });
    this.link(id, party.marks);
    return id;
  }

  /** A message from the party that sets the work off. */
  protected hearFrom(trigger: FrameTrigger): void {
    const start = nodeOf(this.draft.model, this.links(), trigger.mark.id);
    if (!trigger.from || !start || this.draft.element(start).type !== "startEvent") return;
    const [definition] = eventDefinitionsOf(this.draft.model, start);
    if (definition?.type !== "messageEventDefinition") return;
    this.message(this.party({ name: trigger.from, marks: [] }), start);
  }

  protected message(source: Id, target: Id): void {
    const { draft } = this;
    const known = referrersOf(draft.model, source, "sourceRef").some((flow) => flow.targetRef === target);
    if (!known) draft.do({ type: "connect", diagram: this.diagram, id: draft.newId("message"), source, target });
  }

  /** An end behind an element. Gives the flow to it. */
  protected end(from: Id, ends: FramePath["ends"]): Id {
    const { draft } = this;
    const [id, flow] = [draft.newId("endEvent"), draft.newId("flow")];
    draft.do({ type: "append", diagram: draft.pageOf(from), from, id, flow, kind: { type: "endEvent" } });
    if (ends) {
      draft.do({ type: "rename", id, name: ends.name });
      this.link(id, [ends.mark]);
    }
    return flow;
  }
}

function startKind(trigger: FrameTrigger | undefined): Kind {
  if (trigger?.time !== undefined) return { type: "startEvent", trigger: "timerEventDefinition" };
  return { type: "startEvent", ...(trigger?.isMessage && { trigger: "messageEventDefinition" as const }) };
}
