import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import {
  boundaryEventsOf,
  brokenInvariants,
  elementsOfType,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  laneOf,
  lanesOf,
  type Model,
  nameOf,
  outgoingOf,
  participantsOf,
} from "../model";
import { connection } from "../testing/connectionBrief";
import { expectOk } from "../testing/models";
import { adviceOn } from "./advice";
import { coverageOf } from "./coverage";
import { type BriefContent, emptyBrief } from "./document";
import { type Frame, framesOf, placingsOf } from "./frames";
import { linksOf } from "./links";
import { markedText } from "./markedText";
import { readBrief } from "./sentences";
import { builtInto, emptyProcess } from "./testing/built";
import { outline } from "./testing/outline";

const content = (text: string, more: Partial<BriefContent> = {}): BriefContent => ({
  ...emptyBrief,
  document: markedText(text),
  ...more,
});
const framesIn = (text: string, more?: Partial<BriefContent>) => {
  const brief = content(text, more);
  return framesOf(readBrief(brief.document), brief);
};

const named = (model: Model, name: string): Id => {
  const found = [...model.elements].find((element) => element.name === name);
  if (!found) throw new Error(`Nothing is called "${name}".`);
  return found.id;
};
const targets = (model: Model, name: string) =>
  outgoingOf(model, named(model, name)).map((flow) => `${flow.name ?? ""}>${nameOf(model, flow.targetRef as Id)}`);

describe("frames", () => {
  test("each trigger is a process of its own, with its steps in the order of the text", () => {
    const [first, second, ...others] = framesIn(connection);
    expect(others).toEqual([]);
    expect(outline(first?.items ?? [])).toEqual([
      "Register application (Front desk)",
      "Check whether application is complete (Front desk)",
      "Application complete?",
      "  yes",
      "  no",
      "    Ask household for papers (Front desk)",
      "    Missing papers sent (Household)",
      "      late: Ten working days → Application lapsed",
      "Look whether feeder can take plant (Network engineer)",
      "Feeder can take plant?",
      "  yes",
      "  no → Case closed",
      "    Reject application (Network engineer)",
    ]);
    expect(first).toMatchObject({ name: "Connection", roles: ["Front desk", "Network engineer"] });
    expect(first?.triggers).toMatchObject([{ from: "Household", time: undefined }]);
    expect(second).toMatchObject({ name: "Readings", roles: ["Billing"] });
    expect(second?.triggers[0]?.time).toBe("Every night at 2:00");
  });

  test("a paragraph that returns to another process's matter is suggested for that one; what a person says holds", () => {
    const text = `
[trigger: A household applies for a solar plant] and the desk checks the feeder map.

[trigger: Every month] billing prints invoices and posts reminders.

The feeder map is then updated for the household's solar plant.`;
    const reading = readBrief(markedText(text));
    expect(placingsOf(reading, content(text)).map((placing) => placing && [placing.frame, placing.why])).toEqual([
      ["m1", "place"],
      ["m2", "place"],
      ["m1", "words"],
    ]);
  });

  test("a part factored out is one item in its process", () => {
    const text =
      "[trigger: An application arrives]. The [role: desk] [activity: files it].\n\nThe desk [activity: signs it].";
    const document = markedText(text);
    const [one, two] = document.content ?? [];
    const marked = {
      ...document,
      content: [
        one as NonNullable<typeof one>,
        {
          ...(two as NonNullable<typeof two>),
          content: two?.content?.map((node) => ({
            ...node,
            marks: [...(node.marks ?? []), { type: "belongs" as const, attrs: { to: "part" } }],
          })),
        },
      ],
    };
    const brief: BriefContent = {
      ...emptyBrief,
      document: marked,
      parts: [{ id: "part", name: "Sign papers", kind: "sub-process", of: "m1" }],
    };
    const [frame] = framesOf(readBrief(marked), brief);
    expect(outline(frame?.items ?? [])).toEqual(["File application (Desk)", "[Sign papers]", "  Sign it (Desk)"]);
  });
});

describe("advice", () => {
  // Common practice of the trade about triggers, batches and outside parties; no source.
  test.each([
    [
      "several-triggers",
      "When [trigger: a letter comes] or when [trigger: a day is over], the [role: desk] [activity: files it].",
    ],
    [
      "recurring-time",
      "When [trigger: a letter comes], the [role: desk] [activity: files it] and [time: every night] [activity: counts it].",
    ],
    ["party-as-lane", "When [trigger: a letter comes], the [role: customer] [activity: signs it]."],
    [
      "same-work",
      "When [trigger: a letter comes], the [role: desk] [activity: scans the letter].\n\nWhen [trigger: a form comes], the desk [activity: scans the letter].",
    ],
    [
      "idle-role",
      "When [trigger: a letter comes], the [role: desk] [activity: files it]. There is a [role: manager] too.",
    ],
    ["nobody-does-it", "When [trigger: a letter comes], [activity: it is filed]."],
    ["unaccounted", "When [trigger: a letter comes], the [role: desk] [activity: files it]. Nobody reads this."],
  ])("%s", (kind, text) => {
    const brief = content(text);
    const advice = adviceOn(readBrief(brief.document), brief);
    const found = advice.find((one) => one.kind === kind);
    expect(found, advice.map((one) => one.kind).join()).toBeDefined();
    expect(found?.reason).not.toBe("");
  });

  test("a text that follows the advice gets none", () => {
    const text = `When [trigger: a [party: customer] sends a letter], the [role: desk] [activity: files it].

[trigger: Every night] the [role: archive] [activity: counts all letters].`;
    const brief = content(text);
    expect(adviceOn(readBrief(brief.document), brief)).toEqual([]);
  });

  test("a paragraph of seven steps is too much for one diagram, besides others", () => {
    const steps = ["opens", "reads", "stamps", "scans", "copies", "files", "answers"].map(
      (verb) => `The desk [activity: ${verb} the letter].`,
    );
    const text = `When [trigger: a letter comes], the [role: desk] [activity: sorts it].\n\n${steps.join(" ")}`;
    const brief = content(text);
    expect(adviceOn(readBrief(brief.document), brief).map((one) => one.kind)).toEqual(["too-much"]);
  });
});

