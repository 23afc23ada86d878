import type { Point } from "../model";
import type { Bands } from "./align";
import { type Columns, isShut, leavesOnRight, uprightKey } from "./columns";
import { simplified } from "./geometry";
import type { Item, LayoutNode, Network } from "./network";

/** The course of each flow, from shape to shape, level and upright pieces alone. */
export function coursesOf(network: Network, bands: Bands, columns: Columns): Point[][] {
  return network.flows.map((_, flow) =>
    simplified(
      network.isBack[flow] ? backCourse(network, bands, columns, flow) : forwardCourse(network, bands, columns, flow),
    ),
  );
}

/** A flow's items, with what it leads from and to. */
function endsOf({ items, flows, courses }: Network, flow: number) {
  const course = courses[flow] as number[];
  const source = items[course[0] as number] as Item;
  const target = items[course[course.length - 1] as number] as Item;
  const [from, to] = [source.node as LayoutNode, target.node as LayoutNode];
  return { course, source, target, from, to, exit: flows[flow]?.exit };
}

function forwardCourse(network: Network, { y }: Bands, columns: Columns, flow: number): Point[] {
  const { items } = network;
  const { course, source, target, from, to, exit } = endsOf(network, flow);
  const x = columns.centres[source.layer] as number;
  const middle = y[source.at] as number;
  const points: Point[] = [];
  const turn = columns.leaves.get(flow);
  let level = middle;
  if (turn) {
    const at = x + (exit?.x ?? 0);
    points.push({ x: at, y: exit ? middle + exit.bottom : middle + (Math.sign(turn.y - middle) * from.height) / 2 });
    level = turn.y;
    points.push({ x: at, y: level });
  } else if (exit) {
    level = middle + exit.y;
    if (exit.y < exit.bottom) points.push({ x: x + exit.x + exit.bottom - exit.y, y: level });
    else points.push({ x: x + exit.x, y: middle + exit.bottom }, { x: x + exit.x, y: level });
  } else points.push({ x: x + from.width / 2, y: middle });
  const entry = columns.enters.get(flow);
  for (let at = 1; at < course.length; at++) {
    const item = items[course[at] as number] as Item;
    const next = item === target ? (entry?.y ?? (y[item.at] as number)) : (y[item.at] as number);
    if (next !== level) {
      const upright = columns.uprights.get(uprightKey(flow, item.layer - 1)) as number;
      points.push({ x: upright, y: level }, { x: upright, y: next });
      level = next;
    }
  }
  const end = columns.centres[target.layer] as number;
  if (entry) {
    const middleOfTarget = y[target.at] as number;
    points.push(
      { x: end, y: level },
      { x: end, y: middleOfTarget + (Math.sign(entry.y - middleOfTarget) * to.height) / 2 },
    );
  } else points.push({ x: end - to.width / 2, y: level });
  return points;
}

function backCourse(network: Network, { y }: Bands, columns: Columns, flow: number): Point[] {
  const { items } = network;
  const { course, source, target, from, to, exit } = endsOf(network, flow);
  const x = columns.centres[source.layer] as number;
  const middle = y[source.at] as number;
  let level = y[course[1] as number] as number;
  const points: Point[] = [];
  if (leavesOnRight(network, flow)) {
    const upright = columns.uprights.get(uprightKey(flow, source.layer)) as number;
    points.push({ x: x + from.width / 2, y: middle }, { x: upright, y: middle }, { x: upright, y: level });
  } else {
    const at = x + (exit?.x ?? 0);
    const start = exit ? middle + exit.bottom : middle + (Math.sign(level - middle) * from.height) / 2;
    points.push({ x: at, y: start }, { x: at, y: level });
  }
  for (let at = 2; at < course.length - 1; at++) {
    const item = items[course[at] as number] as Item;
    const next = y[item.at] as number;
    if (next === level) continue;
    const upright = columns.uprights.get(uprightKey(flow, item.layer)) as number;
    points.push({ x: upright, y: level }, { x: upright, y: next });
    level = next;
  }
  const end = columns.centres[target.layer] as number;
  const middleOfTarget = y[target.at] as number;
  const last = items[course[course.length - 2] as number] as Item;
  if (isShut(to, last.side)) {
    const upright = columns.uprights.get(uprightKey(flow, target.layer - 1)) as number;
    points.push(
      { x: upright, y: level },
      { x: upright, y: middleOfTarget },
      { x: end - to.width / 2, y: middleOfTarget },
    );
  } else
    points.push(
      { x: end, y: level },
      { x: end, y: middleOfTarget + (Math.sign(level - middleOfTarget) * to.height) / 2 },
    );
  return points;
}
