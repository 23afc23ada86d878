import { ownNamespace, type XmlElement, type XmlNode } from "../../model";
import type { TestCase } from "../testCases";
import type { DecisionDocument } from "./document";
import { decisionOrder, itemOf } from "./item";
import { attributeOf, changedById, elementIn, makeElement, withChild, withChildren } from "./tree";

/**
 * Test cases stand with their decision in the file, in extension elements of our own: `lln:testCase` with what is given and what should come
 * out, as JSON.
 */
export function testCasesOf({ root }: DecisionDocument, id: string): TestCase[] {
  const item = itemOf(root, id);
  const extension = item && elementIn(item, "extensionElements");
  return (extension?.children ?? []).flatMap((node): TestCase[] => {
    if (!isCase(node)) return [];
    const [given, expected] = [
      parsed(attributeOf(node.element, "given")),
      parsed(attributeOf(node.element, "expected")),
    ];
    const isData = typeof given === "object" && given !== null && !Array.isArray(given);
    return isData
      ? [
          {
            name: attributeOf(node.element, "name") ?? "",
            given: given as TestCase["given"],
            expected: expected ?? null,
          },
        ]
      : [];
  });
}

/** The file with other test cases at a decision; what others keep there stays. */
export function withTestCases(document: DecisionDocument, id: string, cases: readonly TestCase[]): DecisionDocument {
  const root = changedById(document.root, id, (item) => {
    const before = elementIn(item, "extensionElements");
    const kept = (before?.children ?? []).filter((node) => !isCase(node));
    const isEmpty = cases.length === 0 && kept.every((node) => "text" in node && node.text.trim() === "");
    if (isEmpty) return before ? withChild(item, before, undefined) : item;
    const written = cases.map(
      ({ name, given, expected }): XmlNode => ({
        element: {
          name: "lln:testCase",
          uri: ownNamespace,
          attributes: [
            ["xmlns:lln", ownNamespace],
            ["name", name],
            ["given", JSON.stringify(given)],
            ["expected", JSON.stringify(expected ?? null)],
          ],
          children: [],
        },
      }),
    );
    const extension: XmlElement = {
      ...(before ?? makeElement(item, "extensionElements")),
      children: [...kept, ...written],
    };
    return before
      ? withChild(item, before, extension)
      : withChildren(item, "extensionElements", [extension], decisionOrder);
  });
  return root === document.root ? document : { ...document, root };
}

const isCase = (node: XmlNode): node is { readonly element: XmlElement } =>
  "element" in node && node.element.uri === ownNamespace && node.element.name.replace(/^.*:/, "") === "testCase";

function parsed(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? "null");
  } catch {
    // Written by hand, and no data: nothing can be held against it.
    return undefined;
  }
}
