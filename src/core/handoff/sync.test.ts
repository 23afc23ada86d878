import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import type { Model } from "../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { xmlInformation } from "../testing/xml";
import { sameContent, syncModels, syncState } from ".";

/** A build copy as a developer's own tool writes it: other prefixes, tabs, one attribute a line, comments, technical attributes. */
const build = `<?xml version='1.0' encoding="utf-8"?>
<!-- kept by the build team -->
<b:definitions xmlns:b="http://www.omg.org/spec/BPMN/20100524/MODEL"
\txmlns:acme='urn:acme:engine'
\tid="defs" targetNamespace="urn:quillmere">
\t<b:process id="connect" name="Connect a plant" isExecutable="true" acme:history='7'>
\t\t<!-- begins with a letter -->
\t\t<b:startEvent id="start"/>
\t\t<b:userTask
\t\t\tid="check"
\t\t\tname='Check application'
\t\t\tacme:queue="desk">
\t\t\t<b:extensionElements>
\t\t\t\t<acme:retry times="3">
\t\t\t\t\t<acme:wait>PT5M</acme:wait>
\t\t\t\t</acme:retry>
\t\t\t</b:extensionElements>
\t\t</b:userTask>
\t\t<b:endEvent id="end"></b:endEvent>
\t\t<b:sequenceFlow id="f1" sourceRef="start" targetRef="check"/>
\t\t<b:sequenceFlow id="f2" sourceRef="check" targetRef="end"/>
\t</b:process>
</b:definitions>
`;
const read = (text: string) => expectOk(readBpmn(text));
const changed = (model: Model, change: (text: string) => string) => read(change(writeBpmn(model)));
/** Lines that are in one text only, as a diff without context tells them. */
function diff(one: string, other: string): string[] {
  const [before, after] = [one.split("\n"), other.split("\n")];
  const gone = before.filter((line) => !after.includes(line)).map((line) => `-${line}`);
  return [...gone, ...after.filter((line) => !before.includes(line)).map((line) => `+${line}`)];
}
const sync = (base: Model, model: Model, text = build) => syncModels(base, model, { text, model: read(text) });

