import { say } from "../../messages";
import type { Edge, Model, Point } from "../../model";
import type { Found, Rule } from "../finding";

/** Whether two stretches cross in their insides; what merely touches or runs along does not. */
function crosses(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) => Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Source: H. Purchase, "Which aesthetic has the greatest effect on human understanding?" (1997): crossings hinder most. */
export const flowsCross: Rule = {
  id: "flows-cross",
  group: "layout",
  severity: "advice",
  wants: say`Sequence flows do not cross.`,
  find: (model) => {
    // Only what is drawn counts, and most changes leave the lines as they are.
    const known = remembered.get(model.edges);
    if (known) return known;
    const found = crossingsIn(model);
    remembered.set(model.edges, found);
    return found;
  },
};

const remembered = new WeakMap<Model["edges"], readonly Found[]>();

function crossingsIn(model: Model): Found[] {
  return [...model.diagrams].flatMap((diagram): Found[] => {
    const edges = [...model.edges].filter(
      (edge) => edge.diagram === diagram.id && model.elements.get(edge.element)?.type === "sequenceFlow",
    );
    const crossing = new Set<string>();
    let count = 0;
    const stretches = edges
      .flatMap((edge) => edge.waypoints.slice(1).map((to, at) => ({ edge, from: edge.waypoints[at] as Point, to })))
      .sort((a, b) => Math.min(a.from.x, a.to.x) - Math.min(b.from.x, b.to.x));
    for (const [at, one] of stretches.entries()) {
      const right = Math.max(one.from.x, one.to.x);
      for (let next = at + 1; next < stretches.length; next++) {
        const other = stretches[next] as { edge: Edge; from: Point; to: Point };
        if (Math.min(other.from.x, other.to.x) > right) break;
        if (other.edge === one.edge || !crosses(one.from, one.to, other.from, other.to)) continue;
        count++;
        crossing.add(one.edge.element);
        crossing.add(other.edge.element);
      }
    }
    // A few cannot be avoided where lanes are changed often.
    if (count <= 3) return [];
    return [
      {
        elements: [...crossing],
        message: say`Flows cross ${count} times on one page. Each crossing costs readers time; move steps, or let the page be tidied.`,
        repairs: [{ label: say`Tidy the page`, commands: [{ type: "tidy", diagram: diagram.id }] }],
      },
    ];
  });
}
