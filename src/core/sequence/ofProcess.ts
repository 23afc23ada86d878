import { type Element, type Id, isActivity, isEvent, isGateway, type Model, nameOf, wordFor } from "../model";
import { loopOf } from "../tokens";
import { Calls } from "./calls";
import { mostLines, type Operator, type Sequence, type SequenceLine } from "./sequence";
import { type Way, Ways } from "./ways";

/**
 * Who calls whom on all paths of a process: alternatives, what goes on side by side, and loops as frames. Of models that are not made of
 * blocks a part that several ways lead to can be told more than once. Bounded by the number of lines told.
 * @throws RangeError for a process that is not in the model
 */
export function sequenceOfProcess(model: Model, process: Id): Sequence {
  if (!model.elements.has(process)) throw new RangeError(`There is no process "${process}" in this model.`);
  const telling = new Telling(model);
  const lines = telling.scope(process);
  return { lifelines: telling.calls.lifelines, lines, isCut: telling.isCut };
}

class Telling {
  readonly calls: Calls;
  isCut = false;
  #told = 0;
  #before: string | undefined;

  constructor(readonly model: Model) {
    this.calls = new Calls(model);
  }

  scope(id: Id): readonly SequenceLine[] {
    const ways = new Ways(this.model, id);
    const starts = ways.beginnings;
    if (starts.length <= 1) return this.#from(ways, starts[0], new Set(), new Set());
    // Several beginnings are alternatives.
    const operands = starts.map((at) => {
      const node = ways.nodes[at] as Element;
      return { guard: this.#named(node), lines: this.#from(ways, at, new Set(), new Set()) };
    });
    return this.#frame("alt", id, operands);
  }

  #named(node: Element): string {
    return nameOf(this.model, node.id) || wordFor(node.type);
  }