describe("a sync writes into the developers' text only what changed", () => {
  const base = read(build);

  test("nothing: not a byte", () => {
    const synced = sync(base, base);
    expect(synced).toMatchObject({ state: "in step", text: build });
  });

  test("a name: one line, in its own quotes", () => {
    const model = performAll(base, { type: "rename", id: "check", name: "Check the plant's application" });
    const { state, text, isRewritten } = sync(base, model);
    expect([state, isRewritten]).toEqual(["model changed", false]);
    expect(diff(build, text)).toEqual([
      "-\t\t\tname='Check application'",
      "+\t\t\tname='Check the plant&apos;s application'",
    ]);
  });

  test.each<[string, (text: string) => string, string[]]>([
    [
      "an attribute is added",
      (text) => text.replace('<b:startEvent id="start"', '<b:startEvent id="start" name="Application &lt;here&gt;"'),
      ['-\t\t<b:startEvent id="start"/>', '+\t\t<b:startEvent id="start" name="Application &lt;here&gt;"/>'],
    ],
    [
      "an attribute goes",
      (text) => text.replace(' name="Connect a plant"', ""),
      [
        '-\t<b:process id="connect" name="Connect a plant" isExecutable="true" acme:history=\'7\'>',
        '+\t<b:process id="connect" isExecutable="true" acme:history=\'7\'>',
      ],
    ],
    [
      "another type, which keeps what is technical",
      (text) => text.replace("<b:userTask", "<b:serviceTask").replace("</b:userTask>", "</b:serviceTask>"),
      ["-\t\t<b:userTask", "-\t\t</b:userTask>", "+\t\t<b:serviceTask", "+\t\t</b:serviceTask>"],
    ],
    [
      "a documentation, at its place",
      (text) =>
        text.replace(
          /<b:extensionElements>/,
          "<b:documentation>By hand\n  so far</b:documentation><b:extensionElements>",
        ),
      ["+\t\t\t<b:documentation>By hand", "+  so far</b:documentation>"],
    ],
    [
      "a step between two",
      (text) =>
        text
          .replace('targetRef="end"/>', 'targetRef="pay"/><b:sequenceFlow id="f3" sourceRef="pay" targetRef="end"/>')
          .replace("<b:endEvent", '<b:task id="pay"><b:documentation>Once</b:documentation></b:task><b:endEvent'),
      [
        '-\t\t<b:sequenceFlow id="f2" sourceRef="check" targetRef="end"/>',
        '+\t\t<b:task id="pay">',
        "+\t\t\t<b:documentation>Once</b:documentation>",
        "+\t\t</b:task>",
        '+\t\t<b:sequenceFlow id="f2" sourceRef="check" targetRef="pay"/>',
        '+\t\t<b:sequenceFlow id="f3" sourceRef="pay" targetRef="end"/>',
      ],
    ],
    [
      "a step and its flow go",
      (text) =>
        text.replace(/<b:endEvent[^>]*?(\/>|>\s*<\/b:endEvent>)/, "").replace(/<b:sequenceFlow id="f2"[^>]*>/, ""),
      ['-\t\t<b:endEvent id="end"></b:endEvent>', '-\t\t<b:sequenceFlow id="f2" sourceRef="check" targetRef="end"/>'],
    ],
  ])("%s", (_, change, lines) => {
    const model = changed(base, change);
    const { text, isRewritten } = sync(base, model);
    expect(diff(build, text)).toEqual(lines);
    expect(isRewritten).toBe(false);
    expect(sameContent(read(text), model)).toBe(true);
  });

  test("a step that is wrapped into a sub-process takes its text along, deeper", () => {
    const step = /\t\t<b:userTask[\s\S]*<\/b:userTask>\n/.exec(build)?.[0] ?? "";
    const model = read(
      build.replace(step, `<b:subProcess id="inside">${step}</b:subProcess>`).replace(/<b:sequenceFlow[^>]*>/g, ""),
    );
    const { text } = sync(base, model);
    expect(text).toContain(`\t\t<b:subProcess id="inside">\n\t\t\t<b:userTask`);
    expect(text).toContain("\t\t\t\t\t\t<acme:wait>PT5M</acme:wait>\n");
    expect(sameContent(read(text), model)).toBe(true);
  });

  test("line ends, and content on one line, stay as they are", () => {
    const windows = build.replaceAll("\n", "\r\n");
    const model = performAll(base, { type: "rename", id: "start", name: "Begin" });
    const { text } = sync(base, model, windows);
    expect(text.replaceAll("\r\n", "\n")).toBe(build.replace('id="start"', 'id="start" name="Begin"'));
    expect(text.split("\n").every((line, at, all) => at === all.length - 1 || line.endsWith("\r"))).toBe(true);
    const oneLine = build.replace(/>\s+</g, "><");
    const more = changed(base, (xml) => xml.replace("<b:endEvent", '<b:task id="new"/><b:endEvent'));
    expect(sync(base, more, oneLine).text).toBe(oneLine.replace("<b:endEvent", '<b:task id="new"/><b:endEvent'));
  });

  test("a namespace the text does not know is declared, under a prefix that is free", () => {
    const model = changed(base, (xml) =>
      xml
        .replace("<b:startEvent", '<b:startEvent xmlns:acme="urn:other" acme:tone="soft"')
        .replace(/xmlns:acme="urn:other" /, ""),
    );
    const other = read(writeBpmn(model).replace('"urn:acme:engine"', '"urn:other"'));
    const { text } = sync(base, other);
    expect(read(text).form.prefixes).toContainEqual(["acme", "urn:acme:engine"]);
    expect(xmlInformation(text)).toBeTruthy();
  });
});

