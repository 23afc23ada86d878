import { describe, expect, test } from "vitest";
import type { CaseData } from "../feel";
import { chain, definition, edge, end, file, flow, node, processOf, ran, start, task, timer } from "./testing/models";

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