  /** All that follows from a node up to where it is to stop; within loops back to their heads. */
  #from(
    ways: Ways,
    start: number | undefined,
    stops: ReadonlySet<number>,
    heads: ReadonlySet<number>,
  ): readonly SequenceLine[] {
    const lines: SequenceLine[] = [];
    for (let at = start; at !== undefined && !stops.has(at) && !heads.has(at); ) {
      if (this.#told >= mostLines) {
        this.isCut = true;
        return lines;
      }
      this.#told++;
      if (this.#isHead(ways, at, heads)) {
        const { line, next } = this.#loop(ways, at, stops, heads);
        lines.push(...line);
        at = next;
        continue;
      }
      lines.push(...this.#node(ways, at));
      const { more, next } = this.#on(ways, at, stops, heads);
      lines.push(...more);
      at = next;
    }
    return lines;
  }

  /** Whether a way leads back to a node. */
  #isHead(ways: Ways, at: number, heads: ReadonlySet<number>): boolean {
    return ways.out(at).some(({ to }) => to === at || ways.reaches(to, at, heads));
  }

  /** A loop from its head: what is done in each round, and where it goes on behind it. */
  #loop(ways: Ways, head: number, stops: ReadonlySet<number>, heads: ReadonlySet<number>) {
    const within = new Set([...heads, head]);
    const inside = (way: Way) => way.to === head || ways.reaches(way.to, head, heads);
    const exits: Way[] = [];
    const lines: SequenceLine[] = [];
    let guard = "";
    const seen = new Set<number>();
    for (let at: number | undefined = head; at !== undefined && !seen.has(at) && !stops.has(at); ) {
      seen.add(at);
      if (this.#told++ >= mostLines) {
        this.isCut = true;
        break;
      }
      if (at !== head && this.#isHead(ways, at, within)) {
        const inner = this.#loop(ways, at, stops, within);
        lines.push(...inner.line);
        const to: number | undefined = inner.next;
        if (to !== undefined && to !== head && !ways.reaches(to, head, heads)) exits.push({ to, guard: "" });
        else {
          at = to === head ? undefined : to;
          continue;
        }
        break;
      }
      lines.push(...this.#node(ways, at));
      const [staying, leaving]: Way[][] = [[], []] as Way[][];
      for (const way of ways.out(at)) (inside(way) ? staying : leaving)?.push(way);
      if (leaving && leaving.length > 0) {
        const last = (staying ?? []).every(({ to }) => to === head);
        if (at === head || last)
          guard ||= (staying ?? [])
            .map((way) => this.#guard(ways.nodes[at as number] as Element, way, ways.nodes[way.to]))
            .filter(Boolean)
            .join(" / ");
        else
          for (const way of leaving)
            lines.push({
              kind: "frame",
              element: (ways.nodes[at] as Element).id,
              operator: "break",
              operands: [{ guard: this.#guard(ways.nodes[at] as Element, way, ways.nodes[way.to]), lines: [] }],
            });
        for (const way of leaving)
          exits.push({ ...way, guard: this.#guard(ways.nodes[at] as Element, way, ways.nodes[way.to]) });
      }
      if (!staying || staying.length === 0) break;
      if (staying.length === 1) {
        const to: number = (staying[0] as Way).to;
        at = to === head ? undefined : to;
        continue;
      }
      const meets = this.#meeting(ways, at, staying);
      const stop = new Set([...stops, ...(meets === undefined ? [] : [meets])]);
      lines.push(...this.#branches(ways, at, staying, stop, within));
      at = meets === head ? undefined : meets;
    }
    const element = (ways.nodes[head] as Element).id;
    const line: SequenceLine[] = lines.length > 0 ? this.#frame("loop", element, [{ guard, lines }]) : [];
    const targets = [...new Set(exits.map(({ to }) => to))];
    if (targets.length <= 1) return { line, next: targets[0] };
    // Out of it by several ways: they are alternatives until they come together.
    const meets = targets
      .map((to) => this.#upTo(ways, to))
      .reduce((all, one) => all.filter((to) => one.includes(to)))[0];
    const stop = new Set([...stops, ...(meets === undefined ? [] : [meets])]);
    const operands = exits.map((way) => ({ guard: way.guard, lines: this.#from(ways, way.to, stop, heads) }));
    return { line: [...line, ...this.#frame("alt", element, operands)], next: meets };
  }

  /** A node and all that every way from it goes through, in order. */
  #upTo(ways: Ways, from: number): number[] {
    const all: number[] = [];
    for (let at: number | undefined = from; at !== undefined && !all.includes(at); at = ways.meets(at)) all.push(at);
    return all;
  }

  /** Where some of the ways from a node come together. */
  #meeting(ways: Ways, at: number, some: readonly Way[]): number | undefined {
    if (some.length === ways.out(at).length) return ways.meets(at);
    return some.map(({ to }) => this.#upTo(ways, to)).reduce((all, one) => all.filter((to) => one.includes(to)))[0];
  }

  /** What comes behind a node: nothing, one way, or several until they come together. */
  #on(ways: Ways, at: number, stops: ReadonlySet<number>, heads: ReadonlySet<number>) {
    const out = ways.out(at);
    if (out.length <= 1) return { more: [], next: out[0]?.to };
    const meets = ways.meets(at);
    const stop = new Set([...stops, ...(meets === undefined ? [] : [meets])]);
    return { more: this.#branches(ways, at, out, stop, heads), next: meets };
  }

  /** Ways that part at a node, up to where they stop. */
  #branches(
    ways: Ways,
    at: number,
    out: readonly Way[],
    stop: ReadonlySet<number>,
    heads: ReadonlySet<number>,
  ): readonly SequenceLine[] {
    const node = ways.nodes[at] as Element;
    const before = this.#before;
    const told = (way: Way) => {
      this.#before = before;
      const to = ways.nodes[way.to];
      const guard = this.#guard(node, way, to);
      return { guard, lines: this.#from(ways, way.to, stop, heads) };
    };
    const onwards = out.filter(({ edge }) => !edge);
    const [cutting, beside] = [true, false].map((isInterrupting) =>
      out.filter(({ edge }) => edge?.isInterrupting === isInterrupting),
    ) as [Way[], Way[]];
    const operator: Operator = /^(?:exclusive|eventBased|complex)Gateway$/.test(node.type) ? "alt" : "par";
    let lines: readonly SequenceLine[] =
      onwards.length > 1
        ? this.#frame(node.type === "inclusiveGateway" ? "par" : operator, node.id, onwards.map(told))
        : onwards[0]
          ? told(onwards[0]).lines
          : [];
    // What ends a step at its edge is another way for all that follows it; what only adds to it goes on beside that.
    for (const way of cutting) lines = this.#frame("alt", node.id, [{ guard: "", lines }, told(way)]);
    for (const way of beside) lines = this.#frame("par", node.id, [{ guard: "", lines }, told(way)]);
    return lines;
  }

  /** When a way is gone: the question with its answer, or the event that happens. */
  #guard(node: Element, way: Way, to: Element | undefined): string {
    if (way.edge) return way.guard;
    const question = isGateway(node.type) ? nameOf(this.model, node.id) : "";
    const answer = way.guard || (to && isEvent(to.type) ? nameOf(this.model, to.id) : "") || (question ? "else" : "");
    return [question, answer].filter(Boolean).join(" ");
  }

  /** Frames in which nothing is told are left out; of one with one side that tells something, it may happen or not. */
  #frame(
    operator: Operator,
    element: Id,
    operands: readonly { readonly guard: string; readonly lines: readonly SequenceLine[] }[],
  ): SequenceLine[] {
    const telling = operands.filter(({ lines }) => lines.length > 0);
    if (telling.length === 0) return [];
    if (operator === "par" && telling.length === 1) return [...(telling[0]?.lines ?? [])];
    if (operator === "alt" && telling.length === 1)
      return [{ kind: "frame", element, operator: "opt", operands: telling }];
    return [{ kind: "frame", element, operator, operands: telling }];
  }

  #node(ways: Ways, at: number): readonly SequenceLine[] {
    const element = ways.nodes[at] as Element;
    const lines: SequenceLine[] = [];
    const isHolder = isActivity(element.type) && /ubProcess$|^transaction$/.test(element.type);
    if (isHolder) lines.push(...this.scope(element.id));
    else {
      const told = this.calls.of(element, this.#before);
      const isCall = element.type === "callActivity" && typeof element.calledElement === "string";
      lines.push(
        ...(isCall && told.lines.length > 0
          ? [
              {
                kind: "frame" as const,
                element: element.id,
                operator: "ref" as const,
                operands: [{ guard: "", lines: told.lines }],
              },
            ]
          : told.lines),
      );
      if (told.lines.length > 0) this.#before = told.actor;
    }
    return loopOf(this.model, element.id) ? this.#frame("loop", element.id, [{ guard: "", lines }]) : lines;
  }
}
