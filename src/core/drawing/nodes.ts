import {
  childrenOf,
  type Element,
  type ElementType,
  isEvent,
  isGateway,
  isSubProcess,
  isTask,
  type Model,
  nameOf,
  type Shape,
  triggerOf,
  wordFor,
} from "../model";
import { bandText, nodeLabel, type PlacedLabel, textInside } from "./labels";
import { type ActivityMarker, activityMarkers, eventMarker, gatewayMarker, taskMarker } from "./markers";
import { circle, diamond, outlined, type Primitive, rect, roundedRect, stroke } from "./primitives";

export const poolBand = 28;
const hairline = 1.6;
const heavy = 3.4;

/** What a node looks like, but for a name that stands outside it. */
export function drawNode(model: Model, element: Element, shape: Shape, hue: string | undefined): Primitive[] {
  const { type } = element;
  if (isEvent(type)) return drawEvent(model, element, shape);
  if (isGateway(type)) return drawGateway(element, shape);
  if (isTask(type) || isSubProcess(type) || type === "callActivity") return drawActivity(model, element, shape);
  switch (type) {
    case "participant":
      return drawPool(model, element, shape);
    case "lane":
      return drawLane(element, shape, hue);
    case "dataObject":
    case "dataObjectReference":
    case "dataInput":
    case "dataOutput":
      return drawDataObject(model, element, shape);
    case "dataStoreReference":
    case "dataStore":
      return drawDataStore(shape);
    case "textAnnotation":
      return drawAnnotation(model, element, shape);
    case "group":
      return [stroke(roundedRect(shape.bounds, 10), hairline, "pencil", "10 4 2 4")];
    default:
      // A kind not drawn after the standard yet shows as what it is, never as nothing.
      return [
        outlined(rect(shape.bounds), 1.2, "paper", "3 3"),
        ...textInside(`${element.name ?? ""} (${wordFor(type)})`.trim(), shape.bounds, {
          cornerMarker: false,
          bottomMarkers: false,
        }),
      ];
  }
}

/** A node's name, where that stands outside it. */
export function outsideLabel(model: Model, element: Element, shape: Shape): PlacedLabel | undefined {
  const { type } = element;
  const name = element.name ?? "";
  if (isEvent(type)) return nodeLabel(name, shape, type === "boundaryEvent" ? "below-right" : "below");
  if (isGateway(type)) return nodeLabel(name, shape, "above");
  switch (type) {
    case "dataObject":
    case "dataObjectReference":
    case "dataInput":
    case "dataOutput": {
      const state = childrenOf(model, element.id, "dataState")[0]?.name;
      return nodeLabel([name, state && `[${state}]`].filter(Boolean).join("\n"), shape, "below");
    }
    case "dataStoreReference":
    case "dataStore":
      return nodeLabel(name, shape, "below");
    case "group":
      return nodeLabel(groupName(model, element), shape, "above");
    default:
      return undefined;
  }
}

function drawEvent(model: Model, element: Element, shape: Shape): Primitive[] {
  const { bounds } = shape;
  const cx = bounds.x + bounds.width / 2;
  const cy = bounds.y + bounds.height / 2;
  const r = Math.min(bounds.width, bounds.height) / 2;
  const nonInterrupting =
    (element.type === "boundaryEvent" && element.cancelActivity === false) ||
    (element.type === "startEvent" && element.isInterrupting === false);
  const dash = nonInterrupting ? "4 2.5" : undefined;
  const primitives: Primitive[] = [];
  if (element.type === "startEvent") primitives.push(outlined(circle(cx, cy, r), hairline, "paper", dash));
  else if (element.type === "endEvent") primitives.push(outlined(circle(cx, cy, r - 0.9), heavy));
  else
    primitives.push(outlined(circle(cx, cy, r), 1.4, "paper", dash), stroke(circle(cx, cy, r - 3), 1.4, "ink", dash));
  const throwing = element.type === "endEvent" || element.type === "intermediateThrowEvent";
  primitives.push(...eventMarker(triggerOf(model, element), throwing, cx, cy, (r / 16) * 0.98));
  return primitives;
}

