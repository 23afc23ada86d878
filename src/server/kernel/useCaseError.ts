import { type Said, say, term } from "@/core/messages";
import type { Problem } from "@/core/model";

/** A "no" a person can read, with the status a route answers with. */
export class UseCaseError extends Error {
  /** The same for whoever reads another language: what was said, or a sentence that is its own code. */
  readonly said: Said;

  constructor(
    readonly code: string,
    words: string | Said,
    readonly status = 400,
    readonly details: readonly Problem[] = [],
    options?: ErrorOptions,
  ) {
    const said = typeof words === "string" ? term(words) : words;
    super(said.text, options);
    this.said = said;
  }
}

export const notFound = (what: string | Said) =>
  new UseCaseError(
    "not-found",
    say`${typeof what === "string" ? term(what) : what} is not in this workspace any more.`,
    404,
  );
