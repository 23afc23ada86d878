import { expect, test } from "vitest";
import { documentText, openDocument, withTestCases } from "../decisions";
import { decision, dmn, inputData, table } from "../decisions/testing/tables";
import { expectOk } from "../testing/models";
import { decisionsHtml, packedDecisions } from "./decisions";

const opened = expectOk(
  openDocument(
    new TextEncoder().encode(
      dmn(
        inputData("power", "number") +
          decision(
            "size",
            table(["power: number"], ["r"], ['< 10 -> "small <1>"', '>= 10 -> "large"']),
            "",
            "plant size",
          ),
      ),
    ),
  ),
);
const content = documentText(
  withTestCases(opened, "size", [
    { name: "small", given: { power: 3 }, expected: "small <1>" },
    { name: "edge", given: { power: 10 }, expected: "small <1>" },
    { name: "wrong", given: { power: "much" }, expected: "large" },
  ]),
);

test("a package says what its decisions are, and how their test cases go", () => {
  const [packed] = packedDecisions([{ id: "f", content }]);
  expect(packed).toMatchObject({
    file: "f",
    part: "decisions/1.dmn",
    decisions: [{ id: "size", name: "plant size", tests: 3 }],
  });
  expect(packed?.decisions[0]?.failing).toEqual([
    { given: "power 10", expected: '"small <1>"', got: '"large"' },
    { given: 'power "much"', expected: '"large"', got: expect.stringMatching(/is no number/) },
  ]);
  const html = decisionsHtml(packed ? [packed] : []);
  expect(html).toContain("1 of 3 test cases pass");
  expect(html).toContain("small &lt;1&gt;");
  expect(html).not.toContain("<1>");
});

test("a file that cannot be read is named all the same; without any there is nothing to say", () => {
  expect(packedDecisions([{ id: "f", content: "<a/>" }])).toEqual([
    { file: "f", part: "decisions/1.dmn", name: "", decisions: [] },
  ]);
  expect(decisionsHtml([])).toBe("");
});
