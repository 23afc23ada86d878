import { brokenLines, type Figure, type Primitive, type Scene, textWidth } from "../drawing";
import { say, term } from "../messages";
import type { Bounds } from "../model";
import type { Lifeline, Sequence, SequenceLine } from "./sequence";

const size = 13;
const lineHeight = 16;
/** Labels are broken at this width; a message takes what its lines need, and no less than this. */
const widest = 190;
const least = 120;
const margin = 14;
const headTop = 0;

/** A sequence as drawn, and which element of the model each of its figures tells of. */
export interface DrawnSequence {
  readonly scene: Scene;
  readonly elementOf: ReadonlyMap<string, string>;
}

const kindWords: { readonly [kind in Lifeline["kind"]]: string } = {
  role: "role",
  party: "outside party",
  system: "system",
  service: "service",
};

/** How deep frames lie in each other. */
const depthOf = (lines: readonly SequenceLine[]): number =>
  lines.reduce(
    (most, line) =>
      line.kind === "message"
        ? most
        : Math.max(most, 1 + Math.max(0, ...line.operands.map((one) => depthOf(one.lines)))),
    0,
  );

const messagesIn = (lines: readonly SequenceLine[]): Extract<SequenceLine, { kind: "message" }>[] =>
  lines.flatMap((line) => (line.kind === "message" ? [line] : line.operands.flatMap((one) => messagesIn(one.lines))));

/**
 * Draws a sequence after UML 2.5 (17.8: lifelines as boxes over dashed lines, messages as arrows, answers dashed, combined fragments as
 * frames with their operator; from memory). Columns are as far apart as the words between them need. O(lines × lifelines).
 */
