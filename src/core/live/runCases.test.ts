import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { CaseData } from "../feel";
import { anonymised, byData, Engine, type LogTrace, liveCaseSchema, runWorld } from ".";
import {
  chain,
  definition,
  edge,
  end,
  file,
  flow,
  modelOf,
  node,
  processOf,
  ran,
  start,
  task,
  timer,
} from "./testing/models";
import { after, momentIn } from "./timers";

/** By element: how often it was entered and left, in one case. */
type Counts = { readonly [element: string]: readonly [number, number] };
const once = [1, 1] as const;

/** The standard's semantics, clause by clause (BPMN 2.0, chapter 13; from memory of formal/2011-01-03). */
describe("what the standard says happens", () => {
  test.each<
    [clause: string, what: string, text: string, data: CaseData, state: "completed" | "failed" | "open", counts: Counts]
  >([
    [
      "13.2.1",
      "a sequence",
      processOf(start + task("a") + task("b") + end + chain("s", "a", "b", "e")),
      {},
      "completed",
      { s: once, a: once, b: once, e: once },
    ],
    [
      "13.2.2",
      "a step with two ways in runs for each token",
      processOf(
        start +
          node("parallelGateway", "g") +
          task("a") +
          task("b") +
          task("c") +
          end +
          chain("s", "g", "a", "c", "e") +
          chain("g", "b", "c"),
      ),
      {},
      "completed",
      { c: [2, 2], e: [2, 2] },
    ],
    [
      "13.2.2",
      "a step with two ways out gives each a token",
      processOf(start + task("a") + task("b") + task("c") + end + chain("s", "a", "b", "e") + chain("a", "c", "e")),
      {},
      "completed",
      { b: once, c: once, e: [2, 2] },
    ],
    [
      "13.2.2",
      "conditional ways of a step are taken beside those without one",
      processOf(
        start +
          task("a") +
          task("b") +
          task("c") +
          task("d") +
          end +
          chain("s", "a") +
          flow("a", "b", "n > 1") +
          flow("a", "c", "n > 5") +
          flow("a", "d") +
          chain("b", "e") +
          chain("c", "e") +
          chain("d", "e"),
      ),
      { n: 3 },
      "completed",
      { b: once, d: once, e: [2, 2] },
    ],
    [
      "13.3.1",
      "a parallel join waits for all",
      processOf(
        start +
          node("parallelGateway", "g") +
          task("a") +
          task("b") +
          node("parallelGateway", "j") +
          end +
          chain("s", "g", "a", "j", "e") +
          chain("g", "b", "j"),
      ),
      {},
      "completed",
      { g: once, j: once, e: once },
    ],
    [
      "13.3.1",
      "a parallel join whose second way never comes keeps the case",
      processOf(
        start +
          node("exclusiveGateway", "g", "", 'default="fa"') +
          task("a") +
          task("b") +
          node("parallelGateway", "j") +
          end +
          chain("s", "g") +
          flow("g", "a", "", "fa") +
          flow("g", "b", "false") +
          chain("a", "j", "e") +
          chain("b", "j"),
      ),
      { x: 1 },
      "open",
      { a: once, j: [0, 0] },
    ],
    [
      "13.3.2",
      "an exclusive gateway takes the first way that is true",
      processOf(
        start +
          node("exclusiveGateway", "g", "", 'default="fd"') +
          task("a") +
          task("b") +
          task("d") +
          end +
          chain("s", "g") +
          flow("g", "a", "n > 10") +
          flow("g", "b", "n > 1") +
          flow("g", "d", "", "fd") +
          chain("a", "e") +
          chain("b", "e") +
          chain("d", "e"),
      ),
      { n: 5 },
      "completed",
      { g: once, b: once },
    ],
    [
      "13.3.2",
      "and the default where none is",
      processOf(
        start +
          node("exclusiveGateway", "g", "", 'default="fd"') +
          task("a") +
          task("d") +
          end +
          chain("s", "g") +
          flow("g", "a", "n > 10") +
          flow("g", "d", "", "fd") +
          chain("a", "e") +
          chain("d", "e"),
      ),
      { n: 5 },
      "completed",
      { g: once, d: once },
    ],
    [
      "13.3.2",
      "without a default it is an incident",
      processOf(
        start +
          node("exclusiveGateway", "g") +
          task("a") +
          task("d") +
          end +
          chain("s", "g") +
          flow("g", "a", "n > 10") +
          flow("g", "d", "missing > 3") +
          chain("a", "e") +
          chain("d", "e"),
      ),
      { n: 5 },
      "open",
      { s: once, g: [1, 0] },
    ],
    [
      "13.3.3",
      "an inclusive gateway takes all ways that are true, and its join waits for them",
      processOf(
        start +
          node("inclusiveGateway", "g") +
          task("a") +
          task("b") +
          task("c") +
          node("inclusiveGateway", "j") +
          end +
          chain("s", "g") +
          flow("g", "a", "n > 1") +
          flow("g", "b", "n > 2") +
          flow("g", "c", "n > 9") +
          chain("a", "j") +
          chain("b", "j") +
          chain("c", "j") +
          chain("j", "e"),
      ),
      { n: 5 },
      "completed",
      { a: once, b: once, j: once, e: once },
    ],
    [
      "13.3.4",
      "of an event-based gateway the first event counts",
      processOf(
        start +
          node("eventBasedGateway", "g") +
          node("intermediateCatchEvent", "late", timer("timeDuration", "PT2H")) +
          node("intermediateCatchEvent", "soon", timer("timeDuration", "PT1H")) +
          end +
          chain("s", "g", "late", "e") +
          chain("g", "soon", "e"),
      ),
      {},
      "completed",
      { g: once, soon: once, e: once },
    ],
    [
      "13.4.2",
      "an intermediate timer is waited for",
      processOf(start + node("intermediateCatchEvent", "t", timer("timeDuration", "P1D")) + end + chain("s", "t", "e")),
      {},
      "completed",
      { t: once },
    ],
    [
      "13.4.2",
      "a message that nobody sends is waited for without end",
      processOf(start + node("intermediateCatchEvent", "m", definition("message")) + end + chain("s", "m", "e")),
      {},
      "open",
      { s: once, m: [0, 0] },
    ],
    [
      "13.4.3",
      "a timer at the edge ends the step",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              node("intermediateCatchEvent", "long", timer("timeDuration", "PT2H")) +
              node("endEvent", "e2") +
              chain("s2", "long", "e2"),
          ) +
          edge("t", "a", timer("timeDuration", "PT1H")) +
          task("b") +
          end +
          node("endEvent", "late") +
          chain("s", "a", "e") +
          chain("t", "b", "late"),
      ),
      {},
      "completed",
      { a: [1, 0], t: once, b: once, late: once, s2: once },
    ],
    [
      "13.4.3",
      "one that does not end it goes off beside it",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              node("intermediateCatchEvent", "long", timer("timeDuration", "PT2H")) +
              node("endEvent", "e2") +
              chain("s2", "long", "e2"),
          ) +
          edge("t", "a", timer("timeDuration", "PT1H"), false) +
          task("b") +
          end +
          node("endEvent", "told") +
          chain("s", "a", "e") +
          chain("t", "b", "told"),
      ),
      {},
      "completed",
      { a: once, t: once, b: once, e: once },
    ],
    [
      "13.4.3",
      "a cycle at the edge goes off so often",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              node("intermediateCatchEvent", "long", timer("timeDuration", "PT5H30M")) +
              node("endEvent", "e2") +
              chain("s2", "long", "e2"),
          ) +
          edge("t", "a", timer("timeCycle", "R3/PT1H"), false) +
          task("b") +
          end +
          node("endEvent", "told") +
          chain("s", "a", "e") +
          chain("t", "b", "told"),
      ),
      {},
      "completed",
      { a: once, t: [3, 3], b: [3, 3] },
    ],
    [
      "13.4.3",
      "an error inside is caught at the edge",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              task("work") +
              node("endEvent", "fails", definition("error")) +
              chain("s2", "work", "fails"),
          ) +
          edge("t", "a", definition("error")) +
          task("b") +
          end +
          node("endEvent", "handled") +
          chain("s", "a", "e") +
          chain("t", "b", "handled"),
      ),
      {},
      "completed",
      { a: [1, 0], t: once, b: once, handled: once },
    ],
    [
      "13.4.3",
      "an error that nothing catches fails the case",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              task("work") +
              node("endEvent", "fails", definition("error")) +
              chain("s2", "work", "fails"),
          ) +
          end +
          chain("s", "a", "e"),
      ),
      {},
      "failed",
      { work: once, fails: once },
    ],
    [
      "13.4.3",
      "an escalation goes on beside what threw it",
      processOf(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s2") +
              node("intermediateThrowEvent", "tell", definition("escalation")) +
              task("work") +
              node("endEvent", "e2") +
              chain("s2", "tell", "work", "e2"),
          ) +
          edge("t", "a", definition("escalation"), false) +
          task("b") +
          end +
          node("endEvent", "told") +
          chain("s", "a", "e") +
          chain("t", "b", "told"),
      ),
      {},
      "completed",
      { a: once, t: once, b: once, work: once },
    ],
    [
      "13.4.4",
      "an event sub-process begins by its timer and ends its scope",
      processOf(
        start +
          node("intermediateCatchEvent", "long", timer("timeDuration", "P2D")) +
          node(
            "subProcess",
            "esp",
            node("startEvent", "s2", timer("timeDuration", "P1D")) +
              task("b") +
              node("endEvent", "e2") +
              chain("s2", "b", "e2"),
            'triggeredByEvent="true"',
          ) +
          end +
          chain("s", "long", "e"),
      ),
      {},
      "completed",
      { esp: once, b: once, e2: once, long: [0, 0] },
    ],
    [
      "13.4.5",
      "a signal is heard by all who wait for it",
      `<signal id="sig" name="go"/>${processOf(start + node("parallelGateway", "g") + node("intermediateCatchEvent", "hear", definition("signal", 'signalRef="sig"')) + task("a") + node("intermediateThrowEvent", "say", definition("signal", 'signalRef="sig"')) + end + chain("s", "g", "hear", "e") + chain("g", "a", "say", "e"))}`,
      {},
      "completed",
      { hear: once, say: once, e: [2, 2] },
    ],
    [
      "13.4.6",
      "a terminate end takes everything with it",
      processOf(
        start +
          node("parallelGateway", "g") +
          node("intermediateCatchEvent", "long", timer("timeDuration", "P1D")) +
          task("a") +
          node("endEvent", "all", definition("terminate")) +
          end +
          chain("s", "g", "long", "e") +
          chain("g", "a", "all"),
      ),
      {},
      "completed",
      { all: once, a: once },
    ],
    [
      "13.2.5",
      "compensation undoes what was done, the last first",
      processOf(
        start +
          task("book") +
          edge("undo", "book", definition("compensate")) +
          node("serviceTask", "cancel", "", 'isForCompensation="true"') +
          `<association id="as" sourceRef="undo" targetRef="cancel" associationDirection="One"/>` +
          node("intermediateThrowEvent", "back", definition("compensate")) +
          end +
          chain("s", "book", "back", "e"),
      ),
      {},
      "completed",
      { book: once, cancel: once, back: once },
    ],
    [
      "13.2.6",
      "a loop goes round while its condition holds",
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<standardLoopCharacteristics id="l" loopMaximum="4"><loopCondition>again</loopCondition></standardLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
      { again: true },
      "completed",
      { a: [4, 1] },
    ],
    [
      "13.2.6",
      "a loop that is asked before may be done no time",
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<standardLoopCharacteristics id="l" testBefore="true"><loopCondition>again</loopCondition></standardLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
      { again: false },
      "completed",
      { e: once },
    ],
    [
      "13.2.7",
      "instances by a number, all at once",
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<multiInstanceLoopCharacteristics id="l"><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
      {},
      "completed",
      { a: [3, 1], e: once },
    ],
    [
      "13.2.7",
      "instances for the items of a list, one after the other",
      processOf(
        `<dataObject id="do" name="papers"/>${start}${node("subProcess", "a", `<multiInstanceLoopCharacteristics id="l" isSequential="true"><loopDataInputRef>do</loopDataInputRef><inputDataItem id="it" name="paper"/></multiInstanceLoopCharacteristics>${node("startEvent", "s2")}${node("exclusiveGateway", "g", "", 'default="fo"')}${task("long")}${task("short")}${node("endEvent", "e2")}${chain("s2", "g")}${flow("g", "long", "paper.pages > 10")}${flow("g", "short", "", "fo")}${chain("long", "e2")}${chain("short", "e2")}`)}${end}${chain("s", "a", "e")}`,
      ),
      { papers: [{ pages: 3 }, { pages: 30 }, { pages: 4 }] },
      "completed",
      { a: [3, 1], long: once, short: [2, 2], e2: [3, 3] },
    ],
    [
      "13.2.7",
      "no items, no instances",
      processOf(
        `<dataObject id="do" name="papers"/>${start}${node("userTask", "a", '<multiInstanceLoopCharacteristics id="l"><loopDataInputRef>do</loopDataInputRef></multiInstanceLoopCharacteristics>')}${end}${chain("s", "a", "e")}`,
      ),
      { papers: [] },
      "completed",
      { e: once },
    ],
    [
      "13.2.7",
      "enough instances end the others",
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<multiInstanceLoopCharacteristics id="l"><loopCardinality>5</loopCardinality><completionCondition>numberOfCompletedInstances >= 2</completionCondition></multiInstanceLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
      { x: 1 },
      "completed",
      { a: [5, 1], e: once },
    ],
    [
      "13.2.8",
      "an ad-hoc sub-process does each of its steps",
      processOf(
        start + node("adHocSubProcess", "a", task("x") + task("y"), 'ordering="Parallel"') + end + chain("s", "a", "e"),
      ),
      {},
      "completed",
      { x: once, y: once, a: once },
    ],
  ])("%s %s", (_clause, _what, text, data, state, counts) => {
    const outcome = ran(file(text), [data]);
    expect([outcome.completed && "completed", outcome.failed && "failed", outcome.open && "open"].find(Boolean)).toBe(
      state,
    );
    expect(outcome.counts).toMatchObject(counts);
  });

  test("a called process is played, and its steps are counted", () => {
    const text = file(
      processOf(start + node("callActivity", "c", "", 'calledElement="q"') + end + chain("s", "c", "e")) +
        processOf(node("startEvent", "s2") + task("inner") + node("endEvent", "e2") + chain("s2", "inner", "e2"), "q"),
    );
    const { counts, completed, events } = ran(text, [{}]);
    expect(completed).toBe(1);
    expect(counts).toMatchObject({ c: once, inner: once, s2: once, e2: once });
    const work = events[0]?.filter(({ kind }) => kind === "start" || kind === "complete");
    expect(work?.map(({ kind, element }) => `${kind} ${element}`)).toEqual([
      "start c",
      "start inner",
      "complete inner",
      "complete c",
    ]);
  });
});

