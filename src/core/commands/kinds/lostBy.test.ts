import { describe, expect, test } from "vitest";
import { readBpmn } from "../../bpmn";
import type { ElementType } from "../../model";
import { expectOk } from "../../testing/models";
import { lostBy, perform } from "..";

const model = expectOk(
  readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:rig="urn:rig" id="d" targetNamespace="t">
<message id="m" name="M"/><interface id="i" name="I"><operation id="o" name="O"><inMessageRef>m</inMessageRef></operation></interface>
<process id="p"><serviceTask id="bound" name="Bound" operationRef="o" implementation="##WebService" rig:queue="desk"><extensionElements><rig:retry times="3"/></extensionElements></serviceTask>
<scriptTask id="script" name="Script" scriptFormat="x"><script>a()</script></scriptTask><userTask id="user" name="User"/>
<exclusiveGateway id="g" name="G" default="f"/><task id="t"/><sequenceFlow id="f" sourceRef="g" targetRef="t"/></process></definitions>`),
);
const element = (id: string) => {
  const found = model.elements.get(id);
  if (!found) throw new Error(id);
  return found;
};

describe("what is lost by becoming another type", () => {
  test.each<[string, ElementType, string[]]>([
    ["bound", "userTask", ["operation"]],
    ["bound", "sendTask", []],
    ["bound", "manualTask", ["implementation", "operation"]],
    ["script", "serviceTask", ["script format", "script"]],
    ["user", "serviceTask", []],
    ["g", "parallelGateway", ["default"]],
    ["g", "inclusiveGateway", []],
    ["g", "exclusiveGateway", []],
  ])("%s as a %s", (id, to, lost) => {
    expect(lostBy(model, element(id), to).sort()).toEqual([...lost].sort());
  });

  test("is told when it is done; what developers keep with it stays", () => {
    const done = expectOk(perform(model, { type: "retype", id: "bound", to: "manualTask" }));
    expect(done.remarks.join(" ")).toMatch(/Bound.* has no .*operation.* any more/);
    const after = done.model.elements.get("bound");
    expect(after?.foreignAttributes).toEqual(element("bound").foreignAttributes);
    expect(after?.extension).toEqual(element("bound").extension);
    expect(perform(model, { type: "retype", id: "user", to: "manualTask" })).toMatchObject({ value: { remarks: [] } });
  });
});
