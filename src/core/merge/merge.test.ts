import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { perform } from "../commands";
import { compareModels, isCompared } from "../compare";
import { exponential, modelOf, station } from "../forecast/testing/models";
import {
  applyEdits,
  brokenInvariants,
  incomingOf,
  laneOf,
  leafLanesOf,
  type Model,
  outgoingOf,
  sameJson,
  shapeOn,
} from "../model";
import { scenariosOf } from "../scenario";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { mergeModels, replacementEdits } from ".";

const diagram = "page";
const base = smallModel();
const holds = (model: Model) =>
  (["elements", "diagrams", "shapes", "edges"] as const).map((table) =>
    [...(model[table] as Iterable<{ id: string }>)].sort((a, b) => (a.id < b.id ? -1 : 1)),
  );
/** The ids that random commands give, as another person's would be. */
const withOwnIds = (model: Model): Model => {
  const written = writeBpmn(model);
  const fresh = [...model.elements].map(({ id }) => id).filter((id) => !base.elements.has(id) && !id.startsWith("~"));
  return expectOk(
    readBpmn(
      fresh.reduce((text, id) => text.replaceAll(`"${id}"`, `"${id}-t"`).replaceAll(`>${id}<`, `>${id}-t<`), written),
    ),
  );
};
const rename = (model: Model, id: string, name: string) => performAll(model, { type: "rename", id, name });

