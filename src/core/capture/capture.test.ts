import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  brokenInvariants,
  elementsOfType,
  isFlowNode,
  type Model,
  nameOf,
  outgoingOf,
  processesOf,
  processOf,
} from "../model";
import { largeModel } from "../testing/largeModel";
import { commandScript, expectOk, performAll, runScript, smallModel, startModel } from "../testing/models";
import { flowsRead, sheetText } from "../testing/sheetReading";
import {
  addBefore,
  addBehind,
  addDecision,
  addFirstStep,
  addParallel,
  addPath,
  cellsOf,
  changeSplit,
  type Draft,
  giveRole,
  headOf,
  leadTo,
  moveRow,
  moveRowBehind,
  plan,
  removeRow,
  type StepRow,
  stepSheetOf,
} from ".";

const diagram = "page";
const sheet = (model: Model) => stepSheetOf(model, "process");
const text = (model: Model) => sheetText(model, sheet(model));
const flowsOf = (model: Model, process = "process") =>
  elementsOfType(model, "sequenceFlow")
    .filter((flow) => processOf(model, flow.id)?.id === process)
    .map((flow) => `${flow.sourceRef}>${flow.targetRef}`)
    .sort();

let made = 0;
const newId = (of: string) => `${of}-${++made}`;
const planned = (model: Model, make: (draft: Draft) => string | undefined) => expectOk(plan(model, newId, make)).model;
const rowOf = (rows: readonly StepRow[], id: string) => rows.findIndex((row) => row.id === id);
/** A model drawn row by row. */
function listed(...names: string[]): Model {
  let model = planned(startModel(), (draft) => addFirstStep(draft, "process", diagram, names[0] as string));
  for (const name of names.slice(1)) {
    const rows = sheet(model);
    model = planned(model, (draft) => addBehind(draft, rows, rows.length - 2, { type: "task" }, name));
  }
  return model;
}
const namesOf = (model: Model) =>
  sheet(model).flatMap((row) => (row.kind === "step" && nameOf(model, row.element)) || []);
const rowNamed = (model: Model, name: string) =>
  sheet(model).findIndex((row) => row.kind === "step" && nameOf(model, row.element) === name);

describe("the sheet shows the whole model", () => {
  test("each flow node has one row, and reading the rows gives the model's flows, in any model", () => {
    fc.assert(
      fc.property(commandScript(30), (script) => {
        const model = runScript(smallModel(), script);
        for (const process of processesOf(model)) {
          const rows = stepSheetOf(model, process.id);
          const shown = rows.flatMap((row) => (row.kind === "step" ? [row.element] : [])).sort();
          const nodes = [...model.elements]
            .filter((element) => isFlowNode(element.type) && processOf(model, element.id)?.id === process.id)
            .map((element) => element.id)
            .sort();
          expect(shown).toEqual(nodes);
          expect(flowsRead(model, rows)).toEqual(flowsOf(model, process.id));
        }
      }),
      { numRuns: 150 },
    );
  });

  test("a decision, the path that ends, and an event at an edge", () => {
    expect(text(smallModel())).toMatchInlineSnapshot(`
      "- Application received
      1 Check application
         - boundaryEvent [edge]
         1a1 Remind household
         stop
      2 Complete?
      > (no answer)
         2a1 Approve design
         - Approved
      > (no answer) [main]
      3 Reject application
      - Rejected"
    `);
  });

  test("paths that meet again stand indented before the step where they meet", () => {
    let model = listed("Check papers", "Book visit", "Inspect");
    model = planned(model, (draft) =>
      addParallel(draft, sheet(draft.model), rowNamed(draft.model, "Book visit"), "Order meter"),
    );
    expect(text(model)).toMatchInlineSnapshot(`
      "- startEvent
      1 Check papers
      2 parallelGateway
      > (no answer)
         2a1 Book visit
      > (no answer)
         2b1 Order meter
      - parallelGateway
      3 Inspect
      - endEvent"
    `);
  });

  test("a way back is a jump to a numbered row", () => {
    let model = listed("Register", "Check", "File");
    model = planned(model, (draft) =>
      addDecision(draft, sheet(draft.model), rowNamed(draft.model, "Check"), {
        question: "Complete?",
        usual: "yes",
        other: "no",
      }),
    );
    const rows = sheet(model);
    const end = rows.findIndex((row) => row.kind === "step" && row.depth === 1);
    const register = rows.find((row) => row.kind === "step" && nameOf(model, row.element) === "Register");
    model = planned(model, (draft) => {
      leadTo(draft, rows, end, { step: (register as StepRow & { kind: "step" }).element });
      return undefined;
    });
    expect(text(model)).toMatchInlineSnapshot(`
      "- startEvent
      1 Register
      2 Check
      3 Complete?
      > no
         back to Register
      > yes [main]
      4 File
      - endEvent"
    `);
  });

  test("a very long process keeps its order", () => {
    const model = largeModel(2_000);
    const rows = stepSheetOf(model, "process");
    expect(rows.flatMap((row) => (row.kind === "step" ? [row.element] : []))).toEqual(
      Array.from({ length: 1_000 }, (_, at) => `task-${at}`),
    );
  });
});

