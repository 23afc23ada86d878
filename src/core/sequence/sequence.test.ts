import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { sceneToSvg, textWidth } from "../drawing";
import { isActivity, processesOf } from "../model";
import { expectOk, performAll } from "../testing/models";
import { randomProcess } from "../testing/randomProcess";
import { walk } from "../tokens";
import { drawSequence, type SequenceLine, sequenceOfProcess, sequenceOfWalk } from ".";

const modelOf = (inside: string, around = "") =>
  expectOk(
    readBpmn(
      `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="defs" targetNamespace="t">${around}<process id="p" name="P">${inside}</process></definitions>`,
    ),
  );
const flow = (from: string, to: string, name = "") =>
  `<sequenceFlow id="${from}-${to}" name="${name}" sourceRef="${from}" targetRef="${to}"/>`;
const gateway = (kind: string, id: string, name = "") => `<${kind}Gateway id="${id}" name="${name}"/>`;
const task = (id: string) => `<task id="${id}" name="${id}"/>`;

/** A sequence on one line: messages by their words, frames by their operator with their operands in brackets. */
const shown = (lines: readonly SequenceLine[]): string =>
  lines
    .map((line) =>
      line.kind === "message"
        ? line.label
        : `${line.operator}(${line.operands.map(({ guard, lines: inner }) => `${guard ? `[${guard}] ` : ""}${shown(inner)}`).join(" | ")})`,
    )
    .join(" ");

