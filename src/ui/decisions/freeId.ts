import { itemOf } from "@/core/decisions";
import type { XmlElement } from "@/core/model";

/** An id made from a name that nothing in the file has yet. */
export function freeId(root: XmlElement, name: string): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");
  const base = /^[a-z]/.test(plain) ? plain : `item-${plain}`;
  let id = base;
  for (let count = 2; itemOf(root, id); count++) id = `${base}-${count}`;
  return id;
}
