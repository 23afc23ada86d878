import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { type Command, perform } from "../commands";
import { applyEdits, invert, type Model } from "../model";
import { constant, scenariosOf } from "../scenario";
import { expectOk, performAll, smallModel } from "../testing/models";
import { schemaErrors } from "../testing/xml";
import { candidatesOf, dependenciesOf, figuresOf, keptCandidates, servedBy } from ".";

const drawn = performAll(smallModel(), {
  type: "giveDocument",
  diagram: "page",
  step: "check",
  document: { entry: "application", name: "Application" },
  direction: "in",
  id: "doc-in",
});
const lanes = candidatesOf(drawn).map(({ from }) => from);
const kept = performAll(drawn, { type: "keepCandidate", of: "desk" });
const only = (model: Model) => {
  const [one] = keptCandidates(model);
  if (!one) throw new Error("nothing is kept");
  return one;
};

describe("a candidate that is kept", () => {
  test("stands in the standard's places, with its documents, and comes back from its file as it was", async () => {
    expect(lanes).toContain("desk");
    const one = only(kept);
    expect(one).toMatchObject({ name: "Front desk", from: "desk", isSourceGone: false, left: [], decision: undefined });
    expect(one.operations.map(({ from }) => from)).toEqual(
      candidatesOf(drawn)
        .find(({ from }) => from === "desk")
        ?.operations.map(({ from }) => from),
    );
    const text = writeBpmn(kept);
    expect(await schemaErrors(text)).toEqual([]);
    expect(keptCandidates(expectOk(readBpmn(text)))).toEqual(keptCandidates(kept));
    const again = perform(kept, { type: "keepCandidate", of: "desk" });
    expect(again.ok ? "" : again.problems[0]?.message).toMatch(/kept already/);
    const empty = perform(kept, { type: "keepCandidate", of: "start" });
    expect(empty.ok ? "" : empty.problems[0]?.code).toBe("no-activities");
  });

  test("leads from each end to the other, whatever is renamed, moved or deleted", () => {
    const [served] = servedBy(kept, "check");
    expect(served?.candidate.name).toBe("Front desk");
    const renamed = performAll(kept, { type: "rename", id: "check", name: "Look through it" });
    expect(servedBy(renamed, "check")[0]?.operation.id).toBe(served?.operation.id);
    const without = performAll(kept, { type: "delete", ids: ["check"] } as Command);
    expect(only(without).operations.find(({ from }) => from === "check")?.isSourceGone).toBe(true);
    expect(
      only(performAll(without, { type: "dropCandidateOperation", id: served?.operation.id ?? "" })).operations,
    ).toEqual(only(kept).operations.filter(({ from }) => from !== "check"));
  });

  test("an operation that is superfluous goes, with its messages, and can be taken in again; others are added", () => {
    const check = only(kept).operations.find(({ from }) => from === "check");
    const without = performAll(kept, { type: "dropCandidateOperation", id: check?.id ?? "" });
    expect(only(without).left).toEqual([{ name: "Check application", from: "check" }]);
    const back = performAll(without, {
      type: "addCandidateOperation",
      candidate: only(kept).id,
      of: "check",
      name: "Check application",
    });
    expect([...back.elements].map(({ id }) => id).sort()).toEqual([...kept.elements].map(({ id }) => id).sort());
    const more = performAll(kept, { type: "addCandidateOperation", candidate: only(kept).id, of: null, name: "Ping" });
    expect(only(more).operations.at(-1)).toMatchObject({ name: "Ping", from: undefined, isSourceGone: false });
  });

  test("dropped, it leaves nothing behind", () => {
    const gone = performAll(kept, { type: "dropCandidate", id: only(kept).id });
    expect([...gone.elements].map(({ id }) => id)).toEqual([...drawn.elements].map(({ id }) => id));
    const refused = perform(kept, { type: "dropCandidate", id: "check" });
    expect(refused.ok ? "" : refused.problems[0]?.code).toBe("no-candidate");
  });

  test("names of all by rule, in one step that can be taken back", () => {
    const names = only(kept).operations.map(({ id }, at) => ({ id, name: `doThing${at}` }));
    const { model, edits } = expectOk(perform(kept, { type: "nameCandidates", names }));
    expect(only(model).operations.map(({ name }) => name)).toEqual(names.map(({ name }) => name));
    const undone = expectOk(applyEdits(model, [...edits].reverse().map(invert)));
    expect(keptCandidates(undone)).toEqual(keptCandidates(kept));
    expect(perform(kept, { type: "nameCandidates", names: [{ id: "check", name: "x" }] }).ok).toBe(false);
  });

  test("what is decided and what is said by hand stays with it, through the file", async () => {
    const { id } = only(kept);
    const decision = { what: "build", reason: "Nobody sells it", member: "Ana <b>", date: "2027-02-28" } as const;
    const said = performAll(
      kept,
      { type: "decideCandidate", id, decision },
      { type: "setCandidateFigure", id, criterion: "changes", value: 2.5 },
      { type: "setCandidateFigure", id, criterion: "Risk & effort", value: 4 },
      { type: "setWeights", weights: [{ criterion: "changes", weight: 2, isLessBetter: true }] },
    );
    const read = expectOk(readBpmn(writeBpmn(said)));
    expect(only(read)).toMatchObject({ decision, figures: { changes: 2.5, "Risk & effort": 4 } });
    expect(await schemaErrors(writeBpmn(said))).toEqual([]);
    const none = performAll(
      said,
      { type: "decideCandidate", id, decision: null },
      { type: "setCandidateFigure", id, criterion: "changes", value: null },
      { type: "setCandidateFigure", id, criterion: "Risk & effort", value: null },
      { type: "setWeights", weights: [] },
    );
    expect([...none.elements]).toEqual([...kept.elements]);
  });

  test("whatever is done to candidates, the process stays as it is", () => {
    const commandsOf = (model: Model): Command[] => {
      const candidates = keptCandidates(model);
      return [
        ...lanes.map((of): Command => ({ type: "keepCandidate", of })),
        ...candidates.flatMap((one): Command[] => [
          { type: "dropCandidate", id: one.id },
          { type: "addCandidateOperation", candidate: one.id, of: one.left[0]?.from ?? null, name: "More" },
          { type: "setCandidateFigure", id: one.id, criterion: "changes", value: 1 },
          ...one.operations.map((operation): Command => ({ type: "dropCandidateOperation", id: operation.id })),
        ]),
      ];
    };
    const processOnly = (model: Model) =>
      [...model.elements].filter(({ type }) => !["interface", "operation", "message", "itemDefinition"].includes(type));
    fc.assert(
      fc.property(fc.array(fc.nat(), { maxLength: 12 }), (picks) => {
        let model = drawn;
        for (const pick of picks) {
          const commands = commandsOf(model);
          const done = perform(model, commands[pick % commands.length] as Command);
          if (done.ok) model = done.value.model;
        }
        expect(processOnly(model)).toEqual(processOnly(drawn));
        expect(keptCandidates(expectOk(readBpmn(writeBpmn(model))))).toEqual(keptCandidates(model));
      }),
      { numRuns: 40 },
    );
  });
});

