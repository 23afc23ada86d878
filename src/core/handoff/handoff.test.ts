import { createHash } from "node:crypto";
import { strFromU8, unzipSync } from "fflate";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { figuresAlone } from "../forecast";
import { exponential, forecastOf, station } from "../forecast/testing/models";
import { toStored } from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { makePackage, type PackageRequest, type ReportedForecast } from ".";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const request = (): PackageRequest => ({
  model: smallModel(),
  process: "Connect <a> plant",
  version: "As-is",
  revision: 3,
  date: "2026-11-23T10:00:00.000Z",
  member: "Mara Aldous",
  waivers: [],
  sha256,
});

describe("a package", () => {
  test("the same request gives the same bytes", () => {
    expect(sha256(makePackage(request()).bytes)).toBe(sha256(makePackage(request()).bytes));
  });

  test("it holds model, report, picture and manifest, each part with its checksum", () => {
    const { bytes, manifest } = makePackage(request());
    const parts = unzipSync(bytes);
    expect(Object.keys(parts).sort()).toEqual([
      "checklist.csv",
      "checklist.md",
      "diagram.svg",
      "manifest.json",
      "model.bpmn",
      "report.html",
      "report.json",
    ]);
    expect(JSON.parse(strFromU8(parts["manifest.json"] as Uint8Array))).toEqual(manifest);
    expect(manifest).toMatchObject({ revision: 3, member: "Mara Aldous", date: "2026-11-23T10:00:00.000Z" });
    for (const part of manifest.parts) expect(sha256(parts[part.name] as Uint8Array)).toBe(part.sha256);
  });

  test("the model in it is the model", () => {
    const parts = unzipSync(makePackage(request()).bytes);
    const read = expectOk(readBpmn(parts["model.bpmn"] as Uint8Array));
    const types = (model: typeof read) =>
      new Map(toStored(model).elements.map((element) => [element.id, [element.type, element.name]]));
    expect(types(read)).toEqual(types(smallModel()));
  });

  test("the report tells the forecast: what was said, what was taken, the figures with seed and replications", () => {
    const figures = {
      ...figuresAlone(
        forecastOf(station(exponential(10), exponential(8), 1), { cases: 500, replications: 4, seed: 7 }),
      ),
      gaps: [{ kind: "time" as const, element: "a", name: "Check <it>", taken: "it takes no time" }],
    };
    const forecast: ReportedForecast = {
      scenario: { id: "s1", name: "Normal <year>" },
      says: [{ element: "a", name: "Check", what: "working time", value: "8 min on average" }],
      fromDirectory: [{ element: "r", name: "Clerk", what: "how many", value: "2" }],
      figures,
      why: "",
    };
    const parts = unzipSync(makePackage({ ...request(), forecast }).bytes);
    const html = strFromU8(parts["report.html"] as Uint8Array);
    expect(html).toContain("Forecast: Normal &lt;year&gt;");
    expect(html).toContain("500 cases in each of 4 replications, seed 7");
    expect(html).toContain("8 min on average");
    expect(html).toContain("Check &lt;it&gt;: it takes no time");
    expect(html).toContain("9 of 10 cases are done within");
    const nobody = { ...figures, cases: 0, problems: ["Nobody is free for <it>."] };
    const stuck = unzipSync(makePackage({ ...request(), forecast: { ...forecast, figures: nobody } }).bytes);
    const page = strFromU8(stuck["report.html"] as Uint8Array);
    expect(page).toContain("<p>No case came to its end.</p>");
    expect(page).toContain("<p>Nobody is free for &lt;it&gt;.</p>");
    expect(page).not.toContain("9 of 10 cases are done within");
    const { forecast: told } = JSON.parse(strFromU8(parts["report.json"] as Uint8Array));
    expect(told.figures).toEqual(JSON.parse(JSON.stringify(figures)));
    const none = unzipSync(makePackage(request()).bytes);
    expect(JSON.parse(strFromU8(none["report.json"] as Uint8Array)).forecast).toBeNull();
    const refused = unzipSync(
      makePackage({ ...request(), forecast: { ...forecast, figures: null, why: "Not sound." } }).bytes,
    );
    expect(strFromU8(refused["report.html"] as Uint8Array)).toContain("<p>Not sound.</p>");
  });

  test("nothing in names runs in the report or the picture", () => {
    const evil = '<script>alert("x")</script><img src=x onerror=alert(1)>';
    const model = performAll(
      smallModel(),
      { type: "rename", id: "check", name: evil },
      { type: "rename", id: "f3", name: evil },
    );
    const parts = unzipSync(makePackage({ ...request(), model, process: evil }).bytes);
    for (const name of ["report.html", "diagram.svg"])
      expect(strFromU8(parts[name] as Uint8Array)).not.toMatch(/<script|<img/i);
  });
});
