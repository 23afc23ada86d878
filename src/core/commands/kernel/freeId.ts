import { type Id, referrersOf } from "../../model";
import type { Change } from "./change";

/** An id made of a name, as an XML name has to be. */
export const slug = (text: string): string =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 60) || "unnamed";

/** An id that is free, as it is wished or with a number behind it. */
export function freeId(change: Change, wish: string): Id {
  let id = wish;
  for (let at = 2; change.isTaken(id); at++) id = `${wish}.${at}`;
  return id;
}

/** Whether anything refers to an element. */
export const isUsed = (change: Change, id: Id): boolean => referrersOf(change.model, id).length > 0;
