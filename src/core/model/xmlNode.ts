/** XML that belongs to somebody else, or that we do not interpret, kept as it stood so that it can be written back. */
export interface XmlElement {
  /** The name as written, with its prefix. */
  readonly name: string;
  /** The namespace the prefix stood for. */
  readonly uri: string;
  /** Attributes as written, namespace declarations included, in document order. */
  readonly attributes: readonly (readonly [name: string, value: string])[];
  readonly children: readonly XmlNode[];
}
export type XmlNode =
  | { readonly element: XmlElement }
  | { readonly text: string }
  | { readonly comment: string }
  | { readonly instruction: readonly [target: string, body: string] };

/** A foreign node among an element's children: it stands behind the child with the key `after` ("" for the start). */
export interface PlacedNode {
  readonly after: string;
  readonly node: XmlNode;
}
