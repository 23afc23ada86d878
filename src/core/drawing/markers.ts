import type { ElementType, EventTrigger } from "../model";
import { circle, filled, outlined, type Primitive, placed, stroke } from "./primitives";

/**
 * Markers after the standard's notation chapters (BPMN 2.0, tables 10.3 to 10.93 and figures), in our own line work.
 * Paths are drawn around 0,0 in a square of 16 units.
 */
const envelope = "M-7 -5L7 -5L7 5L-7 5Z";
const envelopeFlap = "M-7 -5L0 1L7 -5";
const person = "M-6 7C-6 2 -4 0.5 0 0.5C4 0.5 6 2 6 7Z";
const hand =
  "M-7 1C-7 -2 -5 -3.2 -3.4 -5L-1.6 -7C-0.6 -8 1 -7 0.4 -5.6L-0.8 -3L6 -3C7.5 -3 7.5 -0.9 6 -0.9L6.4 -0.9C7.8 -0.9 7.8 1.2 6.4 1.2L5.8 1.2C7.1 1.2 7.1 3.2 5.6 3.2L4.6 3.2C5.9 3.2 5.9 5.2 4.4 5.2L-2 5.2C-5 5.2 -7 4 -7 1Z";
const fingers = "M1.5 -0.9L6 -0.9M1.5 1.2L5.8 1.2M1.5 3.2L4.6 3.2";
const page = "M-5 -7L3.5 -7C6 -4 1 -1 3.5 2C4.5 4 5 5 4 7L-4.5 7C-3 4 -7.5 1 -5.5 -2C-4 -4 -4 -5.5 -5 -7Z";
const pageLines = "M-3.5 -4L2 -4M-4 -1L1 -1M-2.5 2L2 2M-2 4.8L2.5 4.8";
const ruleTable = "M-7 -6L7 -6L7 6L-7 6Z";
const ruleHead = "M-7 -6L7 -6L7 -2.5L-7 -2.5Z";
const ruleLines = "M-7 1.8L7 1.8M-2.5 -2.5L-2.5 6";
const lightning = "M-6 6L-2.5 -5L1.5 1L5.5 -6.5L2.5 5.5L-1.5 0Z";
const arrowUp = "M0 -7L5.5 6.5L0 1.5L-5.5 6.5Z";
const crossed = "M-6 -4L-4 -6L0 -2L4 -6L6 -4L2 0L6 4L4 6L0 2L-4 6L-6 4L-2 0Z";
const rewind = "M-7.5 0L-0.5 -5L-0.5 5ZM-0.5 0L6.5 -5L6.5 5Z";
const arrowRight = "M-7 -2.5L2 -2.5L2 -6L7.5 0L2 6L2 2.5L-7 2.5Z";
const triangle = "M0 -6.5L6.5 5L-6.5 5Z";
const pentagon = "M0 -7L6.8 -2L4.2 6L-4.2 6L-6.8 -2Z";
const wideCross = "M-2 -7L2 -7L2 -2L7 -2L7 2L2 2L2 7L-2 7L-2 2L-7 2L-7 -2L-2 -2Z";
const list = "M-5.5 -6.5L5.5 -6.5L5.5 6.5L-5.5 6.5Z";
const listLines = "M-3.5 -3.8L3.5 -3.8M-3.5 -1.2L3.5 -1.2M-3.5 1.4L3.5 1.4M-3.5 4L3.5 4";

/** The marker in an event: outlined where it catches, filled where it throws. */
export function eventMarker(
  trigger: EventTrigger,
  throwing: boolean,
  cx: number,
  cy: number,
  scale: number,
): Primitive[] {
  const shape = (d: string) => {
    const path = placed(d, cx, cy, scale);
    return throwing ? filled(path) : outlined(path, 1.2, "none");
  };
  const lines = (d: string, tone: "ink" | "paper" = "ink") => stroke(placed(d, cx, cy, scale), 1.2, tone);
  switch (trigger) {
    case "none":
      return [];
    case "messageEventDefinition":
      return [shape(envelope), lines(envelopeFlap, throwing ? "paper" : "ink")];
    case "timerEventDefinition": {
      const ticks = Array.from({ length: 12 }, (_, hour) => {
        const angle = (hour * Math.PI) / 6;
        return `M${Math.sin(angle) * 5.8} ${-Math.cos(angle) * 5.8}L${Math.sin(angle) * 7.3} ${-Math.cos(angle) * 7.3}`;
      }).join("");
      return [
        stroke(circle(cx, cy, 7.5 * scale), 1.2),
        stroke(placed(fixed(ticks), cx, cy, scale), 0.8),
        lines("M0 -5L0 0L3.5 1"),
      ];
    }
    case "errorEventDefinition":
      return [shape(lightning)];
    case "escalationEventDefinition":
      return [shape(arrowUp)];
    case "signalEventDefinition":
      return [shape(triangle)];
    case "conditionalEventDefinition":
      return [outlined(placed(list, cx, cy, scale), 1.2, "none"), stroke(placed(listLines, cx, cy, scale), 1)];
    case "linkEventDefinition":
      return [shape(arrowRight)];
    case "compensateEventDefinition":
      return [shape(rewind)];
    case "cancelEventDefinition":
      return [shape(crossed)];
    case "terminateEventDefinition":
      return [filled(circle(cx, cy, 7.5 * scale))];
    case "multiple":
      return [shape(pentagon)];
    case "parallelMultiple":
      return [shape(wideCross)];
  }
}

