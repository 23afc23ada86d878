import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { chain, definition, end, file, flow, node, processOf, ran, start, task } from "./testing/models";

describe("incidents", () => {
  test("what stands in the way is told with its element, its reason and how often", () => {
    const text = file(
      processOf(
        `<dataObject id="do" name="papers"/>${start}${node("userTask", "a", '<multiInstanceLoopCharacteristics id="l"><loopDataInputRef>do</loopDataInputRef></multiInstanceLoopCharacteristics>')}${end}${chain("s", "a", "e")}`,
      ),
    );
    const { open, incidents } = ran(text, [{ papers: 3 }, {}, { papers: [1] }]);
    expect(open).toBe(2);
    expect(incidents).toEqual([{ element: "a", reason: "“papers” is no list", times: 2 }]);
  });
});

test("counts add up on random data: started is completed, failed and open, and tokens that left came", () => {
  const text = file(
    processOf(
      start +
        node("exclusiveGateway", "g") +
        task("a") +
        node("endEvent", "bad", definition("error")) +
        end +
        chain("s", "g") +
        flow("g", "a", "n > 5") +
        flow("g", "bad", "n < 0") +
        chain("a", "e"),
    ),
  );
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -10, max: 10 }), { maxLength: 30 }), (numbers) => {
      const outcome = ran(
        text,
        numbers.map((n) => ({ n })),
      );
      expect(outcome.started).toBe(numbers.length);
      expect(outcome.completed).toBe(numbers.filter((n) => n > 5).length);
      expect(outcome.failed).toBe(numbers.filter((n) => n < 0).length);
      expect(outcome.open).toBe(numbers.filter((n) => n >= 0 && n <= 5).length);
      for (const [entered, completed] of Object.values(outcome.counts)) expect(completed).toBeLessThanOrEqual(entered);
    }),
    { numRuns: 30 },
  );
});

describe("what is seen inside", () => {
  const counted = (condition: string) =>
    file(
      processOf(
        start +
          node(
            "userTask",
            "a",
            `<standardLoopCharacteristics id="l"><loopCondition>${condition}</loopCondition></standardLoopCharacteristics>`,
          ) +
          end +
          chain("s", "a", "e"),
      ),
    );

  test("a loop counts its rounds", () => {
    expect(ran(counted("loopCounter &lt; 3"), [{ x: 1 }]).counts.a).toEqual([3, 1]);
  });

  test("a signal begins a process that listens for it", () => {
    const signal = '<signal id="go" name="go"/>';
    const text = file(
      `${signal}${processOf(start + node("endEvent", "say", definition("signal", 'signalRef="go"')) + chain("s", "say"))}${processOf(node("startEvent", "s2", definition("signal", 'signalRef="go"')) + task("work") + node("endEvent", "e2") + chain("s2", "work", "e2"), "q")}`,
    );
    expect(ran(text, [{}]).counts).toMatchObject({ say: [1, 1], s2: [1, 1], work: [1, 1], e2: [1, 1] });
  });

  test("a condition is waited for until data makes it hold; by chance nobody asks for it", () => {
    const conditional = (text: string) =>
      `<conditionalEventDefinition id="c"><condition>${text}</condition></conditionalEventDefinition>`;
    const text = file(
      processOf(start + node("intermediateCatchEvent", "c1", conditional("n > 3")) + end + chain("s", "c1", "e")),
    );
    expect(ran(text, [{ n: 5 }, { n: 1 }])).toMatchObject({ completed: 1, open: 1 });
    expect(ran(text, 3)).toMatchObject({ completed: 3, open: 0 });
  });
});
