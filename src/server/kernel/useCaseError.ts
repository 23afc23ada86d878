import type { Problem } from "@/core/model";

/** A "no" a person can read, with the status a route answers with. */
export class UseCaseError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status = 400,
    readonly details: readonly Problem[] = [],
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

export const notFound = (what: string) =>
  new UseCaseError("not-found", `${what} is not in this workspace any more.`, 404);