export function drawSequence({ lifelines, lines }: Sequence): DrawnSequence {
  const at = new Map(lifelines.map(({ id }, column) => [id, column]));
  const columnOf = (id: string) => at.get(id) ?? 0;
  const heads = lifelines.map(({ name }) => brokenLines(name || " ", 110, size, 600, 3));
  const headWidth = heads.map((head) => Math.max(90, ...head.map((one) => textWidth(one, size, 600) + 20)));
  const headHeight = 22 + Math.max(1, ...heads.map((head) => head.length)) * lineHeight;
  const depth = depthOf(lines);
  const labels = new Map(messagesIn(lines).map((line) => [line, brokenLines(line.label || " ", widest, size, 400, 4)]));
  const widthOf = (label: readonly string[]) => Math.max(0, ...label.map((one) => textWidth(one, size)));
  const xs: number[] = [];
  for (let column = 0; column < lifelines.length; column++) {
    const half = (headWidth[column] ?? 0) / 2;
    let x = column === 0 ? half : (xs[column - 1] as number) + (headWidth[column - 1] ?? 0) / 2 + half + 24;
    for (const [line, label] of labels) {
      const [from, to] = [columnOf(line.from), columnOf(line.to)].sort((a, b) => a - b) as [number, number];
      if (from === to && from === column - 1) x = Math.max(x, (xs[from] as number) + widthOf(label) + 56);
      else if (to === column && from < to) x = Math.max(x, (xs[from] as number) + Math.max(least, widthOf(label) + 32));
    }
    xs.push(x);
  }
  const last = lifelines.length - 1;
  const selfWidth = Math.max(
    0,
    ...[...labels].map(([line, label]) =>
      columnOf(line.from) === last && columnOf(line.to) === last ? widthOf(label) + 44 : 0,
    ),
  );
  const left = -margin * (depth + 1);
  const right = Math.max((xs[last] ?? 0) + Math.max((headWidth[last] ?? 0) / 2, selfWidth), 160) + margin * (depth + 1);

  const figures: Figure[] = [];
  const elementOf = new Map<string, string>();
  let number = 0;
  const add = (element: string, title: string, layer: number, bounds: Bounds, primitives: readonly Primitive[]) => {
    const id = `line-${number++}`;
    elementOf.set(id, element);
    figures.push({ id, type: "sequence", title: term(title), layer, bounds, primitives });
  };
  const text = (
    words: string,
    x: number,
    y: number,
    anchor: "start" | "middle" | "end" = "middle",
    weight: 400 | 600 = 400,
  ): Primitive => ({ kind: "text", x, y, text: words, size, weight, anchor, tone: "ink" });
  const path = (d: string, more: Partial<Extract<Primitive, { kind: "path" }>> = {}): Primitive => ({
    kind: "path",
    d,
    fill: "none",
    stroke: "ink",
    width: 1.2,
    ...more,
  });

  let y = headTop + headHeight + 18;
  const message = (line: Extract<SequenceLine, { kind: "message" }>) => {
    const label = labels.get(line) ?? [];
    const [from, to] = [xs[columnOf(line.from)] ?? 0, xs[columnOf(line.to)] ?? 0];
    const top = y;
    const primitives: Primitive[] = [];
    if (from === to) {
      // What one does by itself: a turn beside the lifeline.
      const height = Math.max(18, label.length * lineHeight);
      primitives.push(
        path(`M${from} ${y + 4}h26v${height}h-20`),
        arrowHead(from, y + 4 + height, -1, false),
        ...label.map((words, row) => text(words, from + 34, y + 16 + row * lineHeight, "start")),
      );
      y += height + 16;
    } else {
      y += label.length * lineHeight;
      const direction = Math.sign(to - from);
      const middle = (from + to) / 2;
      primitives.push(
        // The lifelines between do not run through the words.
        path(
          `M${middle - widthOf(label) / 2 - 3} ${top}h${widthOf(label) + 6}v${label.length * lineHeight}h${-widthOf(label) - 6}z`,
          {
            fill: "paper",
            stroke: "none",
          },
        ),
        ...label.map((words, row) => text(words, middle, top + 11 + row * lineHeight)),
        path(`M${from} ${y + 2}H${to - direction * 2}`, line.isAnswer ? { dash: "5 4" } : {}),
        arrowHead(to, y + 2, direction, line.isAnswer),
      );
      y += 18;
    }
    const x = Math.min(from, to);
    const width = Math.max(Math.abs(to - from), from === to ? 34 + widthOf(label) : 0);
    add(line.element, line.label, 3, { x, y: top - 2, width, height: y - top }, primitives);
  };
  const all = (some: readonly SequenceLine[], level: number) => {
    for (const line of some) {
      if (line.kind === "message") {
        message(line);
        continue;
      }
      const inset = left + margin * level;
      const width = right - left - 2 * margin * level;
      const top = y;
      const tag = textWidth(line.operator, size, 600) + 22;
      const primitives: Primitive[] = [];
      y += 26;
      for (const [operand, { guard, lines: inner }] of line.operands.entries()) {
        if (operand > 0) {
          primitives.push(path(`M${inset} ${y}h${width}`, { dash: "6 4", stroke: "pencil" }));
          y += 6;
        }
        const words = guard === "" ? [] : brokenLines(`[${guard}]`, Math.max(120, width - tag - 20), size, 400, 3);
        const isFirst = operand === 0;
        for (const [row, one] of words.entries())
          primitives.push(
            text(one, inset + (isFirst ? tag + 10 : 10), (isFirst ? top + 15 : y + 12) + row * lineHeight, "start"),
          );
        y += isFirst ? Math.max(0, words.length - 1) * lineHeight : words.length * lineHeight;
        y += 6;
        all(inner, level + 1);
        y += 4;
      }
      primitives.push(
        path(`M${inset} ${top}h${width}v${y - top}h${-width}z`),
        path(`M${inset} ${top}h${tag}v13l-7 7h${-(tag - 7)}z`, { fill: "soft" }),
        text(line.operator, inset + 9, top + 15, "start", 600),
      );
      const guards = line.operands.map(({ guard }) => guard).filter(Boolean);
      add(
        line.element,
        `${line.operator} ${guards.join(", ")}`.trim(),
        1 + level / 1_000,
        { x: inset, y: top, width, height: y - top },
        primitives,
      );
      y += 12;
    }
  };
  all(lines, 0);
  const bottom = y + 8;
  for (const [column, { name, kind }] of lifelines.entries()) {
    const x = xs[column] as number;
    const width = headWidth[column] as number;
    const box = `M${x - width / 2} ${headTop}h${width}v${headHeight}h${-width}z`;
    figures.push({
      id: `lifeline-${column}`,
      type: "lifeline",
      title: say`${name}, ${term(kindWords[kind])}`,
      layer: 2,
      bounds: { x: x - width / 2, y: headTop, width, height: bottom - headTop },
      primitives: [
        path(`M${x} ${headHeight}V${bottom}`, { dash: "4 4", stroke: "pencil", width: 1 }),
        path(box, { fill: kind === "party" ? "soft" : "paper", ...(kind === "system" && { dash: "6 3" }) }),
        ...(heads[column] ?? []).map((words, row) => text(words, x, headTop + 16 + row * lineHeight, "middle", 600)),
        {
          kind: "text",
          x,
          y: headHeight - 6,
          text: kindWords[kind],
          size: 11,
          weight: 400,
          anchor: "middle",
          tone: "pencil",
        },
      ],
    });
  }
  figures.sort((a, b) => a.layer - b.layer);
  return {
    scene: { figures, bounds: { x: left, y: headTop, width: right - left, height: bottom - headTop } },
    elementOf,
  };
}

/** The head of an arrow at its end: filled for a call, open for an answer. */
function arrowHead(x: number, y: number, direction: number, isOpen: boolean): Primitive {
  const back = x - direction * 9;
  return isOpen
    ? { kind: "path", d: `M${back} ${y - 5}L${x} ${y}L${back} ${y + 5}`, fill: "none", stroke: "ink", width: 1.2 }
    : { kind: "path", d: `M${back} ${y - 5}L${x} ${y}L${back} ${y + 5}z`, fill: "ink", stroke: "ink", width: 1 };
}
