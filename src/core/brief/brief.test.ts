import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { plan } from "../capture";
import { perform } from "../commands";
import {
  boundaryEventsOf,
  brokenInvariants,
  elementsOfType,
  emptyModel,
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
import { expectOk } from "../testing/models";
import { adviceOn } from "./advice";
import { buildFrame } from "./build";
import { coverageOf } from "./coverage";
import { type BriefContent, emptyBrief, passagesOf } from "./document";
import { type Frame, type FrameItem, framesOf, placingsOf } from "./frames";
import { linksOf } from "./links";
import { markedText } from "./markedText";
import { readBrief, sentenceSpans } from "./sentences";
import { refusalOf, suggestMarks } from "./suggest";
import { readTime } from "./times";
import { doneName, question, stateName, stepName, thingName, workKey } from "./wording";

const connection = `
# Connection

When [trigger: a [party: household] applies for a connection], the [role: front desk] [activity: registers the [document: application]]
in the [system: case register]. She then [activity: checks whether [decision: the application is complete]]. If
[decision: papers are missing], the front desk [activity: asks the household for them]. The household
[activity: sends the missing papers] [time: within ten working days]. Otherwise [result: the application lapses].

The [role: network engineer] [activity: looks whether [decision: the feeder can take the plant]]. If not, he
[activity: rejects the application] and [result: the case is closed].

[result: The plant is connected].

# Readings

[trigger: Every night at 2:00], [role: billing] [activity: reads all meters] in the [system: meter platform]. For each meter, it
[activity: stores the values].

{aside: We have worked like this for a long time.}
`;

const content = (text: string, more: Partial<BriefContent> = {}): BriefContent => ({
  ...emptyBrief,
  document: markedText(text),
  ...more,
});
const framesIn = (text: string, more?: Partial<BriefContent>) => {
  const brief = content(text, more);
  return framesOf(readBrief(brief.document), brief);
};

/** Items in one line each, for comparing. */
function outline(items: readonly FrameItem[]): string[] {
  return items.flatMap((item): string[] => {
    switch (item.kind) {
      case "step":
        return [
          `${item.name} (${item.role?.name ?? item.awaits?.name ?? "nobody"})`,
          ...(item.deadline
            ? [
                `  late: ${item.deadline.name} → ${item.deadline.path.ends?.name ?? ""}`,
                ...outline(item.deadline.path.items).map((line) => `    ${line}`),
              ]
            : []),
        ];
      case "decision":
        return [
          item.question,
          ...item.paths.flatMap((path) => [
            `  ${path.answer}${path.ends ? ` → ${path.ends.name}` : ""}`,
            ...outline(path.items).map((line) => `    ${line}`),
          ]),
        ];
      case "part":
        return [`[${item.part.name}]`, ...outline(item.items).map((line) => `  ${line}`)];
      default:
        return [`${item.kind}: ${item.name}`];
    }
  });
}

/** Builds a frame, with directory entries named after themselves. */
function build(frame: Frame, start: Model, built: readonly string[] = []): { model: Model; built: string[] } {
  let count = start.elements.size;
  const marks: string[] = [];
  const done = expectOk(
    plan(
      start,
      (of) => `${of}-${++count}`,
      (draft) => {
        marks.push(
          ...buildFrame(draft, frame, {
            organisation: "Quillmere Power Cooperative",
            built: new Set(built),
            resolve: (kind, name) => ({ entry: `${kind}-${name}`, name }),
            calledProcess: (key) => `process-of-${key}`,
          }),
        );
        return undefined;
      },
    ),
  );
  return { model: done.model, built: [...built, ...marks] };
}
const empty = () => emptyModel({ definitions: "definitions", process: "process", diagram: "page" }, "Process");
const named = (model: Model, name: string): Id => {
  const found = [...model.elements].find((element) => element.name === name);
  if (!found) throw new Error(`Nothing is called "${name}".`);
  return found.id;
};
const targets = (model: Model, name: string) =>
  outgoingOf(model, named(model, name)).map((flow) => `${flow.name ?? ""}>${nameOf(model, flow.targetRef as Id)}`);

describe("sentences", () => {
  test.each([
    ["One. Two! Three?", ["One.", "Two!", "Three?"]],
    ["It takes approx. 20 days. Then it ends.", ["It takes approx. 20 days.", "Then it ends."]],
    ["See form No. 5 for that.", ["See form No. 5 for that."]],
    ["  no full stop ", ["no full stop"]],
    ["", []],
  ])("%j has %j", (text, expected) => {
    expect(sentenceSpans(text).map(({ from, to }) => text.slice(from, to))).toEqual(expected);
  });

  test("sentences never overlap and hold all that is no white space", () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom("a", "B", " ", ".", "?", "\n", "1", "e.g.") }), (text) => {
        const spans = sentenceSpans(text);
        for (const [at, span] of spans.entries())
          if (at > 0) expect(span.from).toBeGreaterThanOrEqual((spans[at - 1] as { to: number }).to);
        const kept = spans.map(({ from, to }) => text.slice(from, to)).join("");
        expect(kept.replace(/\s/g, "")).toBe(text.replace(/\s/g, ""));
      }),
    );
  });
});

