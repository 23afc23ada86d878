import { type Diagram, type Edge, type Element, emptyModel, type Model, type Shape, Table } from "../model";

/** A model of a wanted size: rows of tasks, each joined to the next. `size` counts tasks and flows. */
export function largeModel(size: number): Model {
  const start = emptyModel({ definitions: "definitions", process: "process", diagram: "page" }, "Large");
  const elements: [string, Element][] = [...start.elements.entries()];
  const shapes: [string, Shape][] = [];
  const edges: [string, Edge][] = [];
  const tasks = Math.floor(size / 2);
  const columns = Math.ceil(Math.sqrt(tasks * 1.6));
  const diagram = [...start.diagrams][0] as Diagram;
  for (let at = 0; at < tasks; at++) {
    const id = `task-${at}`;
    const x = (at % columns) * 168;
    const y = Math.floor(at / columns) * 104;
    elements.push([
      id,
      { id, type: "userTask", parent: "process", slot: "flowElements", order: at * 2 + 10, name: `Check part ${at}` },
    ]);
    shapes.push([
      `${id}.shape`,
      { id: `${id}.shape`, order: at * 2, diagram: diagram.id, element: id, bounds: { x, y, width: 112, height: 64 } },
    ]);
    if (at === 0) continue;
    const flow = `flow-${at}`;
    elements.push([
      flow,
      {
        id: flow,
        type: "sequenceFlow",
        parent: "process",
        slot: "flowElements",
        order: at * 2 + 11,
        sourceRef: `task-${at - 1}`,
        targetRef: id,
      },
    ]);
    const sameRow = at % columns !== 0;
    const waypoints = sameRow
      ? [
          { x: x - 56, y: y + 32 },
          { x, y: y + 32 },
        ]
      : [
          { x: (columns - 1) * 168 + 112, y: y - 72 },
          { x: (columns - 1) * 168 + 130, y: y - 72 },
          { x: (columns - 1) * 168 + 130, y: y - 20 },
          { x: -20, y: y - 20 },
          { x: -20, y: y + 32 },
          { x, y: y + 32 },
        ];
    edges.push([
      `${flow}.edge`,
      { id: `${flow}.edge`, order: at * 2 + 1, diagram: diagram.id, element: flow, waypoints },
    ]);
  }
  return { ...start, elements: Table.from(elements), shapes: Table.from(shapes), edges: Table.from(edges) };
}
