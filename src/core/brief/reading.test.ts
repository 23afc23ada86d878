import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { connection } from "../testing/connectionBrief";
import { passagesOf } from "./document";
import { markedText } from "./markedText";
import { question, stateName } from "./reading/states";
import { readBrief, sentenceSpans } from "./sentences";
import { refusalOf, suggestMarks } from "./suggest/suggest";
import { readTime } from "./times";
import { doneName, stepName, thingName, workKey } from "./wording";

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

  test("what has no end for pages is read in pieces, cut between words", () => {
    const text = "the desk checks and the crew plans while billing sends ".repeat(100).trim();
    const spans = sentenceSpans(text);
    expect(spans.length).toBeGreaterThan(2);
    for (const { from, to } of spans) expect(to - from).toBeLessThanOrEqual(2_000);
    expect(spans.map(({ from, to }) => text.slice(from, to)).join(" ")).toBe(text);
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

describe("a list in a plain text", () => {
  const sentences = (text: string) => readBrief(markedText(text)).sentences.map((sentence) => sentence.text);
  test.each([
    ["- The clerk files the form\n- The desk signs it", ["The clerk files the form.", "The desk signs it"]],
    [
      "1. The clerk files the form.\n2. If it is late,\n   he rejects it.",
      ["The clerk files the form.", "If it is late, he rejects it."],
    ],
    [
      "Three things are done:\n* The clerk files it\n* The desk signs it",
      ["Three things are done: The clerk files it.", "The desk signs it"],
    ],
    ["The price is 5\nor - at night - 6.", ["The price is 5 or - at night - 6."]],
    ["- The [role: clerk] [activity: files it]\n- The desk waits", ["The clerk files it.", "The desk waits"]],
  ])("%j is read as %j", (text, expected) => expect(sentences(text)).toEqual(expected));
});
