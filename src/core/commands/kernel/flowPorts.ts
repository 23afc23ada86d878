import { type Port, portsOf, type Side, sidePoint } from "../../layout";
import { type Bounds, type Id, isGateway, type Model, type Point, shapeOn } from "../../model";

interface FlowEnd {
  readonly id: Id;
  readonly bounds: Bounds;
}

interface Ports {
  readonly from: Port[];
  readonly to: Port[];
}

const towardsRight: Partial<Record<Side, number>> = { right: 0, bottom: 16, top: 18, left: 140 };
const fromLeft: Partial<Record<Side, number>> = { left: 0, top: 16, bottom: 16, right: 140 };

/** Ports of a flow's ends, by what they are. Boundary events leave away from their host. */
export function portsForFlow(
  model: Model,
  diagram: Id,
  connection: string,
  { id: sourceId, bounds: source }: FlowEnd,
  { id: targetId, bounds: target }: FlowEnd,
  others: readonly (readonly Point[])[],
): Ports {
  const sourceElement = model.elements.get(sourceId);
  if (connection === "messageFlow")
    return besideOthers(messagePorts(model, sourceId, source, targetId, target), others);
  if (connection !== "sequenceFlow") {
    const any = { top: 4, bottom: 4, left: 6, right: 6 };
    return { from: portsOf(source, any), to: portsOf(target, any) };
  }
  let out = towardsRight;
  if (sourceElement?.type === "boundaryEvent") {
    const host = shapeOn(model, diagram, sourceElement.attachedToRef as Id)?.bounds;
    out = host ? awayFrom(host, source) : { bottom: 0, right: 20, left: 40 };
  } else if (sourceElement && isGateway(sourceElement.type)) out = { right: 0, bottom: 6, top: 8, left: 160 };
  const into = model.elements.get(targetId);
  return {
    from: portsOf(source, out),
    to: portsOf(target, into && isGateway(into.type) ? { left: 0, top: 6, bottom: 6, right: 140 } : fromLeft),
  };
}

function awayFrom(host: Bounds, event: Bounds): Partial<Record<Side, number>> {
  const middle = { x: event.x + event.width / 2, y: event.y + event.height / 2 };
  if (middle.y >= host.y + host.height - 1) return { bottom: 0, right: 24, left: 40 };
  if (middle.y <= host.y + 1) return { top: 0, right: 24, left: 40 };
  return middle.x > host.x + host.width / 2 ? { right: 0, bottom: 20, top: 20 } : { left: 0, bottom: 20, top: 20 };
}

function messagePorts(model: Model, sourceId: Id, source: Bounds, targetId: Id, target: Bounds): Ports {
  const isPool = (id: Id) => model.elements.get(id)?.type === "participant";
  const at = (own: Bounds, other: Bounds, pool: boolean, otherIsPool: boolean): Port[] => {
    const below = other.y + other.height / 2 > own.y + own.height / 2;
    if (!pool) {
      const middle = portsOf(
        own,
        below ? { bottom: 0, right: 60, left: 60, top: 90 } : { top: 0, right: 60, left: 60, bottom: 90 },
      );
      if (own.width < 80) return middle;
      // A step is wide enough for several messages beside each other, and beside a flow that comes back to it.
      const near = middle.find((port) => port.side === (below ? "bottom" : "top")) as Port;
      return [
        ...middle,
        ...[24, -24].map((offset) => ({ ...near, at: { x: near.at.x + offset, y: near.at.y }, penalty: 6 })),
      ];
    }
    const x = otherIsPool
      ? own.x + own.width / 2
      : Math.max(own.x + 12, Math.min(own.x + own.width - 12, other.x + other.width / 2));
    const side: Side = below ? "bottom" : "top";
    const y = sidePoint(own, side).y;
    // A pool is wide: where its nearest point is taken, another one beside it does as well.
    return [0, 24, -24, 48, -48]
      .map((offset) => ({ side, at: { x: x + offset, y }, penalty: Math.abs(offset) / 4 }))
      .filter((port) => port.at.x >= own.x + 8 && port.at.x <= own.x + own.width - 8);
  };
  return {
    from: at(source, target, isPool(sourceId), isPool(targetId)),
    to: at(target, source, isPool(targetId), isPool(sourceId)),
  };
}

/** Messages keep off the points at which other flows leave and enter. */
function besideOthers({ from, to }: Ports, others: readonly (readonly Point[])[]): Ports {
  const ends = others.flatMap((line) => [line[0] as Point, line[line.length - 1] as Point]);
  const weighed = (ports: readonly Port[]) =>
    ports.map((port) =>
      ends.some((end) => Math.abs(end.x - port.at.x) + Math.abs(end.y - port.at.y) < 8)
        ? { ...port, penalty: port.penalty + 50 }
        : port,
    );
  return { from: weighed(from), to: weighed(to) };
}
