import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Block, type Booklet, type Line, wordsOfLine } from "../booklet";
import { readBpmn } from "../bpmn";
import { kindWords } from "../commands";
import { openDocument } from "../decisions";
import type { DirectoryEntry } from "../directory";
import { isFlowNode, type Model, nameOf, withDescriptionIn, withNameIn } from "../model";
import { randomProcess, tangledProcess } from "../testing/randomProcess";
import { type HandbookModel, handbookOf, handbookParts, nameOfModel, sentencesIn } from ".";
import { numberedNodes } from "./numbers";

const read = (xml: string): Model => {
  const result = readBpmn(new TextEncoder().encode(xml));
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.value;
};

const handbook = (models: readonly (Model | HandbookModel)[], more: Partial<Parameters<typeof handbookOf>[0]> = {}) =>
  handbookOf({
    title: "Handbook",
    subtitle: "",
    facts: [],
    models: models.map((one, at) =>
      "elements" in one ? { id: `model ${at + 1}`, model: one, facts: [], decisions: new Map(), more: {} } : one,
    ),
    entries: [],
    parts: handbookParts,
    language: undefined,
    sentences: sentencesIn(more.language),
    ...more,
  });

const headings = ({ blocks }: Booklet) => blocks.flatMap((block) => (block.kind === "heading" ? [block] : []));

/** What stands between a heading and the next. */
function under({ blocks }: Booklet, heading: string): readonly Block[] {
  const from = blocks.findIndex((block) => block.kind === "heading" && block.text === heading);
  const rest = blocks.slice(from + 1);
  const until = rest.findIndex(({ kind }) => kind === "heading");
  return from < 0 ? [] : until < 0 ? rest : rest.slice(0, until);
}

const factsUnder = (booklet: Booklet, heading: string) =>
  Object.fromEntries(
    under(booklet, heading).flatMap((block) =>
      block.kind === "facts" ? block.facts.map(({ name, says }) => [name, wordsOfLine(says)] as const) : [],
    ),
  );

const links = ({ blocks }: Booklet): string[] => {
  const of = (says: Line) => says.flatMap(({ link }) => link ?? []);
  return blocks.flatMap((block) =>
    block.kind === "paragraph"
      ? of(block.says)
      : block.kind === "list"
        ? block.items.flatMap(of)
        : block.kind === "facts"
          ? block.facts.flatMap(({ says }) => of(says))
          : block.kind === "table"
            ? block.rows.flat().flatMap(of)
            : [],
  );
};

