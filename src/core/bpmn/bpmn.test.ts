import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { drawMissingPages, perform } from "../commands";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { schemaErrors, xmlInformation } from "../testing/xml";
import { fileLimits, readBpmn, writeBpmn } from ".";

const fixture = (name: string) => readFileSync(new URL(`./fixtures/${name}`, import.meta.url), "utf8");
const bpmn = 'xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL"';
const file = (content: string, attributes = "") =>
  `<definitions ${bpmn} id="d" targetNamespace="urn:quillmere" ${attributes}>${content}</definitions>`;

describe("reading and writing", () => {
  test.each(["foreign-everywhere.bpmn"])("%s comes back with everything in it", (name) => {
    const text = fixture(name);
    expect(xmlInformation(writeBpmn(expectOk(readBpmn(text))))).toEqual(xmlInformation(text));
  });

  test("an element changed leaves every other one as it was", () => {
    const text = fixture("foreign-everywhere.bpmn");
    const model = expectOk(readBpmn(text));
    const renamed = performAll(model, { type: "rename", id: "wait", name: "Wait for the reading" });
    const expected = text.replace('<s:task id="wait"/>', '<s:task id="wait" name="Wait for the reading"/>');
    expect(xmlInformation(writeBpmn(renamed))).toEqual(xmlInformation(expected));
  });

  test("what commands made satisfies the standard's schema", async () => {
    expect(await schemaErrors(writeBpmn(smallModel()))).toEqual([]);
    const samples = fc.sample(commandScript(30), { numRuns: 12, seed: 7 });
    for (const script of samples) expect(await schemaErrors(writeBpmn(runScript(smallModel(), script)))).toEqual([]);
  });

  test("reading what was written and writing it again gives the same bytes", () => {
    fc.assert(
      fc.property(commandScript(20), (script) => {
        const text = writeBpmn(runScript(smallModel(), script));
        expect(writeBpmn(expectOk(readBpmn(text)))).toBe(text);
      }),
      { numRuns: 40 },
    );
  });

  test("roles, systems and documents given to a step are in the file where the standard has them", async () => {
    const model = performAll(
      smallModel(),
      {
        type: "assignRole",
        step: "check",
        role: { entry: "role-desk", name: "Front desk" },
        part: "responsible",
        id: "who",
      },
      { type: "useSystem", step: "check", system: { entry: "system-register", name: "Case register" }, use: "writes" },
      {
        type: "giveDocument",
        diagram: "page",
        step: "check",
        document: { entry: "form", name: "Application form" },
        direction: "in",
        id: "needs",
      },
      { type: "tieLane", lane: "engineer", role: { entry: "role-engineer", name: "Network engineer" } },
    );
    const text = writeBpmn(model);
    expect(await schemaErrors(text)).toEqual([]);
    expect(text).toContain('<resource id="role-desk.role" name="Front desk">');
    expect(text).toMatch(/<performer id="who" name="responsible">\s*<resourceRef>role-desk.role<\/resourceRef>/);
    expect(text).toContain('<lln:uses system="system-register" name="Case register" use="writes"/>');
    expect(text).toMatch(
      /<dataInputAssociation id="needs">\s*<sourceRef>needs.paper<\/sourceRef>\s*<targetRef>needs.input<\/targetRef>/,
    );
    expect(text).toMatch(/<inputSet id="check.inputs">\s*<dataInputRefs>needs.input<\/dataInputRefs>/);
  });

  test("a file that uses our prefix for something else keeps it, and ours gets another", () => {
    const model = expectOk(
      readBpmn(file('<process id="p"><task id="t" lln:hint="x"/></process>', 'xmlns:lln="urn:example:other"')),
    );
    const text = writeBpmn(
      performAll(model, { type: "useSystem", step: "t", system: { entry: "map", name: "Network map" }, use: "reads" }),
    );
    expect(text).toContain('lln:hint="x"');
    expect(text).toContain('xmlns:lln1="urn:lucid-lane:bpmn:1"');
    expect(text).toContain("<lln1:uses ");
    expect(xmlInformation(writeBpmn(expectOk(readBpmn(text))))).toEqual(xmlInformation(text));
  });

  test.each([
    ["UTF-8", (text: string) => new TextEncoder().encode(text)],
    ["UTF-8 with byte-order mark", (text: string) => new TextEncoder().encode(`\ufeff${text}`)],
    ["UTF-16LE with byte-order mark", (text: string) => utf16(`\ufeff${text}`, true)],
    ["UTF-16BE with byte-order mark", (text: string) => utf16(`\ufeff${text}`, false)],
    ["UTF-16LE without mark", (text: string) => utf16(text, true)],
    ["UTF-16BE without mark", (text: string) => utf16(text, false)],
  ])("%s is read", (_, encode) => {
    const text = file('<process id="p"><task id="t" name="Zähler prüfen, 計測"/></process>');
    expect(expectOk(readBpmn(encode(text))).elements.get("t")?.name).toBe("Zähler prüfen, 計測");
  });

  test("ids of any legal form are kept: letters of any script, dots, names of object properties", () => {
    const ids = ["__proto__", "constructor", "Größe.1", "_", "タスク-1", "a·b"];
    const text = file(`<process id="p">${ids.map((id) => `<task id="${id}"/>`).join("")}</process>`);
    const model = expectOk(readBpmn(text));
    for (const id of ids) expect(model.elements.get(id)?.type).toBe("task");
    expect(xmlInformation(writeBpmn(model))).toEqual(xmlInformation(text.replaceAll("<task", "<task")));
  });
});

function utf16(text: string, little: boolean): Uint8Array {
  const bytes = new Uint8Array(text.length * 2);
  for (let at = 0; at < text.length; at++) new DataView(bytes.buffer).setUint16(at * 2, text.charCodeAt(at), little);
  return bytes;
}

