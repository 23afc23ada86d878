import type { Diagram, Edge, Shape } from "./diagram";
import type { Element, Id } from "./element";
import type { Figure } from "./figure";
import { Table } from "./table";

/** What was noticed while a file was read: it opened, but this is wrong with it. */
export interface FileNote {
  readonly code: "duplicate-id" | "misplaced-element" | "bad-value" | "shape-of-nothing";
  readonly element: Id;
  readonly detail: string;
  readonly line: number;
}

/** How the file this came from was written; what a written file takes over. */
export interface FileForm {
  /** Prefix by namespace as the root declared them ("" for the default). */
  readonly prefixes: readonly (readonly [prefix: string, uri: string])[];
  /** Comments and instructions before and behind the root. */
  readonly before: readonly import("./xmlNode").XmlNode[];
  readonly after: readonly import("./xmlNode").XmlNode[];
}

/**
 * A process model: an unchanging document. Meaning stands in `elements`, what steps take in `figures`, geometry in `diagrams`, `shapes` and `edges`.
 * It is changed only by edits (`edit.ts`), which make a new one that shares what they left alone.
 */
export interface Model {
  readonly root: Id;
  readonly elements: Table<Element>;
  readonly diagrams: Table<Diagram>;
  readonly shapes: Table<Shape>;
  readonly edges: Table<Edge>;
  /** What steps are said to take. */
  readonly figures: Table<Figure>;
  readonly form: FileForm;
  readonly notes: readonly FileNote[];
}

export const bpmnNamespace = "http://www.omg.org/spec/BPMN/20100524/MODEL";
export const interchangeNamespace = "http://www.omg.org/spec/BPMN/20100524/DI";
export const dcNamespace = "http://www.omg.org/spec/DD/20100524/DC";
export const diNamespace = "http://www.omg.org/spec/DD/20100524/DI";
export const ownNamespace = "urn:lucid-lane:bpmn:1";
export const instanceNamespace = "http://www.w3.org/2001/XMLSchema-instance";

export const ownForm: FileForm = {
  prefixes: [
    ["", bpmnNamespace],
    ["bpmndi", interchangeNamespace],
    ["dc", dcNamespace],
    ["di", diNamespace],
    ["xsi", instanceNamespace],
    ["lln", ownNamespace],
  ],
  before: [],
  after: [],
};

/** A new model: a process, and a page for it. `ids` are the caller's, so that the same call gives the same model. */
export function emptyModel(ids: { definitions: Id; process: Id; diagram: Id }, processName: string): Model {
  const definitions: Element = {
    id: ids.definitions,
    type: "definitions",
    parent: null,
    slot: "",
    order: 0,
    targetNamespace: `urn:lucid-lane:model:${ids.definitions}`,
    exporter: "Lucid Lane",
  };
  const process: Element = {
    id: ids.process,
    type: "process",
    parent: ids.definitions,
    slot: "rootElements",
    order: 1,
    name: processName,
    isExecutable: false,
  };
  const diagram: Diagram = { id: ids.diagram, order: 1, name: processName, element: ids.process, plane: {} };
  return {
    root: definitions.id,
    elements: Table.from([
      [definitions.id, definitions],
      [process.id, process],
    ]),
    diagrams: Table.from([[diagram.id, diagram]]),
    shapes: Table.empty(),
    edges: Table.empty(),
    figures: Table.empty(),
    form: ownForm,
    notes: [],
  };
}