describe("merging, on random changes", () => {
  test("what only one side changed is that side", () => {
    fc.assert(
      fc.property(commandScript(8), (script) => {
        const changed = runScript(base, script);
        for (const merged of [
          mergeModels(base, changed, base),
          mergeModels(base, base, changed),
          mergeModels(base, changed, changed),
        ]) {
          expect(merged.conflicts).toEqual([]);
          expect(sameJson(holds(merged.model), holds(changed))).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });
  test("a merged model is a model, whatever both sides did; it differs from each by edits that apply", () => {
    fc.assert(
      fc.property(commandScript(6), commandScript(6), (mine, other) => {
        const ours = runScript(base, mine);
        // Ids of the other side are its own, as they are between two people.
        const theirs = runScript(rename(base, "approve", "Approve the design"), other);
        for (const side of ["ours", "theirs"] as const) {
          const { model } = mergeModels(base, ours, theirs, { decide: () => side });
          expect(brokenInvariants(model)).toEqual([]);
          const edited = expectOk(applyEdits(theirs, replacementEdits(theirs, model)));
          expect(sameJson(holds(edited), holds(model))).toBe(true);
          const read = expectOk(readBpmn(writeBpmn(model)));
          expect(brokenInvariants(read)).toEqual([]);
        }
      }),
      { numRuns: 60 },
    );
  });
  test("without a conflict it does not matter which side is called ours", () => {
    let met = 0;
    fc.assert(
      fc.property(commandScript(4), commandScript(4), (mine, other) => {
        const ours = runScript(base, mine);
        const theirs = withOwnIds(runScript(base, other));
        const [one, turned] = [mergeModels(base, ours, theirs), mergeModels(base, theirs, ours)];
        expect(one.conflicts.length === 0).toBe(turned.conflicts.length === 0);
        if (one.conflicts.length > 0) return;
        met++;
        expect(compareModels(one.model, turned.model, "id").changes).toEqual([]);
        const lanes = (model: Model) => leafLanesOf(model, "process").map(({ id }) => id);
        expect(lanes(one.model)).toEqual(lanes(turned.model));
      }),
      { numRuns: 80 },
    );
    expect(met).toBeGreaterThan(20);
  });
  test("what both sides kept is never lost, however conflicts are decided", () => {
    fc.assert(
      fc.property(
        commandScript(6),
        commandScript(6),
        fc.constantFrom("ours" as const, "theirs" as const),
        (mine, other, side) => {
          const ours = runScript(base, mine);
          const theirs = withOwnIds(runScript(base, other));
          const { model } = mergeModels(base, ours, theirs, { decide: () => side });
          for (const { id } of base.elements)
            if (isCompared(base.elements.get(id) as never) && ours.elements.has(id) && theirs.elements.has(id))
              expect(model.elements.has(id)).toBe(true);
        },
      ),
      { numRuns: 80 },
    );
  });
  test("changes of different steps meet without a conflict, in either order", () => {
    const ours = performAll(rename(base, "check", "Check the application"), {
      type: "append",
      diagram,
      from: "approve",
      id: "plan",
      flow: "to-plan",
      kind: { type: "userTask" },
    });
    const theirs = performAll(
      rename(base, "reject", "Refuse"),
      { type: "moveToNeighbourLane", diagram, ids: ["reject"], direction: "down" },
      { type: "setCondition", flow: "f4", text: "not complete" },
    );
    const one = mergeModels(base, ours, theirs);
    const other = mergeModels(base, theirs, ours);
    expect(one.conflicts).toEqual([]);
    expect(compareModels(one.model, other.model, "id").changes).toEqual([]);
    expect(one.model.elements.get("check")?.name).toBe("Check the application");
    expect(one.model.elements.get("plan")).toBeDefined();
    expect(laneOf(one.model, "reject")?.id).toBe("engineer");
    expect(one.model.elements.get("f4")?.conditionExpression).toMatchObject({ text: "not complete" });
  });
});

describe("conflicts", () => {
  test("two names for one step: ours stands, both are told, and it can be decided the other way", () => {
    const [ours, theirs] = [rename(base, "check", "Ours"), rename(base, "check", "Theirs")];
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts).toEqual([
      { element: "check", name: "Ours", field: "name", ours: "Ours", theirs: "Theirs", isText: true },
    ]);
    expect(model.elements.get("check")?.name).toBe("Ours");
    expect(mergeModels(base, ours, theirs, { decide: () => "theirs" }).model.elements.get("check")?.name).toBe(
      "Theirs",
    );
  });
  test("one step, two lanes: it is in one", () => {
    const three = performAll(base, { type: "addLane", diagram, id: "crew", beside: "engineer", name: "Field crew" });
    const ours = performAll(three, { type: "moveToLane", diagram, ids: ["reject"], lane: "engineer" });
    const theirs = performAll(three, { type: "moveToLane", diagram, ids: ["reject"], lane: "crew" });
    const { model, conflicts } = mergeModels(three, ours, theirs);
    expect(conflicts).toMatchObject([
      { element: "reject", name: "Reject application", field: "lane", ours: "Network engineer", theirs: "Field crew" },
    ]);
    expect(laneOf(model, "reject")?.id).toBe("engineer");
    const other = mergeModels(three, ours, theirs, { decide: () => "theirs" }).model;
    expect(laneOf(other, "reject")?.id).toBe("crew");
  });
  test("deleted here, renamed there: it stays with its flows and its drawing, and is told", () => {
    const ours = performAll(base, { type: "delete", ids: ["reject"] });
    const theirs = rename(base, "reject", "Refuse");
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts).toMatchObject([{ element: "reject", field: "element", ours: "gone", theirs: "changed" }]);
    // Decided for ours by default: gone it is.
    expect(model.elements.has("reject")).toBe(false);
    const kept = mergeModels(base, ours, theirs, { decide: () => "theirs" }).model;
    expect(kept.elements.get("reject")?.name).toBe("Refuse");
    expect(incomingOf(kept, "reject").map((flow) => flow.sourceRef)).toEqual(["decide"]);
    expect(outgoingOf(kept, "reject").map((flow) => flow.targetRef)).toEqual(["refused"]);
    expect(shapeOn(kept, diagram, "reject")).toEqual(shapeOn(base, diagram, "reject"));
    expect(laneOf(kept, "reject")?.id).toBe("desk");
  });
  test("deleted there, built upon here: it stays, with the flow that led to it", () => {
    const theirs = performAll(base, { type: "delete", ids: ["reject"] });
    const ours = performAll(base, {
      type: "append",
      diagram,
      from: "reject",
      id: "tell",
      flow: "to-tell",
      kind: { type: "task" },
    });
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts).toMatchObject([{ element: "reject", field: "element", ours: "needed", theirs: "gone" }]);
    expect(incomingOf(model, "reject").map((flow) => flow.sourceRef)).toEqual(["decide"]);
    expect(outgoingOf(model, "reject").map((flow) => flow.targetRef)).toContain("tell");
    expect(shapeOn(model, diagram, "reject")).toBeDefined();
  });
  test("a timer set on both sides is a conflict of its event", () => {
    const set = (text: string) => performAll(base, { type: "setTimer", event: "late", kind: "timeDuration", text });
    const { conflicts } = mergeModels(base, set("P3D"), set("P5D"));
    expect(conflicts).toMatchObject([{ element: "late", field: "timer", ours: "P3D", theirs: "P5D" }]);
  });
  test("a shape that both moved is where we put it, without a word", () => {
    const ours = performAll(base, { type: "move", diagram, ids: ["check"], by: { x: 0, y: 8 } });
    const theirs = performAll(base, { type: "move", diagram, ids: ["check"], by: { x: 0, y: 12 } });
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts).toEqual([]);
    expect(shapeOn(model, diagram, "check")).toEqual(shapeOn(ours, diagram, "check"));
  });
  test("technical attributes of one side and another name on the other both stay", () => {
    const file = (text: string) => expectOk(readBpmn(text));
    const written = writeBpmn(base);
    const theirs = file(
      written
        .replace("<definitions ", '<definitions xmlns:run="urn:example:run" ')
        .replace('id="check"', 'id="check" run:topic="applications"'),
    );
    const { model, conflicts } = mergeModels(file(written), rename(file(written), "check", "Check it"), theirs);
    expect(conflicts).toEqual([]);
    const out = writeBpmn(model);
    expect(out).toContain('run:topic="applications"');
    expect(out).toContain('name="Check it"');
  });
  test("another text may be written for what holds one", () => {
    const [ours, theirs] = [rename(base, "check", "Ours"), rename(base, "check", "Theirs")];
    const { model } = mergeModels(base, ours, theirs, { decide: () => ({ text: "Both of us" }) });
    expect(model.elements.get("check")?.name).toBe("Both of us");
    const set = (text: string) => performAll(base, { type: "setTimer", event: "late", kind: "timeDuration", text });
    const timed = mergeModels(base, set("P3D"), set("P5D"), { decide: () => ({ text: "P4D" }) }).model;
    expect(writeBpmn(timed)).toContain(">P4D</");
  });
  test("lanes that one side turned round and the other put one between keep both; turned round twice is a conflict", () => {
    const three = performAll(base, { type: "addLane", diagram, id: "crew", beside: "engineer", name: "Field crew" });
    const ours = performAll(three, { type: "swapLanes", diagram, lane: "desk", direction: "down" });
    const theirs = performAll(three, { type: "addLane", diagram, id: "billing", beside: "crew", name: "Billing" });
    const { model, conflicts } = mergeModels(three, ours, theirs);
    expect(conflicts).toEqual([]);
    expect(leafLanesOf(model, "process").map(({ id }) => id)).toEqual(["engineer", "desk", "crew", "billing"]);
    const other = performAll(three, { type: "swapLanes", diagram, lane: "crew", direction: "up" });
    expect(mergeModels(three, ours, other).conflicts).toMatchObject([
      {
        field: "order",
        ours: "Network engineer, Front desk, Field crew",
        theirs: "Front desk, Field crew, Network engineer",
      },
    ]);
  });
});

