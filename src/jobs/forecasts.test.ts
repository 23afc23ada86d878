import { describe, expect, test } from "vitest";
import {
  bpmnWith,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  number,
  of,
  share,
  split,
  start,
  station,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { flowNodesIn } from "@/core/model";
import { calledName } from "./called";
import { followed, forecasts, matters, reportedForecast, runLength, staff, vary } from "./forecasts";

const silent = () => undefined;
const model = modelOf(station(exponential(60), exponential(50), 1));
const asked = { scenario: "s1", roles: [], cases: 400, replications: 2 };

describe("jobs of the forecast", () => {
  test("forecasts tells how far it is, and gives the figures", async () => {
    const shares: number[] = [];
    const answer = await forecasts({ model }, { ...asked, cases: 20_000, samples: 3 }, (share) => shares.push(share));
    if ("unsound" in answer) throw new Error("unsound");
    expect(answer.forecast).toMatchObject({ cases: 20_000, replications: 2 });
    expect(answer.forecast.samples).toHaveLength(3);
    expect(shares.length).toBeGreaterThan(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  test("vary gives a point for each value, and what the input is now", async () => {
    const answer = await vary(
      { model },
      { ...asked, input: { element: "r", what: "quantity" }, values: [1, 2] },
      silent,
    );
    if ("unsound" in answer) throw new Error("unsound");
    expect(answer.now).toBe(1);
    const [one, two] = answer.points;
    expect(two?.forecast.waitingTime.mean).toBeLessThan(one?.forecast.waitingTime.mean ?? 0);
  });

  test("vary turns two inputs together, every value with every other", async () => {
    const answer = await vary(
      { model },
      {
        ...asked,
        input: { element: "r", what: "quantity" },
        values: [1, 2],
        second: { input: { element: "a", what: "processing" }, values: [600, 1200, 1800] },
      },
      silent,
    );
    if ("unsound" in answer) throw new Error("unsound");
    expect(answer.points.map(({ value, other }) => [value, other])).toEqual([
      [1, 600],
      [1, 1200],
      [1, 1800],
      [2, 600],
      [2, 1200],
      [2, 1800],
    ]);
    const means = answer.points.map(({ forecast }) => forecast.processingTime.mean);
    expect(means[0]).toBeLessThan(means[1] ?? 0);
    expect(means[3]).toBeCloseTo(means[0] ?? 0, 6);
  });

  test("followed gives one case, led by what was chosen by hand; null where so many never come", async () => {
    const way = bpmnWith(split("exclusiveGateway"), of("fa", share(1)) + of("fb", share(0)));
    const choosing = modelOf(way);
    const follow = async (number: number, chosen: Parameters<typeof followed>[1]["chosen"] = []) => {
      const answer = await followed({ model: choosing }, { ...asked, number, chosen }, silent);
      if ("unsound" in answer) throw new Error("unsound");
      return answer.case;
    };
    const did = (one: Awaited<ReturnType<typeof follow>>) =>
      one?.moments.flatMap(({ what }) => (what.kind === "act" ? [what.act.node] : []));
    expect(did(await follow(4))).toContain("a");
    expect(did(await follow(4, [["g", [{ does: "pass", flows: ["fb"] }]]]))).toContain("b");
    const few = modelOf(
      bpmnWith(
        inARow(start, task("a"), end),
        of(
          "s",
          '<bpsim:ControlParameters><bpsim:TriggerCount><bpsim:NumericParameter value="2"/></bpsim:TriggerCount></bpsim:ControlParameters>',
        ),
      ),
    );
    expect(await followed({ model: few }, { ...asked, number: 5, chosen: [] }, silent)).toEqual({ case: null });
  });

  test("a report has the figures of the first scenario, with what the directory said; or why there are none", () => {
    const reported = reportedForecast({ model }, []);
    expect(reported?.says).toContainEqual({ element: "r", name: "r", what: "how many", value: "1" });
    expect(reported?.figures?.resources[0]?.id).toBe("r");
    expect(reportedForecast({ model }, [])).toEqual(reported);
    expect(reportedForecast({ model: modelOf(bpmnWith(inARow(start, end), "")) }, [])?.figures?.cases).toBeGreaterThan(
      0,
    );
    const long = modelOf(
      bpmnWith(
        inARow(start, task("a"), end),
        of("s", every(number(0.01))),
        '<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Duration><bpsim:DurationParameter value="P2000D"/></bpsim:Duration></bpsim:ScenarioParameters>',
      ),
    );
    expect(reportedForecast({ model: long }, [])).toMatchObject({
      figures: null,
      why: expect.stringMatching(/too long/),
    });
  });

  test("runLength proposes what not to count and how often to run; null where no case ends", async () => {
    const propose = async (one: typeof model) => {
      const answer = await runLength({ model: one }, { ...asked, within: 0.2 }, silent);
      if ("unsound" in answer) throw new Error("unsound");
      return answer.proposal;
    };
    expect(await propose(model)).toMatchObject({ done: 10, warmUp: expect.any(Number) });
    const over = modelOf(
      bpmnWith(
        inARow(start, task("a"), end),
        of("s", every(number(60))) + of("a", timeOf(number(10_000))),
        '<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Duration><bpsim:DurationParameter value="P1D"/></bpsim:Duration></bpsim:ScenarioParameters>',
      ),
    );
    expect(await propose(over)).toBeNull();
  });

  test("matters ranks inputs by what they do", async () => {
    const inputs = [{ element: "r", what: "quantity" } as const, { element: "a", what: "processing" } as const];
    const answer = await matters({ model }, { ...asked, inputs, figure: "mean" }, silent);
    if ("unsound" in answer) throw new Error("unsound");
    expect(answer.effects.map(({ input }) => input.element).sort()).toEqual(["a", "r"]);
    expect(answer.effects[0]?.range).toBeGreaterThanOrEqual(answer.effects[1]?.range ?? 0);
  });

  test("staff gives rows with names", async () => {
    const answer = await staff({ model }, { ...asked, target: { within: 5 * 3600, share: 0.8 } }, silent);
    if ("unsound" in answer) throw new Error("unsound");
    expect(answer.kept[0]?.quantities).toEqual([{ id: "r", name: "r", count: 2 }]);
  });

  test("a process that is not sound has none of them", async () => {
    const broken = modelOf(
      bpmnWith(
        '<bpmn:startEvent id="s"/><bpmn:task id="a"/><bpmn:parallelGateway id="j"/><bpmn:task id="b"/><bpmn:endEvent id="e"/><bpmn:sequenceFlow id="f1" sourceRef="s" targetRef="a"/><bpmn:sequenceFlow id="f2" sourceRef="a" targetRef="j"/><bpmn:sequenceFlow id="f3" sourceRef="b" targetRef="j"/><bpmn:sequenceFlow id="f4" sourceRef="j" targetRef="b"/>',
        of("s", every(number(60))),
      ),
    );
    expect(flowNodesIn(broken, "p").length).toBe(5);
    expect(await forecasts({ model: broken }, asked, silent)).toEqual({ unsound: { process: "p", name: "P" } });
  });

  test("what is called is as its own scenario says, unless the call says it itself", async () => {
    const inner = modelOf(
      bpmnWith(inARow(start, task("inside"), end), of("inside", timeOf(number(40)))).replaceAll('id="p"', 'id="inner"'),
    );
    const call = '<bpmn:callActivity id="c" calledElement="inner"/>';
    const outer = (more = "") => modelOf(bpmnWith(inARow(start, call, end), of("s", every(number(600))) + more));
    const run = async (one: ReturnType<typeof outer>) => {
      const answer = await forecasts({ model: one, [calledName("inner")]: inner }, asked, silent);
      if ("unsound" in answer) throw new Error("unsound");
      return answer.forecast.cycleTime.mean / 60;
    };
    expect(await run(outer())).toBeCloseTo(40, 6);
    expect(await run(outer(of("c", timeOf(number(7)))))).toBeCloseTo(7, 6);
  });
});
