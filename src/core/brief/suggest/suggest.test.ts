import { describe, expect, test } from "vitest";
import { markedText } from "../markedText";
import { readBrief } from "../sentences";
import { refusalOf, suggestMarks } from "./suggest";

const marks = (text: string) =>
  suggestMarks(readBrief(markedText(text)), [], []).map(({ kind, text: words }) => `${kind}: ${words}`);
const of = (kind: string, text: string) =>
  marks(text).flatMap((mark) => (mark.startsWith(`${kind}: `) ? [mark.slice(kind.length + 2)] : []));

describe("who takes part", () => {
  test.each<[string, string[], string[]]>([
    ["whoever asks for the work is outside, whatever it is called", ["clerk"], ["rider"]],
  ])("%s", (_, roles, parties) => {
    const text = "When a rider brings a bicycle, the clerk writes a ticket.";
    expect(of("role", text)).toEqual(roles);
    expect(of("party", text)).toEqual(parties);
  });

  test.each<[string, string[], string[]]>([
    ["When a foreman asks for a machine, the buyer requests quotations.", ["foreman", "buyer"], []],
    ["When a complaint comes in, the patrol measures the noise.", ["patrol"], []],
    ["When a meter reaches its age limit, the planner proposes a date.", ["planner"], []],
    ["When a visitor rings, the porter opens the door and the host greets him.", ["porter", "host"], ["visitor"]],
    ["Every morning the nurse orders the drug from the pharmacy. The pharmacy delivers it.", ["nurse"], ["pharmacy"]],
    ["When an order comes in, the head of department signs the order.", ["head of department"], []],
    ["When a batch is finished, the sample is tested by the laboratory.", ["laboratory"], []],
  ])("%s", (text, roles, parties) => {
    expect(of("role", text)).toEqual(roles);
    expect(of("party", text)).toEqual(parties);
  });

  test("little words and parts of names are never marked", () => {
    const text =
      "When a customer calls, the head of the department takes the order. He is the one who knows. The order goes to the warehouse.";
    for (const mark of marks(text)) expect(mark).not.toMatch(/: (?:the|head|he|one|it|of|who)$/i);
  });
});

describe("what is done, asked, waited for and reached", () => {
  const text =
    "When a household applies for a plant, the front desk registers the application in the case register and checks whether it is complete. If papers are missing, the desk asks the household for them. The household sends them within ten days; otherwise the application lapses. The field crew must visit the site until it is ready.";

  test("activities are verb and object, without the system, the time and the auxiliary", () => {
    expect(of("activity", text)).toEqual([
      "registers the application",
      "checks whether it is complete",
      "asks the household for them",
      "sends them",
      "visit the site",
    ]);
    expect(of("system", text)).toEqual(["case register"]);
    expect(of("time", text)).toEqual(["within ten days"]);
    expect(of("result", text)).toEqual(["the application lapses"]);
    expect(of("decision", text)).toEqual(["it is complete", "papers are missing", "it is ready"]);
    expect(of("trigger", text)).toEqual(["a household applies for a plant"]);
  });

  test.each([
    ["If not, the clerk calls."],
    ["Otherwise the clerk calls."],
    ["If there is no answer by then, the clerk calls."],
    ["If it is, the clerk calls."],
  ])("an answer is no question: %s", (text) => expect(of("decision", text)).toEqual([]));

  test.each([
    ["Every night at 2:00, billing reads the meters.", "Every night at 2:00"],
    ["Once a month the sampler takes a sample.", "Once a month"],
    ["The nursery orders seeds by mail. The seed bank registers the order.", "The nursery orders seeds by mail"],
  ])("what sets it off: %s", (text, trigger) => expect(of("trigger", text)).toEqual([trigger]));

  test("what is said before the work begins is no work", () => {
    expect(
      of("activity", "A tailor runs this shop alone. When a customer brings a coat, the tailor measures it."),
    ).toEqual(["measures it"]);
  });
});

describe("what was refused", () => {
  const text =
    "When a rider calls, the front desk writes a ticket. The desk files it. The workshop desk repairs the bicycle.";
  const left = (...refused: readonly string[]) =>
    suggestMarks(readBrief(markedText(text)), [], refused).flatMap(({ kind, text: words }) =>
      kind === "role" ? [words] : [],
    );

  test("is not offered again, nor by its short name; others of that name are", () => {
    expect(left()).toEqual(["front desk", "workshop desk"]);
    expect(left(refusalOf("role", "front desk"))).toEqual(["workshop desk"]);
    expect(left(refusalOf("role", "Front Desk"), refusalOf("role", "workshop desk"))).toEqual([]);
  });

  test("as one kind may still be another one", () => {
    expect(left(refusalOf("party", "front desk"))).toEqual(["front desk", "workshop desk"]);
  });
});
