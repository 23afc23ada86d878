import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Description, readDescription } from ".";

// Clauses of WSDL 1.1 (W3C note, 2001: 2.2 to 2.5, 3.3, 3.4) and of XML Schema 1.0, part 1, from memory, on a made-up crew planner.

const bytes = (text: string) => new TextEncoder().encode(text);
const wsdl = (inside: string, declarations = "") => `<?xml version="1.0"?>
<wsdl:definitions xmlns:wsdl="http://schemas.xmlsoap.org/wsdl/" xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"
  xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:t="urn:crew" targetNamespace="urn:crew" ${declarations}>${inside}</wsdl:definitions>`;
const read = (text: string, files: { readonly [path: string]: string } = {}): Description =>
  expectOk(
    readDescription({
      name: "crew.wsdl",
      bytes: bytes(text),
      beside: (path) => (Object.hasOwn(files, path) ? bytes(files[path] as string) : undefined),
    }),
  );
const operations = (description: Description) =>
  description.interfaces.flatMap((one) =>
    one.operations.map(({ name, in: ins, out, errors }) => [
      `${one.name}.${name}`,
      ins.map((field) => field.name),
      out.map((field) => field.name),
      errors,
    ]),
  );
const types = (schema: string) =>
  `<wsdl:types><xs:schema targetNamespace="urn:crew" elementFormDefault="qualified">${schema}</xs:schema></wsdl:types>`;
const plan = (part: string) =>
  `<wsdl:message name="ask">${part}</wsdl:message><wsdl:message name="told"><wsdl:part name="crew" type="xs:string"/></wsdl:message>
   <wsdl:message name="busy"><wsdl:part name="fault" type="xs:string"/></wsdl:message>
   <wsdl:portType name="Planner"><wsdl:operation name="plan"><wsdl:input message="t:ask"/><wsdl:output message="t:told"/>
   <wsdl:fault name="AllBusy" message="t:busy"/></wsdl:operation></wsdl:portType>`;
const binding = (style: string, own = "") =>
  `<wsdl:binding name="b" type="t:Planner"><soap:binding ${style} transport="http://schemas.xmlsoap.org/soap/http"/>
   <wsdl:operation name="plan"><soap:operation soapAction="" ${own}/></wsdl:operation></wsdl:binding>`;
const visit = types(
  `<xs:element name="Visit"><xs:complexType><xs:sequence><xs:element name="address" type="xs:string"/><xs:element name="day" type="xs:date" minOccurs="0"/></xs:sequence></xs:complexType></xs:element><xs:element name="Day" type="xs:date"/>`,
);
const element = '<wsdl:part name="body" element="t:Visit"/>';
const two = '<wsdl:part name="address" type="xs:string"/><wsdl:part name="day" type="xs:date"/>';

test("a port type is an interface; faults are its operations' errors", () => {
  const description = read(wsdl(visit + plan(element) + binding('style="document"')));
  expect(description).toMatchObject({ format: "WSDL 1.1", problems: [] });
  expect(operations(description)).toEqual([["Planner.plan", ["address", "day"], ["crew"], ["AllBusy"]]]);
  expect(description.interfaces[0]?.operations[0]?.in).toEqual([
    { name: "address", type: "string", isRequired: true },
    { name: "day", type: "date", isRequired: false },
  ]);
});

describe("style", () => {
  test.each<[string, string, string[]]>([
    ["document: what the wrapper holds", visit + plan(element) + binding('style="document"'), ["address", "day"]],
    ["document where the binding does not say (3.3)", visit + plan(element) + binding(""), ["address", "day"]],
    ["rpc: the parts", visit + plan(element) + binding('style="rpc"'), ["body"]],
    ["rpc: parts by type", plan(two) + binding('style="rpc"'), ["address", "day"]],
    [
      "the operation's before the binding's (3.4)",
      visit + plan(element) + binding('style="rpc"', 'style="document"'),
      ["address", "day"],
    ],
    ["the other way round", visit + plan(element) + binding('style="document"', 'style="rpc"'), ["body"]],
    ["without a binding, an element is document", visit + plan(element), ["address", "day"]],
    ["without a binding, a type is rpc", plan(two), ["address", "day"]],
    ["document, and simple: the element itself", visit + plan('<wsdl:part name="p" element="t:Day"/>'), ["Day"]],
  ])("%s", (_, inside, fields) => {
    const [[, ins] = []] = operations(read(wsdl(inside)));
    expect(ins).toEqual(fields);
  });
});