function fixed(d: string): string {
  return d.replace(/-?\d+\.\d+(e-\d+)?/g, (number) => Number(number).toFixed(2));
}

/** The marker in a task's upper left corner; none for a plain task. */
export function taskMarker(type: ElementType, cx: number, cy: number): Primitive[] {
  const scale = 0.9;
  const at = (d: string) => placed(d, cx, cy, scale);
  switch (type) {
    case "userTask":
      return [outlined(at(person), 1.2), outlined(circle(cx, cy - 3.4, 3.2), 1.2)];
    case "manualTask":
      return [outlined(at(hand), 1), stroke(at(fingers), 0.9)];
    case "serviceTask":
      return [outlined(at(gear(8, 7.4, 5.6)), 1.1), outlined(circle(cx, cy, 2.4), 1.1)];
    case "sendTask":
      return [filled(at(envelope)), stroke(at(envelopeFlap), 1.2, "paper")];
    case "receiveTask":
      return [outlined(at(envelope), 1.2), stroke(at(envelopeFlap), 1.2)];
    case "scriptTask":
      return [outlined(at(page), 1.1), stroke(at(pageLines), 1)];
    case "businessRuleTask":
      return [outlined(at(ruleTable), 1.2), filled(at(ruleHead), "ink"), stroke(at(ruleLines), 1)];
    default:
      return [];
  }
}

function gear(teeth: number, outer: number, inner: number): string {
  const points: string[] = [];
  const stepAngle = (Math.PI * 2) / teeth;
  for (let tooth = 0; tooth < teeth; tooth++) {
    for (const [share, radius] of [
      [-0.3, inner],
      [-0.18, outer],
      [0.18, outer],
      [0.3, inner],
    ] as const) {
      const angle = (tooth + share) * stepAngle;
      points.push(`${(Math.sin(angle) * radius).toFixed(2)} ${(-Math.cos(angle) * radius).toFixed(2)}`);
    }
  }
  return `M${points.join("L")}Z`;
}

/** The sign in a gateway's diamond. */
export function gatewayMarker(
  type: ElementType,
  cx: number,
  cy: number,
  showExclusive: boolean,
  instantiates: boolean,
  isParallel = false,
): Primitive[] {
  const at = (d: string) => placed(d, cx, cy, 1);
  switch (type) {
    case "exclusiveGateway":
      return showExclusive ? [stroke(at("M-5.5 -6.5L5.5 6.5M5.5 -6.5L-5.5 6.5"), 2.6)] : [];
    case "inclusiveGateway":
      return [stroke(circle(cx, cy, 8.5), 2.6)];
    case "parallelGateway":
      return [stroke(at("M0 -9.5L0 9.5M-9.5 0L9.5 0"), 2.6)];
    case "complexGateway":
      return [stroke(at("M0 -9.5L0 9.5M-9.5 0L9.5 0M-6.5 -6.5L6.5 6.5M6.5 -6.5L-6.5 6.5"), 2.2)];
    case "eventBasedGateway":
      return [
        stroke(circle(cx, cy, 10.5), 1.1),
        ...(instantiates ? [] : [stroke(circle(cx, cy, 8.5), 1.1)]),
        isParallel ? outlined(placed(wideCross, cx, cy, 0.8), 1.1) : stroke(placed(pentagon, cx, cy, 0.75), 1.1),
      ];
    default:
      return [];
  }
}

export type ActivityMarker = "loop" | "parallel" | "sequential" | "compensation" | "adHoc" | "collapsed";

/** Markers at the middle of an activity's lower edge, side by side. */
export function activityMarkers(markers: readonly ActivityMarker[], cx: number, bottom: number): Primitive[] {
  const cy = bottom - 9;
  const pitch = 18;
  const first = cx - ((markers.length - 1) * pitch) / 2;
  return markers.flatMap((marker, at) => activityMarker(marker, first + at * pitch, cy));
}

function activityMarker(marker: ActivityMarker, x: number, cy: number): Primitive[] {
  switch (marker) {
    case "loop":
      return [stroke(placed("M-3 5C-7 2 -6 -6 0 -6C6 -6 7 2 2.5 5M-3 5L-3.5 1M-3 5L-6.8 5", x, cy, 0.9), 1.4)];
    case "parallel":
      return [stroke(placed("M-4 -6L-4 6M0 -6L0 6M4 -6L4 6", x, cy, 0.9), 2)];
    case "sequential":
      return [stroke(placed("M-6 -4L6 -4M-6 0L6 0M-6 4L6 4", x, cy, 0.9), 2)];
    case "compensation":
      return [outlined(placed(rewind, x, cy, 0.85), 1.1, "none")];
    case "adHoc":
      return [stroke(placed("M-6 2C-4 -4 -2 -3 0 0C2 3 4 3 6 -2", x, cy, 0.9), 2)];
    case "collapsed":
      return [stroke(placed("M-6 -6L6 -6L6 6L-6 6ZM-4 0L4 0M0 -4L0 4", x, cy, 0.95), 1.3)];
  }
}
