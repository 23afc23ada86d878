import { describe, expect, test } from "vitest";
import { processVerdicts } from "../check";
import { brokenInvariants, flowNodesIn, incomingOf, laneOf, type Model, nameOf, outgoingOf } from "../model";
import { asksOf } from "./coverage";
import { type BriefContent, emptyBrief } from "./document";
import { type Frame, framesOf } from "./frames";
import { markedText } from "./markedText";
import { readBrief } from "./sentences";
import { builtInto, emptyProcess } from "./testing/built";
import { outline } from "./testing/outline";

const frameOf = (text: string, answers: BriefContent["answers"] = {}): Frame => {
  const content = { ...emptyBrief, document: markedText(text), answers };
  return framesOf(readBrief(content.document), content)[0] as Frame;
};
const questions = (text: string, answers?: BriefContent["answers"]) =>
  frameOf(text, answers).open.map(({ id, question }) => [id, question.text]);

const named = (model: Model, name: string) => {
  const found = [...model.elements].find((element) => element.name === name);
  if (!found) throw new Error(`Nothing is called "${name}".`);
  return found.id;
};
const next = (model: Model, name: string) =>
  outgoingOf(model, named(model, name)).map((flow) => model.elements.get(String(flow.targetRef)));

const refusal =
  "When [trigger: a [document: form] arrives], the [role: desk] [activity: reads the form]. If [decision: the form is wrong], the desk [activity: rejects the form]. The desk [activity: files the form].";
const deadline =
  "When [trigger: a [document: form] arrives], the [role: desk] [activity: asks the [party: household]]. The household [activity: answers] [time: within ten days]. Otherwise the desk [activity: calls the household]. The desk [activity: files the form].";
const nobody =
  "When [trigger: a [document: form] arrives], the [role: desk] [activity: reads the form].\n\n[activity: Copy the form].";

test.each([
  ["the desk or the crew", { "who:m5": "=Desk" }, "Desk"],
  ["the desk or the crew", { "who:m5": "=Crew" }, "Crew"],
  // As long as nobody answers, the last one is drawn.
  ["the desk or the crew", {}, "Crew"],
  ["either the desk or the crew", { "who:m5": "=Desk" }, "Desk"],
])("%s, answered by %o, is done by %s", (_, answers, lane) => {
  const text = `When [trigger: a [document: form] arrives], ${_.replace("desk", "[role: desk]").replace("crew", "[role: crew]")} [activity: reads the form]. The office closes.`;
  const [step] = frameOf(text, answers).items;
  expect(step?.kind === "step" && step.role?.name).toBe(lane);
});

