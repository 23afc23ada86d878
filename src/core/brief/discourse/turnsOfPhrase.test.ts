import { describe, expect, test } from "vitest";
import { emptyBrief } from "../document";
import { framesOf } from "../frames";
import { markedText } from "../markedText";
import { readBrief } from "../sentences";
import { outline } from "../testing/outline";
import { turnsOfPhrase } from "./rules";

describe.each(turnsOfPhrase.map((turn) => [turn.name, turn] as const))("%s", (_, turn) => {
  test.each(turn.examples.map(({ text, reads }) => [text, reads] as const))("%s", (text, reads) => {
    const content = { ...emptyBrief, document: markedText(text) };
    const [frame] = framesOf(readBrief(content.document), content);
    expect(outline(frame?.items ?? [], false)).toEqual(reads);
  });
});
