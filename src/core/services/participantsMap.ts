import { brokenLines, type Figure, type Primitive, type Scene } from "../drawing";
import { say, term } from "../messages";
import type { Participation } from "./participants";

const [width, gap, between] = [170, 22, 210];
const size = 13;

/**
 * Draws who provides and who uses what: participants on the left, services on the right, each beside who provides it, else in the middle of who uses it, so that
 * few lines cross (barycentre heuristic: K. Sugiyama, S. Tagawa, M. Toda, 1981). O(links × log n).
 */
export function drawParticipation({ participants, services, links }: Participation): Scene {
  const middle = (places: readonly number[], own: number) =>
    places.length === 0 ? own : places.reduce((sum, one) => sum + one, 0) / places.length;
  const rowOf = new Map(participants.map(({ id }, at) => [id, at]));
  const rows = services
    .map((service, own) => {
      const of = links.filter((link) => link.service === service.id);
      // Beside who provides it, where somebody here does.
      const providing = of.filter(({ kind }) => kind === "provides");
      const places = (providing.length > 0 ? providing : of).map(({ participant }) => rowOf.get(participant) ?? 0);
      return { service, at: middle(places, own) };
    })
    .sort((a, b) => a.at - b.at)
    .map(({ service }) => service);
  const boxes = new Map<string, { readonly x: number; readonly y: number; readonly height: number }>();
  const figures: Figure[] = [];
  const column = (
    of: readonly {
      readonly id: string;
      readonly name: string;
      readonly tag: string;
      readonly dash?: string;
      readonly soft: boolean;
    }[],
    x: number,
  ) => {
    let y = 0;
    for (const { id, name, tag, dash, soft } of of) {
      const lines = brokenLines(name, width - 20, size, 600, 3);
      const height = 26 + lines.length * 16;
      boxes.set(id, { x, y, height });
      figures.push({
        id,
        type: "box",
        title: say`${name}, ${term(tag)}`,
        layer: 2,
        bounds: { x, y, width, height },
        primitives: [
          {
            kind: "path",
            d: `M${x} ${y}h${width}v${height}h${-width}z`,
            fill: soft ? "soft" : "paper",
            stroke: "ink",
            width: 1.4,
            ...(dash && { dash }),
          },
          ...lines.map(
            (words, row): Primitive => ({
              kind: "text",
              x: x + width / 2,
              y: y + 18 + row * 16,
              text: words,
              size,
              weight: 600,
              anchor: "middle",
              tone: "ink",
            }),
          ),
          {
            kind: "text",
            x: x + width / 2,
            y: y + height - 7,
            text: tag,
            size: 11,
            weight: 400,
            anchor: "middle",
            tone: "pencil",
          },
        ],
      });
      y += height + gap;
    }
    return y - gap;
  };
  const left = column(
    participants.map(({ id, name, isOutside }) => ({
      id,
      name,
      tag: isOutside ? "outside party" : "role",
      soft: isOutside,
    })),
    0,
  );
  const right = column(
    rows.map(({ id, name, isCandidate }) => ({
      id,
      name,
      tag: isCandidate ? "candidate" : "service",
      soft: false,
      ...(isCandidate && { dash: "6 4" }),
    })),
    width + between,
  );
  // Lines of one box leave and arrive one below the other.
  const sides = new Map<string, number>();
  const portOf = (id: string, all: number) => {
    const taken = (sides.get(id) ?? 0) + 1;
    sides.set(id, taken);
    const { y, height } = boxes.get(id) ?? { y: 0, height: 0 };
    return y + (height * taken) / (all + 1);
  };
  const countOf = (id: string) => links.filter((link) => link.participant === id || link.service === id).length;
  const ordered = [...links].sort(
    (a, b) =>
      (boxes.get(a.service)?.y ?? 0) - (boxes.get(b.service)?.y ?? 0) ||
      (boxes.get(a.participant)?.y ?? 0) - (boxes.get(b.participant)?.y ?? 0),
  );
  for (const { participant, service, kind } of ordered) {
    const [from, to] = [portOf(participant, countOf(participant)), portOf(service, countOf(service))];
    const [x1, x2] = [width, width + between];
    const isUse = kind === "uses";
    const end: Primitive = isUse
      ? {
          kind: "path",
          d: `M${x2 - 9} ${to - 5}L${x2} ${to}L${x2 - 9} ${to + 5}`,
          fill: "none",
          stroke: "ink",
          width: 1.2,
        }
      : { kind: "path", d: `M${x2} ${to}m-8 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0`, fill: "ink", stroke: "ink", width: 1 };
    const named = (id: string) => figures.find((figure) => figure.id === id)?.title.text.replace(/, [^,]*$/, "") ?? id;
    figures.push({
      id: `${participant} ${service}`,
      type: "link",
      title: say`${named(participant)} ${term(kind)} ${named(service)}`,
      layer: 1,
      bounds: { x: x1, y: Math.min(from, to), width: between, height: Math.abs(to - from) },
      line: [
        { x: x1, y: from },
        { x: x2, y: to },
      ],
      primitives: [
        {
          kind: "path",
          d: `M${x1} ${from}C${x1 + between / 2} ${from} ${x2 - between / 2} ${to} ${x2} ${to}`,
          fill: "none",
          stroke: "ink",
          width: 1.3,
          ...(isUse && { dash: "5 4" }),
        },
        end,
      ],
    });
  }
  figures.sort((a, b) => a.layer - b.layer);
  return { figures, bounds: { x: 0, y: 0, width: 2 * width + between, height: Math.max(left, right, 40) } };
}