describe("what a text leaves open", () => {
  test.each([
    ["a refusal after which nothing is said", refusal, ["ends:m6", 'Does "Reject form" end the case?']],
    ["an exception whose end is not said", deadline, ["after:m8", 'What comes after "Call household"?']],
    ["a step nobody does", nobody, ["who:m5", 'Who does "Copy form"?']],
    [
      "a step that either of two does",
      "When [trigger: a [document: form] arrives], the [role: desk] or the [role: crew] [activity: reads the form]. The desk [activity: files the form].",
      ["who:m5", 'Who does "Read form": Desk or Crew?'],
    ],
    [
      "a question with one answer",
      "When [trigger: a [document: form] arrives], the [role: desk] [activity: checks [decision: whether it is right]]. If not, the desk [activity: calls the office].",
      ["follows:m5", 'What follows where the answer to "Form right?" is yes?'],
    ],
    [
      "a question nobody answers",
      "When [trigger: a [document: form] arrives], the [role: desk] [activity: checks [decision: whether it is right]]. The desk [activity: files the form].",
      ["follows:m5", 'What follows from each answer to "Form right?"?'],
    ],
    [
      "an answer in words that are neither yes nor no",
      "When [trigger: a [document: form] arrives], the [role: desk] [activity: checks [decision: whether the form is signed]]. If [decision: the form is on blue paper], the desk [activity: calls the office].",
      ["which:m5:form on blue paper", 'Which answer to "Form signed?" is "form on blue paper"?'],
    ],
  ])("%s is asked", (_, text, expected) => {
    expect(questions(text)).toEqual([expected]);
    const frame = frameOf(text);
    expect(asksOf([frame])).toMatchObject([{ id: expected[0] }]);
    for (const { choices } of frame.open) expect(choices.length).toBeGreaterThan(0);
  });

  test("a text that says all leaves nothing open", () => {
    expect(
      questions(
        "When [trigger: a [document: form] arrives], the [role: desk] [activity: checks [decision: whether it is right]]. If not, the desk [activity: rejects the form] and [result: the case is closed]. The desk [activity: files the form].",
      ),
    ).toEqual([]);
  });

  test.each([
    [refusal, { "ends:m6": "ends" }, "  yes → Form rejected"],
    [refusal, { "ends:m6": "on" }, "  yes"],
    [deadline, { "after:m8": "ends" }, "  late: Ten days → Household called"],
    [deadline, { "after:m8": "again" }, "  late: Ten days ↺ Answered"],
    [nobody, { "who:m5": "=Desk" }, "Copy form (Desk)"],
  ])("an answer is drawn", (text, answers, line) => {
    const frame = frameOf(text, answers as unknown as BriefContent["answers"]);
    expect(frame.open).toEqual([]);
    expect(outline(frame.items)).toContain(line);
    const { model } = builtInto(frame, emptyProcess(), []);
    expect(brokenInvariants(model)).toEqual([]);
    expect(processVerdicts(model).map(({ sound }) => sound)).toEqual([true]);
  });

  test("answered after it was built, a path is led to an end of its own, and its join goes", () => {
    const before = builtInto(frameOf(refusal), emptyProcess(), []);
    expect(next(before.model, "Reject form")[0]?.type).toBe("exclusiveGateway");
    const after = builtInto(frameOf(refusal, { "ends:m6": "ends" }), before.model, before.built);
    expect(next(after.model, "Reject form")).toMatchObject([{ type: "endEvent", name: "Form rejected" }]);
    expect(
      next(after.model, "Form wrong?")
        .map((node) => node?.name)
        .sort(),
    ).toEqual(["File form", "Reject form"]);
    expect(brokenInvariants(after.model)).toEqual([]);
    for (const node of flowNodesIn(after.model, "process"))
      if (node.type === "exclusiveGateway" && !node.name)
        expect(incomingOf(after.model, node.id).length).toBeGreaterThan(1);
    // Answered once more the same, nothing is changed.
    expect(builtInto(frameOf(refusal, { "ends:m6": "ends" }), after.model, after.built).model).toBe(after.model);
  });

  test("answered after it was built, a path is led back to what it waits for", () => {
    const before = builtInto(frameOf(deadline), emptyProcess(), []);
    const after = builtInto(frameOf(deadline, { "after:m8": "again" }), before.model, before.built);
    expect(brokenInvariants(after.model)).toEqual([]);
    expect(processVerdicts(after.model).map(({ sound }) => sound)).toEqual([true]);
    const [join] = next(after.model, "Call household");
    expect(outgoingOf(after.model, join?.id ?? "").map((flow) => nameOf(after.model, String(flow.targetRef)))).toEqual([
      "Answered",
    ]);
    expect(next(after.model, "Answered").map((node) => node?.name)).toEqual(["File form"]);
    expect(builtInto(frameOf(deadline, { "after:m8": "again" }), after.model, after.built).model).toBe(after.model);
  });

  const refused = refusal.replace("rejects the form]", "asks the [party: household] for a new form]");
  test.each([
    ["it ends", refusal, { "ends:m6": "ends" }, { "ends:m6": "on" }],
    ["an exception ends", deadline, { "after:m8": "ends" }, { "after:m8": "on" }],
    ["an exception goes back", deadline, { "after:m8": "again" }, { "after:m8": "on" }],
    ["an exception goes back, then ends", deadline, { "after:m8": "again" }, { "after:m8": "ends" }],
    ["an exception ends, then goes back", deadline, { "after:m8": "ends" }, { "after:m8": "again" }],
    ["it goes back", refused, { "way:m6": "again" }, { "way:m6": "on" }],
  ])("an answer is taken back after it was built: %s", (_, text, first, then) => {
    const edges = (model: Model) => {
      const label = (id: unknown) => {
        const node = model.elements.get(String(id));
        return node?.name || node?.type;
      };
      return flowNodesIn(model, "process")
        .flatMap((node) => outgoingOf(model, node.id))
        .map((flow) => `${label(flow.sourceRef)} > ${flow.name ?? ""} > ${label(flow.targetRef)}`)
        .sort();
    };
    const answer = (answers: unknown) => frameOf(text, answers as BriefContent["answers"]);
    const built = builtInto(answer(first), emptyProcess(), []);
    const changed = builtInto(answer(then), built.model, built.built);
    const fresh = builtInto(answer(then), emptyProcess(), []);
    expect(brokenInvariants(changed.model)).toEqual([]);
    expect(edges(changed.model)).toEqual(edges(fresh.model));
    expect(builtInto(answer(then), changed.model, changed.built).model).toBe(changed.model);
    // And back again.
    const back = builtInto(answer(first), changed.model, changed.built);
    expect(edges(back.model)).toEqual(edges(built.model));
    expect(processVerdicts(back.model).map(({ sound }) => sound)).toEqual([true]);
  });

  test("answered after it was built, a step comes into the lane of who does it", () => {
    const before = builtInto(frameOf(nobody), emptyProcess(), []);
    const after = builtInto(frameOf(nobody, { "who:m5": "=Desk" }), before.model, before.built);
    const step = named(after.model, "Copy form");
    expect(nameOf(after.model, laneOf(after.model, step)?.id ?? "")).toBe("Desk");
  });
});

