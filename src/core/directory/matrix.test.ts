import { describe, expect, test } from "vitest";
import { readTable, writeTable } from "../table";
import { performAll, smallModel } from "../testing/models";
import { matrixTable } from ".";

const assigned = () =>
  performAll(
    smallModel(),
    { type: "tieLane", lane: "desk", role: { entry: "desk", name: "Front desk" } },
    {
      type: "assignRole",
      step: "check",
      role: { entry: "office", name: "Office" },
      part: "consulted",
      id: "r1",
    },
    { type: "useSystem", step: "check", system: { entry: "map", name: "Network map" }, use: "reads" },
    { type: "useSystem", step: "approve", system: { entry: "map", name: "Network map" }, use: "writes" },
  );

describe("a matrix as a table of words", () => {
  test("names each step with what each role does in it; what comes from the lane stands in brackets", () => {
    const { columns, rows } = matrixTable(assigned(), "roles");
    expect(columns).toEqual(["Front desk", "Office"]);
    const check = rows.find(({ name }) => name === "Check application");
    expect(check?.cells).toEqual(["(R)", "C"]);
  });

  test("entries go by the name they have now", () => {
    expect(matrixTable(assigned(), "systems", ({ entry }) => entry.toUpperCase()).columns).toEqual(["MAP"]);
    expect(matrixTable(assigned(), "systems").rows.flatMap(({ cells }) => cells)).toContain("W");
  });

  test("hand-overs are counted from row to column, and none is an empty cell", () => {
    const model = performAll(
      assigned(),
      { type: "tieLane", lane: "engineer", role: { entry: "engineer", name: "Network engineer" } },
      { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" },
    );
    const { columns, rows } = matrixTable(model, "roleHandovers");
    expect(rows.map(({ name }) => name)).toEqual(columns);
    const desk = rows[columns.indexOf("Front desk")];
    expect(desk?.cells[columns.indexOf("Network engineer")]).toBe("1");
    expect(desk?.cells[columns.indexOf("Front desk")]).toBe("");
  });

  test("and is read back from a spreadsheet file as it was written", () => {
    const { columns, rows } = matrixTable(assigned(), "roles");
    const lines = [["Step", ...columns], ...rows.map(({ name, cells }) => [name, ...cells])];
    const read = readTable(writeTable(lines));
    expect(read.ok && read.value).toEqual(lines);
  });
});