describe("the paths of a process", () => {
  test.each<[string, string, string]>([
    ["steps in a row", task("a") + task("b") + flow("a", "b"), "a b"],
    [
      "a choice",
      gateway("exclusive", "g", "Big?") +
        task("a") +
        task("b") +
        gateway("exclusive", "j") +
        task("c") +
        flow("g", "a", "yes") +
        flow("g", "b", "no") +
        flow("a", "j") +
        flow("b", "j") +
        flow("j", "c"),
      "alt([Big? yes] a | [Big? no] b) c",
    ],
    [
      "a choice of which one way does nothing",
      gateway("exclusive", "g", "Big?") +
        task("a") +
        gateway("exclusive", "j") +
        flow("g", "a", "yes") +
        flow("g", "j", "no") +
        flow("a", "j"),
      "opt([Big? yes] a)",
    ],
    [
      "two things side by side",
      gateway("parallel", "g") +
        task("a") +
        task("b") +
        gateway("parallel", "j") +
        task("c") +
        flow("g", "a") +
        flow("g", "b") +
        flow("a", "j") +
        flow("b", "j") +
        flow("j", "c"),
      "par(a | b) c",
    ],
    [
      "ways that do not come together",
      gateway("exclusive", "g", "Big?") + task("a") + task("b") + flow("g", "a", "yes") + flow("g", "b", "no"),
      "alt([Big? yes] a | [Big? no] b)",
    ],
    [
      "a loop that asks at its end",
      task("a") +
        gateway("exclusive", "j") +
        task("b") +
        gateway("exclusive", "g", "Good?") +
        task("c") +
        flow("a", "j") +
        flow("j", "b") +
        flow("b", "g") +
        flow("g", "j", "no") +
        flow("g", "c", "yes"),
      "a loop([Good? no] b) c",
    ],
    [
      "a loop that is left in its middle",
      task("a") +
        gateway("exclusive", "g", "Good?") +
        task("b") +
        task("c") +
        flow("a", "g") +
        flow("g", "b", "no") +
        flow("b", "a") +
        flow("g", "c", "yes"),
      "loop(a break([Good? yes] ) b) c",
    ],
    [
      "a loop in a loop",
      task("a") +
        task("b") +
        gateway("exclusive", "g", "G?") +
        gateway("exclusive", "h", "H?") +
        task("c") +
        flow("a", "b") +
        flow("b", "g") +
        flow("g", "b", "again") +
        flow("g", "h", "on") +
        flow("h", "a", "anew") +
        flow("h", "c", "done"),
      "loop([H? anew] a loop([G? again] b)) c",
    ],
    [
      "a step that an event at its edge ends",
      `${task("a")}<boundaryEvent id="w" name="3 days" attachedToRef="a"><timerEventDefinition/></boundaryEvent>${task("b")}${task("c")}${flow("a", "b")}${flow("w", "c")}`,
      "a alt(b | [3 days] c)",
    ],
    [
      "an event at an edge that only adds",
      `${task("a")}<boundaryEvent id="w" name="3 days" cancelActivity="false" attachedToRef="a"><timerEventDefinition/></boundaryEvent>${task("b")}${task("c")}${flow("a", "b")}${flow("w", "c")}`,
      "a par(b | [3 days] c)",
    ],
    ["a step for several", '<task id="a" name="a"><multiInstanceLoopCharacteristics/></task>', "loop(a)"],
    [
      "what is inside of a sub-process",
      `${task("a")}<subProcess id="s" name="S"><startEvent id="i"/>${task("b")}${flow("i", "b")}</subProcess>${flow("a", "s")}`,
      "a b",
    ],
    ["a call", '<callActivity id="a" name="Other" calledElement="q"/>', "ref(Other)"],
    [
      "several beginnings",
      `<startEvent id="s" name="S"/><startEvent id="t" name="T"/>${task("a")}${task("b")}${flow("s", "a")}${flow("t", "b")}`,
      "alt([S] a | [T] b)",
    ],
    ["nothing", "", ""],
    ["a ring without a beginning", task("a") + task("b") + flow("a", "b") + flow("b", "a"), "loop(a b)"],
  ])("%s", (_, inside, told) => {
    const sequence = sequenceOfProcess(modelOf(inside), "p");
    expect(shown(sequence.lines)).toBe(told);
    expect(sequence.isCut).toBe(false);
  });

  // Each step of a process made of blocks is told; of one with jumps as well, unless there is more than is told at all.
  test("tells every step, in a bounded number of lines", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const model = randomProcess({ seed, nodes: 3 + (seed % 25), lanes: 2, wild: seed % 2 === 0 });
        for (const { id } of processesOf(model)) {
          const { lines, isCut } = sequenceOfProcess(model, id);
          const told = new Set<string>();
          const visit = (some: readonly SequenceLine[]) => {
            for (const line of some) {
              told.add(line.element);
              if (line.kind === "frame") for (const one of line.operands) visit(one.lines);
            }
          };
          visit(lines);
          if (isCut) continue;
          for (const element of model.elements)
            if (isActivity(element.type) && !/ubProcess$/.test(element.type)) expect(told).toContain(element.id);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe("who calls whom", () => {
  const model = performAll(
    modelOf(
      `<laneSet id="ls"><lane id="l1" name="Front desk"><flowNodeRef>s</flowNodeRef><flowNodeRef>a</flowNodeRef><flowNodeRef>d</flowNodeRef></lane><lane id="l2" name="Billing"><flowNodeRef>b</flowNodeRef></lane></laneSet><startEvent id="s" name="Asked"><messageEventDefinition/></startEvent>${task("a")}<serviceTask id="b" name="b"/><sendTask id="d" name="d"/>${flow("s", "a")}${flow("a", "b")}${flow("b", "d")}`,
      `<collaboration id="c"><participant id="pool" name="Coop" processRef="p"/><participant id="home" name="Household"/><messageFlow id="m1" name="wish" sourceRef="home" targetRef="s"/><messageFlow id="m2" sourceRef="d" targetRef="home"/></collaboration>`,
    ),
    { type: "useSystem", step: "a", system: { entry: "reg", name: "Register" }, use: "reads" },
    {
      type: "bindOperation",
      id: "b",
      to: {
        source: "x",
        format: "OpenAPI 3.1",
        version: "1",
        interface: "Ledger",
        operation: {
          name: "charge",
          in: [{ name: "meter", type: "string", isRequired: true }],
          out: [{ name: "bill", type: "string", isRequired: false }],
          errors: [],
          address: "",
        },
      },
    },
  );
  const told = (lines: readonly SequenceLine[]) =>
    lines.flatMap((line) =>
      line.kind === "message" ? [`${line.from} > ${line.to}: ${line.label}${line.isAnswer ? " (answer)" : ""}`] : [],
    );

  test("roles, systems, services with their data, and parties outside, for the paths and for a walk alike", () => {
    const expected = [
      "party home > role Front desk: wish",
      "role Front desk > role Front desk: a",
      "role Front desk > system reg: reads",
      "role Front desk > role Billing: b",
      "role Billing > service service.ledger: charge(meter)",
      "service service.ledger > role Billing: bill (answer)",
      "role Billing > role Front desk: d",
      "role Front desk > party home: d",
    ];
    expect(told(sequenceOfProcess(model, "p").lines)).toEqual(expected);
    const played = sequenceOfWalk(model, walk(model, "p").log);
    expect(told(played.lines)).toEqual(expected);
    expect(played.lifelines.map(({ name, kind }) => `${kind} ${name}`)).toEqual([
      "role Front desk",
      "party Household",
      "system Register",
      "role Billing",
      "service Ledger",
    ]);
  });

  test("drawn, everything lies within the picture, words are as wide as there is room, and hostile names do not run", () => {
    const hostile = performAll(model, {
      type: "rename",
      id: "a",
      name: `<script>alert(1)</script> ${"long ".repeat(400)}`,
    });
    const { scene, elementOf } = drawSequence(sequenceOfProcess(hostile, "p"));
    const { x, width, height } = scene.bounds;
    for (const figure of scene.figures)
      for (const primitive of figure.primitives) {
        if (primitive.kind !== "text") continue;
        const wide = textWidth(primitive.text, primitive.size, primitive.weight);
        const from = primitive.x - (primitive.anchor === "middle" ? wide / 2 : 0);
        expect(from).toBeGreaterThanOrEqual(x - 1);
        expect(from + wide).toBeLessThanOrEqual(x + width + 1);
        expect(primitive.y).toBeLessThanOrEqual(height);
      }
    expect(new Set(scene.figures.map(({ id }) => id)).size).toBe(scene.figures.length);
    for (const element of elementOf.values()) expect(hostile.elements.has(element)).toBe(true);
    const svg = sceneToSvg(scene, { title: "S" });
    expect(svg).not.toContain("<script>");
  });
});
