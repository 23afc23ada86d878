import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import { brokenInvariants, flowNodesIn, incomingOf, outgoingOf } from "../model";
import { adviceOn } from "./advice";
import { coverageOf } from "./coverage";
import { type BriefNode, emptyBrief, passagesOf } from "./document";
import { framesOf, placingsOf } from "./frames";
import { linksOf } from "./links";
import { markedText } from "./markedText";
import { readBrief } from "./sentences";
import { suggestMarks } from "./suggest/suggest";
import { builtInto, emptyProcess } from "./testing/built";

/** Sentences as descriptions have them; put together at random they make texts with every construct, in any order. */
const sentences = [
  "The [role: front desk] [activity: registers the [document: application]] in the [system: case register].",
  "She then [activity: checks whether [decision: the form is complete]].",
  "If [decision: papers are missing], the desk [activity: asks the [party: household] for them].",
  "The household [activity: sends the papers] [time: within ten days].",
  "Otherwise [result: the case is closed].",
  "If not, the [role: engineer] [activity: writes a report].",
  "If so, the engineer [activity: signs it] and [result: the case is settled].",
  "[time: After two days] the engineer [activity: calls back].",
  "It waits [time: for a week].",
  "[activity: The meter is changed] by the [role: field crew].",
  "The [system: meter platform] [activity: reads each meter].",
  "Unless [decision: the house is empty], the crew [activity: rings the bell].",
  "[result: The plant is connected].",
  "Nobody knows why.",
];
const triggers = [
  "When [trigger: a household applies], the desk listens.",
  "[trigger: Every night at 2:00] it begins.",
  "As soon as [trigger: the crew reports back], it goes on.",
];
const brief = fc
  .array(
    fc.record({
      trigger: fc.option(fc.constantFrom(...triggers), { freq: 3 }),
      told: fc.array(fc.constantFrom(...sentences), { minLength: 1, maxLength: 7 }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((paragraphs) =>
    markedText(paragraphs.map(({ trigger, told }) => [trigger ?? "", ...told].join(" ")).join("\n\n")),
  );

const read = (document: BriefNode) => {
  const reading = readBrief(document);
  const content = { ...emptyBrief, document };
  return { reading, content, frames: framesOf(reading, content) };
};

describe("on random briefs", () => {
  test("marks are the words they lie on, and each sentence is placed in at most one process", () => {
    fc.assert(
      fc.property(brief, (document) => {
        const { passages, marks } = passagesOf(document);
        for (const mark of marks) expect(passages[mark.passage]?.text.slice(mark.from, mark.to)).toBe(mark.text);
        const { reading, content, frames } = read(document);
        const placed = placingsOf(reading, content);
        expect(placed).toHaveLength(reading.sentences.length);
        const keys = frames.map((frame) => frame.key);
        expect(new Set(keys).size).toBe(keys.length);
        for (const placing of placed) if (placing) expect(keys).toContain(placing.frame);
      }),
      { numRuns: 60 },
    );
  });

  test("suggestions lie within the text and not over marks of their own kind", () => {
    fc.assert(
      fc.property(brief, (document) => {
        const reading = readBrief(document);
        for (const one of suggestMarks(reading, [], [])) {
          expect(reading.passages[one.passage]?.text.slice(one.from, one.to)).toBe(one.text);
          const over = reading.marks.filter(
            (mark) => mark.passage === one.passage && mark.from < one.to && one.from < mark.to,
          );
          expect(over.map((mark) => mark.kind)).not.toContain(one.kind);
        }
      }),
      { numRuns: 40 },
    );
  });

  test("what is built is a whole model: nothing broken, every step led to and on", () => {
    fc.assert(
      fc.property(brief, (document) => {
        for (const frame of read(document).frames) {
          const { model } = builtInto(frame, emptyProcess());
          expect(brokenInvariants(model)).toEqual([]);
          for (const node of flowNodesIn(model, "process")) {
            if (node.type !== "startEvent" && node.type !== "boundaryEvent")
              expect(incomingOf(model, node.id), `${node.type} ${node.name}`).not.toHaveLength(0);
            if (node.type !== "endEvent")
              expect(outgoingOf(model, node.id), `${node.type} ${node.name}`).not.toHaveLength(0);
          }
          expect(perform(model, { type: "tidy", diagram: "page" }).ok).toBe(true);
        }
      }),
      { numRuns: 40 },
    );
  });

  test("building again adds nothing, and coverage only grows by building", () => {
    fc.assert(
      fc.property(brief, (document) => {
        const { reading, frames } = read(document);
        const links = new Set<string>();
        let last = 0;
        for (const frame of frames) {
          const once = builtInto(frame, emptyProcess());
          expect(builtInto(frame, once.model, once.built).model).toBe(once.model);
          for (const mark of linksOf(once.model).keys()) links.add(mark);
          const { share } = coverageOf(reading, links);
          expect(share).toBeGreaterThanOrEqual(last);
          last = share;
        }
      }),
      { numRuns: 30 },
    );
  });

  test("advice always names a reason, and each piece of it once", () => {
    fc.assert(
      fc.property(brief, (document) => {
        const { reading, content } = read(document);
        const advice = adviceOn(reading, content);
        for (const one of advice) expect(one.reason.text.length).toBeGreaterThan(20);
        for (const kind of new Set(advice.map((one) => one.kind))) {
          if (kind === "unaccounted") continue;
          const ids = advice.filter((one) => one.kind === kind).map((one) => one.id);
          expect(new Set(ids).size).toBe(ids.length);
        }
      }),
      { numRuns: 40 },
    );
  });
});
