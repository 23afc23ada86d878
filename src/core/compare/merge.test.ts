import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { applyEdits, brokenInvariants, incomingOf, laneOf, type Model, outgoingOf, sameJson, shapeOn } from "../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { compareModels, mergeModels, replacementEdits } from ".";

const diagram = "page";
const base = smallModel();
const holds = (model: Model) =>
  (["elements", "diagrams", "shapes", "edges"] as const).map((table) =>
    [...(model[table] as Iterable<{ id: string }>)].sort((a, b) => (a.id < b.id ? -1 : 1)),
  );
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
    expect(conflicts).toEqual([{ element: "check", name: "Ours", field: "name", ours: "Ours", theirs: "Theirs" }]);
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
    expect(conflicts).toEqual([
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
});
