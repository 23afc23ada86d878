import { expect, test } from "vitest";
import { dayFormat } from "./dayFormat";

const year = 365 * 86_400;

test.each([
  [year / 4, "9 Mar"],
  [year * 3, "Mar 2027"],
  [year * 80, "2027"],
])("a run of %d seconds has at its axis what tells its moments apart", (seconds, said) => {
  expect(dayFormat(seconds).format(new Date("2027-03-09T23:30:00Z"))).toBe(said);
});