describe("wording", () => {
  test.each([
    ["registers the application", "Register application"],
    ["the application is registered", "Register application"],
    ["must then immediately send the missing papers", "Send missing papers"],
    ["the meter is changed by the crew", "Change meter"],
    ["reads all meters that have been changed", "Read all meters that have been changed"],
    ["draws up the agreement", "Draw up agreement"],
  ])("what is done: %s", (words, name) => expect(stepName(words)).toBe(name));

  test.each([
    ["When a household applies for a connection", "Household applied for connection"],
    ["as soon as the installer reports back", "Installer reported back"],
    ["the application has been rejected", "Application rejected"],
    ["Every night at 2:00", "Every night at 2:00"],
  ])("what has happened: %s", (words, name) => expect(stateName(words)).toBe(name));

  test("a question is named as one, things in the singular, what others do as done", () => {
    expect(question("whether the application is complete")).toBe("Application complete?");
    expect(thingName("the front desks")).toBe("Front desk");
    expect(doneName("sends the missing papers")).toBe("Missing papers sent");
  });

  test("the same work in other words has the same key", () => {
    expect(workKey("registers the application")).toBe(workKey("the applications are registered"));
    expect(workKey("registers the application")).not.toBe(workKey("rejects the application"));
  });
});

describe("times", () => {
  // ISO 8601: durations and repeating intervals. Five working days to a week are common practice.
  test.each([
    ["within ten working days", "P14D"],
    ["after 3 hours", "PT3H"],
    ["a week", "P1W"],
    ["12 working days", "P16D"],
    ["Every night at 2:00", "R/2026-01-05T02:00:00/P1D"],
    ["every Friday at 4 pm", "R/2026-01-09T16:00:00/P1W"],
    ["monthly", "R/2026-01-05T00:00:00/P1M"],
  ])("%s is %s", (words, iso) => expect(readTime(words)?.iso).toBe(iso));
  test("what is no time is none", () => expect(readTime("soon")).toBeUndefined());
});

describe("marks", () => {
  test("a mark's words are found again, in headings, over formatting, once for each id", () => {
    const { marks, passages } = passagesOf({
      type: "doc",
      content: [
        {
          type: "paragraph",
          content: [
            { type: "text", text: "The " },
            {
              type: "text",
              text: "front ",
              marks: [{ type: "word", attrs: { id: "a", kind: "role" } }, { type: "bold" }],
            },
            { type: "text", text: "desk", marks: [{ type: "word", attrs: { id: "a", kind: "role" } }] },
          ],
        },
        {
          type: "paragraph",
          content: [{ type: "text", text: "desk", marks: [{ type: "word", attrs: { id: "a", kind: "role" } }] }],
        },
      ],
    });
    expect(marks).toMatchObject([{ id: "a", text: "front desk", passage: 0, from: 4, to: 14 }]);
    expect(passages.map((passage) => passage.text)).toEqual(["The front desk", "desk"]);
  });

  test("suggestions are the marks a person would make, each with a reason", () => {
    const plain = markedText(
      connection
        .replace(/\[(?:trigger|role|party|activity|decision|document|system|time|result): /g, "")
        .replace(/\]/g, ""),
    );
    const found = suggestMarks(readBrief(plain), [{ kind: "system", name: "Case register" }], []);
    const words = (kind: string) => found.filter((one) => one.kind === kind).map((one) => one.text);
    expect(words("trigger")).toEqual(["a household applies for a connection", "Every night at 2:00"]);
    expect(words("role")).toEqual(["front desk", "network engineer", "billing"]);
    expect(words("party")).toEqual(["household"]);
    expect(words("system")).toEqual(["case register", "meter platform"]);
    expect(words("decision")).toEqual([
      "the application is complete",
      "papers are missing",
      "the feeder can take the plant",
    ]);
    expect(words("activity")).toContain("registers the application");
    expect(words("time")).toEqual(["within ten working days"]);
    expect(words("result")).toContain("the application lapses");
    for (const one of found) expect(one.reason).not.toBe("");
  });

  test("what was refused or is marked is not suggested again", () => {
    const reading = readBrief(markedText("The [role: clerk] signs the letter."));
    expect(suggestMarks(reading, [], []).map((one) => one.text)).toEqual(["signs the letter", "letter"]);
    expect(suggestMarks(reading, [], [refusalOf("document", "letter")]).map((one) => one.text)).toEqual([
      "signs the letter",
    ]);
  });
});