describe("what candidates depend on", () => {
  test("follows flows from step to step over what stands between, messages, and what steps are bound to", () => {
    const model = expectOk(
      readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t">
<collaboration id="c"><participant id="one" processRef="p"/><participant id="two" processRef="q"/><messageFlow id="m" sourceRef="c1" targetRef="q1"/></collaboration>
<process id="p"><laneSet id="ls"><lane id="A" name="A"><flowNodeRef>a1</flowNodeRef><flowNodeRef>a2</flowNodeRef></lane><lane id="B" name="B"><flowNodeRef>b1</flowNodeRef></lane><lane id="C" name="C"><flowNodeRef>sub</flowNodeRef></lane></laneSet>
<task id="a1"/><task id="a2"/><exclusiveGateway id="g"/><serviceTask id="b1"/><boundaryEvent id="w" attachedToRef="a1"><timerEventDefinition/></boundaryEvent>
<subProcess id="sub"><startEvent id="s1"/><task id="c1"/><sequenceFlow id="i1" sourceRef="s1" targetRef="c1"/></subProcess>
<sequenceFlow id="f1" sourceRef="a1" targetRef="g"/><sequenceFlow id="f2" sourceRef="g" targetRef="b1"/><sequenceFlow id="f3" sourceRef="g" targetRef="a2"/><sequenceFlow id="f4" sourceRef="w" targetRef="sub"/><sequenceFlow id="f5" sourceRef="g" targetRef="g"/></process>
<process id="q"><laneSet id="ls2"><lane id="D" name="D"><flowNodeRef>q1</flowNodeRef></lane></laneSet><receiveTask id="q1"/></process></definitions>`),
    );
    const all = performAll(model, ...["A", "B", "C", "D"].map((of): Command => ({ type: "keepCandidate", of })), {
      type: "bindOperation",
      id: "b1",
      to: {
        source: "x.yaml",
        format: "OpenAPI 3.1",
        version: "1",
        interface: "Planner",
        operation: { name: "plan", in: [], out: [], errors: [], address: "" },
      },
    });
    const nameOf = (id: string) => all.elements.get(id)?.name ?? id;
    expect(
      dependenciesOf(all)
        .map(({ from, to, kind }) => `${nameOf(from)} ${kind} ${nameOf(to)}`)
        .sort(),
    ).toEqual(["A flow B", "A flow C", "B call Planner", "C message D"]);
    expect(dependenciesOf(model)).toEqual([]);
  });
});

describe("the figures of a candidate", () => {
  test("come from the model and, where there is a scenario, from how often a case comes to its steps", () => {
    const model = performAll(
      kept,
      { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "reads" },
      { type: "addScenario", id: "s1", name: "Usual" } as Command,
      { type: "setAssumption", scenario: "s1", element: "check", parameter: "processing", value: constant(1200) },
    );
    const one = only(model);
    expect(figuresOf(model, one, undefined)).toEqual({ steps: one.operations.length, systems: 1 });
    const scenario = scenariosOf(model).find(({ id }) => id === "s1");
    if (!scenario) throw new Error("no scenario");
    const visits = new Map(one.operations.map(({ from }) => [from ?? "", from === "check" ? 1.5 : 0]));
    const figures = figuresOf(model, one, { visits, scenario });
    expect(figures).toMatchObject({ volume: 1.5, byHand: 30 });
    expect(figures.rework).toBeCloseTo(0.5 / 1.5);
    // What somebody says goes before what is worked out.
    const said = performAll(model, { type: "setCandidateFigure", id: one.id, criterion: "byHand", value: 7 });
    expect(figuresOf(said, only(said), { visits, scenario }).byHand).toBe(7);
  });
});
