import { say } from "../../messages";
import { isFlowNode, type Shape } from "../../model";
import type { Found, Rule } from "../finding";

export const shapesOverlap: Rule = {
  id: "shapes-overlap",
  group: "layout",
  severity: "advice",
  wants: say`Shapes do not cover each other.`,
  find: (model) =>
    [...model.diagrams].flatMap((diagram) => {
      const shapes = [...model.shapes].filter((shape) => {
        const element = model.elements.get(shape.element);
        return (
          shape.diagram === diagram.id &&
          element &&
          isFlowNode(element.type) &&
          element.type !== "boundaryEvent" &&
          shape.isExpanded !== true
        );
      });
      shapes.sort((a, b) => a.bounds.x - b.bounds.x);
      return shapes.flatMap((shape, at) => {
        const found: Found[] = [];
        for (let next = at + 1; next < shapes.length; next++) {
          const other = shapes[next] as Shape;
          if (other.bounds.x >= shape.bounds.x + shape.bounds.width) break;
          if (
            other.bounds.y + other.bounds.height <= shape.bounds.y ||
            other.bounds.y >= shape.bounds.y + shape.bounds.height
          )
            continue;
          found.push({
            elements: [shape.element, other.element],
            message: say`Two shapes cover each other, so one of them cannot be read. Move one away, or let the page be tidied.`,
            repairs: [{ label: say`Tidy the page`, commands: [{ type: "tidy", diagram: diagram.id }] }],
          });
        }
        return found;
      });
    }),
};
