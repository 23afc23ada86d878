import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Finding } from "@/core/check";
import { changeGroups, compareModels, marksOf, startToBe } from "@/core/compare";
import { handoversOf } from "@/core/directory";
import { say } from "@/core/messages";
import { isConnection, processesOf } from "@/core/model";
import { performAll, smallModel } from "@/core/testing/models";
import { randomProcess } from "@/core/testing/randomProcess";
import { findingMarks, runMarks } from "../canvas/marks/findingMarks";
import { text } from "../messages";
import { sideMarks } from "./compare/marks";
import { askMarks, handoverMarks } from "./diagram/marks";

const finding = (severity: Finding["severity"], ...elements: string[]) =>
  ({ severity, elements }) as unknown as Finding;

describe("what a description leaves open", () => {
  const linked = performAll(
    smallModel(),
    { type: "linkWords", id: "check", marks: ["a1"] },
    { type: "linkWords", id: "approve", marks: ["a2", "a2:if"] },
  );
  const ask = (...marks: string[]) => ({ id: marks.join(), question: say`Who?`, marks });

  test("the steps that stand for its words are framed, each once, and flows are not", () => {
    expect(askMarks([ask("a1"), ask("a1", "a2")], linked).map(({ on, means }) => [on, means])).toEqual([
      ["check", "asked"],
      ["approve", "asked"],
    ]);
  });

  test("what was built for a turn of phrase is found by its words where it has gone", () => {
    expect(askMarks([ask("a2:if")], linked).map(({ on }) => on)).toEqual(["approve"]);
    expect(askMarks([ask("a1:end")], linked).map(({ on }) => on)).toEqual(["check"]);
  });

  test("nothing is framed for what is in no model", () => {
    expect(askMarks([ask("a9")], linked)).toEqual([]);
    expect(askMarks([], linked)).toEqual([]);
  });
});

describe("findings on a drawing", () => {
  test("each element has one sign, the worst there is; advice has none", () => {
    const marks = findingMarks([
      finding("warning", "a", "b"),
      finding("error", "a"),
      finding("warning", "a"),
      finding("advice", "c"),
    ]);
    expect(marks.map(({ on, means }) => [on, means])).toEqual([
      ["a", "error"],
      ["b", "warning"],
    ]);
  });

  test("whatever is found, nothing is marked twice, and what is marked is what was found", () => {
    const some = fc.record({
      severity: fc.constantFrom<Finding["severity"]>("error", "warning", "advice"),
      elements: fc.array(fc.constantFrom<string>("a", "b", "c", "d"), { minLength: 1, maxLength: 3 }),
    });
    fc.assert(
      fc.property(fc.array(some), (found) => {
        const marks = findingMarks(found as unknown as Finding[]);
        const on = marks.map((mark) => mark.on);
        expect(new Set(on).size).toBe(on.length);
        for (const mark of marks) {
          const here = found.filter(({ elements }) => elements.includes(mark.on)).map(({ severity }) => severity);
          expect(mark.means).toBe(here.includes("error") ? "error" : "warning");
          expect(here).toContain(mark.means);
        }
      }),
    );
  });
});

describe("a run on a drawing", () => {
  test("nodes say at which steps they are passed, flows between them are marked, and no other", () => {
    const marks = runMarks(["start", "check", "late", "check"], smallModel());
    const labels = marks.filter(({ as }) => as === "label");
    expect(labels.map((mark) => [mark.on, "text" in mark && mark.text])).toEqual([
      ["start", "1"],
      ["check", "2, 4"],
      ["late", "3"],
    ]);
    expect(marks.filter(({ as }) => as === "ribbon").map(({ on }) => on)).toEqual(["f1"]);
  });

  test("one that passes a node many times is cut short", () => {
    const [mark] = runMarks(Array(9).fill("check"), smallModel());
    expect(mark).toMatchObject({ on: "check", text: "1, 2, 3 …" });
  });
});

describe("hand-overs on a drawing", () => {
  test("the flows that work goes along, and one sign where it changes hands that says from whom to whom", () => {
    const model = performAll(
      smallModel(),
      { type: "tieLane", lane: "desk", role: { entry: "d", name: "Front desk" } },
      { type: "tieLane", lane: "engineer", role: { entry: "e", name: "Network engineer" } },
      { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" },
    );
    const marks = handoverMarks(handoversOf(model, "roles"));
    const signs = marks.filter(({ as }) => as === "sign");
    expect(signs).toMatchObject([{ means: "handover", words: "Front desk → Network engineer" }]);
    for (const { on } of marks) expect(model.elements.get(on)?.type).toBe("sequenceFlow");
    expect(handoverMarks([])).toEqual([]);
  });
});

describe("differences on the drawings of both sides", () => {
  test("what only one side has is in its pen, labels stand at shapes, and what is looked at is framed", () => {
    const before = smallModel();
    const after = performAll(startToBe(before), {
      type: "append",
      diagram: "page",
      from: "check",
      id: "ask",
      flow: "f-ask",
      kind: { type: "task" },
      name: "Ask",
    });
    const comparison = compareModels(before, after);
    const groups = changeGroups(before, after, comparison);
    const marks = marksOf(groups);
    const isShape = (id: string) => !isConnection(after.elements.get(id)?.type);
    const shown = sideMarks("to", marks.to, groups[0], [], isShape);
    expect(shown.filter(({ as }) => as === "pen").map(({ on }) => on)).toEqual(
      expect.arrayContaining(["ask", "f-ask"]),
    );
    for (const mark of shown) if (mark.as === "label") expect(isShape(mark.on)).toBe(true);
    expect(shown.some((mark) => mark.as === "frame" && mark.on === "ask")).toBe(true);
    expect(sideMarks("from", marks.from, undefined, [], isShape).filter(({ as }) => as === "pen")).toEqual([]);
  });

  test("on models by chance every mark names an element of its side, and has words in the legend", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const [from, to] = [seed, seed + 1].map((one) => randomProcess({ seed: one, nodes: 12, lanes: 2 }));
      if (!from || !to || processesOf(from).length === 0) continue;
      const marks = marksOf(changeGroups(from, to, compareModels(from, to)));
      for (const [side, model] of [
        ["from", from],
        ["to", to],
      ] as const)
        for (const mark of sideMarks(side, marks[side], undefined, [], () => true)) {
          expect(model.elements.has(mark.on)).toBe(true);
          expect(text.marks[mark.means]).toBeTruthy();
        }
    }
  });
});
