import { foldedName } from "../directory";
import { type Element, type Id, isActivity, type Model, nameOf, systemsOf, wordFor } from "../model";
import { bindingOf, doerOf, messageFields } from "../services";
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
    const { key, name, isOutside } = doerOf(this.model, id);
    return this.#lifeline(isOutside ? "party" : "role", key, name);
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
    return messageFields(this.model, message).map(({ name }) => name);
  }
}
