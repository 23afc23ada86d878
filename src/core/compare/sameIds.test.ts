import fc from "fast-check";
import { expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { brokenInvariants, type Model } from "../model";
import { commandScript, expectOk, runScript, smallModel } from "../testing/models";
import { compareModels, inIdsOf, matchElements, startToBe } from ".";

/** The same process with every id another. */
const withOtherIds = (model: Model): Model =>
  expectOk(
    readBpmn(
      [...model.elements]
        .map(({ id }) => id)
        .filter((id) => !id.startsWith("~"))
        .sort((a, b) => b.length - a.length)
        .reduce(
          (text, id) => text.replaceAll(`"${id}"`, `"${id}_2"`).replaceAll(`>${id}<`, `>${id}_2<`),
          writeBpmn(model),
        ),
    ),
  );

test("told in the ids of another, a model is whole, and differs in the same", () => {
  fc.assert(
    fc.property(commandScript(8), (script) => {
      const from = smallModel();
      const to = withOtherIds(runScript(startToBe(from), script));
      const pairs = matchElements(from, to, "counterpart");
      const { model, ids } = inIdsOf(from, to, pairs);
      expect(brokenInvariants(model)).toEqual([]);
      for (const [a, b] of pairs) expect(ids.get(b)).toBe(a);
      expect(new Set(ids.values()).size).toBe(ids.size);
      const [told, known] = [compareModels(from, model, "id"), compareModels(from, to, "counterpart")];
      const words = ({ changes }: typeof told) => changes.map((change) => change.words).sort();
      expect(words(told)).toEqual(words(known));
    }),
    { numRuns: 40 },
  );
});
