import { describe, expect, test } from "vitest";
import { type Block, type Booklet, wordsOfLine } from "../booklet";
import { chain, end, file, modelOf, processOf, start, task } from "../live/testing/models";
import type { Model } from "../model";
import {
  type EventLog,
  type EvidenceReport,
  evidenceReport,
  filtered,
  holdAgainst,
  type LogFilter,
  logOf,
  readLogCsv,
} from ".";
import { differenceKey, differencesOf } from "./differences";

const model: Model = modelOf(
  file(
    processOf(
      start + task("register") + task("study") + task("visit") + end + chain("s", "register", "study", "visit", "e"),
    ),
  ),
);
const hour = 3_600_000;
const day = Date.UTC(2027, 2, 1);
/** Ten cases, a day apart: two skip the study and end sooner, one asks a neighbour. */
const log: EventLog = logOf(
  Array.from({ length: 10 }, (_, number) => {
    const done =
      number < 2
        ? ["register", "visit"]
        : number === 2
          ? ["register", "ask", "study", "visit"]
          : ["register", "study", "visit"];
    return {
      case: `C-${number + 1}`,
      events: done.map((activity, place) => ({
        activity,
        at: day + number * 24 * hour + place * 2 * hour,
        lifecycle: "complete",
        role: "",
        who: "Ole",
      })),
    };
  }),
);
const reportOf = (more: Partial<EvidenceReport> = {}, filters: readonly LogFilter[] = []): Booklet => {
  const part = filtered(more.part ?? log, filters);
  return evidenceReport({
    ...{ model, title: "Plant", subtitle: "As-is", log: "Register", held: holdAgainst(model, part, {}) },
    ...{ judged: [], sentences: new Map(), language: "en", ...more, part, filters },
  });
};
const facts = ({ facts: all }: Pick<Booklet, "facts">) =>
  Object.fromEntries(all.map(({ name, says }) => [name, wordsOfLine(says)]));
const headings = ({ blocks }: Booklet) => blocks.flatMap((block) => (block.kind === "heading" ? [block.text] : []));
/** The rows of the table below a heading, in words. */
const tableBelow = (booklet: Booklet, heading: string): string[][] => {
  const from = booklet.blocks.findIndex((block) => block.kind === "heading" && block.text === heading);
  const table = booklet.blocks.slice(from).find((block) => block.kind === "table") as Block & { kind: "table" };
  return table.rows.map((row) => row.map((cell) => wordsOfLine(cell)));
};
const paragraphs = ({ blocks }: Booklet) =>
  blocks.flatMap((block) => (block.kind === "paragraph" ? [wordsOfLine(block.says)] : []));

