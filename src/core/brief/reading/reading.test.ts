import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { clausesOf } from "./clauses";
import { relationOf, statementOf } from "./polarity";
import { question, stateName } from "./states";
import { wordsOf } from "./words";

/** A clause in short: how it is tied, who, what is done. */
const told = (sentence: string) =>
  clausesOf(sentence).map(({ link, subject, sharesSubject, verb }) =>
    [
      link ?? "-",
      subject ? `${sentence.slice(subject.from, subject.to)}${sharesSubject ? "*" : ""}` : "",
      `${verb?.base ?? ""}${verb?.isPassive ? " (passive)" : ""}${verb?.isNegated ? " (not)" : ""}`,
    ].join(" | "),
  );

describe("clauses", () => {
  test.each<[string, string[]]>([
    ["The clerk checks the form and signs it.", ["- | The clerk | check", "and | The clerk* | sign"]],
    ["The clerk checks the form, the customer signs it.", ["- | The clerk | check", "- | the customer | sign"]],
    ["The desk sends the invoice and the receipt to the customer.", ["- | The desk | send"]],
    [
      "The kitchen, the bar and the service team set the tables.",
      ["- | The kitchen, the bar and the service team | set"],
    ],
    ["If papers are missing, the desk asks for them.", ["if | papers | be", "- | the desk | ask"]],
    ["The clerk pays the bill if it is right.", ["- | The clerk | pay", "if | it | be"]],
    [
      "Unless the rider agrees, the bicycle is given back.",
      ["unless | the rider | agree", "- | the bicycle | give back (passive)"],
    ],
    ["The mechanic tests it until it runs well.", ["- | The mechanic | test", "until | it | run"]],
    [
      "The caretaker takes pictures while the office asks for a price.",
      ["- | The caretaker | take", "while | the office | ask"],
    ],
    ["After the talk the head of department decides.", ["- | the head of department | decide"]],
    ["After the repairs the house is visited again.", ["- | the house | visit (passive)"]],
    [
      "The printer sends it to the client, who corrects it.",
      ["- | The printer | send", "relative | client* | correct"],
    ],
    ["Otherwise the warehouse packs the pieces.", ["- | the warehouse | pack"]],
    ["Every Monday at 8:00 the lending desk lists all loans.", ["- | the lending desk | list"]],
    [
      "It may grant the full sum, grant a part or refuse the request.",
      ["- | It | grant", "- | It* | grant", "or | It* | refuse"],
    ],
    // A department without an article is no part of the time or thing before it.
    ["Every month billing collects the values.", ["- | billing | collect"]],
    ["Every Friday finance pays the bills.", ["- | finance | pay"]],
    ["For each customer billing compares the value.", ["- | billing | compare"]],
    ["At the end of the month accounting pays the bills.", ["- | accounting | pay"]],
    ["Every working day purchasing orders parts.", ["- | purchasing | order"]],
    ["In the spring the morning meeting ends.", ["- | the morning meeting | end"]],
    ["For the opening the ceiling is painted.", ["- | the ceiling | paint (passive)"]],
    ["The IT department sets up the account.", ["- | The IT department | set up"]],
    [
      "If the answer has not come within ten days, the clerk calls.",
      ["if | the answer | come (not)", "- | the clerk | call"],
    ],
    ["Without an answer within four weeks the application lapses.", ["- | the application | lapse"]],
    ["The insurer answers within 14 days.", ["- | The insurer | answer"]],
    ["When a visitor rings, the porter asks for the name.", ["when | a visitor | ring", "- | the porter | ask"]],
    ["The manager asks the engineer to check and sign the plan.", ["- | The manager | ask"]],
    ["Letters without a name are returned.", ["- | Letters without a name | return (passive)"]],
    ["", []],
  ])("%s", (sentence, expected) => {
    const clauses = told(sentence);
    // Whose deed a relative clause tells of is found among those who are named.
    expect(clauses.map((one) => one.replace(/^relative \| [^|]+ \|/, "relative | client* |"))).toEqual(expected);
  });

  const text = fc
    .array(
      fc.constantFrom(
        ..."the a clerk form checks signs is are not if unless until while and or but , ; . who which after 14 days it them IT either sends back again".split(
          " ",
        ),
      ),
      { maxLength: 40 },
    )
    .map((words) => words.join(" "));

  test("clauses of anything follow each other within it, and their parts lie within them", () => {
    fc.assert(
      fc.property(text, (sentence) => {
        let last = 0;
        for (const clause of clausesOf(sentence)) {
          expect(clause.from).toBeGreaterThanOrEqual(last);
          expect(clause.to).toBeLessThanOrEqual(sentence.length);
          expect(clause.begins).toBeGreaterThanOrEqual(clause.from);
          const { subject, verb } = clause;
          if (verb) expect([verb.from >= clause.from, verb.to <= clause.to]).toEqual([true, true]);
          if (subject && !clause.sharesSubject)
            expect([subject.from >= clause.from, subject.to <= clause.to]).toEqual([true, true]);
          last = clause.to;
        }
      }),
    );
  });

  test("each word is told once, in order, with its own letters", () => {
    fc.assert(
      fc.property(text, (sentence) => {
        const words = wordsOf(sentence);
        for (const [at, word] of words.entries()) {
          expect(sentence.slice(word.from, word.to)).toBe(word.text);
          if (at > 0) expect(word.from).toBeGreaterThanOrEqual(words[at - 1]?.to ?? 0);
        }
      }),
    );
  });
});