describe("an edit of the sheet changes what it says and nothing else", () => {
  const scripts = fc.tuple(commandScript(20), fc.nat(10_000));

  test("a step added behind a row is its next row, and taking it out again restores the flow", () => {
    fc.assert(
      fc.property(scripts, ([script, number]) => {
        const model = runScript(smallModel(), script);
        const rows = sheet(model);
        if (rows.length === 0) return;
        const at = number % rows.length;
        const done = plan(model, newId, (draft) => addBehind(draft, rows, at, { type: "task" }, "Added"));
        if (!done.ok) return;
        const added = done.value.focus as string;
        expect(brokenInvariants(done.value.model)).toEqual([]);
        for (const element of model.elements)
          expect(done.value.model.elements.get(element.id)?.name).toBe(element.name);
        const after = sheet(done.value.model);
        const back = plan(done.value.model, newId, (draft) => {
          removeRow(draft, after, rowOf(after, added));
          return undefined;
        });
        expect(flowsOf(expectOk(back).model)).toEqual(flowsOf(model));
      }),
      { numRuns: 80 },
    );
  });

  test("any edit leaves a model whose sheet is complete", () => {
    fc.assert(
      fc.property(scripts, fc.nat(8), ([script, number], which) => {
        const model = runScript(smallModel(), script);
        const rows = sheet(model);
        if (rows.length === 0) return;
        const at = number % rows.length;
        const row = rows[at] as StepRow;
        const done = plan(model, newId, (draft) => {
          switch (which) {
            case 0:
              return addBefore(draft, rows, at, { type: "task" }, "New");
            case 1:
              return addDecision(draft, rows, at, { question: "Fine?", usual: "yes", other: "no" });
            case 2:
              return addParallel(draft, rows, at, "Beside");
            case 3:
              removeRow(draft, rows, at);
              return undefined;
            case 4:
              return moveRow(draft, "process", rows, at, "up");
            case 5:
              return moveRow(draft, "process", rows, at, "down");
            case 6:
              leadTo(draft, rows, at, number % 3 === 0 ? { end: "" } : { step: "check" });
              return undefined;
            case 7:
              return row.kind === "step" ? addPath(draft, row.element, "otherwise") : undefined;
            default:
              if (row.kind === "step") giveRole(draft, row.element, { entry: "role-billing", name: "Billing" });
              return undefined;
          }
        });
        if (!done.ok) return;
        const after = done.value.model;
        expect(brokenInvariants(after)).toEqual([]);
        expect(flowsRead(after, sheet(after))).toEqual(flowsOf(after));
      }),
      { numRuns: 250 },
    );
  });

  test("a step moved down and up again stands where it stood", () => {
    const model = listed("Register", "Check", "Approve", "File");
    const down = planned(model, (draft) => moveRow(draft, "process", sheet(model), rowNamed(model, "Check"), "down"));
    expect(namesOf(down)).toEqual(["Register", "Approve", "Check", "File"]);
    const up = planned(down, (draft) => moveRow(draft, "process", sheet(down), rowNamed(down, "Check"), "up"));
    expect(namesOf(up)).toEqual(["Register", "Check", "Approve", "File"]);
  });

  test("a deleted path takes along what only it leads to, and the question nobody asks any more", () => {
    let model = listed("Register", "File");
    model = planned(model, (draft) =>
      addDecision(draft, sheet(draft.model), rowNamed(draft.model, "Register"), {
        question: "Complete?",
        usual: "yes",
        other: "no",
      }),
    );
    const before = sheet(model);
    model = planned(model, (draft) =>
      addBehind(
        draft,
        before,
        before.findIndex((row) => row.kind === "path"),
        { type: "task" },
        "Remind",
      ),
    );
    expect(namesOf(model)).toContain("Remind");
    const rows = sheet(model);
    model = planned(model, (draft) => {
      removeRow(
        draft,
        rows,
        rows.findIndex((row) => row.kind === "path"),
      );
      return undefined;
    });
    expect(namesOf(model)).toEqual(["Register", "File"]);
  });

  test("a step moved behind another row leaves its place closed, whichever way it goes", () => {
    const move = (model: Model, name: string, behind: string) =>
      planned(model, (draft) =>
        moveRowBehind(
          draft,
          "process",
          sheet(draft.model),
          rowNamed(draft.model, name),
          sheet(draft.model)[rowNamed(draft.model, behind)]?.id as string,
        ),
      );
    let model = listed("One", "Two", "Three", "Four");
    model = move(model, "One", "Three");
    expect(namesOf(model)).toEqual(["Two", "Three", "One", "Four"]);
    model = move(model, "Four", "Two");
    expect(namesOf(model)).toEqual(["Two", "Four", "Three", "One"]);
  });

  test("a decision turned parallel turns its join with it", () => {
    let model = listed("Book visit");
    model = planned(model, (draft) =>
      addParallel(draft, sheet(draft.model), rowNamed(draft.model, "Book visit"), "Order meter"),
    );
    const gateways = elementsOfType(model, "parallelGateway").map((gateway) => gateway.id);
    const split = gateways.find((id) => outgoingOf(model, id).length === 2) as string;
    model = planned(model, (draft) => {
      changeSplit(draft, split, "inclusiveGateway");
      return undefined;
    });
    expect(elementsOfType(model, "inclusiveGateway")).toHaveLength(2);
  });
});