describe("technical content of others", () => {
  const file = (inside: string, attributes = "") =>
    expectOk(
      readBpmn(
        `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:run="urn:example:run" id="d" targetNamespace="urn:demo"><process id="p"><userTask id="t"${attributes}><extensionElements>${inside}</extensionElements></userTask></process></definitions>`,
      ),
    );
  const merge = (from: Model, ours: Model, theirs: Model, side: "ours" | "theirs" = "ours") => {
    const { model, conflicts } = mergeModels(from, ours, theirs, { decide: () => side });
    return { text: writeBpmn(model), conflicts };
  };

  test("each side's changes inside one element meet", () => {
    const from = file('<run:form retries="1"><run:field id="a" label="A"/><run:field id="b" label="B"/></run:form>');
    const ours = file('<run:form retries="3"><run:field id="a" label="A"/><run:field id="b" label="B"/></run:form>');
    const theirs = file(
      '<run:form retries="1"><run:field id="a" label="Application"/><run:field id="b" label="B"/><run:field id="c" label="C"/></run:form>',
    );
    const { text, conflicts } = merge(from, ours, theirs);
    expect(conflicts).toEqual([]);
    expect(text.match(/<run:form/g)).toHaveLength(1);
    expect(text).toContain('<run:form retries="3"');
    expect(text).toMatch(/id="a" label="Application".*id="b" label="B".*id="c" label="C"/s);
  });
  test("one attribute changed to two values is one conflict of its element, the rest of both is kept", () => {
    const from = file('<run:form retries="1"/>');
    const ours = file('<run:form retries="2"/><run:note>mine</run:note>');
    const theirs = file('<run:form retries="3"/><run:log level="all"/>');
    for (const side of ["ours", "theirs"] as const) {
      const { text, conflicts } = merge(from, ours, theirs, side);
      expect(conflicts).toMatchObject([
        { element: "t", field: "extension", ours: "run:form retries: 2", theirs: "run:form retries: 3" },
      ]);
      expect(text).toContain(`retries="${side === "ours" ? 2 : 3}"`);
      expect(text).toContain(">mine<");
      expect(text).toContain('level="all"');
    }
  });
  test("taken out here, changed there, is a conflict", () => {
    const from = file('<run:form retries="1"/><run:keep/>');
    const { conflicts } = merge(from, file("<run:keep/>"), file('<run:form retries="3"/><run:keep/>'));
    expect(conflicts).toMatchObject([{ field: "extension", ours: "", theirs: "run:form retries: 3" }]);
  });
});

