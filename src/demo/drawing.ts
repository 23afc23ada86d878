import { type Command, type Kind, perform } from "@/core/commands";
import { type Element, type Id, type Model, outgoingOf } from "@/core/model";

/**
 * A hand for drawing demo processes: each stroke is a command, as a person's work is. It keeps the model in step, so that a
 * demo can look at what it has drawn.
 */
export class Drawing {
  readonly commands: Command[] = [];
  #model: Model;

  constructor(
    start: Model,
    readonly diagram: Id,
  ) {
    this.#model = start;
  }

  get model(): Model {
    return this.#model;
  }

  do(command: Command): void {
    const done = perform(this.#model, command);
    if (!done.ok)
      throw new Error(
        `Demo: ${command.type} was refused: ${done.problems.map((problem) => problem.message).join(" ")}`,
      );
    this.#model = done.value.model;
    this.commands.push(command);
  }

  /** A step, event or gateway in a lane; where it lies is left to tidying. */
  node(id: Id, kind: Kind, lane: Id, name: string): Id {
    const shape = [...this.#model.shapes].find((candidate) => candidate.element === lane);
    if (!shape) throw new Error(`Demo: no lane or pool "${lane}" is drawn.`);
    const { x, y, width, height } = shape.bounds;
    this.do({ type: "place", diagram: this.diagram, id, kind, at: { x: x + width / 2, y: y + height / 2 }, name });
    return id;
  }

  flow(source: Id, target: Id, name?: string): Id {
    const id = `${source}-to-${target}`;
    this.do({ type: "connect", diagram: this.diagram, id, source, target, ...(name && { name }) });
    return id;
  }

  chain(...nodes: Id[]): void {
    nodes.slice(1).forEach((node, at) => {
      this.flow(nodes[at] as Id, node);
    });
  }

  defaultFlow(gateway: Id, target: Id): void {
    const flow = outgoingOf(this.#model, gateway).find((candidate: Element) => candidate.targetRef === target);
    if (flow) this.do({ type: "setField", id: gateway, field: "default", value: flow.id });
  }

  condition(source: Id, target: Id, text: string): void {
    this.do({ type: "setCondition", flow: `${source}-to-${target}`, text });
  }
}
