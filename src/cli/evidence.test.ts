import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { afterAll, describe, expect, test } from "vitest";
import { chain, end, file, processOf, start, task } from "@/core/live/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-evidence-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const kept = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", ...args], { encoding: "utf8" });
  return { code: done.status, out: done.stdout, error: done.stderr };
};

const model = kept(
  "visit.bpmn",
  file(
    processOf(
      start +
        task("Check meter") +
        task("Book visit") +
        task("Visit") +
        end +
        chain("s", "Check meter", "Book visit", "Visit", "e"),
    ).replaceAll(/(id|sourceRef|targetRef)="([A-Z][^"]*)"/g, (_, name, id) => `${name}="${id.replace(" ", "_")}"`),
  ),
);
/** A table with a row for each activity of each trace. */
const table = (...traces: readonly (readonly [string, number])[]) => {
  let number = 0;
  const rows = traces.flatMap(([words, count]) =>
    Array.from({ length: count }, () => {
      number++;
      return words.split(", ").map((activity, at) => `${number},${activity},2027-01-0${at + 1}T08:00:00Z,complete,`);
    }).flat(),
  );
  return ["case,activity,timestamp,lifecycle,role", ...rows].join("\r\n");
};
const log = kept(
  "visits.csv",
  table(["Check meter, Book visit, Visit", 6], ["Visit", 3], ["Check meter, Book visit, Call, Visit", 1]),
);

interface Told {
  readonly traces: number;
  readonly variants: number;
  readonly fitting: { readonly traces: number; readonly share: number };
  readonly fitness: number;
  readonly differences: readonly {
    kind: string;
    statement: string;
    traces: number;
    share: number;
    elements: string[];
  }[];
  readonly applied?: { readonly number: number; readonly fitness: number };
  readonly leftOut?: { readonly count: number; readonly first: readonly { line: number; why: string }[] };
}
const told = (...args: string[]): Told => {
  const { code, out, error } = lane("evidence", ...args, "--json");
  expect([code, error]).toEqual([0, ""]);
  return JSON.parse(out);
};