describe("built again after the text grew by a decision", () => {
  const plain =
    "When [trigger#t: a [document#d: form] arrives], the [role#r: desk] [activity#a1: reads the form]. The desk [activity#a2: copies the form]. The desk [activity#a3: files the form].";

  test.each([
    [
      "it goes round the steps it is about",
      plain.replace("The desk [activity#a2", "If [decision#d1: the form is long], the desk [activity#a2"),
      ["Copy form", "File form"],
      "File form",
    ],
    [
      "where they end, what follows is led past them",
      plain
        .replace("The desk [activity#a2", "If [decision#d1: the form is wrong], the desk [activity#a2")
        .replace("copies the form].", "copies the form] and [result#e: the case is closed]."),
      ["Copy form", "File form"],
      "Case closed",
    ],
  ])("%s", (_, grown, asked, behind) => {
    const before = builtInto(frameOf(plain), emptyProcess(), []);
    const after = builtInto(frameOf(grown), before.model, before.built);
    expect(brokenInvariants(after.model)).toEqual([]);
    expect(processVerdicts(after.model).map(({ sound }) => sound)).toEqual([true]);
    const decision = [...after.model.elements].find((element) => element.type === "exclusiveGateway" && element.name);
    const met = (id: string): (string | undefined)[] =>
      outgoingOf(after.model, id).flatMap((flow) => {
        const target = after.model.elements.get(String(flow.targetRef));
        return target?.type === "exclusiveGateway" ? met(target.id) : [target?.name];
      });
    expect(met(decision?.id ?? "").sort()).toEqual(asked);
    expect(met(named(after.model, "Copy form"))).toEqual([behind]);
    expect(met(named(after.model, "Read form")).sort()).toEqual(asked);
    expect(builtInto(frameOf(grown), after.model, after.built).model).toBe(after.model);
  });
});
