import { expect, test } from "vitest";
import { copy } from "../commands";
import { brokenInvariants, outgoingOf, pathBetween, shapeOn } from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { fragmentOfFile, fragmentToFile, looksLikeBpmn } from ".";

test("what is copied crosses the clipboard as a BPMN file: steps, flows between them, places", () => {
  const model = smallModel();
  const fragment = copy(model, "page", ["check", "decide", "approve"]);
  const file = fragmentToFile(fragment);
  expect(looksLikeBpmn(file)).toBe(true);
  const back = expectOk(fragmentOfFile(file));
  const at = { x: 300, y: 200 };
  const pasted = performAll(model, { type: "paste", diagram: "page", fragment: back, at, mark: "x" });
  expect(brokenInvariants(pasted)).toEqual([]);
  const check = [...pasted.elements].find((element) => element.name === "Check application" && element.id !== "check");
  const [flow] = outgoingOf(pasted, check?.id ?? "");
  expect(pasted.elements.get(String(flow?.targetRef))?.name).toBe("Complete?");
  const distance = (from: string, to: string) =>
    (shapeOn(pasted, "page", to)?.bounds.x ?? 0) - (shapeOn(pasted, "page", from)?.bounds.x ?? 0);
  expect(distance(check?.id ?? "", String(flow?.targetRef))).toBe(distance("check", "decide"));
});

test("other text, and BPMN without a drawing, is not pasted as steps", () => {
  expect(looksLikeBpmn("Check application\tFront desk")).toBe(false);
  const bare =
    '<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="t"><process id="p"><task id="t"/></process></definitions>';
  expect(looksLikeBpmn(bare)).toBe(true);
  expect(fragmentOfFile(bare)).toMatchObject({ ok: false, problems: [{ code: "nothing-drawn" }] });
});

test("the path between two steps is the shortest along the flows, events at edges among them", () => {
  const model = smallModel();
  expect(pathBetween(model, "start", "approve")).toEqual(["start", "f1", "check", "f2", "decide", "f3", "approve"]);
  expect(pathBetween(model, "check", "remind")).toEqual(["check", "late", "f7", "remind"]);
  expect(pathBetween(model, "approve", "start")).toEqual([]);
});
