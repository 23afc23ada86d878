import { expect, test } from "vitest";
import { expectedFigure } from "./expectedFigure";

test.each([
  ["-12 min", "cycleTime"],
  ["the engineer starts 1 week earlier", "cycleTime"],
  ["20 % faster", "cycleTime"],
  ["saves 40 EUR a case", "cost"],
  ["€ 12 less", "cost"],
  ["2 days less waiting", "waiting"],
  ["30 min less work", "processing"],
  ["done within 10 working days", "cycleTime"],
  ["half the letters", undefined],
  ["3 forms fewer", undefined],
  ["", undefined],
])("%s", (words, figure) => {
  expect(expectedFigure(words)).toBe(figure);
});