describe("building", () => {
  const [first, second] = framesIn(connection) as [Frame, Frame];

  test("a frame becomes pool, lanes, closed pools, steps, decisions and messages", () => {
    const { model } = builtInto(first, emptyProcess());
    expect(brokenInvariants(model)).toEqual([]);
    expect(participantsOf(model).map((pool) => [pool.name, pool.processRef])).toEqual([
      ["Quillmere Power Cooperative", "process"],
      ["Household", undefined],
    ]);
    expect(lanesOf(model, "process").map((lane) => lane.name)).toEqual(["Front desk", "Network engineer"]);
    const start = named(model, "Household applied for connection");
    expect(eventDefinitionsOf(model, start).map((one) => one.type)).toEqual(["messageEventDefinition"]);
    expect(targets(model, "Register application")).toEqual([">Check whether application is complete"]);
    expect(targets(model, "Application complete?").sort()).toEqual(["no>Ask household for papers", "yes>"]);
    expect(targets(model, "Feeder can take plant?").sort()).toEqual(["no>Reject application", "yes>Plant connected"]);
    expect(targets(model, "Reject application")).toEqual([">Case closed"]);
    const [late] = boundaryEventsOf(model, named(model, "Missing papers sent"));
    expect(late?.name).toBe("Ten working days");
    expect(laneOf(model, named(model, "Reject application"))?.name).toBe("Network engineer");
    expect(elementsOfType(model, "messageFlow")).toHaveLength(3);
  });

  test("a recurring trigger becomes a timer start, and what is done for each of many a multi-instance", () => {
    const { model } = builtInto(second, emptyProcess());
    const start = flowNodesIn(model, "process").find((node) => node.type === "startEvent");
    expect(eventDefinitionsOf(model, start?.id as Id).map((one) => one.type)).toEqual(["timerEventDefinition"]);
    expect(
      elementsOfType(model, "multiInstanceLoopCharacteristics").map((one) => nameOf(model, one.parent as Id)),
    ).toEqual(["Read all meters", "Store values"]);
  });

  test("every mark of a frame is linked, so that its sentences are accounted for", () => {
    const reading = readBrief(markedText(connection));
    const all = [first, second].flatMap((frame) => [...linksOf(builtInto(frame, emptyProcess()).model).keys()]);
    const { share, open } = coverageOf(reading, new Set(all));
    expect(open.map((sentence) => sentence.text)).toEqual([]);
    expect(share).toBe(1);
    expect(coverageOf(reading, new Set(["m1"])).accounted).toBe(1);
  });

  test("building again changes nothing, and what was deleted stays deleted", () => {
    const once = builtInto(first, emptyProcess());
    expect(builtInto(first, once.model, once.built).model).toBe(once.model);
    const step = named(once.model, "Register application");
    const without = expectOk(perform(once.model, { type: "delete", ids: [step] })).model;
    expect(builtInto(first, without, once.built).model).toBe(without);
  });

  test("after the text grew, the new step stands between its neighbours and the rest is untouched", () => {
    const once = builtInto(first, emptyProcess());
    const moved = expectOk(
      perform(once.model, { type: "rename", id: named(once.model, "Register application"), name: "Enter application" }),
    ).model;
    const longer = connection
      .replace("She then [activity: checks", "She [activity: thanks the household]. She then [activity: checks")
      .replace(
        "[activity: rejects the application] and",
        "[activity: writes a study], [activity: rejects the application] and",
      );
    // The old words keep their names; in the editor marks keep their ids.
    const ids = new Map(readBrief(markedText(connection)).marks.map((mark) => [`${mark.kind}${mark.text}`, mark.id]));
    const rename = (text: string) => {
      const document = markedText(text);
      const marks = readBrief(document).marks;
      const json = marks.reduce(
        (all, mark) =>
          all.replaceAll(`"id":"${mark.id}"`, `"id":"${ids.get(`${mark.kind}${mark.text}`) ?? `new-${mark.id}`}#"`),
        JSON.stringify(document),
      );
      return JSON.parse(json.replaceAll('#"', '"'));
    };
    const brief = { ...emptyBrief, document: rename(longer) };
    const [grown] = framesOf(readBrief(brief.document), brief) as [Frame];
    const { model } = builtInto(grown, moved, once.built);
    expect(brokenInvariants(model)).toEqual([]);
    expect(targets(model, "Enter application")).toEqual([">Thank household"]);
    expect(targets(model, "Thank household")).toEqual([">Check whether application is complete"]);
    expect(targets(model, "Feeder can take plant?").sort()).toEqual(["no>Write study", "yes>Plant connected"]);
    for (const element of moved.elements)
      if (element.type !== "sequenceFlow" && element.type !== "lane")
        expect(model.elements.get(element.id)?.name).toBe(element.name);
  });
});
