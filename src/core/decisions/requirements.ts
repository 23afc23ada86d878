import { brokenLines, type Figure, outlined, type Primitive, roundedRect, type Scene, stroke } from "../drawing";
import { say, term } from "../messages";
import type { DecisionModel } from "./model";

const [width, across, down, size] = [168, 80, 12, 13];

interface Item {
  readonly id: string;
  readonly name: string;
  readonly kind: "decision" | "input" | "knowledge";
  readonly needs: readonly { readonly id: string; readonly isKnowledge: boolean }[];
}

/**
 * The requirements of decisions as the standard draws them (DMN 1.5, 5.3 and 6.2: shapes and lines; from memory): what is given on the left,
 * what is decided by it to the right. Items stand in the column behind all they need, and beside what they are tied to, so that few lines
 * cross (layers by longest path; order by barycentres: K. Sugiyama, S. Tagawa, M. Toda, 1981). O(rounds × requirements × log items).
 */
export function drawRequirements(model: DecisionModel): Scene {
  const items = itemsOf(model);
  const columns = placed(items);
  const boxes = new Map<string, { readonly x: number; readonly y: number; readonly height: number }>();
  const tallest = Math.max(...columns.map((column) => heightOf(column)), 0);
  const figures: Figure[] = [];
  for (const [at, column] of columns.entries()) {
    let y = (tallest - heightOf(column)) / 2;
    const x = at * (width + across);
    for (const item of column) {
      const height = boxHeight(item);
      boxes.set(item.id, { x, y, height });
      figures.push(boxOf(item, x, y, height));
      y += height + down;
    }
  }
  for (const item of items)
    for (const { id, isKnowledge } of item.needs) {
      const [from, to] = [boxes.get(id), boxes.get(item.id)];
      if (from && to) figures.push(lineOf(id, item.id, from, to, isKnowledge));
    }
  const right = Math.max(0, columns.length * (width + across) - across);
  return { figures: figures.sort((a, b) => a.layer - b.layer), bounds: { x: 0, y: 0, width: right, height: tallest } };
}

function itemsOf({ decisions, inputs, knowledge }: DecisionModel): Item[] {
  const known = (ids: readonly string[], isKnowledge: boolean) => [...new Set(ids)].map((id) => ({ id, isKnowledge }));
  return [
    ...[...inputs.values()].map(({ id, name }): Item => ({ id, name, kind: "input", needs: [] })),
    ...[...knowledge.values()].map(
      ({ id, name, knowledge: needs }): Item => ({ id, name, kind: "knowledge", needs: known(needs, true) }),
    ),
    ...[...decisions.values()].map(
      (one): Item => ({
        id: one.id,
        name: one.name,
        kind: "decision",
        needs: [...known([...one.inputs, ...one.decisions], false), ...known(one.knowledge, true)],
      }),
    ),
  ];
}

/** Items in columns, each behind all it needs; what needs nothing stands right before what needs it. */
function placed(items: readonly Item[]): Item[][] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const depths = new Map<string, number>();
  const depthOf = (id: string, path: ReadonlySet<string>): number => {
    const known = depths.get(id);
    // What requires itself is told where it is decided; here it stands somewhere.
    if (known !== undefined || path.has(id)) return known ?? 0;
    const inside = new Set([...path, id]);
    const depth = Math.max(
      0,
      ...(byId.get(id)?.needs ?? []).filter((need) => byId.has(need.id)).map((need) => depthOf(need.id, inside) + 1),
    );
    depths.set(id, depth);
    return depth;
  };
  for (const { id } of items) depthOf(id, new Set());
  for (const { id, needs } of items) {
    if (needs.length > 0) continue;
    const users = items.filter((one) => one.needs.some((need) => need.id === id)).map((one) => depths.get(one.id) ?? 0);
    if (users.length > 0) depths.set(id, Math.max(0, Math.min(...users) - 1));
  }
  const columns: Item[][] = [];
  for (const item of items) {
    const depth = depths.get(item.id) ?? 0;
    while (columns.length <= depth) columns.push([]);
    columns[depth]?.push(item);
  }
  for (let round = 0; round < 4; round++)
    for (const at of round % 2 === 0 ? columns.keys() : [...columns.keys()].reverse()) ordered(columns, at);
  return columns.filter((column) => column.length > 0);
}

