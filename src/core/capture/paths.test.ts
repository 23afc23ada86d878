import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { brokenInvariants, type EventTrigger, incomingOf, isEvent, type Model, nameOf, triggerOf } from "../model";
import { expectOk, startModel } from "../testing/models";
import { sheetText } from "../testing/sheetReading";
import {
  addBefore,
  addBehind,
  addDecision,
  addFirstStep,
  addMeanwhile,
  addParallel,
  addPath,
  canBeLedTo,
  cellsOf,
  type Draft,
  fillCells,
  filledRows,
  filledSteps,
  happeningsFor,
  leadTo,
  moveRow,
  type PathGoal,
  plan,
  removeRow,
  type StepRow,
  stepSheetOf,
} from ".";

const today = "2026-11-28";
const sheet = (model: Model) => stepSheetOf(model, "process");
const text = (model: Model) => sheetText(model, sheet(model));
let made = 0;
const newId = (of: string) => `${of}-${++made}`;
const planned = (model: Model, make: (draft: Draft) => unknown) =>
  expectOk(plan(model, newId, (draft) => void make(draft) as undefined)).model;
const refused = (model: Model, make: (draft: Draft) => unknown) => {
  const done = plan(model, newId, (draft) => void make(draft) as undefined);
  return done.ok ? "not refused" : done.problems[0]?.code;
};
const rowNamed = (model: Model, name: string) =>
  sheet(model).findIndex((row) => {
    if (row.kind === "step") return nameOf(model, row.element) === name;
    return row.kind === "path" && nameOf(model, row.flow) === name;
  });
const idNamed = (model: Model, name: string) =>
  (sheet(model)[rowNamed(model, name)] as StepRow & { element: string }).element;
const lead = (model: Model, from: string | number, goal: PathGoal) =>
  planned(model, (draft) => leadTo(draft, sheet(model), typeof from === "number" ? from : rowNamed(model, from), goal));
const behind = (model: Model, name: string, next: string) =>
  planned(model, (draft) => addBehind(draft, sheet(model), rowNamed(model, name), { type: "task" }, next));

/** Register, Check, "Complete?" with "no" to an end of its own, File. */
function withDecision(): Model {
  let model = planned(startModel(), (draft) => addFirstStep(draft, "process", "page", "Register"));
  model = behind(model, "Register", "Check");
  model = behind(model, "Check", "File");
  return planned(model, (draft) =>
    addDecision(draft, sheet(model), rowNamed(model, "Check"), { question: "Complete?", usual: "yes", other: "no" }),
  );
}

