import { describe, expect, test } from "vitest";
import { expectOk } from "../../testing/models";
import { buildAll } from "../buildAll";
import { emptyBrief } from "../document";
import { markedText } from "../markedText";
import { factsHeld } from "./facts";
import { measure, totalOf, withoutMarks } from "./measure";

const text =
  "When [trigger: a [party: household] applies], the [role: desk] [activity: checks [decision: whether the form is complete]]. If not, the desk [activity: asks the household]. The household [activity: answers] [time: within ten days]. Otherwise [result: the case is closed]. The [role: crew] [activity: builds the plant] while the desk [activity: writes the [document: bill]] in the [system: ledger].";
const built = () => expectOk(buildAll({ ...emptyBrief, document: markedText(text) }, false)).map(({ model }) => model);

/** A measure that says yes to everything would measure nothing: each kind of fact has to be able to fail. */
describe("facts of the corpus", () => {
  test.each([
    ["start message", "start timer"],
    ["lane Desk", "lane Office"],
    ["pool Household", "pool Insurer"],
    ["do Desk: check form", "do Crew: check form"],
    ["from Household: answer", "from Household: check form"],
    ["to Household: ask", "to Household: build plant"],
    ["ask form complete: no > ask household", "ask form complete: yes > ask household"],
    ["next ask household > answer", "next answer > ask household"],
    ["late P10D answer > END", "late P11D answer > END"],
    ["both build plant | write bill", "both check form | write bill"],
    ["out bill @ write bill", "in bill @ write bill"],
    ["use ledger @ write bill", "use ledger @ build plant"],
    ["steps 5", "steps 6"],
  ])("%s holds, and %s does not", (right, wrong) => {
    const held = (line: string) => factsHeld(built(), line).find((fact) => fact.line === line)?.holds;
    expect(held(right)).toBe(true);
    expect(held(wrong)).toBe(false);
  });

  test("what is too much fails as what is missing does", () => {
    const facts = factsHeld(built(), "lane Desk\npool Household\nstart message");
    expect(facts.filter(({ holds }) => !holds).map(({ line }) => line)).toEqual(["no lane Crew"]);
  });

  test("a line that means nothing is told", () => {
    expect(() => factsHeld(built(), "perhaps something")).toThrow("perhaps something");
    expect(() => factsHeld(built(), "do nobody")).toThrow('needs ":"');
  });

  test("a text that is read as it was marked has every mark and fact right; another has not", () => {
    const facts = "start message\nlane Desk\nlane Crew\npool Household\nsteps 5";
    const right = totalOf([measure(`${text}\n--- facts\n${facts}`)]);
    expect(right.marked.share).toBe(1);
    const wrong = totalOf([measure(`${text.replace("[role: crew]", "[system: crew]")}\n--- facts\n${facts}`)]);
    expect(wrong.marked.share).toBeLessThan(1);
    expect(wrong.marks.share).toBeLessThan(right.marks.share);
    expect(withoutMarks("The [role: desk] [activity: signs [document#x: it]].")).toBe("The desk signs it.");
  });
});