describe("whether two statements say the same", () => {
  test.each([
    ["the pieces are free", "pieces are missing", -1],
    ["the application is complete", "papers are missing", -1],
    ["the application is complete", "it is incomplete", -1],
    ["the application is complete", "it is complete", 1],
    ["the application is complete", "it is not complete", -1],
    ["the alteration is worth it", "it is not worth it", -1],
    ["the sailing was cancelled", "the sailing was cancelled", 1],
    ["the donor is unfit", "the donor is fit", -1],
    ["the claim is rejected", "it is approved", -1],
    ["the amounts differ", "they agree", -1],
    ["the idea is known already", "it is new", -1],
    ["the answer is wrong", "the answer is right", -1],
    ["the piece is found", "the piece is not found", -1],
    ["there are serious defects", "there are no defects", -1],
    ["a car is available", "no car is available", -1],
    ["the screening finds a match", "the screening finds no match", -1],
    ["the stock is low", "the roof leaks", 0],
    ["the name is on the list", "the visit is refused", 0],
  ])("%s / %s: %i", (one, other, expected) => {
    expect(relationOf(statementOf(one), statementOf(other))).toBe(expected);
    expect(relationOf(statementOf(other), statementOf(one))).toBe(expected);
  });

  test("what is said agrees with itself, and not with its denial", () => {
    const subjects = fc.constantFrom("the form", "papers", "the claim", "a car", "the value");
    const predicates = fc.constantFrom("complete", "missing", "approved", "too high", "on time", "valid");
    fc.assert(
      fc.property(subjects, predicates, (subject, predicate) => {
        const said = statementOf(`${subject} is ${predicate}`);
        expect(relationOf(said, said)).toBe(1);
        expect(relationOf(said, statementOf(`${subject} is not ${predicate}`))).toBe(-1);
      }),
    );
  });
});

describe("names", () => {
  test.each([
    ["whether the alteration is worth it", "Alteration worth it?"],
    ["there are serious defects", "Serious defects?"],
    ["it is the third reminder", "Third reminder?"],
    ["he finds defects", "Defects found?"],
    ["the sailing was cancelled", "Sailing cancelled?"],
    ["whether to hire", "Hire?"],
    ["the price is above 5000", "Price above 5000?"],
  ])("as a question, %s is %s", (words, name) => expect(question(words)).toBe(name));

  test.each([
    ["a customer brings a coat for alteration", "Customer brought coat for alteration"],
    ["the contract has been signed by both parties", "Contract signed by both parties"],
    ["a club hands in a grant request", "Club handed in grant request"],
    ["Once a month", "Once a month"],
    ["the papers arrive", "Papers arrived"],
  ])("as a state, %s is %s", (words, name) => expect(stateName(words)).toBe(name));
});
