import { describe, expect, test } from "vitest";
import { bpmnNamespace, type ElementType } from "../model";
import { elementTypes, slotFor, typeInfo } from "../model/metamodel/lookup";
import { expectOk } from "../testing/models";
import { schemaErrorsOf, xmlInformation } from "../testing/xml";
import { readBpmn, writeBpmn } from ".";

// The metamodel is stated once, from the standard's class tables; here every line of it is held against the standard's own schema
// (BPMN 2.0, formal/2011-01-03, chapter 15), and against reading and writing.

/** Content of which the schema allows one or the other; the samples have the first. */
const others: { readonly [type: string]: readonly string[] } = {
  timerEventDefinition: ["timeDuration", "timeCycle"],
  resourceRole: ["resourceAssignmentExpression"],
  performer: ["resourceAssignmentExpression"],
  humanPerformer: ["resourceAssignmentExpression"],
  potentialOwner: ["resourceAssignmentExpression"],
};

/** Content an element cannot do without. */
const needed: { readonly [type: string]: readonly string[] } = {
  ioSpecification: ["inputSets", "outputSets"],
  resourceParameterBinding: ["expression"],
  resourceAssignmentExpression: ["expression"],
};

/** Writes elements with every attribute and all content of their type, down to a depth. */
class Sample {
  #count = 0;

  /** `inner`: what stands in one of its slots, in place of samples of what could stand there. */
  element(
    type: ElementType,
    tag: string,
    depth: number,
    inner?: { readonly slot: string; readonly xml: string },
  ): string {
    const { attributes, content } = typeInfo(type);
    const at = ++this.#count;
    const written = [...attributes].map(([field, spec]) => {
      const name = field === "typeRef" ? "type" : field;
      if (spec.kind === "boolean") return `${name}="${at % 2 === 0}"`;
      if (spec.kind === "integer") return `${name}="1"`;
      if (spec.kind === "enum") return `${name}="${spec.values[at % spec.values.length]}"`;
      return `${name}="${spec.kind === "reference" ? "other" : `some-${name}`}"`;
    });
    // Alone in the standard, these two are no "base elements" and have no id.
    if (type !== "import" && type !== "extension") written.unshift(`id="e${at}"`);
    const inside: string[] = [];
    for (const [slot, spec] of content) {
      if (inner?.slot === slot) inside.push(inner.xml);
      else if (others[type]?.includes(slot) && !(inner && others[type]?.includes(inner.slot))) continue;
      else if (inner && others[type]?.includes(inner.slot) && (slot === "resourceRef" || slot === "timeDate")) continue;
      else if (spec.kind === "references") inside.push(...Array(spec.many ? 2 : 1).fill(`<${slot}>other</${slot}>`));
      else if (spec.kind === "expression") inside.push(`<${slot}>capacity &lt; 30</${slot}>`);
      // An expression that is an element has its text directly inside.
      else if (spec.kind === "text") inside.push(slot === "body" ? "meters" : `<${slot}>meters</${slot}>`);
      else if (depth > 0 || needed[type]?.includes(slot)) {
        const types = spec.types.slice(0, depth > 2 && spec.many ? 2 : 1) as readonly ElementType[];
        for (const child of types)
          inside.push(this.element(child, spec.tag ?? child, depth > 2 ? 1 : Math.max(0, depth - 1)));
      }
    }
    return `<${tag} ${written.join(" ")}>${inside.join("\n")}</${tag}>`;
  }
}

/** The way from the root of a file to a type, each with the slot of the next. */
function wayTo(type: ElementType): readonly ElementType[] {
  const ways: ElementType[][] = [["definitions"]];
  const seen = new Set<ElementType>(["definitions"]);
  for (const way of ways) {
    const last = way[way.length - 1] as ElementType;
    if (last === type) return way;
    for (const next of elementTypes)
      if (!seen.has(next) && slotFor(last, next) !== undefined) {
        seen.add(next);
        ways.push([...way, next]);
      }
  }
  throw new Error(`Nothing holds a ${type}.`);
}

const tagIn = (parent: ElementType, child: ElementType) => {
  const spec = typeInfo(parent).content.get(slotFor(parent, child) ?? "");
  return spec?.kind === "children" && spec.tag ? spec.tag : child;
};

function fileWith(type: ElementType): string {
  const way = wayTo(type);
  const sample = new Sample();
  let inner: { readonly slot: string; readonly xml: string } | undefined;
  for (let at = way.length - 1; at > 0; at--) {
    const [parent, here] = [way[at - 1] as ElementType, way[at] as ElementType];
    const xml = sample.element(here, tagIn(parent, here), at === way.length - 1 ? 3 : 0, inner);
    inner = { slot: slotFor(parent, here) ?? "", xml };
  }
  return `<definitions xmlns="${bpmnNamespace}" id="d" targetNamespace="urn:quillmere">\n${inner?.xml}\n</definitions>`;
}

describe("the metamodel and the standard's schema", () => {
  const types = elementTypes.filter((type) => type !== "definitions");

  test("every type with all it can have conforms", async () => {
    expect(await schemaErrorsOf(Object.fromEntries(types.map((type) => [`${type}.bpmn`, fileWith(type)])))).toEqual([]);
  });

  test("the schema is asked: what stands in another order, or is missing, does not conform", async () => {
    const file = fileWith("lane");
    expect(
      await schemaErrorsOf({
        "lane.bpmn": file.replace(
          /(<partitionElement .*?<\/partitionElement>)\s*(<flowNodeRef>.*?<\/flowNodeRef>)/s,
          "$2$1",
        ),
      }),
    ).not.toEqual([]);
    expect(await schemaErrorsOf({ "lane.bpmn": file.replaceAll("flowNodeRef", "flowNode") })).not.toEqual([]);
  });

  test.each(types)("%s with all it can have is read whole, and comes back as it was", (type) => {
    const file = fileWith(type);
    const model = expectOk(readBpmn(file));
    expect(model.notes.filter((note) => note.code === "misplaced-element" || note.code === "bad-value")).toEqual([]);
    expect([...model.elements].some((element) => element.foreign || element.foreignAttributes)).toBe(false);
    expect(xmlInformation(writeBpmn(model))).toEqual(xmlInformation(file));
  });
});
