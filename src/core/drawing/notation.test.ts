import { describe, expect, test } from "vitest";
import { allSymbols } from "../commands";
import type { Figure, Primitive } from "./primitives";

// What a symbol must look like whatever its line work: BPMN 2.0 (formal/2011-01-03), section 7.2 with tables 7.1 and 7.2 (elements
// and connections), 10.2 (activities), 10.4 with table 10.93 (events), 10.5 (gateways). From memory; checked against our own drawing.

type Path = Extract<Primitive, { kind: "path" }>;
const groups = new Map(allSymbols().map(({ title, symbols }) => [title, symbols]));
const figureOf = (group: string, name: string): Figure => {
  const { scene } = groups.get(group)?.find((symbol) => symbol.name === name) ?? { scene: undefined };
  const figure = scene?.figures.find(({ id }) => id === "kind" || id === "flow") ?? scene?.figures.at(-1);
  if (!figure) throw new Error(`There is no symbol "${name}" in "${group}".`);
  return figure;
};
const paths = (figure: Figure) => figure.primitives.filter((one): one is Path => one.kind === "path");
const namesIn = (group: string) => (groups.get(group) ?? []).map(({ name }) => name);
const isCircle = ({ d }: Path) => /^M\S+ \S+a(\S+) \1 0 1 0/.test(d);
/** The rings around an event's marker: circles of its whole size, or a little less. */
const rings = (figure: Figure) =>
  paths(figure).filter(
    (path) =>
      isCircle(path) && Number(/a(\S+) /.exec(path.d)?.[1]) > figure.bounds.width / 2 - 4 && path.fill !== "ink",
  );

describe("table 10.93: which event can stand where", () => {
  const allowed: { readonly [group: string]: readonly string[] } = {
    "Start events": ["plain", "message", "timer", "conditional", "signal", "multiple", "parallel multiple"],
    "Intermediate events, catching": [
      "message",
      "timer",
      "conditional",
      "link",
      "signal",
      "multiple",
      "parallel multiple",
    ],
    "Intermediate events, throwing": ["plain", "message", "escalation", "compensation", "link", "signal", "multiple"],
    "End events": [
      "plain",
      "message",
      "error",
      "escalation",
      "cancel",
      "compensation",
      "signal",
      "terminate",
      "multiple",
    ],
  };
  test.each(Object.entries(allowed))("%s", (group, triggers) => {
    expect(
      namesIn(group).map((name) => name.replace(/ (start|intermediate catch|intermediate throw|end) event$/, "")),
    ).toEqual(triggers);
  });

  test.each([
    [
      "Start events of event sub-processes",
      "interrupting",
      "message timer error escalation compensation conditional signal multiple parallel-multiple",
    ],
    [
      "Start events of event sub-processes",
      "non-interrupting",
      "message timer escalation conditional signal multiple parallel-multiple",
    ],
    [
      "Boundary events",
      "interrupting",
      "message timer error escalation cancel compensation conditional signal multiple parallel-multiple",
    ],
    ["Boundary events", "non-interrupting", "message timer escalation conditional signal multiple parallel-multiple"],
  ])("%s, %s", (group, kind, triggers) => {
    const found = namesIn(group).flatMap((name) => {
      const [what = "", how] = name.split(", ");
      return how === kind ? [what.replace(/ (start|boundary) event$/, "").replace(" ", "-")] : [];
    });
    expect(found).toEqual(triggers.split(" "));
  });

  test("these are the 63 events of the standard", () => {
    const count = [...groups].filter(([title]) => /events/i.test(title)).reduce((sum, [, all]) => sum + all.length, 0);
    expect(count).toBe(63);
  });
});

