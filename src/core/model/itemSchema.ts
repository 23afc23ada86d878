import type { Element, Id } from "./element";
import type { Model } from "./model";
import { ownNamespace } from "./model";
import { ownNodes, replaced } from "./ownData";
import { childrenOf, nameOf } from "./queries";

/**
 * What a piece of data holds, as JSON Schema (2020-12) in text: the standard gives an item definition the place (BPMN 2.0, 8.4.10: its
 * structure is of any type language), our element holds the words.
 */
export function schemaTextOf(item: Element): string | undefined {
  const node = ownNodes(item, "schema")[0];
  return node?.children.map((child) => ("text" in child ? child.text : "")).join("");
}

export const withSchemaText = (item: Element, text: string | undefined) =>
  replaced(
    item,
    "schema",
    text === undefined
      ? []
      : [{ element: { name: "lln:schema", uri: ownNamespace, attributes: [], children: [{ text }] } }],
  );

/** The item definition of a piece of data. */
export function itemOfData(model: Model, data: Element): Element | undefined {
  const ref = data.itemSubjectRef;
  return typeof ref === "string" ? model.elements.get(ref) : undefined;
}

/** A piece of data of a process: an object that is drawn, or a property of the process. */
export interface ProcessDatum {
  readonly id: Id;
  readonly name: string;
  readonly isDrawn: boolean;
  /** The references by which it is drawn. */
  readonly references: readonly Id[];
  /** Its schema as text; undefined where nobody said one. */
  readonly schema: string | undefined;
}

/** The data of a process and of what stands inside it, in the order of the file. O(elements inside). */
export function dataOfProcess(model: Model, process: Id): ProcessDatum[] {
  const found: ProcessDatum[] = [];
  const references = new Map<Id, Element[]>();
  const objects: Element[] = [];
  const scopes = [process];
  for (const scope of scopes)
    for (const child of childrenOf(model, scope)) {
      if (child.type === "dataObjectReference" && typeof child.dataObjectRef === "string")
        references.set(child.dataObjectRef, [...(references.get(child.dataObjectRef) ?? []), child]);
      else if (child.type === "dataObject" || child.type === "property") objects.push(child);
      else if (childrenOf(model, child.id).length > 0) scopes.push(child.id);
    }
  for (const object of objects) {
    const drawn = references.get(object.id) ?? [];
    const item = itemOfData(model, object);
    found.push({
      id: object.id,
      name: drawn.map((one) => nameOf(model, one.id)).find((name) => name !== "") ?? nameOf(model, object.id),
      isDrawn: object.type === "dataObject",
      references: drawn.map(({ id }) => id),
      schema: item && schemaTextOf(item),
    });
  }
  return found.filter(({ name }) => name !== "");
}
