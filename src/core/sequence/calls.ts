import { foldedName, roleOfLane } from "../directory";
import {
  dataFieldsOf,
  type Element,
  type Id,
  isActivity,
  laneOf,
  type Model,
  nameOf,
  participantOf,
  processOf,
  systemsOf,
  wordFor,
} from "../model";
import { bindingOf } from "../services";
import type { Lifeline, SequenceLine } from "./sequence";

type Message = Extract<SequenceLine, { kind: "message" }>;

/** What each element of a model has to do with whom. */
export class Calls {
  readonly #lifelines = new Map<string, Lifeline>();
  readonly #sent = new Map<Id, Element[]>();
  readonly #received = new Map<Id, Element[]>();

  constructor(readonly model: Model) {
    for (const flow of model.elements) {
      if (flow.type !== "messageFlow") continue;
      for (const [ends, end] of [
        [this.#sent, flow.sourceRef],
        [this.#received, flow.targetRef],
      ] as const)
        ends.set(String(end ?? ""), [...(ends.get(String(end ?? "")) ?? []), flow]);
    }
  }

  /** Those who took part in what was asked so far, in the order in which they did. */
  get lifelines(): readonly Lifeline[] {
    return [...this.#lifelines.values()];
  }

  #lifeline(kind: Lifeline["kind"], key: string, name: string): string {
    const id = `${kind} ${key}`;
    if (!this.#lifelines.has(id)) this.#lifelines.set(id, { id, name, kind });
    return id;
  }

  /** Who does something: the role of its lane, else the pool or process it is in. */
  actorOf(id: Id): string {
    const { model } = this;
    const element = model.elements.get(id);
    if (element?.type === "participant" && typeof element.processRef !== "string")
      return this.#lifeline("party", id, nameOf(model, id) || wordFor("participant"));
    const lane = laneOf(model, id);
    if (lane) {
      const role = roleOfLane(model, lane);
      const name = role?.name ?? nameOf(model, lane.id);
      if (name) return this.#lifeline("role", name, name);
    }
    const process = element?.type === "participant" ? element.processRef : processOf(model, id)?.id;
    const pool = participantOf(model, String(process ?? ""));
    const name = (pool && nameOf(model, pool.id)) || nameOf(model, String(process ?? "")) || wordFor("process");
    return this.#lifeline("role", String(process ?? ""), name);
  }

  /**
   * The messages of one element, given who did what came before; and who has the case after it. What comes in is told first, then that
   * it is done, by whom, then the systems and the service it uses, at last what goes out.
   */
  of(element: Element, before: string | undefined): { readonly lines: readonly Message[]; readonly actor: string } {
    const { model } = this;
    const isStep = isActivity(element.type);
    const isTold = isStep || element.type === "intermediateCatchEvent" || element.type === "intermediateThrowEvent";
    const received = this.#received.get(element.id) ?? [];
    const sent = this.#sent.get(element.id) ?? [];
    if (!isTold && received.length + sent.length === 0) return { lines: [], actor: before ?? "" };
    const actor = this.actorOf(element.id);
    const name = nameOf(model, element.id) || wordFor(element.type);
    const line = (from: string, to: string, label: string, of: Id = element.id, isAnswer = false): Message => ({
      kind: "message",
      element: of,
      from,
      to,
      label,
      isAnswer,
    });
    const words = (flow: Element) => nameOf(model, flow.id) || name;
    const lines = received.map((flow) => line(this.actorOf(String(flow.sourceRef ?? "")), actor, words(flow), flow.id));
    const onlyPasses = !isStep && received.length + sent.length > 0;
    const onlyReceives = element.type === "receiveTask" && received.length > 0;
    const onlySends = element.type === "sendTask" && sent.length > 0;
    if (!onlyPasses && !onlyReceives && !(onlySends && before === actor))
      lines.push(line(before ?? actor, actor, name));
    const bound = bindingOf(model, element);
    // A system that is called by its service is told once, as that.
    for (const { entry, name: system, use } of systemsOf(element))
      if (foldedName(system) !== foldedName(bound?.interface.name ?? ""))
        lines.push(line(actor, this.#lifeline("system", entry, system), use));
    if (bound) {
      const service = this.#lifeline("service", bound.interface.id, bound.interface.name ?? bound.interface.id);
      const asked = this.#fields(bound.operation.inMessageRef);
      lines.push(line(actor, service, `${bound.operation.name ?? ""}(${asked.join(", ")})`));
      const given = this.#fields(bound.operation.outMessageRef);
      if (given.length > 0) lines.push(line(service, actor, given.join(", "), element.id, true));
    }
    for (const flow of sent) lines.push(line(actor, this.actorOf(String(flow.targetRef ?? "")), words(flow), flow.id));
    return { lines, actor };
  }

  #fields(message: unknown): readonly string[] {
    const found = typeof message === "string" ? this.model.elements.get(message) : undefined;
    const item = typeof found?.itemRef === "string" ? this.model.elements.get(found.itemRef) : undefined;
    return item ? dataFieldsOf(item).map(({ name }) => name) : [];
  }
}
