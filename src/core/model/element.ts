import type { metamodel } from "./metamodel/metamodel";
import type { PlacedNode, XmlNode } from "./xmlNode";

/** An element's id: the file's own where it has one. See `ids.ts` for the forms. */
export type Id = string;

export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

export interface Documentation {
  readonly text: string;
  readonly id?: string;
  readonly textFormat?: string;
  /** Markup inside, where the text is not plain; it is then what is written. */
  readonly nodes?: readonly XmlNode[];
  readonly attributes?: readonly (readonly [string, string])[];
}

export interface Expression {
  readonly text: string;
  readonly language?: string;
  readonly id?: string;
  /** `xsi:type` as written, e.g. "tFormalExpression"; absent for a plain expression. */
  readonly typeName?: string;
  readonly evaluatesToTypeRef?: string;
  readonly nodes?: readonly XmlNode[];
  readonly attributes?: readonly (readonly [string, string])[];
}

/** Text content of an element, with its markup where it is not plain. */
export interface TextContent {
  readonly text: string;
  readonly nodes?: readonly XmlNode[];
}

export type ElementType = keyof typeof metamodel;

/** What every element of the model has, whatever its type. */
export interface ElementBase {
  readonly id: Id;
  /** The element it stands in; null for the definitions. */
  readonly parent: Id | null;
  /** The place of its kind within the parent, a content key of the metamodel: "flowElements", "lanes". */
  readonly slot: string;
  /** Rank among its siblings of one slot; any number, so one more can be put between two. */
  readonly order: number;
  readonly documentation?: readonly Documentation[];
  /** Children of `extensionElements`: everybody's, ours included. */
  readonly extension?: readonly XmlNode[];
  readonly extensionAttributes?: readonly (readonly [string, string])[];
  /** Attributes of foreign namespaces, and namespace declarations below the root. */
  readonly foreignAttributes?: readonly (readonly [name: string, value: string])[];
  /** Comments and elements we do not interpret, among the children. */
  readonly foreign?: readonly PlacedNode[];
  /** Attributes whose spelling in the file is not the one we would write ("1" for true, "tns:order"), by field. */
  readonly spelling?: { readonly [field: string]: string };
  /** The element's prefix in its file where it is not the file's usual one. */
  readonly prefix?: string;
}

type ValueOf<Field> = Field extends { kind: "boolean" }
  ? boolean
  : Field extends { kind: "integer" }
    ? number
    : Field extends { kind: "enum"; values: readonly (infer Value)[] }
      ? Value
      : Field extends { kind: "string" }
        ? string
        : Field extends { kind: "reference" }
          ? Id
          : Field extends { kind: "references"; many: true }
            ? readonly Id[]
            : Field extends { kind: "references" }
              ? Id
              : Field extends { kind: "expression" }
                ? Expression
                : Field extends { kind: "text" }
                  ? TextContent
                  : never;

type FieldsOf<Fields> = {
  readonly [Name in keyof Fields as Fields[Name] extends { kind: "children" } ? never : Name]?: ValueOf<Fields[Name]>;
};

/** An element of one type, with the fields the standard gives that type. */
export type ElementOf<Type extends ElementType> = ElementBase & { readonly type: Type } & FieldsOf<
    (typeof metamodel)[Type]["attributes"]
  > &
  FieldsOf<(typeof metamodel)[Type]["content"]>;

/** Any element, to be narrowed by its `type`. */
export type TypedElement = { [Type in ElementType]: ElementOf<Type> }[ElementType];

/** Any element as a plain record: what edits, files and tables deal in. `name` is the one field read everywhere. */
export interface Element extends ElementBase {
  readonly type: ElementType;
  readonly name?: string;
  readonly [field: string]: unknown;
}

/** Narrows an element to a type or one of several, giving access to the fields of that type. */
export function isA<Type extends ElementType>(
  element: Element | undefined | null,
  ...types: readonly Type[]
): element is Element & ElementOf<Type> {
  return element != null && (types as readonly string[]).includes(element.type);
}
