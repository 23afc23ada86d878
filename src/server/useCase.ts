import { z } from "zod";
import type { Problem } from "@/core/model";
import { type Database, database } from "@/data/database";

/** A person with access. For now there is one, built in; every use case takes who acts all the same. */
export interface Member {
  readonly id: string;
  readonly name: string;
}

/** A "no" a person can read, with the status a route answers with. */
export class UseCaseError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status = 400,
    readonly details: readonly Problem[] = [],
  ) {
    super(message);
  }
}

export const notFound = (what: string) =>
  new UseCaseError("not-found", `${what} is not in this workspace any more.`, 404);

export interface Context {
  readonly db: Database;
  readonly member: Member;
  readonly now: () => string;
}

export interface UseCase<Input, Output> {
  readonly input: z.ZodType<Input>;
  readonly run: (context: Context, input: Input) => Promise<Output>;
}

/** Who may, is it valid, then do it: the one shape of everything the server does. */
export function useCase<Input, Output>(
  input: z.ZodType<Input>,
  run: (context: Context, input: Input) => Promise<Output>,
): UseCase<Input, Output> {
  return { input, run };
}

export const localMember: Member = { id: "member-local", name: "Mara Aldous" };

/** Runs a use case for a member, on input that nobody has looked at yet. */
export async function runUseCase<Output>(
  member: Member,
  useCase: UseCase<never, Output>,
  input: unknown,
): Promise<Output> {
  const parsed = useCase.input.safeParse(input);
  if (!parsed.success)
    throw new UseCaseError("bad-input", `This request is not valid: ${z.prettifyError(parsed.error)}`, 400);
  const { db } = await database();
  return useCase.run({ db, member, now: () => new Date().toISOString() }, parsed.data);
}