describe("events", () => {
  const each = (group: string) => namesIn(group).map((name) => [name, figureOf(group, name)] as const);

  test.each([...each("Start events"), ...each("Start events of event sub-processes")])(
    "%s has one thin ring",
    (name, figure) => {
      const [ring, ...others] = rings(figure);
      expect(others).toEqual([]);
      expect(ring?.width).toBeLessThan(2);
      expect(Boolean(ring?.dash)).toBe(name.endsWith("non-interrupting"));
    },
  );

  test.each([
    ...each("Intermediate events, catching"),
    ...each("Intermediate events, throwing"),
    ...each("Boundary events"),
  ])("%s has two thin rings", (name, figure) => {
    expect(rings(figure)).toHaveLength(2);
    for (const ring of rings(figure)) {
      expect(ring.width).toBeLessThan(2);
      expect(Boolean(ring.dash)).toBe(name.endsWith("non-interrupting"));
    }
  });

  test.each(each("End events"))("%s has one thick ring", (_, figure) => {
    const [ring, ...others] = rings(figure);
    expect(others).toEqual([]);
    expect(ring?.width).toBeGreaterThan(3);
  });

  test.each([...each("Start events"), ...each("Intermediate events, catching"), ...each("Boundary events")])(
    "%s catches: nothing in it is filled",
    (_, figure) => {
      expect(paths(figure).filter((path) => path.fill === "ink")).toEqual([]);
    },
  );

  test.each(
    [...each("Intermediate events, throwing"), ...each("End events")].filter(([name]) => !name.startsWith("plain")),
  )("%s throws: its marker is filled", (_, figure) => {
    expect(paths(figure).some((path) => path.fill === "ink")).toBe(true);
  });

  test("no two kinds look the same", () => {
    const looks = [...groups]
      .filter(([title]) => /events/i.test(title))
      .flatMap(([title, all]) =>
        all.map(({ name }) => {
          const { bounds, primitives } = figureOf(title, name);
          // Moved to one place, without the name beneath.
          const placed = primitives
            .filter((one): one is Path => one.kind === "path")
            .map(({ d, ...style }) => ({ ...style, d: moved(d, -bounds.x, -bounds.y) }));
          return [`${title}: ${name}`, JSON.stringify(placed)] as const;
        }),
      );
    const byLook = grouped(looks);
    // A start event means the same in an event sub-process that interrupts; a boundary event that catches looks like one in the flow.
    const alike = [...byLook.values()]
      .filter((all) => all.length > 1)
      .map((all) => all.map(([name]) => name.split(": ")[0]));
    for (const titles of alike)
      expect([
        ["Start events", "Start events of event sub-processes"],
        ["Intermediate events, catching", "Boundary events"],
      ]).toContainEqual(titles);
  });
});

const grouped = (looks: readonly (readonly [string, string])[]) => {
  const map = new Map<string, (readonly [string, string])[]>();
  for (const look of looks) map.set(look[1], [...(map.get(look[1]) ?? []), look]);
  return map;
};

/** A path's absolute numbers moved; what is relative in it stays. */
function moved(d: string, dx: number, dy: number): string {
  return d.replace(
    /([ML])(-?[\d.]+) (-?[\d.]+)/g,
    (_, letter, x, y) => `${letter}${(Number(x) + dx).toFixed(1)} ${(Number(y) + dy).toFixed(1)}`,
  );
}