const definitions = (inside: string) =>
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:lln="urn:lucid-lane:bpmn:1" id="d" targetNamespace="t">${inside}</definitions>`;

const plant = read(
  definitions(`
  <collaboration id="c"><participant id="coop" name="Quillmere Power" processRef="p"/><participant id="house" name="Household"/>
    <messageFlow id="m1" name="application" sourceRef="house" targetRef="begin"/><messageFlow id="m2" sourceRef="tell" targetRef="house"/></collaboration>
  <resource id="r-engineer" name="Network engineer"><documentation>Knows the feeders.</documentation></resource>
  <resource id="r-desk" name="Front desk"><extensionElements><lln:entry id="entry-desk"/></extensionElements></resource>
  <process id="p" name="Plant connection"><documentation>From the paper to the switch.</documentation>
    <laneSet id="ls">
      <lane id="l1" name="Front desk" partitionElementRef="r-desk"><documentation>First to hear of it.</documentation><flowNodeRef>begin</flowNodeRef><flowNodeRef>check</flowNodeRef><flowNodeRef>tell</flowNodeRef><flowNodeRef>end</flowNodeRef></lane>
      <lane id="l2" name="Network engineer" partitionElementRef="r-engineer"><flowNodeRef>free</flowNodeRef><flowNodeRef>study</flowNodeRef></lane>
    </laneSet>
    <startEvent id="begin" name="Application received"><outgoing>f1</outgoing></startEvent>
    <userTask id="check" name="Check application"><documentation>Compare &lt;each&gt; paper.</documentation>
      <extensionElements><lln:uses system="sys-map" name="Network map" use="reads"/><lln:attribute name="Law" value="§ 12"/><lln:link title="The rule" href="https://example.org/rule"/><lln:link title="Not that" href="javascript:alert(1)"/></extensionElements>
      <dataInputAssociation id="in"><sourceRef>paper</sourceRef></dataInputAssociation>
      <humanPerformer id="hp" name="consulted"><resourceRef>r-engineer</resourceRef></humanPerformer>
      <multiInstanceLoopCharacteristics id="mi" isSequential="true"><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics>
    </userTask>
    <boundaryEvent id="late" name="Too late" attachedToRef="check"><timerEventDefinition id="t"><timeDuration>P14D</timeDuration></timerEventDefinition></boundaryEvent>
    <endEvent id="lapsed" name="Lapsed"/>
    <exclusiveGateway id="free" name="Capacity?" default="f4"/>
    <userTask id="study" name="Study the feeder"/>
    <sendTask id="tell" name="Tell the household"/>
    <endEvent id="end" name="Connected"/>
    <sequenceFlow id="f1" sourceRef="begin" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="free"/>
    <sequenceFlow id="f3" name="no" sourceRef="free" targetRef="study"/><sequenceFlow id="f4" sourceRef="free" targetRef="tell"/>
    <sequenceFlow id="f5" sourceRef="study" targetRef="tell"/><sequenceFlow id="f6" sourceRef="tell" targetRef="end"/><sequenceFlow id="f7" sourceRef="late" targetRef="lapsed"/>
    <dataObject id="do"/><dataObjectReference id="paper" name="Application form" dataObjectRef="do"><documentation>In two copies.</documentation></dataObjectReference>
  </process>`),
);

describe("a handbook of a file alone", () => {
  const { booklet } = handbook([plant]);

  test("each flow node stands in it with its number, kind, and who does it", () => {
    expect(
      headings(booklet)
        .flatMap(({ level, text }) => (level === 3 ? [text] : []))
        .slice(0, 8),
    ).toEqual([
      "S1 Application received",
      "1 Check application",
      "B1 Too late",
      "E1 Lapsed",
      "2 Capacity?",
      "2a1 Study the feeder",
      "3 Tell the household",
      "E2 Connected",
    ]);
    expect(factsUnder(booklet, "2a1 Study the feeder")).toEqual({
      Kind: "user task",
      Who: "Network engineer",
      "Goes on with": "3 Tell the household",
    });
  });

  test("a step says all that is known of it", () => {
    expect(factsUnder(booklet, "1 Check application")).toMatchObject({
      Kind: "user task",
      Consulted: "Network engineer",
      Systems: "Network map (reads)",
      Needs: "Application form",
      "Done again": "3 times, one after the other",
      "At its edge": "B1 Too late",
      "Goes on with": "2 Capacity?",
      Law: "§ 12",
      "See also": "The rule, Not that",
    });
    expect(under(booklet, "1 Check application").at(-1)).toEqual({
      kind: "paragraph",
      says: [{ text: "Compare <each> paper." }],
    });
    expect(factsUnder(booklet, "B1 Too late")).toMatchObject({
      Kind: "timer boundary event, interrupting",
      "Waits for": "14 days",
    });
    expect(factsUnder(booklet, "2 Capacity?")["Goes on with"]).toBe(
      "no: 2a1 Study the feeder; otherwise: 3 Tell the household",
    );
    expect(factsUnder(booklet, "S1 Application received")["Message from"]).toBe("application (Household)");
    expect(factsUnder(booklet, "3 Tell the household")["Message to"]).toBe("Household");
  });

  test("no link leads anywhere but to a page of the web or a place in it", () => {
    const anchors = new Set(headings(booklet).map(({ anchor }) => `#${anchor}`));
    for (const link of links(booklet))
      expect(link.startsWith("#") ? anchors.has(link) : /^https?:/.test(link)).toBe(true);
    expect(links(booklet)).toContain("https://example.org/rule");
  });

  test("roles are described by their lane or resource, documents by what is drawn", () => {
    expect(under(booklet, "Front desk")[0]).toEqual({ kind: "paragraph", says: [{ text: "First to hear of it." }] });
    expect(under(booklet, "Network engineer")[0]).toEqual({
      kind: "paragraph",
      says: [{ text: "Knows the feeders." }],
    });
    expect(factsUnder(booklet, "Network engineer")).toEqual({
      Does: "2 Capacity?, 2a1 Study the feeder",
      "Consulted at": "1 Check application",
    });
    expect(under(booklet, "Application form")[0]).toMatchObject({ says: [{ text: "In two copies." }] });
    expect(factsUnder(booklet, "Application form")).toEqual({ "Needed at": "1 Check application" });
    expect(factsUnder(booklet, "Network map")).toEqual({ "Read at": "1 Check application" });
  });

  test("who is responsible, and where work changes hands, as tables", () => {
    const table = (heading: string) =>
      under(booklet, heading).flatMap((block) =>
        block.kind === "table" ? block.rows.map((cells) => cells.map(wordsOfLine)) : [],
      );
    expect(table("Responsibilities")).toContainEqual(["2a1 Study the feeder", "", "(R)"]);
    expect(table("Hand-overs")).toContainEqual([
      "Network engineer",
      "Front desk",
      "2a1 Study the feeder",
      "3 Tell the household",
    ]);
  });

  test("the process says when it begins and ends and who takes part; it has its picture", () => {
    expect(factsUnder(booklet, "Plant connection")).toMatchObject({
      "Run by": "Quillmere Power",
      "Begins with": "Application received",
      "Ends with": "Lapsed, or Connected",
      "Others taking part": "Household",
      "Flow nodes": "8",
    });
    expect(under(booklet, "Diagram").filter(({ kind }) => kind === "picture")).toHaveLength(1);
  });

  test("only the parts that are asked for, in the order they are", () => {
    const { booklet: short } = handbook([plant], { parts: ["roles", "steps"] });
    expect(headings(short).flatMap(({ level, text }) => (level < 3 ? [text] : []))).toEqual([
      "Plant connection",
      "Roles",
      "Steps",
    ]);
  });

  test("the same file gives the same", () => {
    expect(JSON.stringify(handbook([plant]).booklet)).toBe(JSON.stringify(booklet));
  });
});