function drawGateway(element: Element, shape: Shape): Primitive[] {
  const { bounds } = shape;
  const cx = bounds.x + bounds.width / 2;
  const cy = bounds.y + bounds.height / 2;
  const showsCross = shape.isMarkerVisible !== false;
  return [
    outlined(diamond(bounds)),
    ...gatewayMarker(
      element.type,
      cx,
      cy,
      showsCross,
      element.instantiate === true,
      element.eventGatewayType === "Parallel",
    ),
  ];
}

/** Whether a sub-process shows its content in place. A file without a word on it that is drawn large does. */
export function isExpanded(element: Element, shape: Shape): boolean {
  return isSubProcess(element.type) && (shape.isExpanded ?? (shape.bounds.width > 160 && shape.bounds.height > 110));
}

function drawActivity(model: Model, element: Element, shape: Shape): Primitive[] {
  const { bounds } = shape;
  const expanded = isExpanded(element, shape);
  const primitives: Primitive[] = [];
  const isEventSubProcess = element.triggeredByEvent === true;
  const isCall = element.type === "callActivity";
  primitives.push(
    outlined(roundedRect(bounds, 8), isCall ? heavy : hairline, "paper", isEventSubProcess ? "2 3" : undefined),
  );
  if (element.type === "transaction") {
    const inner = { x: bounds.x + 3, y: bounds.y + 3, width: bounds.width - 6, height: bounds.height - 6 };
    primitives.push(stroke(roundedRect(inner, 6), 1.2));
  }
  const marker = taskMarker(element.type, bounds.x + 14, bounds.y + 13);
  const markers = markersOf(model, element, expanded);
  primitives.push(...marker, ...activityMarkers(markers, bounds.x + bounds.width / 2, bounds.y + bounds.height));
  const name = element.name ?? "";
  if (expanded) {
    const head = { ...bounds, height: 24 };
    primitives.push(...textInside(name, head, { cornerMarker: false, bottomMarkers: false, weight: 600 }));
  } else
    primitives.push(
      ...textInside(name, bounds, { cornerMarker: marker.length > 0, bottomMarkers: markers.length > 0 }),
    );
  return primitives;
}

function markersOf(model: Model, element: Element, expanded: boolean): ActivityMarker[] {
  const markers: ActivityMarker[] = [];
  const loop = childrenOf(model, element.id, "loopCharacteristics")[0];
  if (loop?.type === "standardLoopCharacteristics") markers.push("loop");
  if (loop?.type === "multiInstanceLoopCharacteristics")
    markers.push(loop.isSequential === true ? "sequential" : "parallel");
  if (element.isForCompensation === true) markers.push("compensation");
  if (element.type === "adHocSubProcess") markers.push("adHoc");
  if ((isSubProcess(element.type) && !expanded) || element.type === "callActivity") markers.push("collapsed");
  return markers;
}

function drawPool(model: Model, element: Element, shape: Shape): Primitive[] {
  const { bounds } = shape;
  const closed = element.processRef === undefined;
  const horizontal = shape.isHorizontal !== false;
  const name = element.name ?? "";
  const multiplicity = childrenOf(model, element.id, "participantMultiplicity")[0];
  const marker =
    multiplicity && ((multiplicity.maximum as number | undefined) ?? 2) > 1
      ? activityMarkers(["parallel"], bounds.x + bounds.width / 2, bounds.y + bounds.height)
      : [];
  if (closed) {
    const upright = bounds.height > bounds.width;
    return [outlined(rect(bounds)), ...bandText(name, bounds, upright, 600), ...marker];
  }
  const band = horizontal
    ? { ...bounds, width: Math.min(poolBand, bounds.width) }
    : { ...bounds, height: Math.min(poolBand, bounds.height) };
  const line = horizontal
    ? `M${band.x + band.width} ${bounds.y}L${band.x + band.width} ${bounds.y + bounds.height}`
    : `M${bounds.x} ${band.y + band.height}L${bounds.x + bounds.width} ${band.y + band.height}`;
  return [outlined(rect(bounds)), stroke(line), ...bandText(name, band, horizontal, 600), ...marker];
}

