import { expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { expectOk } from "../testing/models";
import { xmlInformation } from "../testing/xml";
import { mergeModels, spelledLike } from ".";

const file = (declarations: string, inside: string) =>
  expectOk(
    readBpmn(
      `<b:definitions xmlns:b="http://www.omg.org/spec/BPMN/20100524/MODEL" ${declarations} id="d" targetNamespace="t"><b:process id="p">${inside}</b:process></b:definitions>`,
    ),
  );
const plain = file("", '<b:task id="a"/>');

test("what comes with a prefix brings the namespace along", () => {
  const theirs = file('xmlns:rig="urn:rig"', '<b:task id="a" rig:queue="desk"/>');
  const merged = expectOk(readBpmn(writeBpmn(mergeModels(plain, plain, theirs).model)));
  expect(xmlInformation(writeBpmn(merged))).toEqual(xmlInformation(writeBpmn(theirs)));
});

test.each([
  [
    "one prefix for two namespaces: theirs gets another one",
    'xmlns:rig="urn:mine"',
    'xmlns:rig="urn:theirs"',
    ["urn:mine", "urn:theirs"],
  ],
  [
    "two prefixes for one namespace: ours is used",
    'xmlns:rig="urn:one"',
    'xmlns:gear="urn:one"',
    ["urn:one", "urn:one"],
  ],
])("%s", (_, ourDeclaration, theirDeclaration, uris) => {
  const prefix = (declaration: string) => /xmlns:(\w+)/.exec(declaration)?.[1];
  const mark = (declaration: string, name: string) =>
    `${prefix(declaration)}:${name}="1"><b:extensionElements><${prefix(declaration)}:${name}/></b:extensionElements></b:task>`;
  const ours = file(ourDeclaration, `<b:task id="a" ${mark(ourDeclaration, "mine")}`);
  const theirs = file(theirDeclaration, `<b:task id="a"/><b:task id="c" ${mark(theirDeclaration, "theirs")}`);
  const text = JSON.stringify(xmlInformation(writeBpmn(mergeModels(plain, ours, theirs).model)));
  expect(text).toContain(`${uris[0]} mine=1`);
  expect(text).toContain(`"${uris[0]} mine"`);
  expect(text).toContain(`${uris[1]} theirs=1`);
  expect(text).toContain(`"${uris[1]} theirs"`);
});

test("a model that is spelled like another one says the same", () => {
  const one = file('xmlns:rig="urn:one" xmlns:x="urn:x"', '<b:task id="a" rig:x="1" x:y="2"/>');
  const like = file('xmlns:rig="urn:two" xmlns:z="urn:x"', "");
  expect(xmlInformation(writeBpmn(spelledLike(one, like)))).toEqual(xmlInformation(writeBpmn(one)));
  expect(spelledLike(one, one)).toBe(one);
});

test("namespaces that came to a model since are known as those of its file are, there and back", () => {
  const head = mergeModels(plain, plain, file('xmlns:rig="urn:rig"', '<b:task id="a" rig:queue="desk"/>')).model;
  const build = expectOk(readBpmn(writeBpmn(head)));
  expect(xmlInformation(writeBpmn(mergeModels(build, build, head).model))).toEqual(xmlInformation(writeBpmn(build)));
  expect(xmlInformation(writeBpmn(mergeModels(head, head, build).model))).toEqual(xmlInformation(writeBpmn(build)));
  expect(spelledLike(spelledLike(head, build), head).elements.get("a")).toEqual(head.elements.get("a"));
});
