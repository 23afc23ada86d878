import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import {
  attributesOf,
  brokenInvariants,
  childrenOf,
  elementsOfType,
  eventDefinitionsOf,
  type Model,
} from "../../model";
import { expectOk, performAll, smallModel } from "../../testing/models";
import { perform, referenceOf } from "..";

const element = (model: Model, id: string) => {
  const found = model.elements.get(id);
  if (!found) throw new Error(`${id} is gone`);
  return found;
};
const today = "2026-11-25";

describe("details", () => {
  test("events of one name share the message; what nobody names is taken out; it is written and read", () => {
    const named = performAll(
      smallModel(),
      { type: "nameReference", id: "start", name: "Application" },
      { type: "nameReference", id: "reject", name: "Application" },
    );
    expect(elementsOfType(named, "message")).toHaveLength(1);
    const read = expectOk(readBpmn(writeBpmn(named)));
    expect(referenceOf(read, element(read, "start"))?.name).toBe("Application");
    const renamed = performAll(named, { type: "nameReference", id: "reject", name: "Rejection" });
    expect(elementsOfType(renamed, "message").map((message) => message.name)).toEqual(["Application", "Rejection"]);
    const none = performAll(renamed, { type: "nameReference", id: "reject", name: "" });
    expect(elementsOfType(none, "message").map((message) => message.name)).toEqual(["Application"]);
    expect(brokenInvariants(none)).toEqual([]);
    expect(perform(none, { type: "nameReference", id: "decide", name: "x" }).ok).toBe(false);
  });
  test("a timer is set as it is said; what is no time is refused with examples", () => {
    const model = performAll(smallModel(), { type: "sayTimer", event: "late", text: "10 working days", today });
    expect(eventDefinitionsOf(model, "late")[0]?.timeDuration).toMatchObject({ text: "P14D" });
    const cycle = performAll(model, { type: "sayTimer", event: "late", text: "every Monday at 8:00", today });
    expect(eventDefinitionsOf(cycle, "late")[0]).toMatchObject({ timeCycle: { text: "R/2026-11-30T08:00:00/P7D" } });
    expect(eventDefinitionsOf(cycle, "late")[0]?.timeDuration).toBeUndefined();
    const refused = perform(model, { type: "sayTimer", event: "late", text: "soon", today });
    expect(refused.ok ? "" : refused.problems[0]?.code).toBe("no-time");
  });
  test("a repetition says until when and how often, a multi-instance for how many", () => {
    const looped = performAll(
      smallModel(),
      { type: "setRepetition", activity: "check", id: "loop", repetition: "loop" },
      { type: "setRepetitionDetail", activity: "check", field: "loopCondition", text: "not(complete)" },
      { type: "setRepetitionDetail", activity: "check", field: "loopMaximum", text: "3" },
    );
    expect(childrenOf(looped, "check", "loopCharacteristics")[0]).toMatchObject({
      loopCondition: { text: "not(complete)" },
      loopMaximum: 3,
    });
    const refused = perform(looped, {
      type: "setRepetitionDetail",
      activity: "check",
      field: "loopCardinality",
      text: "5",
    });
    expect(refused.ok).toBe(false);
  });
  test("own attributes stay with the element, through the file", () => {
    const model = performAll(
      smallModel(),
      { type: "setAttribute", id: "check", name: "norm", value: "NC RfG" },
      { type: "setAttribute", id: "check", name: "risk", value: "low" },
      { type: "setAttribute", id: "check", name: "risk", value: "high" },
      { type: "setAttribute", id: "check", name: "norm", value: null },
    );
    const read = expectOk(readBpmn(writeBpmn(model)));
    expect(attributesOf(element(read, "check"))).toEqual([{ name: "risk", value: "high" }]);
  });
});