describe("messages", () => {
  const pools = (first: string, second: string, messages: string) =>
    file(
      `<collaboration id="co"><participant id="P" processRef="p"/><participant id="Q" processRef="q"/>${messages}</collaboration>${processOf(first)}${processOf(second, "q")}`,
    );
  const message = (from: string, to: string) =>
    `<messageFlow id="m-${from}-${to}" sourceRef="${from}" targetRef="${to}"/>`;

  test("a question begins another pool's process, whose answer is waited for", () => {
    const { counts, completed } = ran(
      pools(
        start + node("sendTask", "ask") + node("receiveTask", "hear") + end + chain("s", "ask", "hear", "e"),
        node("startEvent", "s2", definition("message")) +
          task("think") +
          node("endEvent", "tell", definition("message")) +
          chain("s2", "think", "tell"),
        message("ask", "s2") + message("tell", "hear"),
      ),
      [{}],
    );
    expect(completed).toBe(1);
    expect(counts).toMatchObject({ ask: once, hear: once, s2: once, think: once, tell: once });
  });

  test("a pool that needs no message begins with the case", () => {
    const { counts, completed } = ran(
      pools(
        start + node("intermediateCatchEvent", "hear", definition("message")) + end + chain("s", "hear", "e"),
        node("startEvent", "s2") +
          task("think") +
          node("sendTask", "tell") +
          node("endEvent", "e2") +
          chain("s2", "think", "tell", "e2"),
        message("tell", "hear"),
      ),
      [{}],
    );
    expect([completed, counts.hear, counts.think]).toEqual([1, once, once]);
  });

  test("without a flow a message goes by its name", () => {
    const { counts, completed } = ran(
      file(
        `<message id="order" name="order"/><message id="done" name="done"/>${processOf(start + node("endEvent", "ask", definition("message", 'messageRef="order"')) + node("parallelGateway", "g") + node("intermediateCatchEvent", "hear", definition("message", 'messageRef="done"')) + end + chain("s", "g", "ask") + chain("g", "hear", "e"))}${processOf(node("startEvent", "s2", definition("message", 'messageRef="order"')) + node("endEvent", "tell", definition("message", 'messageRef="done"')) + chain("s2", "tell"), "q")}`,
      ),
      [{}],
    );
    expect([completed, counts.s2, counts.hear]).toEqual([1, once, once]);
  });

  test("an event sub-process of another pool is set off by a message", () => {
    const { counts } = ran(
      pools(
        start + node("sendTask", "stop") + end + chain("s", "stop", "e"),
        node("startEvent", "s2") +
          node("intermediateCatchEvent", "long", timer("timeDuration", "P9D")) +
          node("endEvent", "e2") +
          node(
            "subProcess",
            "esp",
            node("startEvent", "s3", definition("message")) + node("endEvent", "e3") + chain("s3", "e3"),
            'triggeredByEvent="true"',
          ) +
          chain("s2", "long", "e2"),
        message("stop", "s3"),
      ),
      [{}],
    );
    expect(counts).toMatchObject({ e3: once, s3: once });
    expect(counts.e2).toBeUndefined();
  });

  test("a message at an edge ends the wait of the other pool", () => {
    const { counts, completed } = ran(
      pools(
        start +
          node(
            "subProcess",
            "a",
            node("startEvent", "s4") +
              node("intermediateCatchEvent", "long", timer("timeDuration", "P9D")) +
              node("endEvent", "e4") +
              chain("s4", "long", "e4"),
          ) +
          edge("m", "a", definition("message")) +
          end +
          node("endEvent", "cut") +
          chain("s", "a", "e") +
          chain("m", "cut"),
        node("startEvent", "s2") +
          node("intermediateCatchEvent", "day", timer("timeDuration", "P1D")) +
          node("endEvent", "tell", definition("message")) +
          chain("s2", "day", "tell"),
        message("tell", "m"),
      ),
      [{}],
    );
    expect([completed, counts.m, counts.cut, counts.a]).toEqual([1, once, once, [1, 0]]);
  });
});

