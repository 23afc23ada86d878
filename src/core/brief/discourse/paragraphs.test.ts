import { expect, test } from "vitest";
import { emptyBrief } from "../document";
import { framesOf } from "../frames";
import { markAll } from "../markAll";
import { markedText } from "../markedText";
import { readBrief } from "../sentences";
import { suggestMarks } from "../suggest/suggest";
import { outline } from "../testing/outline";

/** Texts nobody marked, as they are read: conditions tied by "and" and "or", and words that point back over a paragraph. */
const read = (text: string) => {
  const plain = markedText(text);
  const content = { ...emptyBrief, document: markAll(plain, suggestMarks(readBrief(plain), [], [])) };
  return framesOf(readBrief(content.document), content)[0];
};

test.each([
  [
    "the question of a new paragraph is asked where what it is about was done",
    "When an application arrives, the front desk checks the papers. If the signature is missing or the plan is out of date, the front desk asks the household for new papers. Otherwise the network engineer checks the feeder capacity.\n\nIf it is too low, the network engineer plans a reinforcement. Otherwise the front desk confirms the connection.\n\nThis letter is then filed by billing.",
    [
      "Check papers (Front desk)",
      "Signature missing or plan out of date?",
      // As long as nobody says where.
      "  yes ↺ Check papers",
      "    Ask household for new papers (Front desk)",
      "  no",
      "    Check feeder capacity (Network engineer)",
      "    Feeder capacity too low?",
      "      yes",
      "        Plan reinforcement (Network engineer)",
      "      no",
      "        Confirm connection (Front desk)",
      "File letter (Billing)",
    ],
    ['Where does it go on after "Ask household for new papers"?'],
  ],
  [
    "who is meant by he is a person, and what was done is waited for by nobody",
    "When a meter reading arrives, billing compares it with last year. If the reading is higher than last year and the household is not on holiday, billing sends a query to the household. Once this has been done, billing writes the invoice.\n\nThe network engineer checks the invoice. If he rejects it, billing corrects it. He then signs it.",
    [
      "Compare meter reading with last year (Billing)",
      "Reading higher than last year and household not on holiday?",
      "  yes",
      "    Send query to household (Billing)",
      "  no",
      "Write invoice (Billing)",
      "Check invoice (Network engineer)",
      "Invoice rejected?",
      "  yes",
      "    Correct invoice (Billing)",
      "  no",
      "Sign invoice (Network engineer)",
    ],
    [],
  ],
])("%s", (_, text, lines, asked) => {
  const frame = read(text);
  expect(outline(frame?.items ?? [])).toEqual(lines);
  expect(frame?.open.map(({ question }) => question.text)).toEqual(asked);
});