describe("lane evidence", () => {
  test("prints what the contract says, ranked by share", () => {
    const { differences, ...figures } = told(model, log);
    expect(figures).toEqual({
      traces: 10,
      variants: 3,
      fitting: { traces: 6, share: 0.6 },
      // Costs 3 × 2 + 1 of at worst 6 × 6 + 3 × 4 + 7.
      fitness: Math.round((1 - 7 / 55) * 1e9) / 1e9,
    });
    expect(differences).toEqual([
      {
        kind: "skipped",
        statement: "“Check meter” and “Book visit” are skipped in 30 % of the traces.",
        traces: 3,
        share: 0.3,
        elements: ["Check_meter", "Book_visit"],
      },
      {
        kind: "unforeseen",
        statement: "“Call” is done behind “Book visit” in 10 % of the traces, which the model does not have.",
        traces: 1,
        share: 0.1,
        elements: ["Book_visit"],
        activity: "Call",
      },
    ]);
    const spoken = lane("evidence", model, log).out;
    expect(spoken).toContain("10 traces in 3 variants: 6 fit the model (60.0 %), fitness 0.873.");
    expect(spoken).toContain("1. “Check meter” and “Book visit” are skipped in 30 % of the traces. (3 traces)");
  });

  test("--apply repairs the difference of a number in a copy; done for all, nothing is left, and the model is without a finding", () => {
    const [one, two] = [join(folder, "one.bpmn"), join(folder, "two.bpmn")];
    const first = told(model, log, "--apply", "1", one);
    expect(first.applied).toMatchObject({ number: 1 });
    expect(first.applied?.fitness).toBeGreaterThan(first.fitness);
    const left = told(one, log);
    expect(left.differences.map(({ kind }) => kind)).toEqual(["unforeseen"]);
    expect(told(one, log, "--apply", "1", two).applied).toMatchObject({ fitness: 1 });
    expect(told(two, log)).toMatchObject({ fitting: { traces: 10 }, differences: [] });
    expect(lane("check", two).code).toBe(0);
    expect(readFileSync(two, "utf8")).toContain('name="Call"');
  });

  test("a log that the model wrote itself fits, as XES, as a table, and packed", () => {
    for (const name of ["own.xes", "own.csv"]) {
      const out = join(folder, name);
      expect(lane("run", model, "--cases", "20", "--log", out).code).toBe(0);
      const packed = kept(`${name}.gz`, gzipSync(readFileSync(out)));
      for (const one of [out, packed])
        expect(told(model, one)).toMatchObject({ traces: 20, fitness: 1, differences: [] });
    }
  });

  test("--discover makes a model of a log alone, which fits it; with noise left out, most of it", () => {
    const out = join(folder, "discovered.bpmn");
    expect(told(log, "--discover", out)).toMatchObject({ traces: 10, fitness: 1, differences: [] });
    expect(lane("check", out).code).toBe(0);
    expect(told(out, log).fitness).toBe(1);
    const quiet = told(log, "--discover", out, "--noise", "0.4");
    expect(quiet.fitness).toBeGreaterThan(0.5);
    expect(lane("check", out).code).toBe(0);
  });

  test("what was left out is told with its line", () => {
    const broken = kept("broken.csv", `${table(["Visit", 1])}\r\n9,,2027-01-01,complete,\r\n9,Visit,soon,complete,`);
    expect(told(model, broken).leftOut).toEqual({
      count: 2,
      first: [
        { line: 3, why: "the row names no activity" },
        { line: 4, why: "“soon” is no time" },
      ],
    });
  });

  test.each([
    [["nowhere.csv"], /nowhere\.csv: there is no such file/],
    [["open.xes"], /open\.xes:1:\d+: /],
    [["other.xes"], /other\.xes:1:\d+: its root is “html” where a log has “log”/],
    [["unnamed.csv"], /unnamed\.csv:1:1: The first row names no column for cases/],
    [["loose.csv.gz"], /loose\.csv\.gz: it is not packed as gzip/],
    [["visits.csv", "--apply", "9", "out.bpmn"], /--apply 9: there are 2 differences/],
    [["visits.csv", "--apply", "x"], /--apply needs the number/],
    [["visits.csv", "--guess"], /evidence knows no --guess/],
    [["visits.csv", "--discover"], /--discover needs the file/],
    [["visits.csv", "--noise", "7"], /--noise needs a share/],
    [[], /evidence needs a model and a log/],
  ])("%j is unusable, in one line", (args, why) => {
    kept("open.xes", "<log><trace>");
    kept("other.xes", "<html/>");
    kept("unnamed.csv", "a,b\r\n1,2");
    kept("loose.csv.gz", "case,activity");
    const { code, out, error } = lane(
      "evidence",
      model,
      ...args.map((arg) => (/\.(?:csv|xes|bpmn|gz)$/.test(arg) ? join(folder, arg) : arg)),
    );
    expect([code, out]).toEqual([2, ""]);
    expect(error).toMatch(why);
    expect(error.trim().split("\n")).toHaveLength(1);
  });

  test("--scenario writes the model with what the log says of times and ways, each with its observations", () => {
    const out = join(folder, "measured.bpmn");
    const rows = Array.from({ length: 20 }, (_, number) => {
      const day = String((number % 27) + 1).padStart(2, "0");
      const at = (hour: number, minute: number) =>
        `2027-02-${day}T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00Z`;
      return [
        `${number},Check meter,${at(8, 0)},${at(8, 10 + (number % 9))}`,
        `${number},Book visit,${at(9, 0)},${at(9, 5)}`,
        `${number},Visit,${at(12, 0)},${at(12, 30 + (number % 20))}`,
      ].join("\n");
    });
    const timed = kept("timed.csv", ["case,activity,start,end", ...rows].join("\n"));
    const { code, out: said } = lane("evidence", model, timed, "--scenario", out, "--json");
    expect(code).toBe(0);
    const { scenario } = JSON.parse(said) as {
      scenario: { element: string; parameter: string; said: string; observations: number }[];
    };
    expect(scenario.map(({ element, parameter, observations }) => [element, parameter, observations])).toEqual([
      ["s", "interval", 19],
      ["Check_meter", "processing", 20],
      ["Book_visit", "processing", 20],
      ["Visit", "processing", 20],
    ]);
    expect(scenario.find(({ element }) => element === "Book_visit")?.said).toBe("5 min");
    const written = readFileSync(out, "utf8");
    expect(written).toContain("As measured");
    // What is written is a model that the forecast takes.
    const forecast = lane("forecast", out, "--json");
    expect([forecast.code, forecast.error]).toEqual([0, ""]);
    expect(lane("evidence", model, timed, "--scenario").code).toBe(2);
  });
});

describe("--report", () => {
  test("what a log says of a model is written to be read, beside what is told", () => {
    const out = join(folder, "report.md");
    const done = lane("evidence", model, log, "--report", out);
    expect(done.code).toBe(0);
    expect(done.out).toContain("10 traces");
    const words = readFileSync(out, "utf8");
    expect(words).toContain("6 of 10 cases (60.0 %) went as the model has it");
    expect(words).toMatch(/are skipped[\s\S]*Ways that cases went/);
    expect(lane("evidence", model, log, "--report", join(folder, "report.pdf")).code).toBe(0);
    expect(readFileSync(join(folder, "report.pdf"), "latin1").startsWith("%PDF")).toBe(true);
  });

  test.each([
    [["--report"], /--report needs the file to write/],
    [["--report", "out.txt"], /ends in \.pdf, \.docx, \.html, \.md/],
    [["--report", join("no", "such", "folder.md")], /cannot be written/],
  ])("%j is refused", (args, why) => {
    const done = lane("evidence", model, log, ...args);
    expect(done.code).toBe(2);
    expect(done.error).toMatch(why);
  });
});
