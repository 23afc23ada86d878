import { describe, expect, test } from "vitest";
import { chain, definition, edge, end, file, node, processOf, ran, start, task, timer } from "./testing/models";

const once = [1, 1] as const;

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
