import { expect, test } from "vitest";
import { checkModel, keyOf } from "../check";
import type { Model } from "../model";
import { performAll, smallModel } from "../testing/models";
import { changeGroups, compareModels, type Fault, outcomeOf, startToBe, takeOver, withNeeded } from ".";

const faultsOf = (model: Model): Fault[] =>
  checkModel(model)
    .filter(({ severity }) => severity === "error")
    .map((finding) => ({ key: keyOf(finding), message: finding.message }));

/** check → decide(or) → approve | reject → ends; in the to-be the decision is a parallel split, and a parallel join closes it. */
function splitAndJoin() {
  const from = performAll(
    smallModel(),
    { type: "delete", ids: ["done", "rejected"].filter((id) => smallModel().elements.has(id)) },
    { type: "append", diagram: "page", from: "approve", id: "join", flow: "fa", kind: { type: "exclusiveGateway" } },
    { type: "connect", diagram: "page", id: "fr", source: "reject", target: "join" },
    {
      type: "append",
      diagram: "page",
      from: "join",
      id: "end",
      flow: "fe",
      kind: { type: "endEvent" },
      name: "Decided",
    },
  );
  const to = performAll(
    startToBe(from),
    { type: "retype", id: "decide", to: "parallelGateway" },
    { type: "retype", id: "join", to: "parallelGateway" },
    { type: "rename", id: "check", name: "Look it through" },
  );
  return { from, to };
}

test("a split without its join is told before, and the join is what has to come along; a name is not", () => {
  const { from, to } = splitAndJoin();
  const comparison = compareModels(from, to);
  const groups = changeGroups(from, to, comparison);
  const request = { from, to, pairs: comparison.pairs, groups, into: "from" as const };
  const keyOfChange = (id: string) =>
    groups.find((group) => group.changes.some((change) => change.from?.id === id))?.key as string;
  const keys = withNeeded(request, [keyOfChange("decide")]);
  const taken = takeOver(request, keys);
  if (!taken.ok) throw new Error(taken.message.text);
  const outcome = outcomeOf(request, keys, taken, faultsOf);
  if (keyOfChange("join") !== keyOfChange("decide")) {
    expect(outcome.faults.map(({ key }) => key)).toEqual([expect.stringMatching(/^lack-of-synchronization:/)]);
    expect(outcome.along).toEqual([keyOfChange("join")]);
  }
  const all = takeOver(request, [...keys, ...outcome.along]);
  if (!all.ok) throw new Error(all.message.text);
  expect(faultsOf(all.model)).toEqual(faultsOf(to));
});

test("what makes nothing wrong is taken as it is", () => {
  const { from, to } = splitAndJoin();
  const comparison = compareModels(from, to);
  const groups = changeGroups(from, to, comparison);
  const request = { from, to, pairs: comparison.pairs, groups, into: "from" as const };
  const name = groups.find((group) => group.changes.some((change) => change.from?.id === "check"))?.key as string;
  const taken = takeOver(request, [name]);
  if (!taken.ok) throw new Error(taken.message.text);
  expect(outcomeOf(request, [name], taken, faultsOf)).toEqual({ faults: [], along: [] });
});