describe("by chance", () => {
  const split = (kind: string) =>
    file(
      processOf(
        start +
          node(kind, "g") +
          task("a") +
          task("b") +
          node(kind, "j") +
          end +
          chain("s", "g", "a", "j", "e") +
          chain("g", "b", "j"),
      ),
    );

  test("each way of an exclusive gateway is as likely as the other", () => {
    const { counts, completed } = ran(split("exclusiveGateway"), 4000);
    expect(completed).toBe(4000);
    expect((counts.a?.[0] ?? 0) + (counts.b?.[0] ?? 0)).toBe(4000);
    // 0.5 ± 4 standard deviations.
    expect(Math.abs((counts.a?.[0] ?? 0) / 4000 - 0.5)).toBeLessThan(0.032);
  });

  test("ways of an inclusive gateway come by one half each, drawn again where none does", () => {
    const { counts, completed } = ran(split("inclusiveGateway"), 6000);
    expect(completed).toBe(6000);
    expect(counts.j?.[0]).toBe(6000);
    // Of the three outcomes that are left of four, a is in two: 2/3.
    expect(Math.abs((counts.a?.[0] ?? 0) / 6000 - 2 / 3)).toBeLessThan(0.025);
  });

  test("the same seed gives the same run, another one another", () => {
    const one = ran(split("exclusiveGateway"), 300, { seed: 5 });
    expect(ran(split("exclusiveGateway"), 300, { seed: 5 })).toEqual(one);
    expect(ran(split("exclusiveGateway"), 300, { seed: 6 }).counts).not.toEqual(one.counts);
  });

  test("conditions are not asked, loops are done once, and a case that goes in circles is stopped", () => {
    const circle = file(processOf(start + task("a") + task("b") + chain("s", "a", "b", "a")));
    const { open, counts } = ran(circle, 1);
    expect(open).toBe(1);
    expect(counts.a?.[0]).toBeGreaterThan(1000);
    const loop = file(
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<standardLoopCharacteristics id="l"><loopCondition>true</loopCondition></standardLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
    );
    expect(ran(loop, 1).counts.a).toEqual([1, 1]);
  });
});

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