describe("with a directory and files of decisions", () => {
  const desk: DirectoryEntry = {
    id: "entry-desk",
    kind: "role",
    name: "Customer desk",
    description: "Open from 8 to 17.",
    unit: "office",
    hue: null,
    headcount: 3,
    costPerHour: null,
    hoursPerWeek: 38,
  };
  const office: DirectoryEntry = { ...desk, id: "office", kind: "unit", name: "Office", description: "", unit: null };

  test("roles go by their names there, and are described from there", () => {
    const { booklet } = handbook([plant], { entries: [desk, office] });
    expect(factsUnder(booklet, "1 Check application").Who).toBe("Customer desk");
    expect(under(booklet, "Customer desk")[0]).toMatchObject({ says: [{ text: "Open from 8 to 17." }] });
    expect(factsUnder(booklet, "Customer desk")).toMatchObject({ Unit: "Office", People: "3", "Hours a week": "38" });
  });

  test("a table that a step decides by stands in it, in words", () => {
    const opened = openDocument(
      new TextEncoder().encode(
        `<definitions xmlns="https://www.omg.org/spec/DMN/20191111/MODEL/" id="x" name="Plants" namespace="n"><inputData id="i" name="power"/><decision id="dec" name="Study needed"><decisionTable id="t" hitPolicy="UNIQUE"><input id="a"><inputExpression id="b" typeRef="number"><text>power</text></inputExpression></input><output id="o" name="needed" typeRef="boolean"/><rule id="r1"><inputEntry id="c"><text>[0..30]</text></inputEntry><outputEntry id="e"><text>false</text></outputEntry></rule><rule id="r2"><inputEntry id="g"><text>&gt; 30</text></inputEntry><outputEntry id="h"><text>true</text></outputEntry></rule></decisionTable></decision></definitions>`,
      ),
    );
    if (!opened.ok) throw new Error(opened.problems[0]?.message);
    const model = read(
      definitions(
        `<process id="p" name="P"><businessRuleTask id="ask" name="Weigh"><extensionElements><lln:decides file="f" decision="dec" name="Study needed" result="needed"/></extensionElements></businessRuleTask></process>`,
      ),
    );
    const { booklet } = handbook([{ id: "m", model, facts: [], decisions: new Map([["f", opened.value]]), more: {} }]);
    expect(factsUnder(booklet, "1 Weigh")["Decides by"]).toBe("Study needed");
    const [, table] = under(booklet, "Study needed");
    expect(table).toMatchObject({ kind: "table", columns: [{ name: "" }, { name: "power" }, { name: "Then needed" }] });
    expect(table?.kind === "table" && table.rows.map((cells) => cells.map(wordsOfLine))).toEqual([
      ["1", "from 0 to 30", "no"],
      ["2", "over 30", "yes"],
    ]);
  });
});

describe("several models", () => {
  const caller = read(
    definitions(
      `<process id="first" name="First"><callActivity id="call" name="Do the second" calledElement="second"/></process>`,
    ),
  );
  const called = read(definitions(`<process id="second" name="Second"><task id="call" name="Do it"/></process>`));

  test("each is a chapter; a call leads to the chapter of what it calls; places of one are not those of the other", () => {
    const { booklet } = handbook([caller, called]);
    const all = headings(booklet);
    expect(all.flatMap(({ level, text }) => (level === 1 ? [text] : []))).toEqual(["First", "Second"]);
    expect(new Set(all.map(({ anchor }) => anchor)).size).toBe(all.length);
    const second = all.find(({ text }) => text === "Second");
    expect(links(booklet)).toContain(`#${second?.anchor}`);
  });

  test("what nobody named goes by what it is", () => {
    expect(nameOfModel(read(definitions(`<process id="p"><task id="t"/></process>`)))).toBe("process");
    const { booklet } = handbook([read(definitions(`<process id="p"><task id="t"/></process>`))]);
    expect(headings(booklet).map(({ text }) => text)).toContain("1 task");
  });
});

