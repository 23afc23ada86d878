/** An answer that can be "no", with every reason. What must not happen is thrown instead. */
export type Result<Value, Reason = Problem> =
  | { readonly ok: true; readonly value: Value }
  | { readonly ok: false; readonly problems: readonly Reason[] };

/** Something that could not be done: a code for programs and tests, words for people. */
export interface Problem {
  readonly code: string;
  readonly message: string;
  readonly elements?: readonly string[];
  readonly line?: number;
  readonly column?: number;
}

export const ok = <Value>(value: Value) => ({ ok: true, value }) as const;
export const failure = (...problems: readonly Problem[]) => ({ ok: false, problems }) as const;
