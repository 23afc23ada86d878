import fc from "fast-check";
import { expect, test } from "vitest";
import { commandScript, runScript, smallModel } from "../../testing/models";
import { kindsToBecome, kindWords, perform, possibleKinds } from "..";

test("what is offered is what is not refused when it is done in full", () => {
  fc.assert(
    fc.property(commandScript(12), fc.nat(), (script, choice) => {
      const model = runScript(smallModel(), script);
      const drawn = [...model.shapes].map(({ element }) => element);
      const element = model.elements.get(drawn[choice % drawn.length] ?? "");
      if (!element) return;
      const scope = model.elements.get("process");
      const said = (groups: ReturnType<typeof kindsToBecome>) => groups.flatMap(({ kinds }) => kinds.map(kindWords));
      const inFull = kindsToBecome(model, element, scope).map(({ title, kinds }) => ({
        title,
        kinds: kinds.filter((kind) => perform(model, { type: "replace", diagram: "page", id: element.id, kind }).ok),
      }));
      expect(said(possibleKinds(model, "page", element, scope))).toEqual(said(inFull));
    }),
    { numRuns: 10 },
  );
});
