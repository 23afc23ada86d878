import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import { rolesOf } from "../../directory";
import {
  calledVersionOf,
  dataInReach,
  documentationIn,
  documentedIn,
  elementsOfType,
  linksWith,
  plainOf,
  type RichNode,
  systemsOf,
} from "../../model";
import { expectOk, performAll, smallModel } from "../../testing/models";
import { schemaErrors } from "../../testing/xml";
import { type Command, commandSchema, perform } from "..";

const rich: RichNode = {
  type: "doc",
  content: [
    {
      type: "paragraph",
      content: [
        { type: "text", text: "Open the breaker " },
        { type: "text", text: "first", marks: [{ type: "bold" }] },
        { type: "text", text: ". See ", marks: [{ type: "italic" }] },
        {
          type: "text",
          text: "the form",
          marks: [{ type: "link", attrs: { href: "https://quillmere.example/form" } }],
        },
      ],
    },
    {
      type: "bulletList",
      content: [
        { type: "listItem", content: [{ type: "paragraph", content: [{ type: "text", text: "Gloves & <lamp>" }] }] },
        { type: "listItem", content: [{ type: "paragraph", content: [{ type: "text", text: "Radio" }] }] },
      ],
    },
  ],
};
const words = (text: string): RichNode => ({
  type: "doc",
  content: [{ type: "paragraph", content: [{ type: "text", text }] }],
});
const describeIn = (language: string | null, text: RichNode) =>
  ({ type: "describeIn", id: "check", language, text }) as unknown as Command;

describe("documentation in several languages", () => {
  const model = performAll(
    smallModel(),
    describeIn(null, rich),
    describeIn("de", words("Zuerst den Schalter öffnen")),
    describeIn("fr", words("D'abord le disjoncteur")),
  );
  const check = (of = model) => of.elements.get("check") as NonNullable<ReturnType<typeof of.elements.get>>;
  test("each is kept, the model's own first", () => {
    expect(documentedIn(check())).toEqual(["de", "fr"]);
    expect(plainOf(documentationIn(check()))).toBe("Open the breaker first. See the form\nGloves & <lamp>\nRadio");
    expect(plainOf(documentationIn(check(), "de"))).toBe("Zuerst den Schalter öffnen");
  });
  test("the file holds it as XHTML with its language, and gives it back", () => {
    const file = writeBpmn(model);
    expect(file).toContain('xml:lang="de"');
    expect(file).toContain("<strong>first</strong>");
    const back = expectOk(readBpmn(new TextEncoder().encode(file)));
    expect(documentationIn(check(back))).toEqual(rich);
    expect(plainOf(documentationIn(check(back), "fr"))).toBe("D'abord le disjoncteur");
    expect(writeBpmn(back)).toBe(file);
  });
  test("what is written conforms to the standard's schema", async () => {
    const full = performAll(
      model,
      { type: "setCondition", flow: "f3", text: "rated power <= 10", isExecutable: true },
      { type: "setCondition", flow: "f4", text: "otherwise" },
      {
        type: "setLinks",
        id: "check",
        links: [{ kind: "page", title: "Form", href: "https://quillmere.example/form" }],
      },
    );
    expect(await schemaErrors(writeBpmn(full))).toEqual([]);
  });
  test("plain words stay plain text for other readers", () => {
    const plain = performAll(model, describeIn(null, words("Check it")));
    expect(check(plain).documentation?.[0]).toEqual({ text: "Check it" });
  });
  test("what is emptied goes, and leaves the others", () => {
    const emptied = performAll(model, describeIn("de", words("  ")));
    expect(documentedIn(check(emptied))).toEqual(["fr"]);
  });
  test("a link that runs something is refused, and not read from a file", () => {
    const bad = JSON.parse(JSON.stringify(rich).replace("https://quillmere.example/form", "javascript:alert(1)"));
    expect(commandSchema.safeParse(describeIn(null, bad)).success).toBe(false);
    expect(commandSchema.safeParse(describeIn(null, rich)).success).toBe(true);
    const file = writeBpmn(performAll(smallModel(), describeIn(null, bad)));
    const back = expectOk(readBpmn(new TextEncoder().encode(file)));
    expect(JSON.stringify(documentationIn(check(back)))).not.toContain("javascript");
  });
});

