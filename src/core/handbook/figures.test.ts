import { expect, test } from "vitest";
import { figuresAlone } from "../forecast";
import { exponential, forecastOf, station } from "../forecast/testing/models";
import { figureBlocks } from "./figures";

const figures = figuresAlone(forecastOf(station(exponential(10), exponential(8), 1), { cases: 50 }));
const told = (of: typeof figures | null, why = "") =>
  JSON.stringify(figureBlocks({ scenario: "Normal year", figures: of, why }, ({ text }) => text));

test("a handbook tells the figures of a forecast, why there are none, or that no case came to its end", () => {
  expect(told(figures)).toContain("9 of 10 cases are done within");
  expect(told(null, "It is not sound.")).toContain("It is not sound.");
  const nobody = told({ ...figures, cases: 0 });
  expect(nobody).toContain("No case came to its end.");
  expect(nobody).not.toContain("9 of 10");
});