describe("roles", () => {
  const desk = { entry: "role-desk", name: "Front desk" };
  const crew = { entry: "role-crew", name: "Field crew" };

  test("the first role makes the pool's lane, another role another lane, and each step stands in its own", () => {
    let model = listed("Register");
    model = planned(model, (draft) => {
      giveRole(draft, (elementsOfType(draft.model, "task")[0] as { id: string }).id, desk);
      return undefined;
    });
    model = planned(model, (draft) =>
      addBehind(draft, sheet(draft.model), rowNamed(draft.model, "Register"), { type: "task" }, "Inspect"),
    );
    const inspect = (sheet(model)[rowNamed(model, "Inspect")] as { element: string }).element;
    expect(cellsOf(model, inspect).by.map((role) => role.name)).toEqual(["Front desk"]);
    model = planned(model, (draft) => {
      giveRole(draft, inspect, crew);
      return undefined;
    });
    expect(cellsOf(model, inspect).by.map((role) => role.name)).toEqual(["Field crew"]);
    expect(elementsOfType(model, "lane").map((lane) => lane.name)).toEqual(["Front desk", "Field crew"]);
    model = planned(model, (draft) => {
      giveRole(draft, inspect, desk);
      return undefined;
    });
    expect(cellsOf(model, inspect).by.map((role) => role.name)).toEqual(["Front desk"]);
    expect(elementsOfType(model, "lane")).toHaveLength(2);
  });
});

test("the head says what starts a process, who runs it and what ends it", () => {
  const model = performAll(smallModel(), { type: "rename", id: "start", name: "an application is received" });
  expect(headOf(model, "process")).toMatchObject({
    trigger: "an application is received",
    organisation: "Cooperative",
  });
});