function drawLane(element: Element, shape: Shape, hue: string | undefined): Primitive[] {
  const { bounds } = shape;
  const horizontal = shape.isHorizontal !== false;
  const band = horizontal
    ? { ...bounds, width: Math.min(poolBand, bounds.width) }
    : { ...bounds, height: Math.min(poolBand, bounds.height) };
  const ribbon = horizontal
    ? { x: band.x + band.width - 2, y: bounds.y + 1, width: 5, height: bounds.height - 2 }
    : { x: bounds.x + 1, y: band.y + band.height - 2, width: bounds.width - 2, height: 5 };
  return [
    outlined(rect(bounds), 1.4, "none"),
    ...(hue ? [{ kind: "ribbon", bounds: ribbon, hue } as const] : []),
    ...bandText(element.name ?? "", horizontal ? { ...band, width: band.width - 2 } : band, horizontal, 400),
  ];
}

function drawDataObject(model: Model, element: Element, shape: Shape): Primitive[] {
  const { x, y, width, height } = shape.bounds;
  const fold = Math.min(11, width / 3);
  const outline = `M${x} ${y}L${x + width - fold} ${y}L${x + width} ${y + fold}L${x + width} ${y + height}L${x} ${y + height}Z`;
  const object = typeof element.dataObjectRef === "string" ? model.elements.get(element.dataObjectRef) : element;
  const arrow = { x: x + 10, y: y + 10 };
  const direction: Primitive[] =
    element.type === "dataInput" || element.type === "dataOutput"
      ? [
          outlined(
            `M${arrow.x - 6} ${arrow.y - 2}h6v-4l6 6l-6 6v-4h-6z`,
            1.1,
            element.type === "dataInput" ? "paper" : "ink",
          ),
        ]
      : [];
  return [
    outlined(outline, 1.4),
    stroke(`M${x + width - fold} ${y}L${x + width - fold} ${y + fold}L${x + width} ${y + fold}`, 1.2),
    ...direction,
    ...(object?.isCollection === true ? activityMarkers(["parallel"], x + width / 2, y + height + 1) : []),
  ];
}

function drawDataStore(shape: Shape): Primitive[] {
  const { x, y, width, height } = shape.bounds;
  const lid = Math.min(8, height / 4);
  const arc = (top: number) => `M${x} ${top}A${width / 2} ${lid} 0 0 0 ${x + width} ${top}`;
  const body = `M${x} ${y + lid}A${width / 2} ${lid} 0 0 1 ${x + width} ${y + lid}L${x + width} ${y + height - lid}A${width / 2} ${lid} 0 0 1 ${x} ${y + height - lid}Z`;
  return [outlined(body, 1.4), stroke(arc(y + lid), 1.4), stroke(arc(y + lid + 4), 1.1), stroke(arc(y + lid + 8), 1.1)];
}

function drawAnnotation(model: Model, element: Element, shape: Shape): Primitive[] {
  const { x, y, height } = shape.bounds;
  const lines = textInside(
    nameOf(model, element.id),
    { ...shape.bounds, x: x + 4 },
    { cornerMarker: false, bottomMarkers: false },
  );
  const left = lines.map((line) => (line.kind === "text" ? { ...line, x: x + 8, anchor: "start" as const } : line));
  return [stroke(`M${x + 12} ${y}L${x} ${y}L${x} ${y + height}L${x + 12} ${y + height}`, 1.4), ...left];
}

function groupName(model: Model, element: Element): string {
  const value = typeof element.categoryValueRef === "string" ? model.elements.get(element.categoryValueRef) : undefined;
  return (value?.value as string | undefined) ?? "";
}

/** Drawing order by type: containers lie under what they contain. */
export function layerOf(type: ElementType): number {
  switch (type) {
    case "participant":
      return 0;
    case "lane":
      return 1;
    case "group":
      return 2;
    case "boundaryEvent":
      return 6;
    default:
      return 4;
  }
}
