import type { ElementType } from "../element";
import type { AttributeField, ContentField } from "./fields";
import { metamodel } from "./metamodel";

/** One element type of the metamodel, prepared for look-up by field name. */
export interface TypeInfo {
  readonly type: ElementType;
  readonly attributes: ReadonlyMap<string, AttributeField>;
  /** In schema order. */
  readonly content: ReadonlyMap<string, ContentField>;
  /** Rank of each slot in schema order. */
  readonly slotRank: ReadonlyMap<string, number>;
  /** Fields that name other elements. */
  readonly references: readonly { readonly field: string; readonly many: boolean; readonly qname: boolean }[];
  /** Which slot a child element belongs to, by its XML tag. */
  readonly childByTag: ReadonlyMap<
    string,
    { readonly slot: string; readonly type: ElementType; readonly many: boolean }
  >;
}

const types = new Map<string, TypeInfo>();
for (const [type, { attributes, content }] of Object.entries(metamodel)) {
  const attributeMap = new Map<string, AttributeField>(Object.entries(attributes));
  const contentMap = new Map<string, ContentField>(Object.entries(content));
  const references = [
    ...[...attributeMap].flatMap(([field, spec]) =>
      spec.kind === "reference" ? [{ field, many: false, qname: spec.qname }] : [],
    ),
    ...[...contentMap].flatMap(([field, spec]) =>
      spec.kind === "references" ? [{ field, many: spec.many, qname: spec.qname }] : [],
    ),
  ];
  const childByTag = new Map<string, { slot: string; type: ElementType; many: boolean }>();
  for (const [slot, spec] of contentMap) {
    if (spec.kind !== "children") continue;
    for (const child of spec.types) {
      const tag = spec.tag ?? child;
      if (!childByTag.has(tag)) childByTag.set(tag, { slot, type: child as ElementType, many: spec.many });
    }
  }
  types.set(type, {
    type: type as ElementType,
    attributes: attributeMap,
    content: contentMap,
    slotRank: new Map([...contentMap.keys()].map((slot, rank) => [slot, rank])),
    references,
    childByTag,
  });
}

/** The metamodel's entry of a type. Throws for a name the metamodel does not know. */
export function typeInfo(type: ElementType): TypeInfo {
  const info = types.get(type);
  if (!info) throw new Error(`No element type "${type}" in the metamodel.`);
  return info;
}

export const elementTypes: readonly ElementType[] = [...types.keys()] as ElementType[];

export function isElementType(name: string): name is ElementType {
  return types.has(name);
}

/** The slots of a parent type that take a child of a type. */
export function slotFor(parent: ElementType, child: ElementType): string | undefined {
  for (const [slot, spec] of typeInfo(parent).content) {
    if (spec.kind === "children" && spec.types.includes(child)) return slot;
  }
  return undefined;
}