describe("where a path leads", () => {
  test.each<[string, (model: Model) => Model, string]>([
    [
      "back to a row, from the answer itself",
      (model) => lead(model, "no", { step: idNamed(model, "Register") }),
      `- startEvent
1 Register
2 Check
3 Complete?
> no
   back to Register
> yes [main]
4 File
- endEvent`,
    ],
    [
      "on to a later row, where the ways then join",
      (model) => lead(model, "no", { step: idNamed(model, "File") }),
      `- startEvent
1 Register
2 Check
3 Complete?
> yes
   -> File
> no
4 File
- endEvent`,
    ],
    [
      "from the last step of the path, back",
      (model) => {
        const asked = behind(model, "no", "Ask again");
        return lead(asked, "Ask again", { step: idNamed(asked, "Check") });
      },
      `- startEvent
1 Register
2 Check
3 Complete?
> no
   3a1 Ask again
   back to Check
> yes [main]
4 File
- endEvent`,
    ],
    [
      "to an end that is named in the same gesture",
      (model) => lead(model, "no", { end: "Turned away" }),
      `- startEvent
1 Register
2 Check
3 Complete?
> no
   - Turned away
> yes [main]
4 File
- endEvent`,
    ],
    [
      "back, and then to an end again",
      (model) => {
        const back = lead(model, "no", { step: idNamed(model, "Register") });
        return lead(back, "no", { end: "Turned away" });
      },
      `- startEvent
1 Register
2 Check
3 Complete?
> no
   - Turned away
> yes [main]
4 File
- endEvent`,
    ],
  ])("%s", (_, change, expected) => {
    const model = change(withDecision());
    if (expected.includes("->")) {
      // The two ways meet in "File": neither has an end of its own any more.
      expect(text(model)).toContain("File");
      expect(sheet(model).filter((row) => row.kind === "step" && row.number === "").length).toBe(2);
    } else expect(text(model)).toBe(expected);
    expect(brokenInvariants(model)).toEqual([]);
  });

  test("the end's row takes a name", () => {
    const model = withDecision();
    const end = sheet(model).findIndex((row) => row.kind === "step" && row.depth === 1);
    expect(text(lead(model, end, { end: "Refused" }))).toContain("- Refused");
  });

  test("steps that nothing would lead to any more are not left behind", () => {
    const model = behind(withDecision(), "Register", "Sort");
    const at = rowNamed(model, "Register");
    expect(refused(model, (draft) => leadTo(draft, sheet(model), at, { end: "" }))).toBe("left-behind");
    expect(refused(model, (draft) => leadTo(draft, sheet(model), at, { step: idNamed(model, "Check") }))).toBe(
      "left-behind",
    );
    const question = rowNamed(model, "Complete?");
    expect(refused(model, (draft) => leadTo(draft, sheet(model), question, { end: "" }))).toBe("several-ways");
  });

  test("a path led out of a parallel block leaves no join with a single way in", () => {
    let model = planned(startModel(), (draft) => addFirstStep(draft, "process", "page", "Pick"));
    model = planned(model, (draft) => addParallel(draft, sheet(model), rowNamed(model, "Pick"), "Pack"));
    model = lead(model, "Pack", { end: "Packed" });
    expect(text(model)).not.toContain("parallelGateway\n-");
    for (const row of sheet(model))
      if (row.kind === "step" && model.elements.get(row.element)?.type === "parallelGateway")
        expect(sheet(model).filter((other) => other.kind === "path" && other.of === row.element).length).toBe(2);
  });

  test("nothing is led to a beginning or to what happens at an edge", () => {
    let model = withDecision();
    model = planned(model, (draft) =>
      addMeanwhile(
        draft,
        idNamed(model, "Check"),
        { trigger: "timerEventDefinition", goesOn: false },
        { typed: "2 days", today },
      ),
    );
    const can = sheet(model).flatMap((row) =>
      row.kind === "step" && canBeLedTo(model, row.element) ? row.element : [],
    );
    for (const id of can) expect(["startEvent", "boundaryEvent"]).not.toContain(model.elements.get(id)?.type);
    expect(canBeLedTo(model, "nobody")).toBe(false);
  });
});

describe("what may happen meanwhile", () => {
  test.each<[string, EventTrigger]>([
    ["2 days", "timerEventDefinition"],
    ["after 3 working days", "timerEventDefinition"],
    ["every Monday", "timerEventDefinition"],
    ["Customer withdraws", "messageEventDefinition"],
    ["Printer is broken", "errorEventDefinition"],
    ["Meter cannot be read", "errorEventDefinition"],
  ])("“%s” is first taken for a %s", (typed, trigger) => {
    const offered = happeningsFor(typed, today);
    expect(offered[0]).toEqual({ trigger, goesOn: false });
    // Each once; an error always breaks the step off.
    expect(new Set(offered.map((one) => JSON.stringify(one))).size).toBe(offered.length);
    expect(offered).not.toContainEqual({ trigger: "errorEventDefinition", goesOn: true });
  });

  test("it stands at the edge of its step, with a path that ends until it goes on", () => {
    const before = withDecision();
    for (const happening of happeningsFor("2 days", today)) {
      const model = planned(before, (draft) =>
        addMeanwhile(draft, idNamed(before, "Check"), happening, { typed: "2 days", today }),
      );
      const event = [...model.elements].find(({ type }) => type === "boundaryEvent");
      expect(event).toMatchObject({ attachedToRef: idNamed(before, "Check"), name: "2 days" });
      expect(event && triggerOf(model, event)).toBe(happening.trigger);
      expect(event?.cancelActivity === false).toBe(happening.goesOn);
      expect(brokenInvariants(model)).toEqual([]);
      if (happening.trigger === "timerEventDefinition") expect(cellsOf(model, event?.id ?? "").waits).toBe("2 days");
      const at = rowNamed(model, "2 days");
      expect(sheet(model)[at + 1]).toMatchObject({ kind: "step", depth: 1 });
      const longer = planned(model, (draft) => addBehind(draft, sheet(model), at, { type: "task" }, "Remind"));
      expect(text(longer)).toMatch(/2 days \[edge\]\n +2a1 Remind/);
    }
  });

  test("a beginning has no edge: refused, in words", () => {
    const model = withDecision();
    const start = sheet(model)[0] as StepRow & { element: string };
    expect(
      refused(model, (draft) =>
        addMeanwhile(draft, start.element, { trigger: "messageEventDefinition", goesOn: true }, { typed: "x", today }),
      ),
    ).toBe("boundary-host");
  });
});