describe("a type is a field like others", () => {
  const retyped = performAll(base, { type: "retype", id: "check", to: "serviceTask" });
  test.each([
    ["named", { type: "rename", id: "check", name: "Look it through" }],
    ["described", { type: "describe", id: "check", text: "By hand, for now" }],
    ["led to once more", { type: "connect", diagram, id: "again", source: "reject", target: "check" }],
    ["given a fact of one's own", { type: "setAttribute", id: "check", name: "topic", value: "checks" }],
  ] as const)("what one side turned into another type and the other %s is both, without a conflict", (_, command) => {
    const changed = performAll(base, command as never);
    for (const [ours, theirs] of [
      [retyped, changed],
      [changed, retyped],
    ] as const) {
      const { model, conflicts } = mergeModels(base, ours, theirs);
      expect(conflicts).toEqual([]);
      const merged = model.elements.get("check");
      expect(merged?.type).toBe("serviceTask");
      expect(sameJson({ ...merged, type: "userTask" }, { ...changed.elements.get("check"), type: "userTask" })).toBe(
        true,
      );
      expect(brokenInvariants(model)).toEqual([]);
    }
  });

  test("two types are a conflict about the type alone", () => {
    const ours = performAll(retyped, { type: "rename", id: "check", name: "Ours" });
    const theirs = performAll(
      base,
      { type: "retype", id: "check", to: "manualTask" },
      { type: "describe", id: "check", text: "Theirs" },
    );
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts.map(({ element, field, ours: own, theirs: their }) => [element, field, own, their])).toEqual([
      ["check", "type", "serviceTask", "manualTask"],
    ]);
    expect(model.elements.get("check")).toMatchObject({
      type: "serviceTask",
      name: "Ours",
      documentation: [{ text: "Theirs" }],
    });
    const other = mergeModels(base, ours, theirs, { decide: () => "theirs" }).model;
    expect(other.elements.get("check")).toMatchObject({ type: "manualTask", name: "Ours" });
  });

  test("what the new type has no place for is not lost without a word", () => {
    const service = performAll(base, { type: "retype", id: "check", to: "serviceTask" });
    const bound = expectOk(
      applyEdits(service, [
        { kind: "set", table: "elements", id: "check", field: "operationRef", from: null, to: "other:operation" },
      ]),
    );
    const manual = performAll(service, { type: "retype", id: "check", to: "manualTask" });
    const { model, conflicts } = mergeModels(service, manual, bound);
    expect(conflicts).toMatchObject([{ element: "check", field: "type", ours: "manualTask", theirs: "serviceTask" }]);
    expect(model.elements.get("check")?.type).toBe("manualTask");
    const theirs = mergeModels(service, manual, bound, { decide: () => "theirs" }).model;
    expect(theirs.elements.get("check")).toMatchObject({ type: "serviceTask", operationRef: "other:operation" });
  });
});