describe("what a wrapper holds", () => {
  test.each<[string, string, string[]]>([
    [
      "a named type",
      '<xs:element name="Visit" type="t:VisitType"/><xs:complexType name="VisitType"><xs:all><xs:element name="a"/><xs:element name="b"/></xs:all></xs:complexType>',
      ["a", "b"],
    ],
    [
      "what it extends comes first",
      '<xs:element name="Visit"><xs:complexType><xs:complexContent><xs:extension base="t:Base"><xs:sequence><xs:element name="own"/></xs:sequence></xs:extension></xs:complexContent></xs:complexType></xs:element><xs:complexType name="Base"><xs:sequence><xs:element name="base"/></xs:sequence></xs:complexType>',
      ["base", "own"],
    ],
    [
      "references and groups",
      '<xs:element name="Visit"><xs:complexType><xs:sequence><xs:element ref="t:Note"/><xs:group ref="t:g"/></xs:sequence></xs:complexType></xs:element><xs:element name="Note" type="xs:string"/><xs:group name="g"><xs:choice><xs:element name="left"/><xs:element name="right"/></xs:choice></xs:group>',
      ["Note", "left", "right"],
    ],
    [
      "a ring of extensions",
      '<xs:element name="Visit" type="t:A"/><xs:complexType name="A"><xs:complexContent><xs:extension base="t:A"><xs:sequence><xs:element name="a"/></xs:sequence></xs:extension></xs:complexContent></xs:complexType>',
      ["a"],
    ],
    ["nothing", '<xs:element name="Visit"><xs:complexType/></xs:element>', []],
    [
      "a simple type of its own",
      '<xs:element name="Visit"><xs:simpleType><xs:restriction base="xs:string"/></xs:simpleType></xs:element>',
      ["Visit"],
    ],
    [
      "a named simple type",
      '<xs:element name="Visit" type="t:s"/><xs:simpleType name="s"><xs:restriction base="xs:string"/></xs:simpleType>',
      ["Visit"],
    ],
    [
      "attributes, and anything else, are no elements",
      '<xs:element name="Visit"><xs:complexType><xs:sequence><xs:element name="a"/><xs:any/></xs:sequence><xs:attribute name="at"/></xs:complexType></xs:element>',
      ["a"],
    ],
  ])("%s", (_, schema, fields) => {
    const description = read(wsdl(types(schema) + plan(element)));
    expect(operations(description)[0]?.[1]).toEqual(fields);
    expect(description.problems).toEqual([]);
  });
});

describe("imports", () => {
  const schema = `<xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:crew"><xs:include schemaLocation="visit.xsd"/></xs:schema>`;
  // An included schema without a namespace takes the one of what includes it.
  const visitFile = `<xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema"><xs:include schemaLocation="../types/crew.xsd"/><xs:element name="Visit"><xs:complexType><xs:sequence><xs:element name="address"/></xs:sequence></xs:complexType></xs:element></xs:schema>`;

  test("in the folder and below are followed, in rings as well", () => {
    const description = read(
      wsdl(
        '<wsdl:import namespace="urn:crew" location="types/crew.xsd"/><wsdl:import namespace="urn:crew" location="more.wsdl"/>' +
          plan(element),
      ),
      {
        "types/crew.xsd": schema,
        "types/visit.xsd": visitFile,
        "more.wsdl": wsdl('<wsdl:import location="crew.wsdl" namespace="urn:crew"/><wsdl:portType name="More"/>'),
      },
    );
    expect(operations(description)[0]?.[1]).toEqual(["address"]);
    expect(description.interfaces.map(({ name }) => name)).toEqual(["Planner", "More"]);
    expect(description.problems).toEqual([]);
  });

  test.each(["http://quillmere.example/crew.xsd", "../crew.xsd", "/etc/passwd", "file:///etc/passwd"])(
    "%s is named, and never asked for",
    (location) => {
      const description = read(wsdl(types(`<xs:import namespace="urn:x" schemaLocation="${location}"/>`) + plan(two)));
      expect(description.problems.map(({ text }) => text)).toEqual([
        `The import ${location} leads out of the description's folder and was not followed.`,
      ]);
      expect(operations(description)[0]?.[1]).toEqual(["address", "day"]);
    },
  );
});

test("what is not described is told", () => {
  const told = (inside: string) => read(wsdl(inside)).problems.map(({ text }) => text);
  expect(told(plan(element))).toEqual(["The element Visit of a message is not described."]);
  expect(
    told(
      '<wsdl:portType name="P"><wsdl:operation name="o"><wsdl:input message="t:none"/></wsdl:operation></wsdl:portType>',
    ),
  ).toEqual(["The message none is not described."]);
});

test.each<[string, string, RegExp]>([
  ["not well-formed", "<a><b></a>", /not well-formed/],
  ["another root", "<schema/>", /no WSDL 1.1 description/],
  ["WSDL 2.0", '<description xmlns="http://www.w3.org/ns/wsdl"/>', /no WSDL 1.1/],
  ["entities", '<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>', /document type/],
  ["nested too deep", `${"<a>".repeat(300)}${"</a>".repeat(300)}`, /nests/],
])("what cannot be used: %s", (_, text, message) => {
  const read = readDescription({ name: "x.wsdl", bytes: bytes(text) });
  expect(read.ok ? "" : read.problems[0]?.message).toMatch(message);
});
