import type { Element, Id, Model, PlacedNode, XmlNode } from "../model";
import type { XmlWriter } from "./xmlWriter";

/** What the parts of the writer share: where to write, and how names are spelled in this file. */
export interface WriteContext {
  readonly model: Model;
  readonly out: XmlWriter;
  /** The children of an element's extension elements as they are written. */
  readonly extensionOf: (element: Element) => readonly XmlNode[];
  /** Prefix with its colon, or "" for the default namespace. */
  readonly prefixOf: (uri: string) => string;
  /** The id an element has in the file; undefined where it has none. */
  readonly fileId: (id: Id, spelled?: string) => string | undefined;
}

/** Foreign nodes put back behind the sibling they followed; those whose sibling is gone come last. */
export class ForeignNodes {
  readonly #waiting: PlacedNode[];
  constructor(
    private readonly out: XmlWriter,
    nodes: readonly PlacedNode[] | undefined,
  ) {
    this.#waiting = [...(nodes ?? [])];
  }
  after(key: string): void {
    if (this.#waiting.length === 0) return;
    for (let at = 0; at < this.#waiting.length; ) {
      const placed = this.#waiting[at] as PlacedNode;
      if (placed.after !== key) at++;
      else {
        this.out.node(placed.node);
        this.#waiting.splice(at, 1);
      }
    }
  }
  rest(): void {
    for (const { node } of this.#waiting) this.out.node(node);
  }
}
