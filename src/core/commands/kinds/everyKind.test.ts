import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import { brokenInvariants, eventTable, triggerIsAllowed } from "../../model";
import { performAll, smallModel } from "../../testing/models";
import {
  allKindsThatMayFollow,
  everyKind,
  kindOf,
  kindsToBecome,
  kindWords,
  modelOfKind,
  perform,
  pictureOfKind,
} from "..";

const kinds = everyKind.flatMap((group) => group.kinds);

describe("every kind", () => {
  test("no two are called the same", () => {
    expect(new Set(kinds.map(kindWords)).size).toBe(kinds.length);
  });
  test("there is an event for each cell of the standard's table of events, and no other", () => {
    // Source: BPMN 2.0 (formal/2011-01-03), table 10.93, as `eventTable` holds it.
    const cells = Object.values(eventTable).reduce((sum, positions) => sum + positions.length, 0);
    expect(kinds.filter((kind) => kind.type.endsWith("Event"))).toHaveLength(cells);
  });
  test.each(kinds.map((kind) => [kindWords(kind), kind] as const))(
    "a %s is drawn, and read back as it was written",
    (_, kind) => {
      const model = modelOfKind(kind);
      expect(brokenInvariants(model)).toEqual([]);
      expect(pictureOfKind(kind).primitives.length).toBeGreaterThan(0);
      const read = readBpmn(writeBpmn(model));
      if (!read.ok) throw new Error(read.problems[0]?.message);
      const element = read.value.elements.get("kind");
      if (!element) throw new Error("it is lost");
      const { expanded, closed, isInterrupting, ...rest } = kind;
      void [expanded, closed];
      expect(kindOf(read.value, element)).toEqual({ ...rest, ...(isInterrupting === false && { isInterrupting }) });
      if (element.type.endsWith("Event")) expect(triggerIsAllowed(read.value, element)).toBe(true);
    },
  );
});

describe("what may follow, in full", () => {
  test.each(["start", "check", "decide", "late", "done"])(
    "behind %s, every kind that is offered is accepted",
    (from) => {
      const model = smallModel();
      const element = model.elements.get(from);
      for (const kind of allKindsThatMayFollow(model, element, model.elements.get("process")).flatMap(
        (one) => one.kinds,
      )) {
        const done = perform(model, { type: "append", diagram: "page", from, id: "next", flow: "to-next", kind });
        expect(done.ok ? "" : `${kindWords(kind)}: ${done.problems[0]?.message}`).toBe("");
      }
    },
  );
  test("behind an event-based gateway only what waits is offered", () => {
    const model = performAll(smallModel(), {
      type: "append",
      diagram: "page",
      from: "reject",
      id: "first",
      flow: "to-first",
      kind: { type: "eventBasedGateway" },
    });
    const offered = allKindsThatMayFollow(model, model.elements.get("first"), model.elements.get("process"));
    expect(new Set(offered.flatMap((group) => group.kinds).map((kind) => kind.type))).toEqual(
      new Set(["intermediateCatchEvent", "receiveTask", "textAnnotation"]),
    );
  });
  test("what a step is offered to become, it becomes, or a reason is given", () => {
    const model = smallModel();
    for (const id of ["approve", "decide", "done", "start", "late"]) {
      const element = model.elements.get(id);
      const offered = element ? kindsToBecome(model, element, model.elements.get("process")) : [];
      expect(offered.length).toBeGreaterThan(0);
      for (const kind of offered.flatMap((group) => group.kinds)) {
        const done = perform(model, { type: "replace", diagram: "page", id, kind });
        if (done.ok) {
          expect(brokenInvariants(done.value.model)).toEqual([]);
          expect(done.value.model.elements.get(id)).toMatchObject({
            type: kind.type,
            ...(element?.name && { name: element.name }),
          });
        } else expect(done.problems[0]?.message).toMatch(/\w/);
      }
    }
  });
});
