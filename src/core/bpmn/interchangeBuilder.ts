import {
  type Bounds,
  type Diagram,
  dcNamespace,
  diNamespace,
  type Edge,
  type FileBounds,
  type Id,
  interchangeNamespace,
  type Label,
  type PlacedNode,
  type Shape,
  Table,
  type Waypoint,
  type XmlNode,
} from "../model";
import type { Frame, ModelBuilder } from "./modelBuilder";

type Attributes = Record<string, string>;
type Writable<Record> = { -readonly [Key in keyof Record]: Record[Key] };
type Keeps = { foreignAttributes?: readonly (readonly [string, string])[]; foreign?: readonly PlacedNode[] };

/** Builds the diagrams, shapes and edges of a model. Source: BPMN 2.0, chapter 12 "BPMN DI", from memory. */
export class InterchangeBuilder {
  readonly #diagrams = new Map<Id, Diagram>();
  readonly #shapes = new Map<Id, Shape>();
  readonly #edges = new Map<Id, Edge>();

  constructor(private readonly model: ModelBuilder) {}

  finish() {
    return { diagrams: Table.from(this.#diagrams), shapes: Table.from(this.#shapes), edges: Table.from(this.#edges) };
  }

  openDiagram(attributes: Attributes, _prefix: string): Id {
    const { id: given, name, documentation, resolution, ...others } = attributes;
    const diagram: Writable<Diagram> = {
      id: this.#key(this.#diagrams, given),
      order: this.model.nextOrder(),
      plane: {},
      ...(name !== undefined && { name }),
      ...(documentation !== undefined && { documentation }),
    };
    if (resolution !== undefined) readNumber(diagram, "resolution", resolution);
    if (this.#keyIsSpelled(diagram.id, given)) diagram.spelling = { ...diagram.spelling, id: given as string };
    keepAttributes(diagram, others);
    this.#diagrams.set(diagram.id, diagram);
    let last = "";
    this.#push(
      diagram,
      () => last,
      (local, uri, _name, inner) => {
        if (uri !== interchangeNamespace || local !== "BPMNPlane") return false;
        this.#openPlane(diagram, inner);
        last = "plane";
        return true;
      },
    );
    return diagram.id;
  }

  #openPlane(diagram: Writable<Diagram>, attributes: Attributes): void {
    const { id, bpmnElement, ...others } = attributes;
    const plane: Writable<Diagram["plane"]> = id === undefined ? {} : { id };
    keepAttributes(plane, others);
    diagram.plane = plane;
    if (bpmnElement !== undefined) this.#refer(diagram, "element", bpmnElement);
    let last = "";
    this.#push(
      plane,
      () => last,
      (local, uri, _name, inner) => {
        if (uri !== interchangeNamespace || inner.bpmnElement === undefined) return false;
        if (local === "BPMNShape") last = this.#openShape(diagram.id, inner);
        else if (local === "BPMNEdge") last = this.#openEdge(diagram.id, inner);
        else return false;
        return true;
      },
    );
  }