describe("links, files and versions of what is called", () => {
  test("links go through the file", () => {
    const links = [
      { kind: "page", title: "Form", href: "https://quillmere.example/form" },
      { kind: "file", title: "plan.pdf", file: "file-1" },
    ] as const;
    const model = performAll(smallModel(), { type: "setLinks", id: "check", links: [...links] });
    const back = expectOk(readBpmn(new TextEncoder().encode(writeBpmn(model))));
    expect(linksWith(back.elements.get("check") as never)).toEqual(links);
  });
  test.each(["javascript:alert(1)", "ftp://x", "quillmere", 'https://x"><script>'])("%s is no address", (href) => {
    const answer = perform(smallModel(), {
      type: "setLinks",
      id: "check",
      links: [{ kind: "page", title: "x", href }],
    });
    expect(answer.ok ? "" : answer.problems[0]?.code).toBe("no-address");
  });
  test("a call names a version; nothing else does", () => {
    const called = { version: "v2", name: "To-be" };
    const model = performAll(
      smallModel(),
      { type: "replace", diagram: "page", id: "check", kind: { type: "callActivity" } },
      { type: "setCalledVersion", id: "check", called },
    );
    expect(calledVersionOf(model.elements.get("check") as never)).toEqual(called);
    const answer = perform(smallModel(), { type: "setCalledVersion", id: "check", called });
    expect(answer.ok ? "" : answer.problems[0]?.code).toBe("not-a-call");
  });
});

describe("two entries become one", () => {
  const merge: Command = {
    type: "mergeEntry",
    from: { entry: "role-crew", name: "Field crews" },
    into: { entry: "role-desk", name: "Front desk" },
  };
  test("a role that had parts under both names has each part once", () => {
    const model = performAll(
      smallModel(),
      {
        type: "assignRole",
        step: "check",
        role: { entry: "role-crew", name: "Field crews" },
        part: "consulted",
        id: "a",
      },
      {
        type: "assignRole",
        step: "check",
        role: { entry: "role-desk", name: "Front desk" },
        part: "consulted",
        id: "b",
      },
      {
        type: "assignRole",
        step: "reject",
        role: { entry: "role-crew", name: "Field crews" },
        part: "informed",
        id: "c",
      },
      merge,
    );
    const parts = (step: string) =>
      rolesOf(model, step)
        .filter((role) => role.from === "step")
        .map((role) => `${role.part} ${role.name}`);
    expect(parts("check")).toEqual(["consulted Front desk"]);
    expect(parts("reject")).toEqual(["informed Front desk"]);
    expect(elementsOfType(model, "resource").filter((one) => one.name === "Field crews")).toEqual([]);
  });
  test("of two uses of one system the one that says more stays", () => {
    const model = performAll(
      smallModel(),
      { type: "useSystem", step: "check", system: { entry: "map", name: "Network map" }, use: "reads" },
      { type: "useSystem", step: "check", system: { entry: "maps", name: "Network maps" }, use: "writes" },
      {
        type: "mergeEntry",
        from: { entry: "maps", name: "Network maps" },
        into: { entry: "map", name: "Network map" },
      },
    );
    expect(systemsOf(model.elements.get("check") as never)).toEqual([
      { entry: "map", name: "Network map", use: "writes" },
    ]);
  });
});

test("data in reach is that of the scopes around", () => {
  const model = performAll(smallModel(), {
    type: "place",
    diagram: "page",
    id: "paper",
    kind: { type: "dataObjectReference" },
    at: { x: 300, y: 150 },
    name: "Connection application",
  });
  expect(dataInReach(model, "f3")).toEqual(["Connection application"]);
});
