import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { expectOk } from "../testing/models";
import { xmlInformation } from "../testing/xml";
import { alignedTo, mergeModels } from ".";

/** A process whose event definitions, lane set and condition have no ids, as many tools write them. */
const file = (events: readonly (readonly [id: string, time: string])[]) =>
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:di="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" targetNamespace="t"><process id="p">
<laneSet><lane id="l">${events.map(([id]) => `<flowNodeRef>${id}</flowNodeRef>`).join("")}</lane></laneSet>
${events.map(([id, time]) => `<intermediateCatchEvent id="${id}"><timerEventDefinition><timeDuration>${time}</timeDuration></timerEventDefinition></intermediateCatchEvent>`).join("\n")}
</process><di:BPMNDiagram><di:BPMNPlane bpmnElement="p">${events.map(([id], at) => `<di:BPMNShape bpmnElement="${id}"><dc:Bounds x="${at * 60}" y="0" width="36" height="36"/></di:BPMNShape>`).join("")}</di:BPMNPlane></di:BPMNDiagram></definitions>`;
const read = (text: string) => expectOk(readBpmn(text));
const base = read(
  file([
    ["a", "PT1H"],
    ["b", "PT2H"],
  ]),
);

describe("what has no id is known by its place", () => {
  test("one more in the middle of a file is one more, and not all that follow", () => {
    const ours = read(
      file([
        ["a", "PT1H"],
        ["b", "PT9H"],
      ]),
    );
    const theirs = read(
      file([
        ["a", "PT1H"],
        ["new", "PT5M"],
        ["b", "PT2H"],
      ]),
    );
    const { model, conflicts } = mergeModels(alignedTo(base, ours), ours, alignedTo(theirs, ours));
    expect(conflicts).toEqual([]);
    expect(xmlInformation(writeBpmn(model))).toEqual(
      xmlInformation(
        writeBpmn(
          read(
            file([
              ["a", "PT1H"],
              ["new", "PT5M"],
              ["b", "PT9H"],
            ]),
          ),
        ),
      ),
    );
  });

  test("a model that is aligned says the same, whatever it is aligned to", () => {
    const events = fc.uniqueArray(fc.constantFrom("a", "b", "c", "d", "e"), { minLength: 1 });
    fc.assert(
      fc.property(events, events, (one, other) => {
        const [model, like] = [one, other].map((ids) => read(file(ids.map((id) => [id, "PT1H"] as const)))) as [
          typeof base,
          typeof base,
        ];
        const aligned = alignedTo(model, like);
        expect(xmlInformation(writeBpmn(aligned))).toEqual(xmlInformation(writeBpmn(model)));
        expect(new Set([...aligned.elements].map(({ id }) => id)).size).toBe(model.elements.size);
        for (const element of aligned.elements) expect(aligned.elements.get(element.id)).toBe(element);
      }),
      { numRuns: 100 },
    );
  });

  test("one that is aligned already stays", () => {
    expect(alignedTo(base, base)).toBe(base);
  });
});