  #openShape(diagram: Id, attributes: Attributes): Id {
    const given = attributes.id;
    const shape: Writable<Shape> = {
      id: this.#key(this.#shapes, given),
      order: this.model.nextOrder(),
      diagram,
      element: "",
      bounds: { x: 0, y: 0, width: 0, height: 0 },
    };
    for (const name in attributes) {
      const value = attributes[name] as string;
      switch (name) {
        case "id":
        case "bpmnElement":
          break;
        case "isHorizontal":
        case "isExpanded":
        case "isMarkerVisible":
        case "isMessageVisible":
          readBoolean(shape, name, value);
          break;
        case "participantBandKind":
        case "choreographyActivityShape":
          shape[name] = value;
          break;
        default:
          shape.foreignAttributes = [...(shape.foreignAttributes ?? []), [name, value]];
      }
    }
    if (this.#keyIsSpelled(shape.id, given)) shape.spelling = { id: given as string };
    this.#refer(shape, "element", attributes.bpmnElement as string);
    this.#shapes.set(shape.id, shape);
    let last = "";
    this.#push(
      shape,
      () => last,
      (local, uri, _name, inner) => {
        if (uri === dcNamespace && local === "Bounds") {
          shape.bounds = this.#openBounds(inner);
          last = "bounds";
          return true;
        }
        if (uri !== interchangeNamespace || local !== "BPMNLabel") return false;
        this.#openLabel(shape, inner);
        last = "label";
        return true;
      },
    );
    return shape.id;
  }

  #openEdge(diagram: Id, attributes: Attributes): Id {
    const given = attributes.id;
    const edge: Writable<Edge> & { waypoints: Waypoint[] } = {
      id: this.#key(this.#edges, given),
      order: this.model.nextOrder(),
      diagram,
      element: "",
      waypoints: [],
    };
    for (const name in attributes) {
      const value = attributes[name] as string;
      switch (name) {
        case "id":
          break;
        case "bpmnElement":
          this.#refer(edge, "element", value);
          break;
        case "sourceElement":
        case "targetElement":
          this.#refer(edge, name, value);
          break;
        case "messageVisibleKind":
          edge.messageVisibleKind = value;
          break;
        default:
          edge.foreignAttributes = [...(edge.foreignAttributes ?? []), [name, value]];
      }
    }
    if (this.#keyIsSpelled(edge.id, given)) edge.spelling = { ...edge.spelling, id: given as string };
    this.#edges.set(edge.id, edge);
    let last = "";
    this.#push(
      edge,
      () => last,
      (local, uri, _name, inner) => {
        if (uri === diNamespace && local === "waypoint") {
          const waypoint = { x: 0, y: 0 } as Writable<Waypoint>;
          for (const field of ["x", "y"] as const)
            if (inner[field] !== undefined) readNumber(waypoint, field, inner[field] as string);
          edge.waypoints.push(waypoint);
          this.#pushEmpty();
          last = `waypoint#${edge.waypoints.length}`;
          return true;
        }
        if (uri !== interchangeNamespace || local !== "BPMNLabel") return false;
        this.#openLabel(edge, inner);
        last = "label";
        return true;
      },
    );
    return edge.id;
  }

  #openLabel(owner: { label?: Label }, attributes: Attributes): void {
    const { id, labelStyle, ...others } = attributes;
    const label: Writable<Label> = { ...(id !== undefined && { id }), ...(labelStyle !== undefined && { labelStyle }) };
    keepAttributes(label, others);
    owner.label = label;
    this.#push(
      label,
      () => "bounds",
      (local, uri, _name, inner) => {
        if (uri !== dcNamespace || local !== "Bounds") return false;
        label.bounds = this.#openBounds(inner);
        return true;
      },
    );
  }

  #openBounds(attributes: Attributes): FileBounds {
    const bounds = { x: 0, y: 0, width: 0, height: 0 } as Writable<FileBounds>;
    for (const field of ["x", "y", "width", "height"] as const satisfies readonly (keyof Bounds)[]) {
      if (attributes[field] !== undefined) readNumber(bounds, field, attributes[field] as string);
    }
    this.#pushEmpty();
    return bounds;
  }

  #pushEmpty(): void {
    this.model.push(emptyFrame(this.model));
  }

  /** A frame that gives children to `take` and keeps those it does not want with their owner. */
  #push(
    owner: Keeps,
    last: () => string,
    take: (local: string, uri: string, name: string, attributes: Attributes) => boolean,
  ): void {
    const place = (node: XmlNode) => {
      owner.foreign = [...(owner.foreign ?? []), { after: last(), node }];
    };
    this.model.push({
      kind: "interchange",
      open: (name, local, uri, attributes) => {
        if (!take(local, uri, name, attributes)) {
          this.model.openRaw(name, uri, attributes, false, (element) => place({ element }));
        }
      },
      place,
      done: () => {},
    });
  }

  #key(table: ReadonlyMap<Id, unknown>, given: string | undefined): Id {
    if (given !== undefined && given !== "" && !table.has(given)) return given;
    const key = this.model.nextAnonymous();
    if (given) this.model.note("duplicate-id", key, given);
    return key;
  }
  #keyIsSpelled(key: Id, given: string | undefined): boolean {
    return given !== undefined && given !== "" && key !== given;
  }
  #refer(record: object & { spelling?: { readonly [field: string]: string } }, field: string, raw: string): void {
    const target = this.model.targetOf(raw);
    (record as { [field: string]: unknown })[field] = target;
    if (target !== raw) record.spelling = { ...record.spelling, [field]: raw };
  }
}

/** A length as it is written where no file has spelled it: arithmetic on places leaves tails that mean nothing. */
export const writtenNumber = (value: number): string => String(Math.round(value * 1000) / 1000);

function readNumber(
  record: object & { spelling?: { readonly [field: string]: string } },
  field: string,
  raw: string,
): void {
  const value = Number(raw);
  (record as { [field: string]: unknown })[field] = Number.isFinite(value) ? value : 0;
  if (writtenNumber(value) !== raw) record.spelling = { ...record.spelling, [field]: raw };
}

function readBoolean(
  record: object & { spelling?: { readonly [field: string]: string } },
  field: string,
  raw: string,
): void {
  (record as { [field: string]: unknown })[field] = raw === "true" || raw === "1";
  if (raw !== "true" && raw !== "false") record.spelling = { ...record.spelling, [field]: raw };
}

function keepAttributes(owner: Keeps, attributes: Attributes): void {
  const entries = Object.entries(attributes);
  if (entries.length > 0) owner.foreignAttributes = entries;
}

/** For points and bounds, which hold nothing by the standard; one frame serves them all. */
function emptyFrame(model: ModelBuilder): Frame {
  let frame = emptyFrames.get(model);
  if (!frame) {
    frame = {
      kind: "interchange",
      open: (name, _, uri, attributes) => model.openRaw(name, uri, attributes, false, () => {}),
      place: () => {},
      done: () => {},
    };
    emptyFrames.set(model, frame);
  }
  return frame;
}
const emptyFrames = new WeakMap<ModelBuilder, Frame>();
