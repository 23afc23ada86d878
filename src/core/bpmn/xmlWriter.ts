import type { XmlElement, XmlNode } from "../model";
import { escapeAttribute, escapeText } from "../xml";

export type WrittenAttribute = readonly [name: string, value: string];

/** Writes XML with two spaces of indentation, and text content exactly as it is. */
export class XmlWriter {
  readonly #parts: string[] = ['<?xml version="1.0" encoding="UTF-8"?>\n'];
  readonly #open: string[] = [];
  #startIsOpen = false;
  #inline = 0;

  start(name: string, attributes: Iterable<WrittenAttribute>): void {
    this.#endStart();
    if (this.#inline === 0) this.#parts.push("  ".repeat(this.#open.length));
    this.#parts.push("<", name);
    for (const [key, value] of attributes) this.#parts.push(" ", key, '="', escapeAttribute(value), '"');
    this.#startIsOpen = true;
    this.#open.push(name);
  }

  end(): void {
    const name = this.#open.pop() as string;
    if (this.#startIsOpen) {
      this.#parts.push("/>");
      this.#startIsOpen = false;
    } else {
      if (this.#inline === 0) this.#parts.push("  ".repeat(this.#open.length));
      this.#parts.push("</", name, ">");
    }
    if (this.#inline === 0) this.#parts.push("\n");
  }

  /** An element with text, or with text and markup mixed, on one line. */
  textElement(name: string, attributes: Iterable<WrittenAttribute>, content: string | readonly XmlNode[]): void {
    this.start(name, attributes);
    this.#inline++;
    if (typeof content === "string") {
      if (content !== "") {
        this.#closeStart();
        this.#parts.push(escapeText(content));
      }
    } else for (const node of content) this.node(node);
    if (this.#startIsOpen) {
      this.#parts.push("/>");
      this.#startIsOpen = false;
    } else this.#parts.push("</", name, ">");
    this.#open.pop();
    this.#inline--;
    if (this.#inline === 0) this.#parts.push("\n");
  }

  node(node: XmlNode): void {
    if ("element" in node) return this.#foreign(node.element);
    this.#endStart();
    if ("text" in node) {
      if (this.#inline > 0) this.#parts.push(escapeText(node.text));
      else this.#parts.push("  ".repeat(this.#open.length), escapeText(node.text), "\n");
      return;
    }
    if (this.#inline === 0) this.#parts.push("  ".repeat(this.#open.length));
    if ("comment" in node) this.#parts.push("<!--", node.comment, "-->");
    else this.#parts.push("<?", node.instruction[0], node.instruction[1] ? ` ${node.instruction[1]}` : "", "?>");
    if (this.#inline === 0) this.#parts.push("\n");
  }

  toString(): string {
    return this.#parts.join("");
  }

  #foreign({ name, attributes, children }: XmlElement): void {
    if (children.some((child) => "text" in child)) return this.textElement(name, attributes, children);
    this.start(name, attributes);
    for (const child of children) this.node(child);
    this.end();
  }

  #closeStart(): void {
    if (!this.#startIsOpen) return;
    this.#parts.push(">");
    this.#startIsOpen = false;
  }

  #endStart(): void {
    if (!this.#startIsOpen) return;
    this.#closeStart();
    if (this.#inline === 0) this.#parts.push("\n");
  }
}
