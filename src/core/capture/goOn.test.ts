import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import { brokenInvariants, type Id, incomingOf, type Model, nameOf, outgoingOf } from "../model";
import { expectOk, startModel } from "../testing/models";
import { sheetText } from "../testing/sheetReading";
import { addNext, giveAnswers, leadOn, openWay, plan, stepSheetOf } from ".";

const diagram = "page";
let made = 0;
const newId = (of: string) => `${of}-${++made}`;
type Type = "task" | "exclusiveGateway" | "endEvent" | "parallelGateway";

/** A drawing under way: what one has in hand while sketching. */
class Sketch {
  model: Model = startModel();
  at: Id = "start";
  constructor() {
    this.do({
      type: "place",
      diagram,
      id: "start",
      kind: { type: "startEvent" },
      at: { x: 120, y: 200 },
      name: "Asked",
    });
  }
  do(command: Parameters<typeof perform>[1]): this {
    this.model = expectOk(perform(this.model, command)).model;
    return this;
  }
  add(type: Type, name: string, from: Id = this.at): this {
    const { model, focus } = expectOk(
      plan(this.model, newId, (draft) => {
        const id = addNext(draft, { diagram, from }, { type });
        if (type === "exclusiveGateway") giveAnswers(draft, { diagram, from: id }, { usual: "yes", other: "no" });
        return id;
      }),
    );
    this.model = model;
    this.at = focus as Id;
    return this.do({ type: "rename", id: this.at, name });
  }
  lead(to: string, from: Id = this.at): this {
    this.model = expectOk(plan(this.model, newId, (draft) => leadOn(draft, { diagram, from }, to))).model;
    return this;
  }
  named(name: string): Id {
    return [...this.model.elements].find((one) => one.name === name)?.id ?? `no ${name}`;
  }
  get text(): string {
    return sheetText(this.model, stepSheetOf(this.model, "process"));
  }
}

describe("going on while one sketches", () => {
  test("a question comes with two answers that are still open; what is added behind it takes them, the usual one first", () => {
    const sketch = new Sketch().add("task", "Check").add("exclusiveGateway", "Complete?");
    const question = sketch.at;
    expect(outgoingOf(sketch.model, question).map((flow) => flow.name)).toEqual(["yes", "no"]);
    expect(sketch.model.elements.get(question)?.default).toBe(outgoingOf(sketch.model, question)[0]?.id);
    sketch.add("task", "File").add("endEvent", "Filed");
    sketch.add("task", "Ask again", question);
    expect(sketch.text).toBe(`- Asked
1 Check
2 Complete?
> no
   2a1 Ask again
   - endEvent
> yes [main]
3 File
- Filed`);
    // Led back, the way that was open ends nowhere else.
    sketch.lead(sketch.named("Check"));
    expect(sketch.text).toBe(`- Asked
1 Check
2 Complete?
> no
   2a1 Ask again
   back to Check
> yes [main]
3 File
- Filed`);
  });

  test("a third thing behind a question is a third way", () => {
    const sketch = new Sketch().add("exclusiveGateway", "Which?");
    const question = sketch.at;
    for (const name of ["One", "Other", "Third"]) sketch.add("task", name, question);
    expect(outgoingOf(sketch.model, question).map((flow) => nameOf(sketch.model, String(flow.targetRef)))).toEqual([
      "One",
      "Other",
      "Third",
    ]);
  });

  test("behind a step that leads on, a new one stands between; an end with a name is one that somebody meant", () => {
    const sketch = new Sketch().add("task", "Check").add("task", "File");
    sketch.add("task", "Sort", sketch.named("Check")).add("endEvent", "Done", sketch.named("File"));
    expect(sketch.text).toBe("- Asked\n1 Check\n2 Sort\n3 File\n- Done");
    expect(openWay(sketch.model, sketch.named("File"))).toBeUndefined();
    sketch.add("endEvent", "Given up", sketch.named("File"));
    expect(outgoingOf(sketch.model, sketch.named("File"))).toHaveLength(2);
  });

  test("a parallel gateway only gathers ways; none of them is named or usual", () => {
    const sketch = new Sketch().add("parallelGateway", "");
    const split = sketch.at;
    sketch.add("task", "Pick", split).add("task", "Pack", split);
    expect(outgoingOf(sketch.model, split)).toHaveLength(2);
    expect(sketch.model.elements.get(split)?.default).toBeUndefined();
  });

  test("whatever is added and led, nothing is left that no flow leads to, and the drawing stays whole", () => {
    const act = fc.tuple(
      fc.constantFrom<Type | "lead">("task", "exclusiveGateway", "endEvent", "lead"),
      fc.nat(20),
      fc.nat(20),
    );
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 14 }), (acts) => {
        const sketch = new Sketch().add("task", "First");
        for (const [what, one, other] of acts) {
          const nodes = [...sketch.model.elements].filter(({ type }) => /Event$|[tT]ask$|Gateway$/.test(type));
          const from = nodes[one % nodes.length];
          const to = nodes[other % nodes.length];
          if (!from || !to || from.type === "endEvent") continue;
          if (what !== "lead") {
            sketch.add(what, `${what} ${made}`, from.id);
          } else {
            const led = plan(sketch.model, newId, (draft) => leadOn(draft, { diagram, from: from.id }, to.id));
            if (led.ok) sketch.model = led.value.model;
          }
        }
        expect(brokenInvariants(sketch.model)).toEqual([]);
        for (const { id, type } of sketch.model.elements)
          if (/EndEvent$|endEvent|[tT]ask$|Gateway$/.test(type))
            expect(incomingOf(sketch.model, id).length).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    );
  });
});