describe("the state of a sync is found by content", () => {
  const base = read(build);
  const rename = (name: string) => performAll(base, { type: "rename", id: "check", name });
  const otherwise = (text: string) =>
    read(text.replaceAll("b:", "bpmn:").replaceAll("xmlns:b=", "xmlns:bpmn=").replaceAll("\t", "    "));

  test.each<[string, Model, Model, string]>([
    ["both as they were", base, base, "in step"],
    ["the copy only written otherwise", base, otherwise(build), "in step"],
    ["the model changed", rename("Look at it"), base, "model changed"],
    ["the copy changed", base, rename("Look at it"), "build copy changed"],
    ["both, differently", rename("Look at it"), rename("Test it"), "both changed"],
    ["both, to the same", rename("Look at it"), rename("Look at it"), "in step"],
    [
      "an attribute of the developers",
      base,
      read(build.replace('acme:queue="desk"', 'acme:queue="desk" acme:async="true"')),
      "build copy changed",
    ],
    [
      "flow elements in another order, which says nothing",
      base,
      read(build.replace(/(\t\t<b:sequenceFlow id="f1".*\n)(.*\n)/, "$2$1")),
      "in step",
    ],
  ])("%s", (_, model, copy, state) => {
    expect(syncState(base, model, copy)).toBe(state);
  });

  test("both changed the same name: a conflict, which stays as the model has it until it is decided", () => {
    const theirs = build.replace("Check application", "Check it");
    const { conflicts, text } = sync(base, rename("Look at it"), theirs);
    expect(conflicts).toMatchObject([{ element: "check", field: "name", ours: "Look at it", theirs: "Check it" }]);
    expect(text).toBe(build.replace("Check application", "Look at it"));
    const decided = syncModels(
      base,
      rename("Look at it"),
      { text: theirs, model: read(theirs) },
      { decide: () => "theirs" },
    );
    expect(decided.text).toBe(theirs);
  });

  test("both changed different things: neither is lost", () => {
    const theirs = build
      .replace('times="3"', 'times="5"')
      .replace("<b:endEvent", '<b:endEvent id="given-up"/>\n\t\t<b:endEvent');
    const { conflicts, text, state } = sync(base, rename("Look at it"), theirs);
    expect([state, conflicts]).toEqual(["both changed", []]);
    expect(text).toBe(theirs.replace("Check application", "Look at it"));
  });
});

describe("rounds of an analyst and a developer", () => {
  const ids = "abcdefghij".split("");
  /** What a developer does to a file: technical attributes and elements of a namespace of their own, on any of its elements. */
  const developed = (text: string, round: number, picks: readonly number[]) => {
    const tags = [
      ...text.matchAll(/<(?:\w+:)?(?:task|userTask|serviceTask|startEvent|endEvent|sequenceFlow)\s[^>]*?(?=\/?>)/g),
    ];
    let out = text.includes("xmlns:rig=") ? text : text.replace(/(<\w*:?definitions)/, '$1 xmlns:rig="urn:rig:1"');
    const marks: string[] = [];
    for (const [at, pick] of picks.entries()) {
      const tag = tags[pick % Math.max(1, tags.length)]?.[0];
      if (tag === undefined) continue;
      const mark = `${ids[at]}${round}`;
      out = out.replace(tag, `${tag} rig:${mark}="${round}"`);
      if (out.includes(`rig:${mark}=`)) marks.push(mark);
    }
    return { text: out, marks };
  };

  test("lose nothing, and a second sync has nothing to do", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(commandScript(6), fc.array(fc.nat(1000), { maxLength: 4 })), { minLength: 1, maxLength: 4 }),
        (rounds) => {
          let model = smallModel();
          let text = writeBpmn(model).replace(/\n( +)/g, (_, space: string) => `\n${space.replaceAll("  ", "\t")}`);
          let base = read(text);
          for (const [round, [script, picks]] of rounds.entries()) {
            model = runScript(model, script);
            const theirs = developed(text, round, picks);
            const before = read(theirs.text);
            const synced = syncModels(base, model, { text: theirs.text, model: before });
            expect(synced.isRewritten).toBe(false);
            // What the developer put on an element that still is there is there.
            for (const mark of theirs.marks) {
              const holder = [...before.elements].find((one) =>
                one.foreignAttributes?.some(([name]) => name === `rig:${mark}`),
              );
              if (holder && synced.model.elements.has(holder.id))
                expect(synced.text).toContain(`rig:${mark}="${round}"`);
            }
            const again = read(synced.text);
            expect(syncState(synced.model, synced.model, again)).toBe("in step");
            expect(syncModels(again, synced.model, { text: synced.text, model: again }).text).toBe(synced.text);
            [model, text, base] = [synced.model, synced.text, again];
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