describe("activities", () => {
  const frame = (name: string) => paths(figureOf("Sub-processes and calls", name))[0] as Path;

  test("a call is drawn with a thick line, everything else with a thin one", () => {
    for (const name of namesIn("Sub-processes and calls"))
      expect(frame(name).width > 3, name).toBe(name === "call activity");
    for (const name of namesIn("Tasks"))
      expect((paths(figureOf("Tasks", name))[0] as Path).width, name).toBeLessThan(2);
  });

  test("an event sub-process is drawn with a dotted line, nothing else is", () => {
    for (const name of namesIn("Sub-processes and calls"))
      expect(Boolean(frame(name).dash), name).toBe(name.startsWith("event sub-process"));
  });

  test("a transaction has a double line", () => {
    const [outer, inner] = paths(figureOf("Sub-processes and calls", "transaction, open in place"));
    expect([outer?.fill, inner?.fill]).toEqual(["paper", "none"]);
    expect(inner?.d.startsWith("M")).toBe(true);
    expect(paths(figureOf("Sub-processes and calls", "sub-process, open in place"))).toHaveLength(1);
  });

  test("only a plain task has no marker, and no two kinds have the same", () => {
    const marks = namesIn("Tasks").map((name) => JSON.stringify(paths(figureOf("Tasks", name)).slice(1)));
    expect(marks[0]).toBe("[]");
    expect(new Set(marks).size).toBe(marks.length);
  });

  test("what sends is filled, what receives is not", () => {
    const isFilled = (name: string) => paths(figureOf("Tasks", name)).some((path) => path.fill === "ink");
    expect([isFilled("send task"), isFilled("receive task")]).toEqual([true, false]);
  });
});

describe("gateways", () => {
  test("are diamonds of one size, each kind with a sign of its own", () => {
    const names = namesIn("Gateways");
    const signs = names.map((name) => {
      const figure = figureOf("Gateways", name);
      const [diamond, ...sign] = paths(figure);
      expect(diamond?.d, name).toMatch(/^M\S+ \S+l\S+ \S+l\S+ \S+l\S+ \S+z$/);
      return JSON.stringify(sign.map(({ d, width }) => [moved(d, -figure.bounds.x, -figure.bounds.y), width]));
    });
    expect(new Set(signs).size).toBe(names.length);
  });

  test("an exclusive one may go without its cross", () => {
    expect(paths(figureOf("Gateways", "exclusive gateway"))).toHaveLength(2);
    expect(paths(figureOf("Variants", "exclusive gateway without its marker"))).toHaveLength(1);
  });

  test("one for events has two thin circles in the flow, and one where it starts a process", () => {
    const circles = (name: string) => paths(figureOf("Gateways", name)).filter(isCircle).length;
    expect(circles("event-based gateway")).toBe(2);
    expect(circles("event-based gateway that starts the process, by one of its events")).toBe(1);
    expect(circles("event-based gateway that starts the process, by all its events")).toBe(1);
  });
});

describe("table 7.2: connections", () => {
  const lines = (name: string) => paths(figureOf("Flows", name));

  test("a sequence flow is solid, with a filled head", () => {
    const [line, head, ...others] = lines("sequence flow");
    expect([line?.dash, head?.fill, others]).toEqual([undefined, "ink", []]);
  });

  test("a conditional one begins with a small diamond, a default one with a slash", () => {
    expect(lines("conditional sequence flow").at(-1)).toMatchObject({ fill: "paper", stroke: "ink" });
    expect(lines("default sequence flow").at(-1)).toMatchObject({ fill: "none", stroke: "ink" });
    expect(lines("default sequence flow").at(-1)?.d).toMatch(/^M[^L]+L[^L]+$/);
  });

  test("a message flow is dashed, begins with an open circle, and has an open head", () => {
    const [line, tail, head] = lines("message flow");
    expect(line?.dash).toBeTruthy();
    expect(tail && isCircle(tail)).toBe(true);
    expect([tail?.fill, head?.fill]).toEqual(["paper", "paper"]);
  });

  test.each([
    ["association", 0],
    ["association, one way", 1],
    ["association, both ways", 2],
    ["data input", 1],
    ["data output", 1],
  ])("%s is dotted, with %i open heads", (name, heads) => {
    const [line, ...others] = lines(name);
    expect(line?.dash).toBeTruthy();
    expect(others).toHaveLength(heads);
    for (const head of others) expect(head.fill).toBe("none");
  });

  test("the three kinds of lines are told apart by their dashes", () => {
    const dashes = ["sequence flow", "message flow", "association"].map((name) => lines(name)[0]?.dash);
    expect(new Set(dashes).size).toBe(3);
  });
});
