import { type DecisionFileText, modelOf, openDocument, runTestCases, shownValue, testCasesOf } from "../decisions";
import { escapeText } from "../xml";

/** A file of decisions in a package: which part it is, what it decides, and how its test cases go. */
export interface PackedDecisions {
  /** Its id in the workspace, by which the model's business rule tasks name it. */
  readonly file: string;
  readonly part: string;
  readonly name: string;
  readonly decisions: readonly {
    readonly id: string;
    readonly name: string;
    readonly tests: number;
    /** Those that come to something else: what is given, what should come out, what does. */
    readonly failing: readonly { readonly given: string; readonly expected: string; readonly got: string }[];
  }[];
}

/** What a package says of the decisions that go with it. */
export const packedDecisions = (files: readonly DecisionFileText[]): PackedDecisions[] =>
  files.map(({ id, content }, at) => {
    const opened = openDocument(new TextEncoder().encode(content));
    const part = `decisions/${at + 1}.dmn`;
    if (!opened.ok) return { file: id, part, name: "", decisions: [] };
    const model = modelOf(opened.value);
    return {
      file: id,
      part,
      name: model.name,
      decisions: [...model.decisions.values()].map((decision) => {
        const outcomes = runTestCases(model, decision, testCasesOf(opened.value, decision.id));
        return {
          id: decision.id,
          name: decision.name,
          tests: outcomes.length,
          failing: outcomes
            .filter(({ isPassed }) => !isPassed)
            .map(({ test, got }) => ({
              given: Object.entries(test.given)
                .map(([input, value]) => `${input} ${shownValue(value)}`)
                .join(", "),
              expected: shownValue(test.expected),
              got: got.problems.join(" ") || shownValue(got.result),
            })),
        };
      }),
    };
  });

/** The part of a report about decisions; nothing where there are none. */
export function decisionsHtml(files: readonly PackedDecisions[]): string {
  const text = escapeText;
  const rows = files.flatMap(({ name, part, decisions }) =>
    decisions.map(
      (one) =>
        `<tr><td>${text(one.name)}</td><td>${text(name)} (<code>${part}</code>)</td><td>${one.tests - one.failing.length} of ${one.tests} test cases pass${one.failing.map(({ given, expected, got }) => `<br>✕ ${text(given)}: should be ${text(expected)}, comes to ${text(got)}`).join("")}</td></tr>`,
    ),
  );
  if (rows.length === 0) return "";
  return `<h2>Decisions</h2><table><thead><tr><th>Decision</th><th>File</th><th>Test cases</th></tr></thead><tbody>${rows.join("")}</tbody></table>`;
}