/** Puts a column in the order of the middles of what its items are tied to. */
function ordered(columns: Item[][], at: number): void {
  const places = new Map(
    columns.flatMap((column) => column.map((item, row) => [item.id, (row + 0.5) / column.length] as const)),
  );
  const users = (id: string) => columns.flat().filter((one) => one.needs.some((need) => need.id === id));
  const middle = (item: Item) => {
    const tied = [...item.needs.map(({ id }) => id), ...users(item.id).map(({ id }) => id)].flatMap(
      (id) => places.get(id) ?? [],
    );
    return tied.length === 0 ? (places.get(item.id) ?? 0) : tied.reduce((sum, one) => sum + one, 0) / tied.length;
  };
  const middles = new Map((columns[at] ?? []).map((item) => [item.id, middle(item)]));
  columns[at]?.sort((a, b) => (middles.get(a.id) ?? 0) - (middles.get(b.id) ?? 0));
}

const linesOf = ({ name }: Item) => brokenLines(name, width - 28, size, 600, 3);
const boxHeight = (item: Item) => 16 + linesOf(item).length * 16;
const heightOf = (column: readonly Item[]) => column.reduce((sum, item) => sum + boxHeight(item) + down, -down);

const kindWords = { decision: "decision", input: "input data", knowledge: "business knowledge model" } as const;

function boxOf(item: Item, x: number, y: number, height: number): Figure {
  const bounds = { x, y, width, height };
  const cut = 12;
  const outline = {
    decision: `M${x} ${y}h${width}v${height}h${-width}z`,
    input: roundedRect(bounds, height / 2),
    knowledge: `M${x + cut} ${y}h${width - cut}v${height - cut}l${-cut} ${cut}h${-(width - cut)}v${-(height - cut)}z`,
  }[item.kind];
  const lines = linesOf(item);
  const first = y + height / 2 - ((lines.length - 1) * 16) / 2 + 4.5;
  return {
    id: item.id,
    type: item.kind,
    title: say`${item.name}, ${term(kindWords[item.kind])}`,
    layer: 2,
    bounds,
    primitives: [
      outlined(outline, item.kind === "decision" ? 2 : 1.4),
      ...lines.map(
        (words, row): Primitive => ({
          kind: "text",
          x: x + width / 2,
          y: first + row * 16,
          text: words,
          size,
          weight: 600,
          anchor: "middle",
          tone: "ink",
        }),
      ),
    ],
  };
}

/** An information requirement is a whole line with a filled head, a knowledge requirement a dashed one with an open head. */
function lineOf(
  id: string,
  of: string,
  from: { readonly x: number; readonly y: number; readonly height: number },
  to: { readonly x: number; readonly y: number; readonly height: number },
  isKnowledge: boolean,
): Figure {
  const [x1, y1, x2, y2] = [from.x + width, from.y + from.height / 2, to.x, to.y + to.height / 2];
  const bend = Math.max(24, (x2 - x1) / 2);
  const head = `M${x2 - 10} ${y2 - 5}L${x2} ${y2}L${x2 - 10} ${y2 + 5}`;
  return {
    id: `${id} ${of}`,
    type: "requirement",
    title: term(isKnowledge ? "knowledge requirement" : "information requirement"),
    layer: 1,
    bounds: { x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) },
    line: [
      { x: x1, y: y1 },
      { x: x2, y: y2 },
    ],
    primitives: [
      stroke(
        `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2 - (isKnowledge ? 0 : 6)} ${y2}`,
        1.4,
        "ink",
        isKnowledge ? "6 4" : undefined,
      ),
      isKnowledge ? stroke(head, 1.4) : { kind: "path", d: `${head}z`, fill: "ink", stroke: "ink", width: 1 },
    ],
  };
}
