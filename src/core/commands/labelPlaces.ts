import { besideLine, defaultMark, flowLabel, type LabelAnchor, labelBeside } from "../drawing";
import { overlaps, segmentCrosses } from "../layout";
import { type Bounds, type Id, isDataNode, isEvent, isGateway, type Point } from "../model";
import type { Change } from "./change";
import { shapesOnPage } from "./page";

/** Finds places for the labels of a page where they cover neither shapes nor flows nor each other. */
export function placeLabels(change: Change, diagram: Id): void {
  const shapes = shapesOnPage(change.model, diagram).filter(
    ({ element }) => element.type !== "participant" && element.type !== "lane" && element.type !== "group",
  );
  const solid = shapes.filter(({ shape }) => !(shape.isExpanded === true)).map(({ shape }) => shape.bounds);
  const edges = [...change.model.edges].filter((edge) => edge.diagram === diagram && edge.waypoints.length > 1);
  const lines = edges.map((edge) => edge.waypoints as readonly Point[]);
  for (const edge of edges) {
    const source = change.model.elements.get(String(change.model.elements.get(edge.element)?.sourceRef));
    if (source?.default === edge.element)
      lines.push(defaultMark(edge.waypoints[0] as Point, edge.waypoints[1] as Point));
  }
  // A label across the border of two lanes seems to belong to both.
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    if (element.type !== "lane" && element.type !== "participant") continue;
    const { x, y, width, height } = shape.bounds;
    lines.push(
      [
        { x, y },
        { x: x + width, y },
      ],
      [
        { x, y: y + height },
        { x: x + width, y: y + height },
      ],
    );
  }
  const taken: Bounds[] = [];
  const cost = (bounds: Bounds) => {
    let sum = 0;
    for (const other of [...solid, ...taken]) if (overlaps(bounds, other)) sum += 100;
    const { x, y, width, height } = bounds;
    // Touching reads nearly as badly as crossing.
    const around = { x: x - 3, y: y - 1, width: width + 6, height: height + 2 };
    for (const line of lines) {
      for (let at = 0; at + 1 < line.length; at++) {
        if (segmentCrosses(bounds, line[at] as Point, line[at + 1] as Point)) sum += 30;
        else if (segmentCrosses(around, line[at] as Point, line[at + 1] as Point)) sum += 8;
      }
    }
    return sum;
  };
  const best = <Place extends { bounds: Bounds }>(places: readonly Place[]): Place | undefined => {
    let found: Place | undefined;
    let least = Number.POSITIVE_INFINITY;
    places.forEach((place, at) => {
      const total = cost(place.bounds) + at;
      if (total < least) [found, least] = [place, total];
    });
    if (found) taken.push(found.bounds);
    return found;
  };
  for (const { shape, element } of shapes) {
    const text = element.name ?? "";
    if (text.trim() === "" || !(isEvent(element.type) || isGateway(element.type) || isDataNode(element.type))) continue;
    const usual: LabelAnchor = isGateway(element.type)
      ? "above"
      : element.type === "boundaryEvent"
        ? "below-right"
        : "below";
    const anchors = [
      usual,
      ...(["below", "above", "below-right", "right"] as const).filter((anchor) => anchor !== usual),
    ];
    const candidates = anchors.flatMap((anchor) => {
      const place = labelBeside(text, shape.bounds, anchor);
      const beside =
        isGateway(element.type) || isEvent(element.type)
          ? [
              { ...place, bounds: { ...place.bounds, x: place.bounds.x + place.bounds.width / 2 + 6 } },
              { ...place, bounds: { ...place.bounds, x: place.bounds.x - place.bounds.width / 2 - 6 } },
            ]
          : [];
      return anchor === "above" || anchor === "below" ? [place, ...beside] : [place];
    });
    const chosen = best(candidates);
    if (chosen && chosen !== candidates[0]) change.set("shapes", shape.id, "label", { bounds: chosen.bounds });
  }
  for (const edge of [...change.model.edges]) {
    if (edge.diagram !== diagram) continue;
    const text = change.model.elements.get(edge.element)?.name ?? "";
    if (text.trim() === "" || edge.waypoints.length < 2) continue;
    const usual = flowLabel(text, { ...edge, label: undefined });
    if (!usual) continue;
    const candidates = [usual];
    for (let at = 0; at + 1 < edge.waypoints.length; at++) {
      const piece = [edge.waypoints[at] as Point, edge.waypoints[at + 1] as Point];
      const base = besideLine(text, piece);
      const level = piece[0]?.y === piece[1]?.y;
      candidates.push(base, {
        ...base,
        bounds: level
          ? { ...base.bounds, y: base.bounds.y + base.bounds.height + 4 }
          : { ...base.bounds, x: base.bounds.x - base.bounds.width - 12 },
      });
      for (const share of [0.2, 0.35, 0.5, 0.65, 0.8]) {
        const x = (piece[0] as Point).x + ((piece[1] as Point).x - (piece[0] as Point).x) * share;
        const y = (piece[0] as Point).y + ((piece[1] as Point).y - (piece[0] as Point).y) * share;
        const { width, height } = base.bounds;
        // Over or under a level piece, right or left of an upright one.
        const places = level
          ? [
              { x: x - width / 2, y: y - height - 2 },
              { x: x - width / 2, y: y + 3 },
            ]
          : [
              { x: x + 6, y: y - height / 2 },
              { x: x - width - 6, y: y - height / 2 },
            ];
        for (const at of places) candidates.push({ ...base, bounds: { ...at, width, height } });
      }
    }
    const chosen = best(candidates);
    if (chosen && chosen !== usual) change.set("edges", edge.id, "label", { bounds: chosen.bounds });
  }
}