describe("frames", () => {
  test("each trigger is a process of its own, with its steps in the order of the text", () => {
    const [first, second, ...others] = framesIn(connection);
    expect(others).toEqual([]);
    expect(outline(first?.items ?? [])).toEqual([
      "Register application (Front desk)",
      "Check whether application is complete (Front desk)",
      "Application complete?",
      "  yes",
      "  papers missing",
      "    Ask household for them (Front desk)",
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
    expect(outline(frame?.items ?? [])).toEqual(["File it (Desk)", "[Sign papers]", "  Sign it (Desk)"]);
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
    const { model } = build(first, empty());
    expect(brokenInvariants(model)).toEqual([]);
    expect(participantsOf(model).map((pool) => [pool.name, pool.processRef])).toEqual([
      ["Quillmere Power Cooperative", "process"],
      ["Household", undefined],
    ]);
    expect(lanesOf(model, "process").map((lane) => lane.name)).toEqual(["Front desk", "Network engineer"]);
    const start = named(model, "Household applied for connection");
    expect(eventDefinitionsOf(model, start).map((one) => one.type)).toEqual(["messageEventDefinition"]);
    expect(targets(model, "Register application")).toEqual([">Check whether application is complete"]);
    expect(targets(model, "Application complete?").sort()).toEqual(["papers missing>Ask household for them", "yes>"]);
    expect(targets(model, "Feeder can take plant?").sort()).toEqual(["no>Reject application", "yes>Plant connected"]);
    expect(targets(model, "Reject application")).toEqual([">Case closed"]);
    const [late] = boundaryEventsOf(model, named(model, "Missing papers sent"));
    expect(late?.name).toBe("Ten working days");
    expect(laneOf(model, named(model, "Reject application"))?.name).toBe("Network engineer");
    expect(elementsOfType(model, "messageFlow")).toHaveLength(3);
  });

  test("a recurring trigger becomes a timer start, and what is done for each of many a multi-instance", () => {
    const { model } = build(second, empty());
    const start = flowNodesIn(model, "process").find((node) => node.type === "startEvent");
    expect(eventDefinitionsOf(model, start?.id as Id).map((one) => one.type)).toEqual(["timerEventDefinition"]);
    expect(
      elementsOfType(model, "multiInstanceLoopCharacteristics").map((one) => nameOf(model, one.parent as Id)),
    ).toEqual(["Read all meters", "Store values"]);
  });

  test("every mark of a frame is linked, so that its sentences are accounted for", () => {
    const reading = readBrief(markedText(connection));
    const all = [first, second].flatMap((frame) => [...linksOf(build(frame, empty()).model).keys()]);
    const { share, open } = coverageOf(reading, new Set(all));
    expect(open.map((sentence) => sentence.text)).toEqual([]);
    expect(share).toBe(1);
    expect(coverageOf(reading, new Set(["m1"])).accounted).toBe(1);
  });

  test("building again changes nothing, and what was deleted stays deleted", () => {
    const once = build(first, empty());
    expect(build(first, once.model, once.built).model).toBe(once.model);
    const step = named(once.model, "Register application");
    const without = expectOk(perform(once.model, { type: "delete", ids: [step] })).model;
    expect(build(first, without, once.built).model).toBe(without);
  });

  test("after the text grew, the new step stands between its neighbours and the rest is untouched", () => {
    const once = build(first, empty());
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
    const { model } = build(grown, moved, once.built);
    expect(brokenInvariants(model)).toEqual([]);
    expect(targets(model, "Enter application")).toEqual([">Thank household"]);
    expect(targets(model, "Thank household")).toEqual([">Check whether application is complete"]);
    expect(targets(model, "Feeder can take plant?").sort()).toEqual(["no>Write study", "yes>Plant connected"]);
    for (const element of moved.elements)
      if (element.type !== "sequenceFlow" && element.type !== "lane")
        expect(model.elements.get(element.id)?.name).toBe(element.name);
  });
});
