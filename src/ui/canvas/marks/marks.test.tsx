// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { cleanup, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import type { Figure } from "@/core/drawing";
import { middleOf } from "@/core/drawing";
import { overlaps } from "@/core/layout";
import { term } from "@/core/messages";
import { text } from "../../messages";
import { placeOfLabel } from "./LabelView";
import { LegendEntry } from "./Legend";
import { pathOf } from "./lines";
import { Marks } from "./Marks";
import { type Mark, meaningsOf } from "./mark";
import { PennedFigures } from "./PennedFigures";

const shape = (id: string, x = 100, more: Partial<Figure> = {}): Figure => ({
  id,
  type: "task",
  title: term(`${id}, task`),
  layer: 1,
  primitives: [],
  bounds: { x, y: 100, width: 80, height: 60 },
  ...more,
});
const flow = (id: string): Figure =>
  shape(id, 0, {
    type: "sequenceFlow",
    line: [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 100 },
    ],
  });
const figures = new Map([shape("a"), shape("b", 300), flow("f")].map((figure) => [figure.id, figure]));
const show = (...marks: Mark[]) =>
  render(
    <svg role="presentation">
      <Marks marks={marks} figures={figures} />
    </svg>,
  ).container;

afterEach(cleanup);

/** One of each: what a stage can say. */
const all: Mark[] = [
  { on: "a", means: "error", as: "sign", sign: "error" },
  { on: "b", means: "warning", as: "sign", sign: "warning" },
  { on: "f", means: "handover", as: "sign", sign: "hand-over", words: "Front desk → Billing" },
  { on: "a", means: "break", as: "sign", sign: "break" },
  { on: "a", means: "runStep", as: "label", text: "1, 3", tone: "attention", at: "start", isFilled: true },
  { on: "b", means: "whatHappened", as: "label", text: "new", tone: "pencil", at: "end" },
  { on: "f", means: "walked", as: "ribbon", tone: "attention" },
  { on: "f", means: "way", as: "dashes" },
  { on: "a", means: "able", as: "frame", tone: "attention" },
  { on: "b", means: "waiting", as: "frame", tone: "attention", isThin: true },
  { on: "a", means: "token", as: "token", count: 3 },
  { on: "a", means: "onlyAfter", as: "pen", pen: "to" },
  { on: "a", means: "movedTo", as: "arrow", to: "b" },
];

describe("marks on a drawing", () => {
  test.each(all.filter(({ as }) => as !== "pen"))("$means is drawn at its element", (mark) => {
    const drawn = show(mark).querySelector(`[data-means="${mark.means}"][data-on="${mark.on}"]`);
    expect(drawn?.querySelector("path, rect, circle, text")).toBeTruthy();
  });

  test("nothing is drawn at what is not on the page, nor a frame round a line or a ribbon along a box", () => {
    const page = show(
      { on: "gone", means: "error", as: "sign", sign: "error" },
      { on: "f", means: "current", as: "frame", tone: "accent" },
      { on: "a", means: "current", as: "ribbon", tone: "accent" },
    );
    expect(page.querySelectorAll("path, rect, circle")).toHaveLength(0);
  });

  test("ribbons lie under signs and tokens, whatever order they were given in", () => {
    const order = [...show(...all).querySelectorAll("[data-means]")].map((one) => one.getAttribute("data-means"));
    expect(order.indexOf("walked")).toBeLessThan(order.indexOf("error"));
    expect(order.indexOf("able")).toBeLessThan(order.indexOf("token"));
  });

  test("a sign says its words to who does not see it, and one without them says nothing", () => {
    show(...all);
    expect(screen.getByRole("img", { name: "Front desk → Billing" })).toBeTruthy();
    expect(screen.getAllByRole("img")).toHaveLength(1);
  });

  test("several tokens are counted, one is not", () => {
    expect(show({ on: "a", means: "token", as: "token", count: 3 }).textContent).toBe("3");
    expect(show({ on: "a", means: "token", as: "token", count: 1 }).textContent).toBe("");
  });

  test("the legend explains each meaning that is there once, by a sample, and no other", () => {
    const twice = [...all, ...all, { on: "f", means: "token", as: "motion", step: 4 } as Mark];
    expect(meaningsOf(twice).map(({ means }) => means)).toEqual(all.map(({ means }) => means));
    render(
      <ChakraProvider value={defaultSystem}>
        <ul>
          {meaningsOf(twice).map((mark) => (
            <LegendEntry key={mark.means} mark={mark} />
          ))}
        </ul>
      </ChakraProvider>,
    );
    for (const { means } of all) {
      const entry = screen.getByText(text.marks[means]);
      expect(entry.querySelector("svg path, svg rect, svg circle, svg text")).toBeTruthy();
    }
    // A sample has no name of its own: its words stand beside it.
    expect(within(screen.getByRole("list")).queryAllByRole("img")).toHaveLength(0);
  });

  test("what only one side has is drawn in its pen, in front of lanes and with a second frame where it is new", () => {
    const lane = shape("lane", 0, { type: "lane" });
    const { container } = render(
      <svg role="presentation">
        <PennedFigures
          figures={[shape("a"), lane, shape("b")]}
          lettering={undefined}
          marks={[
            { on: "a", means: "onlyAfter", as: "pen", pen: "to" },
            { on: "lane", means: "onlyBefore", as: "pen", pen: "from" },
          ]}
        />
      </svg>,
    );
    const drawn = [...container.querySelectorAll("[data-id]")].map((one) => one.getAttribute("data-id"));
    expect(drawn).toEqual(["lane", "b", "a"]);
    const pens = [...container.querySelectorAll("[data-pen]")];
    expect(pens.map((one) => one.getAttribute("data-pen"))).toEqual(["from", "to"]);
    expect(pens[0]?.getAttribute("stroke-dasharray")).toBeTruthy();
    expect(pens[1]?.querySelectorAll(":scope > rect")).toHaveLength(1);
  });
});

describe("places", () => {
  test("a path and the middle of its longest part", () => {
    const line = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 100 },
    ];
    expect(pathOf(line)).toBe("M0 0L10 0L10 100");
    expect(middleOf(line)).toEqual({ x: 10, y: 50 });
    expect(middleOf([{ x: 3, y: 4 }])).toEqual({ x: 3, y: 4 });
  });

  test("a label stands at its corner, and gives way to the element's own name", () => {
    const box = shape("a");
    expect(placeOfLabel(box, 40, "start")).toEqual({ x: 94, y: box.bounds.y - 17 });
    expect(placeOfLabel(box, 40, "end").x + 40).toBe(188);
    const named = { ...box, label: { bounds: { x: 90, y: 80, width: 100, height: 18 }, lines: ["a"], movable: true } };
    expect(placeOfLabel(named, 40, "end").y).toBeGreaterThan(box.bounds.y);
    // Nor does it cover an event at the edge, or a step beside.
    const edge = { ...shape("edge"), bounds: { x: 150, y: box.bounds.y - 18, width: 36, height: 36 } };
    const place = placeOfLabel(box, 40, "end", [box, edge]);
    expect(overlaps({ ...place, width: 40, height: 20 }, edge.bounds, 0)).toBe(false);
    // It reaches no more than three units into the shape, where its kind and markers are drawn further in.
    expect(placeOfLabel(box, 40, "start").y + 20 - box.bounds.y).toBeLessThanOrEqual(3);
    expect(placeOfLabel(flow("f"), 40, "end")).toEqual({ x: -10, y: 40 });
  });
});
