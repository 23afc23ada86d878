import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { performAll, smallModel } from "../testing/models";
import { sampleValues } from ".";

const schema = {
  plant: {
    type: "object",
    properties: {
      power: { type: "number", minimum: 1, maximum: 40 },
      roof: { type: "string", enum: ["flat", "pitched"] },
      reported: { type: "string", format: "date" },
      certified: { type: "boolean" },
    },
  },
  urgent: { type: "boolean" },
  remarks: { type: "array", items: { type: "string" } },
};
const define = (name: keyof typeof schema) =>
  ({
    type: "defineData",
    process: "process",
    id: name,
    name,
    schema: JSON.stringify(schema[name]),
  }) as const;
const model = performAll(
  smallModel(),
  define("plant"),
  define("urgent"),
  define("remarks"),
  { type: "setDataUse", step: "check", data: "plant", use: "creates" },
  { type: "setDataUse", step: "check", data: "remarks", use: "creates" },
  { type: "setDataUse", step: "approve", data: "urgent", use: "changes" },
);
const now = Date.UTC(2027, 4, 3, 8);
const drawn = (seed: number) => {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
};

describe("made-up values of what a step writes", () => {
  test("keep to what its data says, whatever is drawn", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const values = sampleValues(model, "check", {}, drawn(seed), now) as {
          plant: { power: number; roof: string; reported: string; certified: boolean };
          remarks: unknown[];
        };
        expect(Object.keys(values).sort()).toEqual(["plant", "remarks"]);
        expect(values.plant.power).toBeGreaterThanOrEqual(1);
        expect(values.plant.power).toBeLessThanOrEqual(40);
        expect(["flat", "pitched"]).toContain(values.plant.roof);
        expect(values.plant.reported).toMatch(/^2027-05-(?:0[4-9]|1\d)$/);
        expect(typeof values.plant.certified).toBe("boolean");
        expect(values.remarks.length).toBeLessThanOrEqual(2);
        for (const remark of values.remarks) expect(typeof remark).toBe("string");
      }),
    );
  });

  test("are the same for what is drawn the same, and leave what is known as it is", () => {
    expect(sampleValues(model, "check", {}, drawn(5), now)).toEqual(sampleValues(model, "check", {}, drawn(5), now));
    const known = { plant: { power: 3 } };
    expect(Object.keys(sampleValues(model, "check", known, drawn(5), now))).toEqual(["remarks"]);
    expect(sampleValues(model, "approve", { urgent: true }, drawn(5), now)).toEqual({});
    expect(Object.keys(sampleValues(model, "approve", {}, drawn(5), now))).toEqual(["urgent"]);
  });

  test("of a step that writes nothing there are none", () => {
    expect(sampleValues(model, "reject", {}, drawn(5), now)).toEqual({});
  });
});
