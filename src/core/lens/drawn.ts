import {
  circle,
  type Figure,
  middleOf,
  type Primitive,
  placed,
  polyline,
  roundedRect,
  type Scene,
  textWidth,
} from "../drawing";
import { say, term } from "../messages";
import type { Bounds, Id, Point } from "../model";
import type { Lens, LensPen, LensSign } from "./lens";

/** Colours of the pens: each dark enough on paper to be read (contrast of 4.5 and more), told apart by line and sign as well. */
export const penColours: { readonly [pen in LensPen]: string } = {
  plum: "#5B2A6E",
  brick: "#A63A2B",
  teal: "#1F6670",
  moss: "#4A6428",
  ochre: "#8A5A00",
  slate: "#46566B",
};

const dashes = { solid: undefined, double: undefined, dashed: "7 4", dotted: "1.6 3.4" } as const;

/** Pictures within a circle of eight, around 0,0: open lines. */
const signs: { readonly [sign in LensSign]: string } = {
  clock: "M0 -4.6L0 0L3.2 1.8",
  coin: "M0 -4.6L0 4.6M2.6 -2.4Q0 -4.4 -2.2 -2.4Q-2.8 -0.4 0 0Q2.8 0.4 2.2 2.6Q0 4.4 -2.6 2.4",
  person:
    "M-1.9 -2.6Q-1.9 -4.6 0 -4.6Q1.9 -4.6 1.9 -2.6Q1.9 -0.7 0 -0.7Q-1.9 -0.7 -1.9 -2.6M-4 4.4Q-4 0.9 0 0.9Q4 0.9 4 4.4",
  machine: "M-4 -3L4 -3L4 3L-4 3ZM-1.6 -0.6L-1.6 0.8M1.6 -0.6L1.6 0.8",
  flag: "M-2.6 4.8L-2.6 -4.6L3.6 -4.6L1.6 -2.2L3.6 0.2L-2.6 0.2",
  bolt: "M1.2 -4.8L-2.6 0.6L2.4 0.6L-1.2 4.8",
  eye: "M-4.8 0Q0 -5.4 4.8 0Q0 5.4 -4.8 0M0 -1.2L0 1.2",
  question: "M-2.4 -2Q-2.4 -4.6 0 -4.6Q2.4 -4.6 2.4 -2.2Q2.4 -0.6 0 0.4L0 1.6M0 3.8L0 4.6",
};

const line = (d: string, hue: string, width: number, dash?: string): Primitive => ({
  kind: "path",
  d,
  fill: "none",
  stroke: "ink",
  hue,
  width,
  ...(dash && { dash }),
});

const radius = 8;

/** The badge of a lens, around a place. */
export function lensBadge({ pen, sign }: Pick<Lens, "pen" | "sign">, at: Point): readonly Primitive[] {
  const hue = penColours[pen];
  return [
    { kind: "path", d: circle(at.x, at.y, radius), fill: "ink", stroke: "paper", hue, width: 1.2 },
    { kind: "path", d: placed(signs[sign], at.x, at.y), fill: "none", stroke: "paper", width: 1.4 },
  ];
}

/** What a lens draws around an element, so many frames out. */
function framed(lens: Pick<Lens, "pen" | "line">, bounds: Bounds, out: number): readonly Primitive[] {
  const around = (by: number) =>
    roundedRect(
      { x: bounds.x - by, y: bounds.y - by, width: bounds.width + 2 * by, height: bounds.height + 2 * by },
      7 + by / 2,
    );
  const hue = penColours[lens.pen];
  const own = line(around(out), hue, 2.2, dashes[lens.line]);
  return lens.line === "double" ? [own, line(around(out + 3), hue, 1)] : [own];
}

/** A lens with what it marks. */
export interface SeenLens {
  readonly lens: Pick<Lens, "name" | "pen" | "line" | "sign">;
  readonly marked: readonly Id[];
}

/**
 * What lenses draw on a page: a frame each, one outside the other, and a badge at the upper left; on a flow a line along it and the badge
 * at its middle. On the screen, in pictures and on paper it is this one drawing. O(figures × lenses).
 */
export function lensFigures(scene: Scene, lenses: readonly SeenLens[]): readonly Figure[] {
  const figures = new Map(scene.figures.map((figure) => [figure.id, figure]));
  const seen = new Map<Id, SeenLens["lens"][]>();
  for (const { lens, marked } of lenses)
    for (const id of marked) if (figures.has(id)) seen.set(id, [...(seen.get(id) ?? []), lens]);
  return [...seen].map(([id, at]): Figure => {
    const { bounds, line: course, title } = figures.get(id) as Figure;
    const out = (place: number) => 5 + 5 * place;
    const start = course ? middleOf(course) : { x: bounds.x - 2, y: bounds.y - 4 };
    return {
      id: `lens ${id}`,
      type: "lens",
      title: say`${title}: ${at.map(({ name }) => name).join(", ")}`,
      layer: 9,
      bounds: around(bounds, out(at.length) + radius),
      primitives: [
        ...at.flatMap((lens, place) =>
          course
            ? [line(polyline(course), penColours[lens.pen], 2.6, dashes[lens.line])]
            : framed(lens, bounds, out(place)),
        ),
        ...at.flatMap((lens, place) => lensBadge(lens, { x: start.x + place * (2 * radius + 2), y: start.y })),
      ],
    };
  });
}

/** A page with what its lenses mark. */
export function withLenses(scene: Scene, lenses: readonly SeenLens[]): Scene {
  const added = lensFigures(scene, lenses);
  if (added.length === 0) return scene;
  return {
    figures: [...scene.figures, ...added],
    bounds: added.reduce((all, { bounds }) => union(all, bounds), scene.bounds),
  };
}

const legendRow = 24;

/** The same with what each lens looks like, and its name, below the page. O(lenses). */
export function withLensLegend(scene: Scene, lenses: readonly SeenLens[]): Scene {
  if (lenses.length === 0) return scene;
  const { x, y, height } = scene.bounds;
  const rows = lenses.map(({ lens }, at): Figure => {
    const top = y + height + 20 + at * legendRow;
    const box = { x: x + 14, y: top + 6, width: 30, height: 8 };
    const [drawn] = lensFigures({ figures: [{ ...blank, bounds: box }], bounds: box }, [{ lens, marked: [blank.id] }]);
    const bounds = { x, y: top, width: 70 + textWidth(lens.name, 12, 400), height: legendRow };
    const name: Primitive = {
      ...{ kind: "text", x: x + 66, y: top + 14, text: lens.name, size: 12, weight: 400, anchor: "start" },
      tone: "ink",
    };
    return {
      ...blank,
      id: `lens legend ${at}`,
      title: term(lens.name),
      bounds,
      primitives: [...(drawn?.primitives ?? []), name],
    };
  });
  return {
    figures: [...scene.figures, ...rows],
    bounds: rows.reduce((all, { bounds }) => union(all, bounds), scene.bounds),
  };
}
const blank: Figure = {
  id: "",
  type: "lens",
  title: term(""),
  layer: 9,
  primitives: [],
  bounds: { x: 0, y: 0, width: 0, height: 0 },
};

const around = ({ x, y, width, height }: Bounds, by: number): Bounds => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});
function union(a: Bounds, b: Bounds): Bounds {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    ...{ x, y },
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}
