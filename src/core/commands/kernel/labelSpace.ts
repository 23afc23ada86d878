import RBush from "rbush";
import { overlaps, segmentCrosses } from "../../layout";
import type { Bounds, Id, Point } from "../../model";

interface Entry {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  /** A box labels must keep off, or a line they had better not lie on. */
  readonly box: Bounds | undefined;
  readonly a: Point;
  readonly b: Point;
  readonly flow: Id | undefined;
}

const nowhere: Point = { x: 0, y: 0 };
const onBox = 1000;
/** What lying across a line costs: from this on, a label had better stand elsewhere. */
export const onLine = 30;
const nearLine = 8;

/** What labels of a page have to keep off: shapes, other labels, lines. Asking costs what is near, not what is on the page. */
export class LabelSpace {
  readonly #entries = new RBush<Entry>();

  addBox(box: Bounds): void {
    this.#entries.insert({
      minX: box.x,
      minY: box.y,
      maxX: box.x + box.width,
      maxY: box.y + box.height,
      box,
      a: nowhere,
      b: nowhere,
      flow: undefined,
    });
  }

  addLine(points: readonly Point[], flow?: Id): void {
    points.slice(1).forEach((b, at) => {
      const a = points[at] as Point;
      this.#entries.insert({
        minX: Math.min(a.x, b.x),
        minY: Math.min(a.y, b.y),
        maxX: Math.max(a.x, b.x),
        maxY: Math.max(a.y, b.y),
        box: undefined,
        a,
        b,
        flow,
      });
    });
  }

  /** What it costs to put a label somewhere: most over shapes and other labels, less over lines, a little right beside them. */
  cost(bounds: Bounds): number {
    // Touching reads nearly as badly as crossing.
    const around = { x: bounds.x - 3, y: bounds.y - 1, width: bounds.width + 6, height: bounds.height + 2 };
    let sum = 0;
    for (const { box, a, b } of this.#near(around)) {
      if (box) sum += overlaps(bounds, box) ? onBox : 0;
      else if (segmentCrosses(bounds, a, b)) sum += onLine;
      else if (segmentCrosses(around, a, b)) sum += nearLine;
    }
    return sum;
  }

  /** Whether a piece of a flow lies on that of another, so that a name beside it could be either's. */
  isShared(flow: Id, a: Point, b: Point): boolean {
    const level = a.y === b.y;
    return this.#near({
      x: Math.min(a.x, b.x),
      y: Math.min(a.y, b.y),
      width: Math.abs(a.x - b.x),
      height: Math.abs(a.y - b.y),
    }).some((entry) => {
      if (entry.box || entry.flow === undefined || entry.flow === flow || (entry.a.y === entry.b.y) !== level)
        return false;
      const overlap = level
        ? Math.min(Math.max(a.x, b.x), entry.maxX) - Math.max(Math.min(a.x, b.x), entry.minX)
        : Math.min(Math.max(a.y, b.y), entry.maxY) - Math.max(Math.min(a.y, b.y), entry.minY);
      return overlap > 4 && (level ? entry.a.y === a.y : entry.a.x === a.x);
    });
  }

  #near(bounds: Bounds): Entry[] {
    return this.#entries.search({
      minX: bounds.x,
      minY: bounds.y,
      maxX: bounds.x + bounds.width,
      maxY: bounds.y + bounds.height,
    });
  }
}

/** Whether a label there would lie over a shape or another label. */
export const coversBox = (cost: number): boolean => cost >= onBox;