describe("the report on a log", () => {
  test("says what was looked at, with nothing that nobody knows", () => {
    expect(facts(reportOf())).toEqual({
      Log: "Register",
      Cases: "10",
      Events: "29",
      From: "2027-03-01",
      To: "2027-03-10",
    });
    const untimed = logOf([
      { case: "1", events: [{ activity: "register", at: undefined, lifecycle: "", role: "", who: "" }] },
    ]);
    expect(facts(reportOf({ part: untimed }))).toEqual({ Log: "Register", Cases: "1", Events: "1" });
  });

  test("says in sentences what it was narrowed down to, what was left out and what was corrected", () => {
    const told = facts(
      reportOf({}, [
        { kind: "passes", activity: "study", is: true },
        { kind: "duration", least: 5 * hour, most: null },
      ]),
    );
    expect(told).toMatchObject({ Cases: "1", "Only cases that": "did “study”; took 5 h or longer" });
    const read = readLogCsv(["case,activity\n1,register\n,study\n1,\n2,visit"], { corrected: { 3: ["1", "study"] } });
    if (!read.ok) throw new Error("no log");
    expect(facts(reportOf({ part: read.value }))).toMatchObject({
      "Left out, as not to be used": "1",
      "Corrected by hand": "1",
    });
  });

  test("has its parts in order, and none without content", () => {
    expect(headings(reportOf())).toEqual([
      "How well it fits",
      "What differs",
      "Where it differs",
      "What was done",
      "Ways that cases went",
    ]);
    const empty = reportOf({ part: logOf([]) });
    expect(headings(empty)).toEqual(["How well it fits", "What differs"]);
    expect(paragraphs(empty)).toContain("Nothing differs.");
  });

  test("tells how well it fits as it was held", () => {
    const held = holdAgainst(model, log, {});
    expect(paragraphs(reportOf())[0]).toBe("7 of 10 cases (70.0 %) went as the model has it, in 3 ways.");
    const block = reportOf().blocks.find(({ kind }) => kind === "facts") as Block & { kind: "facts" };
    expect(facts(block)).toEqual({
      Fitness: held.fitness.toFixed(3),
      Precision: held.closeness.precision.toFixed(3),
      Generalisation: held.closeness.generalisation.toFixed(3),
    });
    expect(paragraphs(reportOf()).some((words) => words.startsWith("A bound was met"))).toBe(false);
    expect(paragraphs(reportOf({ held: { ...held, isCut: true } }))).toContain(
      "A bound was met: some cases may differ less than is told here.",
    );
  });

  test("numbers what differs, the commonest first, with share, times and examples", () => {
    expect(tableBelow(reportOf(), "What differs")).toEqual([
      ["1", "“study” is skipped in 20 % of the traces.", "2 (20.0 %)", "2 h / 4 h", "C-1, C-2", ""],
      [
        "2",
        "“ask” is done behind “register” in 10 % of the traces, which the model does not have.",
        "1 (10.0 %)",
        "6 h / 4 h",
        "C-3",
        "",
      ],
    ]);
  });

  test("draws the pages on which something differs, with those numbers", () => {
    const pictures = reportOf().blocks.flatMap((block) => (block.kind === "picture" ? [block] : []));
    expect(pictures).toHaveLength(1);
    const words = JSON.stringify(pictures[0]?.scene.figures);
    expect(words).toContain('"1"');
    expect(words).toContain('"2"');
    // Where all goes as modelled, nothing is drawn.
    const fitting = filtered(log, [
      { kind: "passes", activity: "ask", is: false },
      { kind: "passes", activity: "study", is: true },
    ]);
    expect(reportOf({ part: fitting }).blocks.some(({ kind }) => kind === "picture")).toBe(false);
  });

  test("says what was decided: of what these cases show, and of what they do not", () => {
    const [skipped] = differencesOf(holdAgainst(model, log, {}));
    const judged = [
      {
        key: skipped ? differenceKey(skipped) : "",
        as: "exception" as const,
        note: "small plants",
        member: "Ines Orr",
        at: "2027-04-01T08:00:00Z",
      },
      { key: "[]", as: "misconduct" as const, note: "", member: "", at: "2027-04-02T08:00:00Z" },
    ];
    const told = reportOf({ judged });
    expect(tableBelow(told, "What was decided")).toEqual([
      ["“study” is skipped in 20 % of the traces.", "exception", "small plants", "Ines Orr, 2027-04-01"],
      ["A difference that these cases do not show", "misconduct", "", "2027-04-02"],
    ]);
    expect(tableBelow(told, "What differs").map((row) => row.at(-1))).toEqual(["exception", ""]);
  });

  test("tells what was done, by which step, and the ways that cases went", () => {
    const told = reportOf();
    expect(tableBelow(told, "What was done").map((row) => row.slice(0, 4))).toEqual([
      ["register", "register", "10", "10"],
      ["visit", "visit", "10", "10"],
      ["study", "study", "8", "8"],
      ["ask", "not in the model", "1", "1"],
    ]);
    expect(tableBelow(told, "Ways that cases went")).toEqual([
      ["7 (70.0 %)", "4 h", "yes", "register · study · visit"],
      ["2 (20.0 %)", "2 h", "no", "register · visit"],
      ["1 (10.0 %)", "6 h", "no", "register · ask · study · visit"],
    ]);
    expect(paragraphs(told)).toContain("Half of the cases took 4 h at most, nine of ten 4 h.");
  });

  test("is told in another language where that has the sentences, and its own words stay", () => {
    const sentences = new Map([
      ["What differs", "Was abweicht"],
      ["{0} is skipped {1}.", "{0} wird ausgelassen, {1}."],
      ["in {0} of the traces", "in {0} der Fälle"],
    ]);
    const told = reportOf({ sentences, language: "de" });
    expect(told.language).toBe("de");
    expect(headings(told)).toContain("Was abweicht");
    expect(tableBelow(told, "Was abweicht")[0]?.[1]).toBe("“study” wird ausgelassen, in 20 % der Fälle.");
  });

  test("of very many differences names the first hundred, and how many more there are", () => {
    const wild = logOf(
      Array.from({ length: 130 }, (_, number) => ({
        case: String(number),
        events: ["register", `odd ${number}`, "study", "visit"].map((activity) => ({
          ...{ activity, at: undefined, lifecycle: "", role: "", who: "" },
        })),
      })),
    );
    const told = reportOf({ part: wild });
    expect(tableBelow(told, "What differs")).toHaveLength(100);
    expect(paragraphs(told)).toContain("30 more differ in fewer cases.");
    expect(tableBelow(told, "Ways that cases went")).toHaveLength(30);
  });
});