describe("pasted cells", () => {
  const resolve = (kind: string, name: string) => ({ entry: `${kind}-${name}`, name });
  const filled = (model: Model, from: string, table: string[][], columns: Parameters<typeof filledSteps>[3]) =>
    planned(model, (draft) =>
      fillCells(
        draft,
        filledSteps(model, filledRows(model, sheet(model), rowNamed(model, from), table.length), table, columns),
        resolve,
      ),
    );

  test("fill a block of columns downwards, over questions and ends", () => {
    const model = filled(
      withDecision(),
      "Check",
      [["Front desk", "Case register"], ["Billing"], ["Nobody"]],
      ["by", "uses"],
    );
    const cells = (name: string) => cellsOf(model, idNamed(model, name));
    expect(cells("Check").by.map(({ name }) => name)).toEqual(["Front desk"]);
    expect(cells("Check").uses.map(({ name }) => name)).toEqual(["Case register"]);
    expect(cells("File").by.map(({ name }) => name)).toEqual(["Billing"]);
    expect(cells("Register").by.map(({ name }) => name)).not.toContain("Billing");
  });

  test("what cannot be read names the step, and nothing is written", () => {
    const model = withDecision();
    const write = (columns: Parameters<typeof filledSteps>[3], value: string) => {
      const steps = filledRows(model, sheet(model), rowNamed(model, "Check"), 1);
      return plan(model, newId, (draft) => fillCells(draft, filledSteps(model, steps, [[value]], columns), resolve));
    };
    const cost = write(["cost"], "much");
    expect(cost.ok ? "" : cost.problems[0]?.message).toContain('The cost of "Check" is "much"');
    expect(write(["time"], "soon").ok).toBe(false);
    expect(write(["time"], "20 min").ok).toBe(true);
    expect(refused(model, (draft) => fillCells(draft, [], resolve))).toBe("nothing-to-fill");
  });
});

describe("whatever is done in a sheet", () => {
  const step = fc.tuple(fc.nat(9), fc.nat(40), fc.nat(40));

  test("no end is left that nothing leads to, and no step that nothing leads to", () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (script) => {
        let model = withDecision();
        for (const [what, one, other] of script) {
          const rows = sheet(model);
          const at = one % rows.length;
          const row = rows[at] as StepRow;
          const goals = rows.flatMap((row) =>
            row.kind === "step" && canBeLedTo(model, row.element) ? row.element : [],
          );
          const element = row.kind === "step" ? row.element : undefined;
          // What begins a process may be deleted on purpose; that is not looked at here.
          if (element && model.elements.get(element)?.type === "startEvent") continue;
          const done = plan(model, newId, (draft) => {
            switch (what) {
              case 0:
                return addBehind(draft, rows, at, { type: "task" }, "New");
              case 1:
                return addBefore(draft, rows, at, { type: "task" }, "New");
              case 2:
                return addDecision(draft, rows, at, { question: "Fine?", usual: "yes", other: "no" });
              case 3:
                return addParallel(draft, rows, at, "Beside");
              case 4:
                return element ? addPath(draft, element, "otherwise") : undefined;
              case 5:
                return moveRow(draft, "process", rows, at, other % 2 ? "up" : "down");
              case 6:
                removeRow(draft, rows, at);
                return undefined;
              case 7:
                leadTo(draft, rows, at, { end: "Over" });
                return undefined;
              case 8:
                leadTo(draft, rows, at, { step: goals[other % goals.length] ?? "" });
                return undefined;
              default:
                return (
                  element &&
                  addMeanwhile(
                    draft,
                    element,
                    { trigger: "messageEventDefinition", goesOn: false },
                    { typed: "x", today },
                  )
                );
            }
          });
          if (!done.ok) continue;
          model = done.value.model;
          expect(brokenInvariants(model)).toEqual([]);
          for (const { kind, ...shown } of sheet(model)) {
            if (kind !== "step" || !("lead" in shown)) continue;
            const node = model.elements.get(shown.element);
            if (node && isEvent(node.type) && node.type === "endEvent")
              expect(incomingOf(model, node.id).length).toBeGreaterThan(0);
            expect(shown.lead).not.toBe("apart");
          }
        }
      }),
      { numRuns: 120 },
    );
  });
});
