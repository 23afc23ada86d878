import type { Field } from "./description";
import { keyOf, type QualifiedName, type XmlPart } from "./xmlDocument";

export const schemaNamespace = "http://www.w3.org/2001/XMLSchema";

type Kind = "element" | "complexType" | "simpleType" | "group";
const kinds: readonly Kind[] = ["element", "complexType", "simpleType", "group"];

/** The declarations of all schemas of a description, by their qualified names. */
export class XmlSchemas {
  readonly #declared = new Map<string, { readonly part: XmlPart; readonly namespace: string }>();

  /** @param as the namespace an included schema without one of its own takes on (XML Schema 1.0, part 1, section 4.2.1) */
  add(schema: XmlPart, as?: string): void {
    const namespace = schema.attributes.get("targetNamespace") ?? as ?? "";
    for (const part of schema.children) {
      const name = part.attributes.get("name");
      if (part.uri !== schemaNamespace || name === undefined || !kinds.includes(part.local as Kind)) continue;
      const key = `${part.local} ${keyOf({ uri: namespace, local: name })}`;
      if (!this.#declared.has(key)) this.#declared.set(key, { part, namespace });
    }
  }

  /**
   * What a message's element holds: the elements inside it, or itself where it is simple.
   * @returns undefined where it is not declared
   */
  fieldsOf(name: QualifiedName): Field[] | undefined {
    const element = this.#find("element", name);
    if (!element) return undefined;
    const self: Field = { name: name.local, type: this.#typeWords(element), isRequired: true };
    const type = this.#typeOf(element);
    if (!type || type.local === "simpleType") return [self];
    if (type.children.some((child) => child.local === "simpleContent")) return [self];
    return this.#inside(type, new Set());
  }

  #find(kind: Kind, name: QualifiedName): XmlPart | undefined {
    return this.#declared.get(`${kind} ${keyOf(name)}`)?.part;
  }

  /** The complex or simple type of an element; undefined for one that comes with XML Schema, or for anything. */
  #typeOf(element: XmlPart): XmlPart | undefined {
    const inner = element.children.find(({ local }) => local === "complexType" || local === "simpleType");
    if (inner) return inner;
    const named = element.attributes.get("type");
    if (named === undefined) return undefined;
    const name = element.resolve(named);
    return this.#find("complexType", name) ?? this.#find("simpleType", name);
  }

  #typeWords(element: XmlPart): string {
    const named = element.attributes.get("type");
    const type = named === undefined ? "" : element.resolve(named).local;
    const most = element.attributes.get("maxOccurs") ?? "1";
    return most !== "1" && most !== "0" ? `list of ${type || "anything"}` : type;
  }

  /** The elements of a content model, what it extends or refers to included; a ring of references is gone through once. */
  #inside(part: XmlPart, seen: Set<XmlPart>, isOptional = false): Field[] {
    if (seen.has(part)) return [];
    seen.add(part);
    const fields = part.children.flatMap((child): Field[] => {
      if (child.uri !== schemaNamespace) return [];
      const isLess = isOptional || child.attributes.get("minOccurs") === "0";
      switch (child.local) {
        case "element": {
          const reference = child.attributes.get("ref");
          const name = reference === undefined ? child.attributes.get("name") : child.resolve(reference).local;
          const declared = reference === undefined ? child : (this.#find("element", child.resolve(reference)) ?? child);
          return name === undefined ? [] : [{ name, type: this.#typeWords(declared), isRequired: !isLess }];
        }
        case "choice":
          return this.#inside(child, seen, true);
        case "sequence":
        case "all":
        case "complexContent":
          return this.#inside(child, seen, isLess);
        case "extension": {
          const base = this.#find("complexType", child.resolve(child.attributes.get("base") ?? ""));
          return [...(base ? this.#inside(base, seen, isLess) : []), ...this.#inside(child, seen, isLess)];
        }
        case "restriction":
          return this.#inside(child, seen, isLess);
        case "group": {
          const reference = child.attributes.get("ref");
          const group = reference === undefined ? undefined : this.#find("group", child.resolve(reference));
          return group ? this.#inside(group, seen, isLess) : [];
        }
        default:
          return [];
      }
    });
    seen.delete(part);
    return fields;
  }
}
