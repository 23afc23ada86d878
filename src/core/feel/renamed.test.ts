import { expect, test } from "vitest";
import { renamedIn } from ".";

test.each<[text: string, path: readonly string[], to: string, expected: string]>([
  ["rated power > 5", ["rated power"], "power", "power > 5"],
  ["application.power > 5", ["application", "power"], "rated power", "application.rated power > 5"],
  ["application.power > power", ["application", "power"], "kW", "application.kW > power"],
  ["application.power > power", ["power"], "kW", "application.power > kW"],
  ["plants[1].roof.kind = kind", ["plants", "roof", "kind"], "shape", "plants[1].roof.shape = kind"],
  ['name = "name"', ["name"], "title", 'title = "name"'],
  // What the expression makes itself is not the data.
  ["some power in list satisfies power > 3", ["power"], "kW", "some power in list satisfies power > 3"],
  ["count(list) > 0 and list[item > 3] = list", ["list"], "all", "count(all) > 0 and all[item > 3] = all"],
  // What cannot be read stays as it is written.
  ["power > ", ["power"], "kW", "power > "],
  ["the power is high", ["power"], "kW", "the power is high"],
])("%s: %j becomes %s", (text, path, to, expected) => {
  expect(renamedIn(text, ["rated power", "list", "plants"], path, to)).toBe(expected);
});

test("the tests of a cell are renamed as well", () => {
  expect(renamedIn("> limit, [limit..2 * limit)", [], ["limit"], "upper limit", "tests")).toBe(
    "> upper limit, [upper limit..2 * upper limit)",
  );
});
