/**
 * The vocabulary in which `metamodel.ts` states the standard's content model: what an attribute holds, and what may stand
 * inside an element, in the order in which the standard's schema wants it.
 */

/** A reference names another element by id. `qname` ones may point outside the file ("prefix:id"); the others may not. */
export interface ReferenceField {
  readonly kind: "reference";
  readonly qname: boolean;
}
export interface EnumField<Value extends string> {
  readonly kind: "enum";
  readonly values: readonly Value[];
}
export type AttributeField =
  | { readonly kind: "string" }
  | { readonly kind: "boolean" }
  | { readonly kind: "integer" }
  | ReferenceField
  | EnumField<string>;

export type ContentField =
  /** Child elements that are elements of the model themselves; `tag` where the XML name is not the type's name. */
  | { readonly kind: "children"; readonly types: readonly string[]; readonly tag?: string; readonly many: boolean }
  /** `<incoming>id</incoming>`: references as element text, one or several. */
  | { readonly kind: "references"; readonly many: boolean; readonly qname: boolean }
  /** An expression held as a value, not as an element of its own. */
  | { readonly kind: "expression" }
  /** Text content, possibly with markup. */
  | { readonly kind: "text" };

export const string = { kind: "string" } as const;
export const boolean = { kind: "boolean" } as const;
export const integer = { kind: "integer" } as const;
export const idref = { kind: "reference", qname: false } as const;
export const qref = { kind: "reference", qname: true } as const;
export const oneOf = <const Values extends readonly string[]>(...values: Values) => ({ kind: "enum", values }) as const;

export const expression = { kind: "expression" } as const;
export const text = { kind: "text" } as const;
export const refs = { kind: "references", many: true, qname: true } as const;
export const ref = { kind: "references", many: false, qname: true } as const;
export const localRefs = { kind: "references", many: true, qname: false } as const;
export const many = <const Types extends readonly string[]>(...types: Types) =>
  ({ kind: "children", types, many: true }) as const;
export const one = <const Types extends readonly string[]>(...types: Types) =>
  ({ kind: "children", types, many: false }) as const;
export const oneTagged = <const Tag extends string, const Types extends readonly string[]>(tag: Tag, ...types: Types) =>
  ({ kind: "children", types, tag, many: false }) as const;
