import type { Id } from "./element";

const nameStart = "\\p{L}\\p{Nl}_";
const ncName = new RegExp(`^[${nameStart}][${nameStart}\\p{Nd}\\p{Mn}\\p{Mc}.\\-·]*$`, "u");

/** Whether a text may stand as an id in a file (an XML name without a colon). */
export function isFileId(text: string): boolean {
  return ncName.test(text);
}

/**
 * Elements whose file gave them no id are kept under a key no file can hold, so that a written file again has none there.
 * "~" cannot begin an XML name.
 */
export function anonymousId(counter: number): Id {
  return `~${counter}`;
}

export function isAnonymous(id: Id): boolean {
  return id.startsWith("~");
}

/** Ids for what comes with an element: its flow, its shape. A dot is legal in ids and keeps the family readable. */
export function derivedId(taken: (id: Id) => boolean, base: Id, suffix: string): Id {
  const stem = isAnonymous(base) ? `unnamed.${base.slice(1)}` : base;
  let id = `${stem}.${suffix}`;
  for (let counter = 2; taken(id); counter++) id = `${stem}.${suffix}.${counter}`;
  return id;
}