/** ISO 8601-1:2019, 5.5 and 5.6; the changes to and from summer time as the zones' own table has them. */
describe("moments of timers", () => {
  const at = (text: string) => Date.parse(text);
  test.each([
    ["2027-01-31T10:00:00Z", "P1M", "UTC", "2027-02-28T10:00:00Z"],
    ["2028-01-31T10:00:00Z", "P1M", "UTC", "2028-02-29T10:00:00Z"],
    ["2027-12-15T10:00:00Z", "P1Y2M3DT4H", "UTC", "2029-02-18T14:00:00Z"],
    ["2027-03-27T09:00:00Z", "P1D", "Europe/Lisbon", "2027-03-28T08:00:00Z"],
    ["2027-03-27T09:00:00Z", "PT24H", "Europe/Lisbon", "2027-03-28T09:00:00Z"],
    ["2027-10-30T08:00:00Z", "P1D", "Europe/Lisbon", "2027-10-31T09:00:00Z"],
    ["2027-01-01T00:00:00Z", "P2W", "UTC", "2027-01-15T00:00:00Z"],
    ["2027-01-01T00:00:00Z", "PT1.5H", "UTC", "2027-01-01T01:30:00Z"],
  ])("%s and %s, in %s, is %s", (from, duration, zone, expected) => {
    expect(new Date(after(at(from), duration, zone) ?? 0).toISOString()).toBe(new Date(at(expected)).toISOString());
  });

  test("days and months go by the calendar as the platform's own dates do, for any moment", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2_000_000_000 }),
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 60 }),
        (seconds, months, days) => {
          const from = new Date(seconds * 1000);
          const last = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + months + 1, 0)).getUTCDate();
          const expected = new Date(from);
          expected.setUTCDate(1);
          expected.setUTCMonth(from.getUTCMonth() + months);
          expected.setUTCDate(Math.min(from.getUTCDate(), last) + days);
          expect(after(from.getTime(), `P${months}M${days}D`, "UTC")).toBe(expected.getTime());
        },
      ),
    );
  });

  test("what is no duration or no moment is told", () => {
    expect(after(0, "two days", "UTC")).toBeUndefined();
    expect(momentIn("2027-13-01", "UTC")).toBeUndefined();
    expect(momentIn("tomorrow", "UTC")).toBeUndefined();
    const broken = file(
      processOf(
        start + node("intermediateCatchEvent", "t", timer("timeDuration", "soon")) + end + chain("s", "t", "e"),
      ),
    );
    expect(ran(broken, [{}]).incidents).toEqual([{ element: "t", reason: "its time cannot be read", times: 1 }]);
    expect(ran(broken, [{ soon: "PT5M" }]).completed).toBe(1);
  });
});

