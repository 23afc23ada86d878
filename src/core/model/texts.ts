import type { Element } from "./element";
import { flowNodeTypes, isScope } from "./families";
import type { Model } from "./model";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";
import { documentationIn, documentedIn, plainOf, textOfPlain, withDocumentation } from "./richText";

/**
 * What an element is called in languages besides the model's own. The standard has a place for descriptions in several languages
 * (`xml:lang`), and none for names; those stand in elements of ours.
 */
export function nameIn(element: Element, language: string): string | undefined {
  const node = ownNodes(element, "text").find((one) => attribute(one, "language") === language);
  return (node && attribute(node, "name")) || undefined;
}

/** The extension content with a name in a language put in place of the one there was; "" takes it away. */
export function withNameIn(element: Element, language: string, name: string) {
  const others = ownNodes(element, "text").filter((one) => attribute(one, "language") !== language);
  const said =
    name === ""
      ? []
      : [
          ownElement("text", [
            ["language", language],
            ["name", name],
          ]),
        ];
  return replaced(element, "text", [...others.map((node) => ({ element: node })), ...said]);
}

/** What an element is called in the model's own language: its name, or the words of a note. */
export const ownName = (element: Element): string =>
  element.name?.trim() || (element.text as { readonly text?: string } | undefined)?.text?.trim() || "";

/** A text of an element that has to be put into another language. */
export interface Untold {
  readonly element: Element;
  readonly what: "name" | "description";
}

/** Languages that some text of a model is kept in, besides its own; in order. O(elements). */
export function languagesOf({ elements }: Model): string[] {
  const found = new Set<string>();
  for (const element of elements) {
    for (const language of documentedIn(element)) found.add(language);
    for (const node of ownNodes(element, "text")) {
      const language = attribute(node, "language");
      if (language) found.add(language);
    }
  }
  return [...found].sort();
}

const read: ReadonlySet<string> = new Set([
  ...flowNodeTypes,
  "participant",
  "process",
  "lane",
  "sequenceFlow",
  "messageFlow",
  "dataObjectReference",
  "dataStoreReference",
  "property",
  "textAnnotation",
  "group",
]);

/** Whether somebody who reads a model meets elements of a type by their names. */
export const isRead = (type: string): boolean => read.has(type);

/**
 * A model as it reads in a language: names and descriptions of that language where they are kept, the model's own where they are not;
 * and what is missing. Everything that is drawn or told of a model can so be told in it. O(elements).
 */
export function modelIn(model: Model, language: string): { readonly model: Model; readonly untold: readonly Untold[] } {
  const changed = new Map<string, Element>();
  const untold: Untold[] = [];
  for (const element of model.elements) {
    const own = ownName(element);
    const name = nameIn(element, language);
    let told = element;
    if (name !== undefined)
      told = element.name?.trim()
        ? { ...told, name }
        : ({ ...told, text: { ...(element.text as object), text: name } } as Element);
    else if (own !== "" && isRead(element.type)) untold.push({ element, what: "name" });
    if (plainOf(documentationIn(element)).trim() !== "" || documentedIn(element).includes(language)) {
      if (documentedIn(element).includes(language)) {
        const text = documentationIn(element, language);
        const documentation = withDocumentation({ ...element, documentation: [] }, undefined, text);
        told = { ...told, documentation: documentation ?? [] };
      } else untold.push({ element, what: "description" });
    }
    if (told !== element) changed.set(element.id, told);
  }
  if (changed.size === 0) return { model, untold };
  return { model: { ...model, elements: model.elements.with(changed), diagrams: pagesIn(model, changed) }, untold };
}

/** Pages that are called like what they show are called like it in the language too. */
function pagesIn(model: Model, changed: ReadonlyMap<string, Element>): Model["diagrams"] {
  const names = new Map<string, string>();
  for (const [id, { name }] of changed) {
    const own = model.elements.get(id);
    if (own?.name && name && (isScope(own.type) || own.type === "participant")) names.set(own.name, name);
  }
  const pages = [...model.diagrams].flatMap((page) => {
    const name = page.name === undefined ? undefined : names.get(page.name);
    return name === undefined ? [] : [[page.id, { ...page, name }] as const];
  });
  return pages.length === 0 ? model.diagrams : model.diagrams.with(new Map(pages));
}

/** What a description says in a language, as plain words a line each; "" for nothing. */
export const descriptionIn = (element: Element, language?: string): string =>
  plainOf(documentationIn(element, language)).trim();

/** The documentations of an element with plain words put in place in a language. */
export const withDescriptionIn = (element: Element, language: string, words: string) =>
  withDocumentation(element, language, textOfPlain(words));