test("a name pasted with what XML cannot hold still makes a file that opens", () => {
  const pasted = performAll(smallModel(), { type: "rename", id: "check", name: "Check\vapplication\u0007" });
  expect(expectOk(readBpmn(writeBpmn(pasted))).elements.get("check")?.name).toBe("Check application");
});

describe("broken and hostile files", () => {
  test.each([
    ["empty", "", "empty"],
    ["cut off", file('<process id="p"><task id="t"').slice(0, -14), "not-well-formed"],
    ["tags crossed", `<definitions ${bpmn}><process></definitions></process>`, "not-well-formed"],
    ["another root", "<html><body/></html>", "not-bpmn"],
    ["another namespace", '<definitions xmlns="urn:example"/>', "not-bpmn"],
    ["a document type", `<!DOCTYPE definitions>${file("")}`, "doctype"],
    [
      "entities that would fill memory",
      `<!DOCTYPE d [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]>${file("&b;")}`,
      "doctype",
    ],
    ["an unknown entity", file("<process id='p' name='&secret;'/>"), "not-well-formed"],
    [
      "more levels than the bound",
      file("<process id='p'>".concat("<subProcess>".repeat(300), "</subProcess>".repeat(300), "</process>")),
      "too-deep",
    ],
    ["not XML at all", "PK\u0003\u0004 not xml", "not-well-formed"],
  ])("%s: refused with a place", (_, text, code) => {
    const read = readBpmn(text);
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(read.problems[0]?.code).toBe(code);
    expect(read.problems[0]?.line).toBeGreaterThanOrEqual(1);
    expect(read.problems[0]?.column).toBeGreaterThanOrEqual(1);
  });

  test("the place of an error is where it is", () => {
    const read = readBpmn(
      `<?xml version="1.0"?>\n<definitions ${bpmn}>\n  <process id="p">\n    <task id="t" name="a" name="b"/>\n`,
    );
    expect(!read.ok && read.problems[0]).toMatchObject({ line: 4 });
  });

  test("20 MB of junk is refused at once", () => {
    const started = performance.now();
    expect(readBpmn(new Uint8Array(20_000_000).fill(0x41)).ok).toBe(false);
    expect(readBpmn(`<definitions ${bpmn}>${"<".repeat(20_000_000)}`).ok).toBe(false);
    expect(performance.now() - started).toBeLessThan(20_000);
  });

  test("a file over the bound is refused before it is looked at", () => {
    expect(readBpmn({ length: fileLimits.bytes + 1 } as Uint8Array)).toMatchObject({
      ok: false,
      problems: [{ code: "too-large" }],
    });
  });

  test("bytes that are no text are refused", () => {
    expect(readBpmn(Uint8Array.of(0x3c, 0xff, 0xfe, 0x80, 0x81))).toMatchObject({
      ok: false,
      problems: [{ code: "encoding" }],
    });
  });

  test("an id given twice opens, both are kept, and a note says where", () => {
    const text = file('<process id="p">\n<task id="t" name="One"/>\n<task id="t" name="Two"/></process>');
    const model = expectOk(readBpmn(text));
    expect(model.notes).toMatchObject([{ code: "duplicate-id", detail: "t", line: 3 }]);
    expect(xmlInformation(writeBpmn(model))).toEqual(xmlInformation(text));
  });

  test("dangling references, unknown values and misplaced elements open and come back", () => {
    const text = file(
      '<process id="p" isExecutable="maybe"><sequenceFlow id="f" sourceRef="nobody" targetRef="t"/><task id="t" startQuantity="x"><participant id="q"/></task></process><choreography id="c"><choreographyTask id="ct" initiatingParticipantRef="x"/></choreography>',
    );
    const model = expectOk(readBpmn(text));
    expect(model.notes.map((note) => note.code)).toEqual([
      "bad-value",
      "bad-value",
      "misplaced-element",
      "misplaced-element",
    ]);
    expect(xmlInformation(writeBpmn(model))).toEqual(xmlInformation(text));
  });
});

describe("files without a diagram", () => {
  test("they are laid out, and their meaning stays what it was", async () => {
    const text = file(
      '<process id="p"><startEvent id="s"/><task id="a" name="Check"/><exclusiveGateway id="g"/><task id="b"/><task id="c"/><endEvent id="e"/>' +
        [
          ["s", "a"],
          ["a", "g"],
          ["g", "b"],
          ["g", "c"],
          ["b", "e"],
          ["c", "e"],
        ]
          .map(([from, to]) => `<sequenceFlow id="${from}${to}" sourceRef="${from}" targetRef="${to}"/>`)
          .join("") +
        "</process>",
    );
    const model = expectOk(readBpmn(text));
    const drawn = drawMissingPages(model);
    expect(drawn.shapes.size).toBe(6);
    expect(drawn.edges.size).toBe(6);
    expect(drawn.elements).toBe(model.elements);
    expect(await schemaErrors(writeBpmn(drawn))).toEqual([]);
    expect(perform(drawn, { type: "rename", id: "a", name: "Check it" }).ok).toBe(true);
  });

  test("elements without an id can be drawn, and get one in the file only then", () => {
    const model = expectOk(readBpmn(file('<process id="p"><task name="No id"/></process>')));
    expect(writeBpmn(model)).toContain('<task name="No id"/>');
    const drawn = writeBpmn(drawMissingPages(model));
    const id = /<task id="([^"]+)" name="No id"\/>/.exec(drawn)?.[1];
    expect(id).toBeDefined();
    expect(drawn).toContain(`bpmnElement="${id}"`);
  });
});