describe("a case as plain data", () => {
  const text = file(
    processOf(
      start +
        node("parallelGateway", "g") +
        task("a") +
        node(
          "subProcess",
          "sub",
          node("startEvent", "s2") + task("inner") + node("endEvent", "e2") + chain("s2", "inner", "e2"),
        ) +
        edge("late", "sub", timer("timeDuration", "P1D"), false) +
        task("remind") +
        node("parallelGateway", "j") +
        end +
        node("endEvent", "told") +
        chain("s", "g", "a", "j", "e") +
        chain("g", "sub", "j") +
        chain("late", "remind", "told"),
    ),
  );

  test("goes on from what was saved, at any point and in any order, as if it had never been put away", () => {
    const model = modelOf(text);
    const world = runWorld(model);
    const running = { world, choosing: byData, zone: "UTC", now: 0 };
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 5 }), { minLength: 1, maxLength: 12 }), (choices) => {
        const whole = Engine.begin(running, "p", { n: 1 });
        let parts = Engine.begin(running, "p", { n: 1 });
        for (const choice of choices) {
          const open = [...whole.waits].map(({ id }) => id);
          const wait = open[choice % Math.max(1, open.length)];
          if (wait === undefined) break;
          whole.happen(wait, { [`v${wait}`]: choice });
          // Put away as JSON and taken out again before each step.
          const saved = liveCaseSchema.parse(JSON.parse(JSON.stringify(parts.saved())));
          parts = Engine.load(running, saved);
          parts.happen(wait, { [`v${wait}`]: choice });
          expect(JSON.parse(JSON.stringify(parts.saved()))).toEqual(JSON.parse(JSON.stringify(whole.saved())));
        }
      }),
      { numRuns: 200 },
    );
  });

  test("a log without names keeps durations, weekdays and who is the same", () => {
    const day = 86_400_000;
    const traces: LogTrace[] = [
      {
        case: "Ada",
        events: [
          { activity: "a", at: day, lifecycle: "start", role: "Desk" },
          { activity: "a", at: 3 * day, lifecycle: "complete", role: "Desk" },
        ],
      },
      { case: "Ben", events: [{ activity: "b", at: 5 * day, lifecycle: "start", role: "Crew" }] },
    ];
    const [one, two] = anonymised(traces, 7);
    expect([one?.case, two?.case]).toEqual(["Case 1", "Case 2"]);
    expect(one?.events.map(({ role }) => role)).toEqual(["Role 1", "Role 1"]);
    expect(two?.events[0]?.role).toBe("Role 2");
    const [begun, done] = one?.events ?? [];
    expect((done?.at ?? 0) - (begun?.at ?? 0)).toBe(2 * day);
    expect((day - (begun?.at ?? 0)) % (7 * day)).toBe(0);
  });
});
