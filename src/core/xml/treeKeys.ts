import { declaredBy, type SourceElement, type SourceNode } from "./sourceTree";

/**
 * Gives equal numbers to equal content, of however many trees: names by their namespaces, attributes in any order, white space that
 * only lays out left aside. So that content of any size is compared by one number.
 */
export class TreeKeys {
  readonly #numbers = new Map<string, number>();
  readonly #keys = new Map<SourceNode, number>();

  /** @param isUnordered elements whose children may stand in any order */
  constructor(private readonly isUnordered: (element: SourceElement) => boolean = () => false) {}

  of(node: SourceNode): number {
    const known = this.#keys.get(node);
    if (known !== undefined) return known;
    const key = this.#number(this.#spelled(node));
    this.#keys.set(node, key);
    return key;
  }

  /** The content of an element alone. */
  contentOf(element: SourceElement): string {
    const keys = meant(element).map((node) => this.of(node));
    if (this.isUnordered(element)) keys.sort((a, b) => a - b);
    return keys.join(" ");
  }

  #spelled(node: SourceNode): string {
    if (node.kind !== "element") return `${node.kind} ${node.value}`;
    const attributes: string[] = [];
    // No text of XML holds these signs, so what is told apart stays apart.
    for (const { name, uri, local, value } of node.attributes)
      if (declaredBy(name) === undefined) attributes.push(`${uri}\u0001${local}\u0002${value}`);
    if (attributes.length > 1) attributes.sort();
    return `${node.uri}\u0001${node.local}\u0003${attributes.join("\u0003")}\u0004${this.contentOf(node)}`;
  }

  #number(spelled: string): number {
    const known = this.#numbers.get(spelled);
    if (known !== undefined) return known;
    this.#numbers.set(spelled, this.#numbers.size);
    return this.#numbers.size - 1;
  }
}

/** Whether an element holds text of its own, so that white space in it counts. */
export const holdsText = (element: SourceElement): boolean =>
  element.content.some((node) => node.kind === "text") &&
  (!element.content.some((node) => node.kind === "element") ||
    element.content.some((node) => node.kind === "text" && node.value.trim() !== ""));

/** What an element holds, without the white space that only lays it out. */
export function meant(element: SourceElement): readonly SourceNode[] {
  if (!holdsText(element)) return element.content.filter(({ kind }) => kind !== "text");
  // A text may be written in several pieces.
  const joined: SourceNode[] = [];
  for (const node of element.content) {
    const last = joined[joined.length - 1];
    if (node.kind === "text" && last?.kind === "text")
      joined[joined.length - 1] = { ...last, end: node.end, value: last.value + node.value };
    else joined.push(node);
  }
  const [only] = joined;
  return joined.length === 1 && only?.kind === "text" && only.value.trim() === "" ? [] : joined;
}
