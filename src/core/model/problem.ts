import type { Said } from "../messages";

/** An answer that can be "no", with every reason. What must not happen is thrown instead. */
export type Result<Value, Reason = Problem> =
  | { readonly ok: true; readonly value: Value }
  | { readonly ok: false; readonly problems: readonly Reason[] };

/** Something that could not be done: a code for programs and tests, words for people. */
export interface Problem {
  readonly code: string;
  /** The words in English. */
  readonly message: string;
  /** The same as code and data, for other languages. */
  readonly said: Said;
  readonly elements?: readonly string[];
  readonly line?: number;
  readonly column?: number;
}

export const ok = <Value>(value: Value) => ({ ok: true, value }) as const;

/** A problem as it is told: its words as code and data. */
export type Told = Omit<Problem, "message" | "said"> & { readonly message: Said };

export const problem = ({ message, ...rest }: Told): Problem => ({ ...rest, message: message.text, said: message });

export const failure = (...told: readonly (Told | Problem)[]) =>
  ({ ok: false, problems: told.map((one) => ("said" in one ? one : problem(one))) }) as const;
