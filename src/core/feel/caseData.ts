import { type Said, say } from "../messages";
import type { DataType } from "./dataTypes";
import type { CaseData } from "./evaluate";

export type ReadValue = { readonly value: unknown } | { readonly reason: Said };

const noTypes: ReadonlyMap<string, DataType | undefined> = new Map();

/**
 * Data of a case as a person types it. Where it is known what kind of value is asked for, only that is read; elsewhere numbers, yes
 * and no, and lists or structures as JSON are taken as such, other words as text. What is empty or cannot be read is not given.
 * @example caseDataOf({ "rated power": "12", urgent: "yes", note: "" }) // { "rated power": 12, urgent: true }
 */
export function caseDataOf(typed: { readonly [name: string]: string }, types = noTypes): CaseData {
  const given = Object.entries(typed).flatMap(([name, words]) => {
    const read = words.trim() === "" ? undefined : readValue(words, types.get(name));
    return read && "value" in read ? [[name, read.value] as const] : [];
  });
  return Object.fromEntries(given);
}

const yes = /^(true|yes)$/i;
const no = /^(false|no)$/i;
const shapes = {
  date: [/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, say`A date is asked for here, as 2027-03-31.`],
  dateAndTime: [
    /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?(Z|[+-]\d\d:\d\d)?$/,
    say`A date and a time are asked for here, as 2027-03-31T14:30:00.`,
  ],
  time: [/^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$/, say`A time of day is asked for here, as 14:30:00.`],
  duration: [
    /^-?P(?=.)(\d+Y)?(\d+M)?(\d+D)?(T(?=.)(\d+H)?(\d+M)?(\d+(\.\d+)?S)?)?$/,
    say`A length of time is asked for here, as P2D for two days or PT4H for four hours.`,
  ],
} as const;

/** One value as typed, read as what is asked for; or why it cannot be. Points in time and lengths stay words of ISO 8601. */
export function readValue(typed: string, type?: DataType): ReadValue {
  const words = typed.trim();
  const isNumber = words !== "" && Number.isFinite(Number(words));
  switch (type) {
    case undefined:
      return { value: yes.test(words) ? true : no.test(words) ? false : isNumber ? Number(words) : textOrJson(words) };
    case "text":
      return { value: words.replace(/^"(.*)"$/, "$1") };
    case "number":
      return isNumber ? { value: Number(words) } : { reason: say`A number is asked for here, as 12 or 3.5.` };
    case "yesNo":
      if (yes.test(words) || no.test(words)) return { value: yes.test(words) };
      return { reason: say`Yes or no is asked for here.` };
    default: {
      const [shape, reason] = shapes[type];
      return shape.test(words) ? { value: words } : { reason };
    }
  }
}

function textOrJson(words: string): unknown {
  if (!/^[[{"]/.test(words)) return words;
  try {
    return JSON.parse(words);
  } catch {
    // Still being typed, or text that merely begins like it.
    return words;
  }
}