describe("in a language", () => {
  const named = (model: Model, id: string, name: string): Model => {
    const element = model.elements.get(id);
    if (!element) throw new Error(id);
    const extension = withNameIn(element, "de", name);
    return { ...model, elements: model.elements.with(new Map([[id, { ...element, extension: extension ?? [] }]])) };
  };
  const described = (model: Model, id: string, words: string): Model => {
    const element = model.elements.get(id);
    if (!element) throw new Error(id);
    const documentation = withDescriptionIn(element, "de", words) ?? [];
    return { ...model, elements: model.elements.with(new Map([[id, { ...element, documentation }]])) };
  };
  const german = described(
    named(named(plant, "check", "Antrag prüfen"), "f3", "nein"),
    "check",
    "Jedes Papier vergleichen.",
  );

  test("names and descriptions that are kept in it are told; the rest stands in the model's own words and is listed", () => {
    const { booklet, untold } = handbook([german], { language: "de" });
    expect(under(booklet, "1 Antrag prüfen").at(-1)).toMatchObject({ says: [{ text: "Jedes Papier vergleichen." }] });
    expect(factsUnder(booklet, "2 Capacity?")["Weiter mit"]).toBe(
      "nein: 2a1 Study the feeder; sonst: 3 Tell the household",
    );
    expect(untold[0]?.texts.map(({ element, what }) => `${element.id} ${what}`)).toEqual(
      expect.arrayContaining(["study name", "p name", "p description", "paper description"]),
    );
    expect(untold[0]?.texts.some(({ element }) => element.id === "check" || element.id === "f3")).toBe(false);
    const [list] = under(booklet, "In dieser Sprache nicht vorhanden");
    expect(list?.kind === "list" && list.items.map(wordsOfLine)).toContain("Study the feeder: Name");
  });

  test("what the handbook says itself is all in German: no word of it stays in English", () => {
    const said = sentencesIn("de");
    for (const type of [
      "startEvent",
      "endEvent",
      "intermediateCatchEvent",
      "intermediateThrowEvent",
      "boundaryEvent",
    ] as const)
      for (const trigger of [
        "messageEventDefinition",
        "timerEventDefinition",
        "multiple",
        "compensateEventDefinition",
      ] as const)
        expect(said.has(kindWords({ type, trigger }))).toBe(true);
    const { booklet } = handbook([german], { language: "de" });
    const english = handbook([german]).booklet;
    const names = (of: Booklet) =>
      of.blocks.flatMap((block) => (block.kind === "facts" ? block.facts.map(({ name }) => name) : []));
    const same = names(booklet).filter((name, at) => name === names(english)[at] && name !== "Law");
    expect(same).toEqual([]);
    const parts = headings(booklet)
      .filter(({ level }) => level === 2)
      .map(({ text }) => text);
    expect(parts).toEqual([
      "Diagramm",
      "Schritte",
      "Rollen",
      "Zuständigkeiten",
      "Übergaben",
      "Systeme",
      "Dokumente",
      "In dieser Sprache nicht vorhanden",
    ]);
  });

  test("a language nobody wrote in: everything is listed, and nothing is lost", () => {
    const { booklet, untold } = handbook([plant], { language: "fr" });
    expect(booklet.language).toBe("fr");
    expect(untold[0]?.texts.length).toBeGreaterThan(12);
    expect(headings(booklet).map(({ text }) => text)).toContain("1 Check application");
  });
});

test("whatever a process looks like, each flow node stands in it once, with a number of its own", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 500 }),
      fc.integer({ min: 3, max: 30 }),
      fc.integer({ min: 0, max: 2 }),
      (seed, nodes, how) => {
        const model =
          how === 0
            ? tangledProcess({ seed, nodes, lanes: 3 })
            : randomProcess({ seed, nodes, lanes: 2, wild: how === 1 });
        const all = [...model.elements].filter(({ type }) => isFlowNode(type));
        const { booklet } = handbook([model]);
        const told = headings(booklet).flatMap(({ of }) => of ?? []);
        expect([...told].sort()).toEqual(all.map(({ id }) => id).sort());
        const processes = [...model.elements].filter(({ type }) => type === "process");
        for (const process of processes) {
          const numbers = numberedNodes(model, process.id).map(({ number }) => number);
          expect(new Set(numbers).size).toBe(numbers.length);
        }
        const text = headings(booklet).map((one) => one.text);
        for (const { id } of all) {
          const name = nameOf(model, id);
          if (name !== "") expect(text.some((heading) => heading.endsWith(name))).toBe(true);
        }
      },
    ),
    { numRuns: 60 },
  );
});
