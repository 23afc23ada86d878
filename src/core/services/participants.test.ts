import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { sceneToSvg } from "../drawing";
import { expectOk, performAll } from "../testing/models";
import { drawParticipation, participationOf } from ".";

const model = performAll(
  expectOk(
    readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="defs" targetNamespace="t">
<collaboration id="c"><participant id="pool" name="Coop" processRef="p"/><participant id="home" name="Household &lt;b&gt;"/><messageFlow id="m" sourceRef="home" targetRef="a"/></collaboration>
<process id="p"><laneSet id="ls"><lane id="A" name="Front desk"><flowNodeRef>a</flowNodeRef></lane><lane id="B" name="Billing"><flowNodeRef>b</flowNodeRef></lane></laneSet>
<task id="a" name="a"/><serviceTask id="b" name="b"/><sequenceFlow id="f" sourceRef="a" targetRef="b"/></process></definitions>`),
  ),
  { type: "keepCandidate", of: "A" },
  { type: "keepCandidate", of: "B" },
  {
    type: "bindOperation",
    id: "b",
    to: {
      source: "x",
      format: "OpenAPI 3.1",
      version: "1",
      interface: "Ledger",
      operation: { name: "charge", in: [], out: [], errors: [], address: "" },
    },
  },
);

describe("who provides and uses what", () => {
  test("from the steps of candidates, what leads to them, messages and bindings", () => {
    const { participants, services, links } = participationOf(model);
    const nameOf = (id: string) => [...participants, ...services].find((one) => one.id === id)?.name;
    expect(
      links.map(({ participant, service, kind }) => `${nameOf(participant)} ${kind} ${nameOf(service)}`).sort(),
    ).toEqual([
      "Billing provides Billing",
      "Billing uses Ledger",
      "Front desk provides Front desk",
      "Front desk uses Billing",
      "Household <b> uses Front desk",
    ]);
    expect(participants.filter(({ isOutside }) => isOutside).map(({ name }) => name)).toEqual(["Household <b>"]);
    expect(services.map(({ name, isCandidate }) => [name, isCandidate])).toEqual([
      ["Front desk", true],
      ["Billing", true],
      ["Ledger", false],
    ]);
  });

  test("drawn: a line for each link, boxes that do not overlap, and names that do not run", () => {
    const scene = drawParticipation(participationOf(model));
    expect(scene.figures.filter(({ type }) => type === "link")).toHaveLength(5);
    const boxes = scene.figures.filter(({ type }) => type === "box").map(({ bounds }) => bounds);
    for (const one of boxes)
      for (const other of boxes)
        if (one !== other && one.x === other.x)
          expect(one.y + one.height <= other.y || other.y + other.height <= one.y).toBe(true);
    expect(sceneToSvg(scene)).not.toContain("<b>");
    expect(drawParticipation({ participants: [], services: [], links: [] }).figures).toEqual([]);
  });
});