describe("figures", () => {
  const estimate = (model: Model, id: string, more: object) => performAll(model, { type: "setEstimate", id, ...more });
  test("two people who estimate two steps, or two figures of one, do not meet", () => {
    const three = estimate(base, "reject", { time: "5 min" });
    const ours = estimate(three, "check", { time: "30 min" });
    const theirs = estimate(estimate(three, "approve", { time: "1 h" }), "check", { cost: 12 });
    const { model, conflicts } = mergeModels(three, ours, theirs);
    expect(conflicts).toEqual([]);
    expect([...model.figures].map(({ id, value }) => [id, value]).sort()).toEqual([
      ["approve processingTime", "PT1H"],
      ["check fixedCost", 12],
      ["check processingTime", "PT30M"],
      ["reject processingTime", "PT5M"],
    ]);
  });

  test("the same figure said differently is asked", () => {
    const ours = estimate(base, "check", { time: "30 min" });
    const theirs = estimate(base, "check", { time: "40 min" });
    expect(mergeModels(base, ours, theirs).conflicts).toMatchObject([
      { element: "check", field: "processingTime", ours: "PT30M", theirs: "PT40M" },
    ]);
  });

  test("an estimate is a small edit, however many there are", () => {
    let model = base;
    const steps = [...base.elements].filter((element) => element.type.endsWith("ask"));
    for (const step of steps) model = estimate(model, step.id, { time: "5 min", cost: 3 });
    const done = expectOk(perform(model, { type: "setEstimate", id: "check", time: "6 min" }));
    expect(JSON.stringify(done.edits).length).toBeLessThan(200);
  });
});

describe("scenarios", () => {
  const start = modelOf(
    station(exponential(60), exponential(30), 1).replace(
      /<bpsim:ElementParameters[\s\S]*<\/bpsim:ElementParameters>/,
      "",
    ),
  );
  const say = (model: Model, element: string, parameter: "processing" | "wait" | "interval", minutes: number) =>
    performAll(model, {
      type: "setAssumption",
      scenario: "s1",
      element,
      parameter,
      value: { kind: "uniform", min: 60, max: minutes * 60 },
    });

  test.each([
    ["of two elements, of which nothing was said before", start, ["s", "interval"], ["a", "processing"]],
    ["of one element", say(start, "a", "processing", 5), ["a", "wait"], ["s", "interval"]],
    ["of one element, two kinds", start, ["a", "processing"], ["a", "wait"]],
  ] as const)("two figures %s that are said at once are both kept", (_, base, one, other) => {
    const ours = say(base, one[0], one[1], 10);
    const theirs = say(base, other[0], other[1], 20);
    const { model, conflicts } = mergeModels(base, ours, theirs);
    expect(conflicts).toEqual([]);
    const [merged] = scenariosOf(model);
    const most = (element: string, parameter: "processing" | "wait" | "interval") => {
      const of = merged?.of.get(element);
      const given = parameter === "interval" ? of?.interval : of?.times[parameter];
      return given?.[0]?.value.kind === "uniform" ? given[0].value.max / 60 : undefined;
    };
    expect(most(one[0], one[1])).toBe(10);
    expect(most(other[0], other[1])).toBe(20);
  });

  test("one figure that both say otherwise is a conflict", () => {
    const { conflicts } = mergeModels(start, say(start, "a", "wait", 10), say(start, "a", "wait", 20));
    expect(conflicts.length).toBe(1);
  });
});
